import type { SheetItem } from './sheet-items.js';

/** A rule of the sheet as it was, with what stands in its place; `null` where nothing does. */
export interface RulePair<Old extends SheetItem> {
  readonly old: Old | null;
  readonly now: SheetItem | null;
  /** Whether both say the same, in the same section. */
  readonly isSame: boolean;
}

/** What a rule says, by which two are told to be the same. */
export function meaningKey(item: SheetItem): string {
  return JSON.stringify([item.within, item.selector, bodyOf(item)]);
}

function bodyOf({ declarations }: SheetItem): string {
  return declarations
    .map(({ name, value, important }) => `${name}: ${value}${important ? ' !important' : ''}`)
    .join(';');
}

/**
 * Finds for each rule of a sheet what stands in its place in another: the same rule, else one of its selector under its conditions, else
 * one that says the same of other elements or under other conditions, else what stands between the same neighbours.
 */
export function pairRules<Old extends SheetItem>(before: readonly Old[], after: readonly SheetItem[]): RulePair<Old>[] {
  const found = new Map<SheetItem, Old>();
  const taken = new Set<Old>();
  const pair = (keyOf: (item: SheetItem) => string): void => {
    const waiting = new Map<string, Old[]>();
    for (const old of before) {
      if (taken.has(old)) continue;
      const key = keyOf(old);
      const list = waiting.get(key);
      if (list) list.push(old);
      else waiting.set(key, [old]);
    }
    for (const now of after) {
      const old = found.has(now) ? undefined : waiting.get(keyOf(now))?.shift();
      if (!old) continue;
      found.set(now, old);
      taken.add(old);
    }
  };
  const inSection = (item: SheetItem): string => String(item.section);
  pair((item) => `${inSection(item)} ${meaningKey(item)}`);
  pair((item) => JSON.stringify([inSection(item), item.within, item.selector]));
  pair((item) => JSON.stringify([item.within, item.selector]));
  pair((item) => JSON.stringify([inSection(item), item.within, bodyOf(item)]));
  pair((item) => JSON.stringify([inSection(item), item.selector, bodyOf(item)]));
  byNeighbours(before, after, found, taken);
  return [
    ...after.map((now): RulePair<Old> => {
      const old = found.get(now) ?? null;
      return { old, now, isSame: old !== null && old.section === now.section && meaningKey(old) === meaningKey(now) };
    }),
    ...before.filter((old) => !taken.has(old)).map((old): RulePair<Old> => ({ old, now: null, isSame: false })),
  ];
}

/** Pairs what is left where it follows the same rule, and has a property in common. */
function byNeighbours<Old extends SheetItem>(
  before: readonly Old[],
  after: readonly SheetItem[],
  found: Map<SheetItem, Old>,
  taken: Set<Old>,
): void {
  const places = new Map(before.map((old, i) => [old, i]));
  for (let i = 0; i < after.length; i += 1) {
    const now = after[i];
    if (found.has(now)) continue;
    const left = i === 0 ? undefined : found.get(after[i - 1]);
    const old = before[left ? (places.get(left) ?? -1) + 1 : i === 0 ? 0 : -1];
    if (!old || taken.has(old) || old.section !== now.section) continue;
    const names = new Set(old.declarations.map(({ name }) => name));
    if (!now.declarations.some(({ name }) => names.has(name))) continue;
    found.set(now, old);
    taken.add(old);
  }
}
