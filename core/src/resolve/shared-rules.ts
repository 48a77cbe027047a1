import { rankLayers } from '../cascade/compare.js';
import type { PageDocument, SwitchClasses } from '../dom/tree.js';
import { switchClassesIn } from '../rules/switch-classes.js';
import { flattenSheets, type FlatRules } from '../rules/flatten-sheets.js';
import type { LoadSheet, Sheet } from '../rules/sheet.js';
import { indexByKey, indexRules, type RuleIndex, type RuleIndexes } from './index-rules.js';

/** Rules of a page's sheets, with what is made of them alone. */
export interface PageRules {
  readonly flat: FlatRules;
  /** The sheets that the rules name, in order; they may be those of another page that has the same. */
  readonly sheets: readonly Sheet[];
  readonly index: RuleIndexes;
  readonly switchClasses: SwitchClasses;
  readonly layerRanks: ReadonlyMap<string, number>;
}

interface Shared extends Omit<PageRules, 'index'> {
  readonly byKey: RuleIndex;
}

const known = new WeakMap<LoadSheet, Map<string, Shared>>();

/**
 * Rules of the sheets of a page. Pages that link the same sheets in the same order have them in common: they are flattened
 * and indexed once for a reader of sheets.
 */
export function rulesOf(document: PageDocument, sheets: readonly Sheet[], loadSheet: LoadSheet): PageRules {
  const key = sheets.every(({ tree }) => tree === document.root) ? keyOf(document, sheets) : null;
  if (key === null) return alone(document, sheets, loadSheet);
  let byKey = known.get(loadSheet);
  if (!byKey) known.set(loadSheet, (byKey = new Map()));
  const found = byKey.get(key);
  if (found) return { ...found, flat: { ...found.flat }, index: new Map([[document.root, found.byKey]]) };
  const own = alone(document, sheets, loadSheet);
  const { index, ...rest } = own;
  // A scope without a root of its own hangs on the element that brings its sheet.
  if (!rest.flat.rules.some(({ scopes, sheet }) => scopes.length > 0 && sheet.owner?.localName === 'style'))
    byKey.set(key, { ...rest, flat: { ...rest.flat }, byKey: index.get(document.root) ?? NO_INDEX });
  return own;
}

const NO_INDEX: RuleIndex = indexByKey([], false);

function alone(document: PageDocument, sheets: readonly Sheet[], loadSheet: LoadSheet): PageRules {
  const flat = flattenSheets(sheets, loadSheet, document.quirks);
  return {
    flat,
    sheets,
    index: indexRules(flat.rules, document),
    switchClasses: switchClassesIn(flat.rules),
    layerRanks: rankLayers(flat.layers),
  };
}

/** What two pages must have alike for their rules to be the same. */
function keyOf({ quirks }: PageDocument, sheets: readonly Sheet[]): string {
  return JSON.stringify([
    quirks,
    sheets.map((sheet) => [
      sheet.name,
      sheet.media,
      sheet.disabled,
      sheet.title,
      isInBody(sheet),
      sheet.owner?.localName === 'style' ? sheet.text : '',
    ]),
  ]);
}

/** Whether the element that brings a sheet stands outside the head. */
export function isInBody({ owner }: Sheet): boolean {
  for (let node = owner; node; node = node.parent) if (node.localName === 'head') return false;
  return owner !== null;
}
