import { SelectorError, parseSelectorList } from '../selectors/parse-selector.js';
import type { SelectorList } from '../selectors/selector.js';
import type { BodyNode, DeclarationNode, QualifiedNode, SheetNode } from '../syntax/nodes.js';
import { parseStylesheet } from '../syntax/parse-stylesheet.js';
import { readAsQuirk } from './quirks.js';

/*
 * What the pages of a site have in common of a sheet they share: each text is parsed once, each selector of it once, and its
 * declarations stand in the same lists, by whose identity what is read from them is kept.
 */

/** Text that is kept parsed, UTF-16 units; what was asked for longest ago goes first. */
const MOST_KEPT = 16_000_000;
const sheets = new Map<string, SheetNode>();
let kept = 0;

/** A sheet, parsed once per text. */
export function parsedSheet(text: string): SheetNode {
  const known = sheets.get(text);
  if (known) {
    // Asked for last, it goes last.
    sheets.delete(text);
    sheets.set(text, known);
    return known;
  }
  const node = parseStylesheet(text);
  sheets.set(text, node);
  kept += text.length;
  for (const oldest of sheets.keys()) {
    if (kept <= MOST_KEPT || oldest === text) break;
    sheets.delete(oldest);
    kept -= oldest.length;
  }
  return node;
}

const TOP: SelectorList = [];
const selectors = new WeakMap<QualifiedNode, Map<SelectorList, SelectorList>>();

/**
 * Selectors of a rule, parsed once for all sheets it is part of.
 * @param nesting selectors of the style rule around; `null` where there is none to refer to, `undefined` at top level.
 * @throws {SelectorError} when the rule is to be dropped.
 */
export function parsedSelectors(
  node: QualifiedNode,
  nesting: SelectorList | null | undefined,
  namespaces: ReadonlyMap<string, string>,
): SelectorList {
  const parse = (): SelectorList =>
    parseSelectorList(node.prelude, {
      namespaces,
      ...(nesting === undefined ? { nesting: null } : { nesting, relative: 'nesting' as const }),
    });
  // Prefixes mean what the sheet around says.
  if (namespaces.size > 0 || nesting === null) return parse();
  let byNesting = selectors.get(node);
  if (!byNesting) selectors.set(node, (byNesting = new Map()));
  const known = byNesting.get(nesting ?? TOP);
  if (known) return known;
  const key = `${nesting ? '&' : ''}${node.prelude}`;
  const before = refused.get(key);
  if (before) throw before;
  try {
    const list = parse();
    byNesting.set(nesting ?? TOP, list);
    return list;
  } catch (error) {
    if (!(error instanceof SelectorError)) throw error;
    if (refused.size >= MOST_REFUSED) refused.clear();
    refused.set(key, error);
    throw error;
  }
}

/** Texts that are no selectors, with why: errors are dear to make, and a broken sheet has the same ones by the thousand. */
const refused = new Map<string, SelectorError>();
const MOST_REFUSED = 2_000;

type Run = readonly DeclarationNode[];
const runs = [
  new WeakMap<readonly BodyNode[], readonly (Run | BodyNode)[]>(),
  new WeakMap<readonly BodyNode[], readonly (Run | BodyNode)[]>(),
];

/** The content of a rule in order: declarations that follow on one another as one list, what else there is as it is. */
export function runsOf(body: readonly BodyNode[], quirks: boolean): readonly (Run | BodyNode)[] {
  const cache = runs[quirks ? 1 : 0];
  const known = cache.get(body);
  if (known) return known;
  const found: (Run | BodyNode)[] = [];
  let run: DeclarationNode[] = [];
  const flush = (): void => {
    if (run.length > 0) found.push(run);
    run = [];
  };
  for (const item of body) {
    if (item.kind === 'declaration') run.push(quirks ? readAsQuirk(item) : item);
    else {
      flush();
      found.push(item);
    }
  }
  flush();
  cache.set(body, found);
  return found;
}

export function isRun(item: Run | BodyNode): item is Run {
  return Array.isArray(item);
}
