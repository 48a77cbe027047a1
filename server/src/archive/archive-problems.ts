import type { ArchiveStep, PaletteBody, SiteArchive } from '@upper-veneer/contract';
import {
  OVERRIDABLE,
  colorOfCss,
  ownCssProblem,
  selectorProblem,
  valueProblem,
  type Override,
  type OverrideValue,
  type OwnCss,
  type Palette,
  type PlainValue,
} from '@upper-veneer/core';
import { spoken } from '@upper-veneer/words';
import { checkScope } from '../plan.js';
import { checkSheet } from '../settings.js';

/** Problems of an archive that are named. */
const MOST_NAMED = 5;

/** What the classes of an archive cannot see: that numbers lead somewhere, and that its CSS is CSS. Each names its place. */
export function archiveProblems({ head, steps, revisions, former }: SiteArchive): string[] {
  const problems: string[] = [];
  const add = (where: string, reason: string | null): void => {
    if (reason !== null && problems.length < MOST_NAMED) problems.push(`${where}: ${reason}`);
  };
  const pages = new Set(head.pages.map(({ id }) => id));
  if (pages.size < head.pages.length) add('pages', 'two of them have one number');
  for (const [what, paths] of [
    ['pages', head.pages.map(({ path }) => path)],
    ['files', head.files.map(({ path }) => path)],
  ] as const) {
    for (const path of paths) if (!isSitePath(path)) add(what, `"${path.slice(0, 80)}" leads out of the site`);
    if (new Set(paths).size < paths.length) add(what, 'two of them have one path');
  }
  const checked = new Set<string>();
  const overrides = (list: readonly Override[], where: string, isOnPages: boolean): void => {
    for (const override of list) {
      if (isOnPages && !pages.has(override.pageId))
        add(where, `${override.selector} is made on page ${override.pageId}, which is not here`);
      const key = JSON.stringify([override.selector, override.property, override.value]);
      if (checked.has(key)) continue;
      checked.add(key);
      add(where, reasonAgainst(override));
    }
  };
  const ownCss = (list: readonly OwnCss[], where: string): void => {
    for (const { css } of list) add(`${where}, own CSS`, spoken(ownCssProblem(css)));
  };
  const palette = ({ swatches }: PaletteBody, where: string): void => {
    for (const { id, name, css } of swatches) {
      if (id === 0) add(where, `the swatch ${name} has no number`);
      if (colorOfCss(css) === null) add(where, `the swatch ${name} is "${css.slice(0, 60)}", which is no colour`);
    }
    if (new Set(swatches.map(({ name }) => name)).size < swatches.length) add(where, 'two swatches have one name');
  };
  const step = (own: ArchiveStep, where: string): void => {
    overrides(own.put, where, true);
    ownCss(own.ownCss ?? [], where);
    if (own.palette) palette(own.palette, where);
    for (const { id, selector } of own.parts ?? [])
      add(`${where}, part ${id}`, id === 0 ? 'has no number' : spoken(selectorProblem(selector)));
    for (const { scope } of own.plans ?? []) add(`${where}, plan`, checkScope(scope).at(0)?.reason ?? null);
    for (const sheet of own.settings ?? [])
      add(`${where}, settings of part ${sheet.partId}`, checkSheet(sheet).at(0)?.reason ?? null);
    for (const [id, order] of Object.entries(own.arrangement?.sheetOrders ?? {}))
      if (!pages.has(Number(id)) || !(order === null || isOrder(order)))
        add(`${where}, arrangement`, `page ${id} has no order`);
    for (const [role, name] of Object.entries(own.naming?.names ?? {}))
      if (typeof name !== 'string' || !/^[a-z][a-z0-9-]{0,39}$/.test(name))
        add(`${where}, naming`, `${role} has no name`);
  };
  step(head.start, 'start');
  for (const name of ['palette', 'parts', 'ownCss', 'exceptions', 'plans', 'arrangement', 'naming'] as const)
    if (head.start[name] === undefined) add('start', `${name} is missing`);
  steps.forEach((own, i) => step(own, `history, step ${i + 1}`));
  if (head.undone > steps.length) add('undone', `${head.undone} of ${steps.length} steps cannot be undone`);
  for (const { number, overrides: list, basis } of revisions) {
    overrides(list, `revision ${number}`, false);
    if (basis) {
      palette(basis.palette, `revision ${number}`);
      ownCss(basis.ownCss, `revision ${number}`);
    }
  }
  const numbers = new Set(revisions.map(({ number }) => number));
  if (numbers.size < revisions.length) add('revisions', 'two of them have one number');
  for (const { revision } of head.publications)
    if (!numbers.has(revision)) add('publications', `there is no revision ${revision}`);
  for (const { name, revision } of [...(head.variations ?? []), ...(head.trials ?? []).flatMap(({ looks }) => looks)])
    if (!numbers.has(revision)) add('trials', `there is no revision ${revision}, which ${name} is of`);
  for (const { pageId, overrides: list } of former) {
    if (!pages.has(pageId)) add('former captures', `there is no page ${pageId}`);
    overrides(list, 'former captures', false);
  }
  for (const { pageId } of head.looked) if (!pages.has(pageId)) add('looked', `there is no page ${pageId}`);
  return problems;
}

const NO_PALETTE: Palette = { swatches: [], roles: [] };

/** A value with some colour in place of each of the palette's; `null` for one that is the palette's alone. */
function withAnyColor(value: OverrideValue): OverrideValue | null {
  const any = (plain: PlainValue): PlainValue =>
    plain.kind === 'literal' ? plain : { kind: 'literal', css: '#808080' };
  if (value.kind === 'composite') return { ...value, colors: value.colors.map(any) };
  return value.kind === 'literal' ? value : null;
}

function reasonAgainst({ property, value, selector }: Override): string | null {
  if (!OVERRIDABLE.has(property) && !property.startsWith('--'))
    return `${property} is no property an override can have`;
  const shown = withAnyColor(value);
  return spoken(selectorProblem(selector)) ?? (shown && spoken(valueProblem(property, shown, NO_PALETTE)));
}

function isSitePath(path: string): boolean {
  return !path.includes('\\') && path.split('/').every((name) => name !== '' && name !== '.' && name !== '..');
}

function isOrder(order: unknown): order is readonly number[] {
  return (
    Array.isArray(order) && order.length <= 500 && order.every((place) => Number.isSafeInteger(place) && place >= 0)
  );
}
