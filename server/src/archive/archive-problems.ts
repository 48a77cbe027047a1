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
  message,
  type Message,
} from '@upper-veneer/core';
import { checkScope } from '../plan.js';
import { checkSheet } from '../settings.js';

/** Problems of an archive that are named. */
const MOST_NAMED = 5;

/** What the classes of an archive cannot see: that numbers lead somewhere, and that its CSS is CSS. Each names its place. */
export function archiveProblems({ head, steps, revisions, former }: SiteArchive): Message[] {
  const problems: Message[] = [];
  const add = (where: string, reason: Message | string | null): void => {
    if (reason !== null && problems.length < MOST_NAMED) problems.push(message('wrong.in-archive', { where, reason }));
  };
  const pages = new Set(head.pages.map(({ id }) => id));
  if (pages.size < head.pages.length) add('pages', message('wrong.two-of-a-number'));
  for (const [what, paths] of [
    ['pages', head.pages.map(({ path }) => path)],
    ['files', head.files.map(({ path }) => path)],
  ] as const) {
    for (const path of paths) if (!isSitePath(path)) add(what, message('wrong.leads-out', { path: path.slice(0, 80) }));
    if (new Set(paths).size < paths.length) add(what, message('wrong.two-of-a-path'));
  }
  const checked = new Set<string>();
  const overrides = (list: readonly Override[], where: string, isOnPages: boolean): void => {
    for (const override of list) {
      if (isOnPages && !pages.has(override.pageId))
        add(where, message('wrong.made-elsewhere', { selector: override.selector, page: override.pageId }));
      const key = JSON.stringify([override.selector, override.property, override.value]);
      if (checked.has(key)) continue;
      checked.add(key);
      add(where, reasonAgainst(override));
    }
  };
  const ownCss = (list: readonly OwnCss[], where: string): void => {
    for (const { css } of list) add(`${where}, own CSS`, ownCssProblem(css));
  };
  const palette = ({ swatches }: PaletteBody, where: string): void => {
    for (const { id, name, css } of swatches) {
      if (id === 0) add(where, message('wrong.swatch-unnumbered', { name }));
      if (colorOfCss(css) === null) add(where, message('wrong.swatch-no-color', { name, css: css.slice(0, 60) }));
    }
    if (new Set(swatches.map(({ name }) => name)).size < swatches.length)
      add(where, message('wrong.swatches-of-a-name'));
  };
  const step = (own: ArchiveStep, where: string): void => {
    overrides(own.put, where, true);
    ownCss(own.ownCss ?? [], where);
    if (own.palette) palette(own.palette, where);
    for (const { id, selector } of own.parts ?? [])
      add(`${where}, part ${id}`, id === 0 ? message('wrong.no-number') : selectorProblem(selector));
    for (const { scope } of own.plans ?? []) add(`${where}, plan`, checkScope(scope).at(0)?.reason ?? null);
    for (const sheet of own.settings ?? [])
      add(`${where}, settings of part ${sheet.partId}`, checkSheet(sheet).at(0)?.reason ?? null);
    for (const [id, order] of Object.entries(own.arrangement?.sheetOrders ?? {}))
      if (!pages.has(Number(id)) || !(order === null || isOrder(order)))
        add(`${where}, arrangement`, message('wrong.page-without-order', { page: id }));
    for (const [role, name] of Object.entries(own.naming?.names ?? {}))
      if (typeof name !== 'string' || !/^[a-z][a-z0-9-]{0,39}$/.test(name))
        add(`${where}, naming`, message('wrong.role-without-name', { role }));
  };
  step(head.start, 'start');
  for (const name of ['palette', 'parts', 'ownCss', 'exceptions', 'plans', 'arrangement', 'naming'] as const)
    if (head.start[name] === undefined) add('start', message('wrong.is-missing', { name }));
  steps.forEach((own, i) => step(own, `history, step ${i + 1}`));
  if (head.undone > steps.length) add('undone', message('wrong.undone', { undone: head.undone, steps: steps.length }));
  for (const { number, overrides: list, basis } of revisions) {
    overrides(list, `revision ${number}`, false);
    if (basis) {
      palette(basis.palette, `revision ${number}`);
      ownCss(basis.ownCss, `revision ${number}`);
    }
  }
  const numbers = new Set(revisions.map(({ number }) => number));
  if (numbers.size < revisions.length) add('revisions', message('wrong.two-of-a-number'));
  for (const { revision } of head.publications)
    if (!numbers.has(revision)) add('publications', message('wrong.no-revision', { revision }));
  for (const { name, revision } of [...(head.variations ?? []), ...(head.trials ?? []).flatMap(({ looks }) => looks)])
    if (!numbers.has(revision)) add('trials', message('wrong.no-revision-of', { revision, name }));
  for (const { pageId, overrides: list } of former) {
    if (!pages.has(pageId)) add('former captures', message('wrong.no-page-here', { page: pageId }));
    overrides(list, 'former captures', false);
  }
  for (const { pageId } of head.looked)
    if (!pages.has(pageId)) add('looked', message('wrong.no-page-here', { page: pageId }));
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

function reasonAgainst({ property, value, selector }: Override): Message | null {
  if (!OVERRIDABLE.has(property) && !property.startsWith('--')) return message('wrong.no-property-named', { property });
  const shown = withAnyColor(value);
  return selectorProblem(selector) ?? (shown && valueProblem(property, shown, NO_PALETTE));
}

function isSitePath(path: string): boolean {
  return !path.includes('\\') && path.split('/').every((name) => name !== '' && name !== '.' && name !== '..');
}

function isOrder(order: unknown): order is readonly number[] {
  return (
    Array.isArray(order) && order.length <= 500 && order.every((place) => Number.isSafeInteger(place) && place >= 0)
  );
}
