import type { Refusal } from './http/refusal.js';
import {
  HOUSE_PARTS,
  houseTold,
  OVERRIDABLE,
  colorOfCss,
  compileVeneer,
  houseProblem,
  markerSelector,
  nameKey,
  ownCssProblem,
  plainValuesIn,
  readBackDifference,
  readMarker,
  roleWords,
  selectorProblem,
  valueProblem,
  type LightingMarker,
  type Override,
  type OwnCss,
  message,
  type Message,
} from '@upper-veneer/core';
import { LRUCache } from 'lru-cache';
import type { DraftDocument, PaletteRequest } from '@upper-veneer/contract';
import type { Store } from './store.js';

/** Sheets compiled last, by store, site and version of its draft: every answer asks for it. */
const compiled = new WeakMap<Store, LRUCache<string, string>>();
const MOST_COMPILED = 40;

/** CSS of overrides as the draft would have it: a fork of it. */
export function compileFork(store: Store, siteId: number, overrides: readonly Override[]): string {
  return compileVeneer(overrides, {
    ...store.sheetOptions.bySite(siteId),
    palette: store.palettes.bySite(siteId),
    parts: store.parts.bySite(siteId),
    ownCss: store.ownCss.bySite(siteId),
  });
}

/** CSS of the draft. */
export function compileDraft(store: Store, siteId: number): string {
  let sheets = compiled.get(store);
  if (!sheets) compiled.set(store, (sheets = new LRUCache({ max: MOST_COMPILED })));
  const key = `${siteId} ${store.sites.byId(siteId)?.version ?? 0}`;
  let css = sheets.get(key);
  if (css === undefined) {
    css = compileFork(store, siteId, store.overrides.bySite(siteId));
    sheets.set(key, css);
  }
  return css;
}

/** Whether a browser reads the draft's sheet as it was meant: `null`, or the selector of the first rule it would not. */
export function misreadRule(
  store: Store,
  siteId: number,
  css: string,
  overrides: readonly Override[] = store.overrides.bySite(siteId),
): string | null {
  return readBackDifference(css, overrides, {
    ...store.sheetOptions.bySite(siteId),
    palette: store.palettes.bySite(siteId),
    parts: store.parts.bySite(siteId),
    ownCss: store.ownCss.bySite(siteId),
  });
}

/** The draft as the web client sees it. */
export function describeDraft(store: Store, siteId: number): DraftDocument {
  return {
    overrides: store.overrides.bySite(siteId),
    ownCss: store.ownCss.bySite(siteId),
    ...store.palettes.bySite(siteId),
    ...store.changes.labels(siteId),
    exceptions: store.exceptions.bySite(siteId),
    settings: store.settingsSheets.bySite(siteId),
    requests: store.requests.bySite(siteId),
    plans: store.plans.bySite(siteId),
    live: store.sites.live(siteId),
    structure: store.sites.byId(siteId)?.structure ?? 0,
    version: store.sites.byId(siteId)?.version ?? 0,
    revisions: store.revisions.summaries(siteId).map(({ untidied, fails, toLookAt, ...revision }) => ({
      ...revision,
      ...(untidied === 1 ? { isUntidied: true } : {}),
      ...(fails !== null && toLookAt !== null ? { proof: { fails, toLookAt } } : {}),
    })),
    equalsRevision: store.revisions.equalTo(siteId, compileDraft(store, siteId)),
    publishedRevision: store.revisions.published(siteId),
    formerCaptures: store.formerCaptures.count(siteId),
    looked: store.looked.bySite(siteId),
    leftDrafts: store.leftDrafts.summaries(siteId),
  };
}

/** What class rules cannot see: that selectors parse, colours are colours, and pages, parts and swatches exist. */
export function checkOverrides(store: Store, siteId: number, overrides: readonly Override[]): Refusal[] {
  const pages = new Set(store.pages.ids(siteId));
  const parts = new Set(store.parts.bySite(siteId).map(({ id }) => id));
  const palette = store.palettes.bySite(siteId);
  const swatches = new Set(palette.swatches.map(({ id }) => id));
  return overrides.flatMap((override, i) => {
    const errors: Refusal[] = [];
    const add = (field: string, reason: Message): number => errors.push({ field: `put.${i}.${field}`, reason });
    if (!pages.has(override.pageId)) add('pageId', message('wrong.no-page'));
    if (override.partId !== null && !parts.has(override.partId)) add('partId', message('wrong.no-part'));
    if (!OVERRIDABLE.has(override.property) && !override.property.startsWith('--'))
      add('property', message('wrong.no-bench-property'));
    const colors = plainValuesIn(override.value);
    if (colors.some((color) => color.kind === 'swatch' && !swatches.has(color.swatchId)))
      add('value.swatchId', message('wrong.no-swatch'));
    else {
      const problem = valueProblem(override.property, override.value, palette);
      if (problem !== null) add('value.css', problem);
    }
    for (const id of override.pages ?? [])
      if (!pages.has(id)) add('pages', message('wrong.no-page-numbered', { page: id }));
    const selector = selectorProblem(override.selector);
    if (selector !== null) add('selector', selector);
    return errors;
  });
}

/** What class rules cannot see of CSS written by hand: that it stays in its section, and that section is there, once. */
export function checkOwnCss(store: Store, siteId: number, ownCss: readonly OwnCss[]): Refusal[] {
  const parts = new Set(store.parts.bySite(siteId).map(({ id }) => id));
  return ownCss.flatMap(({ partId, css }, i) => {
    const problem = ownCssProblem(css);
    const isTwice = ownCss.findIndex((other) => other.partId === partId) !== i;
    return [
      ...(partId === null || parts.has(partId)
        ? []
        : [{ field: `ownCss.${i}.partId`, reason: message('wrong.no-part') }]),
      ...(isTwice ? [{ field: `ownCss.${i}.partId`, reason: message('wrong.own-css-twice') }] : []),
      ...(problem === null ? [] : [{ field: `ownCss.${i}.css`, reason: problem }]),
    ];
  });
}

/** What class rules cannot see of a palette: names told apart, colours that are colours, roles once and on swatches that are there, swatches in use kept. @param rebound overrides that change with it. */
export function checkPalette(
  store: Store,
  siteId: number,
  palette: PaletteRequest,
  rebound: readonly Override[] = [],
): Refusal[] {
  const errors: Refusal[] = [];
  const known = new Map(store.palettes.bySite(siteId).swatches.map((swatch) => [swatch.id, swatch]));
  const taken = new Set<string>();
  palette.swatches.forEach(({ id, name, css }, i) => {
    const field = `swatches.${i}`;
    if (id !== 0 && !known.has(id)) errors.push({ field: `${field}.id`, reason: message('wrong.no-swatch') });
    if (taken.has(nameKey(name)))
      errors.push({ field: `${field}.name`, reason: message('wrong.name-of-swatch', { name }) });
    taken.add(nameKey(name));
    if (colorOfCss(css) === null) errors.push({ field: `${field}.css`, reason: message('wrong.no-color', { css }) });
  });
  const names = new Set(palette.swatches.map(({ name }) => name));
  for (const [field, list] of [
    ['roles', palette.roles],
    ['second.roles', palette.second?.roles ?? []],
  ] as const)
    list.forEach(({ role, swatch }, i) => {
      if (!names.has(swatch))
        errors.push({ field: `${field}.${i}.swatch`, reason: message('wrong.no-swatch-named', { name: swatch }) });
      if (list.findIndex((other) => other.role === role) !== i)
        errors.push({ field: `${field}.${i}.role`, reason: message('wrong.filled-twice') });
    });
  if (palette.second?.told.kind === 'marker') {
    const marker = readMarker(markerSelector(palette.second.told as LightingMarker));
    if (!marker.ok) errors.push({ field: 'second.told', reason: marker.reason });
  }
  (palette.former ?? []).forEach((css, i) => {
    if (colorOfCss(css) === null) errors.push({ field: `former.${i}`, reason: message('wrong.no-color', { css }) });
  });
  for (const part of HOUSE_PARTS) {
    const css = palette.shape?.[part];
    const problem = css === undefined ? null : houseProblem(part, css);
    if (problem !== null)
      errors.push({
        field: `shape.${part}`,
        reason: message('wrong.house', { css: css?.slice(0, 60) ?? '', problem }),
      });
  }
  const kept = new Set(palette.swatches.map(({ id }) => id));
  const roles = new Set(palette.roles.map(({ role }) => role));
  const changed = new Map(rebound.map((override) => [override.id, override]));
  for (const { value, selector } of store.overrides
    .bySite(siteId)
    .map((override) => changed.get(override.id) ?? override)) {
    if (value.kind === 'house' && palette.shape !== undefined && !palette.shape?.[value.part])
      errors.push({
        field: `shape.${value.part}`,
        reason: message('wrong.house-used', { part: houseTold(value.part), selector }),
      });
    for (const color of plainValuesIn(value)) {
      if (color.kind === 'swatch' && !kept.has(color.swatchId))
        errors.push({
          field: 'swatches',
          reason: message('wrong.swatch-used', { name: known.get(color.swatchId)?.name ?? color.swatchId, selector }),
        });
      if (color.kind === 'role' && !roles.has(color.role))
        errors.push({ field: 'roles', reason: message('wrong.role-used', { role: roleWords(color.role), selector }) });
    }
  }
  return errors;
}
