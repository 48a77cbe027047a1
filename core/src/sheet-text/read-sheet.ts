import { message, type Message } from '../message/message.js';
import { shortfallOf } from '../resolve/shortfall.js';
import { compileOptionsOf, withSpecimen, type SiteModel } from '../site/site-model.js';
import { PLACEHOLDER } from '../veneer/colors-in-sheet.js';
import { compileVeneer, escapeEndTags, sectionsOf, veneerRules, writtenSheet } from '../veneer/compile-veneer.js';
import type { OwnCss } from '../veneer/own-css.js';
import type { Override } from '../veneer/override.js';
import { ownCssIn, type OwnPiece } from './own-pieces.js';
import { pairRules, type RulePair } from './pair-rules.js';
import { ruleAsOverrides } from './rule-overrides.js';
import { sameMeaning, sameTexts } from './same-meaning.js';
import { sheetItems, type SheetItem } from './sheet-items.js';

/** What an edited sheet comes to. */
export interface SheetReading {
  readonly put: readonly Override[];
  readonly drop: readonly string[];
  /** All CSS of the designer's own, where it is another than it was; `null` where it is the same. */
  readonly ownCss: readonly OwnCss[] | null;
  /** Rules that stand as own CSS since the edit, and why. */
  readonly kept: readonly KeptRule[];
  /** Whether it is shown to mean what the text says; `false` where not all of the pages could be read. */
  readonly isProved: boolean;
}

/** A rule that is kept as it is written. */
export interface KeptRule {
  readonly selector: string;
  readonly reason: Message;
  /** Where it stands in the text, UTF-16 units. */
  readonly start: number;
  readonly end: number;
}

/** The sheet of a site as it is edited: as it is compiled, nothing left out. */
export function sheetToEdit(site: SiteModel): string {
  return compileVeneer(site.overrides, compileOptionsOf(site));
}

/** The lines that the palette comes to, which stand first and are changed in the palette. */
export function paletteLines(site: SiteModel): string {
  const options = compileOptionsOf(site);
  return writtenSheet(veneerRules(site.overrides, options), options).blocks.join('\n\n');
}

/** A rule of the sheet as it was, with the overrides it is compiled from. */
interface BaseItem extends SheetItem {
  readonly overrides: readonly Override[];
  /** Whether it is own CSS. */
  readonly isOwn: boolean;
}

/** Where the text of an edit is read from. */
interface Edit {
  readonly site: SiteModel;
  readonly base: readonly BaseItem[];
  readonly items: readonly SheetItem[];
  /** Text after the lines of the palette. */
  readonly text: string;
  readonly newId: () => string;
}

/**
 * Reads an edited sheet back: what an override can say becomes one, or changes the one it was; what none can is kept as own CSS of its
 * section. What comes of it is compiled and held against the text, over every page, state and width; where the order of rules makes it
 * mean something else, more is kept as it is written, until it means the same.
 * @param text the edited sheet, whole by CSS Syntax 3, with the lines of the palette as they were.
 * @param newId gives ids that no override has.
 */
export function* readSheetSteps(
  site: SiteModel,
  text: string,
  newId: () => string,
): Generator<{ readonly done: number; readonly total: number }, SheetReading> {
  if (text === sheetToEdit(site)) return { put: [], drop: [], ownCss: null, kept: [], isProved: true };
  const edit = editOf(site, text, newId);
  const pairs = pairRules(edit.base, edit.items);
  const touched = new Set(
    pairs.filter(({ isSame }) => !isSame).flatMap(({ old, now }) => [old?.section, now?.section]),
  );
  const ways: readonly ((pair: RulePair<BaseItem>) => Message | null)[] = [
    () => null,
    ({ isSame }) => (isSame ? null : message('sheet.stands-elsewhere')),
    ({ now, old }) => (touched.has((now ?? old)?.section) ? ORDER : null),
    () => ORDER,
  ];
  const isWhole = [...withSpecimen(site).closed.values()].every((page) => shortfallOf(page) === 0);
  for (const [done, asOwn] of ways.entries()) {
    yield { done, total: ways.length };
    const reading = readPairs(edit, pairs, asOwn);
    // What was not read proves nothing of either.
    if (!isWhole) return { ...reading, isProved: false };
    if (sameMeaning(site, text, afterEdit(site, reading))) return reading;
  }
  return asItStands(edit);
}

const ORDER = message('sheet.own-order');

/** The whole text as own CSS, which means what it says. */
function asItStands({ site, text, items }: Edit): SheetReading {
  return {
    put: [],
    drop: site.overrides.map(({ id }) => id),
    ownCss: [{ partId: null, css: text.trim() }],
    kept: moved(
      items.map(({ selector, start, end }) => ({ selector, reason: ORDER, start, end })),
      site,
    ),
    isProved: true,
  };
}

/** Rules that are looked at one by one for whether they change anything. */
const MOST_LOOKED_AT = 40;

/** New and changed rules of an edited sheet that change nothing on any page, in any state or width; `more` were not looked at. */
export function* idleEditsSteps(
  site: SiteModel,
  text: string,
): Generator<
  { readonly done: number; readonly total: number },
  { readonly idle: readonly KeptRule[]; readonly more: number }
> {
  const edit = editOf(site, text, () => 'looked-at');
  const head = text.length - edit.text.length;
  const changed = pairRules(edit.base, edit.items).flatMap(({ now, isSame }) =>
    now && !isSame && now.declarations.some(({ value }) => !value.includes(PLACEHOLDER)) ? [now] : [],
  );
  const idle: KeptRule[] = [];
  const looked = changed.slice(0, MOST_LOOKED_AT);
  for (const [done, { selector, start, end }] of looked.entries()) {
    yield { done, total: looked.length };
    const [from, to] = [start + head, end + head];
    if (sameTexts(site, text, text.slice(0, from) + text.slice(to)))
      idle.push({ selector, reason: message('sheet.changes-nothing'), start: from, end: to });
  }
  return { idle, more: changed.length - looked.length };
}

/** Overrides and own CSS as a reading leaves them. */
export function afterEdit(
  { overrides, ownCss }: Pick<SiteModel, 'overrides' | 'ownCss'>,
  reading: Pick<SheetReading, 'put' | 'drop' | 'ownCss'>,
): { readonly overrides: readonly Override[]; readonly ownCss: readonly OwnCss[] } {
  const gone = new Set([...reading.drop, ...reading.put.map(({ id }) => id)]);
  return {
    overrides: [...overrides.filter(({ id }) => !gone.has(id)), ...reading.put],
    ownCss: reading.ownCss ?? ownCss,
  };
}

function editOf(site: SiteModel, text: string, newId: () => string): Edit {
  const options = compileOptionsOf(site);
  const sections = sectionsOf(options);
  const { blocks, rules, written } = writtenSheet(veneerRules(site.overrides, options), options);
  const byStart = new Map(written.map(({ start, rule }) => [start, rule]));
  const byId = new Map(site.overrides.map((override) => [override.id, override]));
  const base = sheetItems(rules, sections).items.map((item): BaseItem => {
    const rule = byStart.get(item.start);
    const overrides = (rule?.declarations ?? []).flatMap(({ from = [] }) => from.flatMap((id) => byId.get(id) ?? []));
    return { ...item, overrides, isOwn: !rule };
  });
  const head = blocks.join('\n\n');
  const own = text.startsWith(head) ? text.slice(head.length) : text;
  return { site, base, items: sheetItems(own, sections).items, text: own, newId };
}

function readPairs(
  { site, text, items, newId }: Edit,
  pairs: readonly RulePair<BaseItem>[],
  asOwn: (pair: RulePair<BaseItem>) => Message | null,
): SheetReading {
  const put: Override[] = [];
  const drop = new Set<string>();
  const own = new Map<SheetItem, OwnPiece>();
  const kept: KeptRule[] = [];
  for (const pair of pairs) {
    const { old, now, isSame } = pair;
    const forced = asOwn(pair);
    if (old?.isOwn !== true && forced === null && isSame) continue;
    const before = old?.overrides ?? [];
    if (!now) {
      for (const { id } of before) drop.add(id);
      continue;
    }
    const stays = old?.isOwn === true && (isSame || forced !== null);
    const read = stays
      ? { ok: false as const, reason: message('sheet.kept') }
      : forced !== null
        ? { ok: false as const, reason: forced }
        : ruleAsOverrides(now, { site, section: now.section, base: before, newId });
    if (!read.ok) {
      own.set(now, 'whole');
      if (!stays) kept.push({ selector: now.selector, reason: read.reason, start: now.start, end: now.end });
      for (const { id } of before) drop.add(id);
      continue;
    }
    const ids = new Set(read.overrides.map(({ id }) => id));
    for (const { id } of before) if (!ids.has(id)) drop.add(id);
    put.push(...read.overrides);
    if (read.rest.length === 0) continue;
    own.set(now, read.rest);
    const [{ start }] = read.rest;
    const names = [...new Set(read.rest.map(({ name }) => name))].join(', ');
    kept.push({
      selector: `${names} of ${now.selector}`,
      reason: read.reason ?? message('sheet.kept'),
      start,
      end: read.rest[read.rest.length - 1].end,
    });
  }
  const isChanged = changedAmong(site);
  const ownCss = ownCssIn(text, items, own);
  return {
    put: put.filter(isChanged),
    drop: [...drop],
    ownCss: sameOwnCss(ownCss, site.ownCss) ? null : ownCss,
    kept: moved(kept, site),
    isProved: true,
  };
}

/** Offsets in the rules' text as offsets in the whole. */
function moved(kept: readonly KeptRule[], site: SiteModel): KeptRule[] {
  const by = paletteLines(site).length;
  return kept.map((rule) => ({ ...rule, start: rule.start + by, end: rule.end + by }));
}

function changedAmong({ overrides }: SiteModel): (override: Override) => boolean {
  const known = new Map(overrides.map((override) => [override.id, JSON.stringify(sorted(override))]));
  return (override) => known.get(override.id) !== JSON.stringify(sorted(override));
}

/** An override's members in order, those that say nothing left out. */
function sorted(override: Override): [string, unknown][] {
  return Object.entries(override)
    .filter(([, value]) => value !== null && value !== undefined && value !== false)
    .sort(([a], [b]) => (a < b ? -1 : 1));
}

function sameOwnCss(a: readonly OwnCss[], b: readonly OwnCss[]): boolean {
  const key = (list: readonly OwnCss[]): string =>
    JSON.stringify(
      list
        .filter(({ css }) => css !== '')
        .map(({ partId, css }) => [partId, escapeEndTags(css)])
        .sort(([one], [other]) => Number(one) - Number(other)),
    );
  return key(a) === key(b);
}
