import { colorOfSetting, readSettings, settingProblem, type SettingField } from '@upper-veneer/core';
import { spoken } from '@upper-veneer/words';
import express, { Router, type NextFunction, type Request, type Response } from 'express';
import type { Store } from '../store.js';
import { settingsForm } from './settings-form.js';

/** Writes that a widget takes within a time, as makers bound them. */
const MOST_WRITES = 10;
const WITHIN_MS = 10_000;

export interface SettingsServiceOptions {
  readonly store: Pick<Store, 'assets' | 'makerSettings'>;
  readonly now?: () => number;
}

/** Nothing but the form itself works on a maker's page. */
const FORM_POLICY = "default-src 'none'; style-src 'unsafe-inline'; form-action 'self'; frame-ancestors 'none'";

interface Refusal {
  readonly status: number;
  readonly detail: string;
  /** Seconds to wait; 0 for none. */
  readonly wait: number;
}

type MakerField = Omit<SettingField, 'id'>;

/**
 * The makers' own settings service of the stand-in host, on the origin their widgets come from: what a widget offers is a JSON
 * file beside it; values are read, taken, refused with the reason, or put off where they come too often.
 */
export function settingsService({ store, now = Date.now }: SettingsServiceOptions): Router {
  const router = Router();
  const writes = new Map<string, number[]>();
  router.use('/:siteId/settings', express.json({ limit: '64kb' }));
  router.get('/:siteId/settings/:widget', (request, response) => {
    const offered = offeredBy(store, Number(request.params.siteId), request.params.widget);
    if (!offered) {
      response.status(404).json({ detail: 'no widget of that name takes settings' });
      return;
    }
    const held = heldFor(store, Number(request.params.siteId), request.params.widget, lookIn(request));
    if (request.accepts(['json', 'html']) === 'html') {
      const told = typeof request.query['told'] === 'string' ? request.query['told'].slice(0, 300) : '';
      response
        .set({ 'content-security-policy': FORM_POLICY, 'cache-control': 'no-store', 'referrer-policy': 'no-referrer' })
        .type('html')
        .send(settingsForm(request.params.widget, offered.fields, held, told));
      return;
    }
    response.set('cache-control', 'no-store').json({
      settings: offered.fields.map(({ name, notation, present, presets, places }) => ({
        name,
        notation,
        value: held.get(name) ?? present,
        presets: presets.map((preset) => ({ name: preset.name, color: preset.css })),
        affects: places,
      })),
      fixed: offered.fixed.map(({ css, ...place }) => ({ ...place, color: css })),
      address: offered.address,
    });
  });
  /** Takes values. @returns `null`, or why they were not taken and how long to wait, s. */
  const take = (
    siteId: number,
    widget: string,
    look: string,
    values: ReadonlyMap<string, string> | null,
  ): Refusal | null => {
    const offered = offeredBy(store, siteId, widget);
    if (!offered) return { status: 404, detail: 'no widget of that name takes settings', wait: 0 };
    const key = `${siteId}/${widget}`;
    const recent = (writes.get(key) ?? []).filter((at) => now() - at < WITHIN_MS);
    if (recent.length >= MOST_WRITES)
      return {
        status: 429,
        detail: 'too many requests',
        wait: Math.max(1, Math.ceil((recent[0] + WITHIN_MS - now()) / 1000)),
      };
    writes.set(key, [...recent, now()]);
    const problem = values ? problemOf(values, offered.fields) : 'the body holds no values by name';
    if (!values || problem !== null) return { status: 422, detail: problem ?? '', wait: 0 };
    store.makerSettings.put(siteId, keyOf(widget, look), values);
    return null;
  };
  router.put('/:siteId/settings/:widget', (request, response) => {
    const { siteId, widget } = request.params;
    const refusal = take(Number(siteId), widget, lookIn(request), valuesIn(request.body));
    if (!refusal) {
      response.status(204).end();
      return;
    }
    if (refusal.wait > 0) response.set('retry-after', String(refusal.wait));
    response.status(refusal.status).json({ detail: refusal.detail });
  });
  // The maker's own page, for those who type: a form in the maker's order.
  router.post(
    '/:siteId/settings/:widget',
    express.urlencoded({ extended: false, limit: '64kb' }),
    (request, response) => {
      const { siteId, widget } = request.params;
      const refusal = take(
        Number(siteId),
        widget,
        lookIn(request),
        valuesIn({ values: { ...(request.body as object) } }),
      );
      const told = refusal ? `Not taken: ${refusal.detail}` : 'Taken';
      response.redirect(303, `${request.path}?told=${encodeURIComponent(told)}`);
    },
  );
  router.use('/:siteId/settings', (error: unknown, _request: Request, response: Response, next: NextFunction) => {
    if (response.headersSent) next(error);
    else response.status(400).json({ detail: 'the body is not JSON, or too large' });
  });
  return router;
}

/** A widget's document with the values it was given, as its maker serves it: through the custom properties its code reads. */
export function widgetWithSettings(
  store: SettingsServiceOptions['store'],
  siteId: number,
  { path, html, look }: { readonly path: string; readonly html: string; readonly look: string },
): string {
  const widget = /^widgets\/([\w-]{1,60})\.html$/.exec(path)?.[1];
  const offered = widget === undefined ? null : offeredBy(store, siteId, widget);
  if (widget === undefined || !offered) return html;
  const held = heldFor(store, siteId, widget, look);
  const declared = offered.fields.flatMap((field) => {
    const value = held.get(field.name);
    const css = value === undefined ? null : cssOf(field, value);
    return css === null
      ? []
      : field.places.filter(({ property }) => property.startsWith('--')).map(({ property }) => `${property}: ${css};`);
  });
  return declared.length === 0
    ? html
    : html.replace('</head>', () => `<style>:root { ${[...new Set(declared)].join(' ')} }</style></head>`);
}

/** What stands there for everybody, and over it what was set for those who are given a look. */
function heldFor(
  { makerSettings }: SettingsServiceOptions['store'],
  siteId: number,
  widget: string,
  look: string,
): ReadonlyMap<string, string> {
  const all = makerSettings.byWidget(siteId, widget);
  return look === '' ? all : new Map([...all, ...makerSettings.byWidget(siteId, keyOf(widget, look))]);
}

function keyOf(widget: string, look: string): string {
  return look === '' ? widget : `${widget}~${look}`;
}

/** The look that is asked for; empty for none. */
export function lookIn({ query }: Pick<Request, 'query'>): string {
  const { look } = query;
  return typeof look === 'string' && /^[A-F]$/.test(look) ? look : '';
}

function offeredBy(
  store: SettingsServiceOptions['store'],
  siteId: number,
  widget: string,
): ReturnType<typeof readSettings> | null {
  if (!Number.isSafeInteger(siteId) || !/^[\w-]{1,60}$/.test(widget)) return null;
  const file = store.assets.byPath(siteId, `widgets/${widget}.settings.json`);
  return file ? readSettings(file.body.toString('utf8')) : null;
}

function valuesIn(body: unknown): ReadonlyMap<string, string> | null {
  const values = typeof body === 'object' && body !== null && 'values' in body ? body.values : null;
  if (typeof values !== 'object' || values === null || Array.isArray(values)) return null;
  const entries = Object.entries(values as Record<string, unknown>);
  return entries.length > 0 && entries.length <= 60 && entries.every(([, value]) => typeof value === 'string')
    ? new Map(entries as [string, string][])
    : null;
}

function problemOf(values: ReadonlyMap<string, string>, fields: readonly MakerField[]): string | null {
  for (const [name, value] of values) {
    const field = fields.find((own) => own.name === name);
    if (!field) return `there is no setting "${name.slice(0, 80)}"`;
    const problem = spoken(settingProblem(field, value));
    if (problem !== null) return `${name}: "${value.slice(0, 40)}" ${problem}`;
  }
  return null;
}

function cssOf(field: MakerField, value: string): string | null {
  if (field.notation === 'px') return `${value.trim().replace(/ ?px$/i, '')}px`;
  if (!colorOfSetting(field, value)) return null;
  const text = value.trim();
  switch (field.notation) {
    case 'hex':
      return text;
    case 'bare-hex':
      return `#${text}`;
    case 'three-numbers':
      return `rgb(${(text.match(/\d{1,3}/g) ?? []).slice(0, 3).join(', ')})`;
    case 'preset':
      return field.presets.find(({ name }) => name.toLowerCase() === text.toLowerCase())?.css ?? null;
  }
}
