import type { ElementNode } from '../dom/tree.js';
import type { Page } from '../resolve/page.js';
import { matchesAny } from '../selectors/match-selector.js';
import { restContext } from '../selectors/match-context.js';
import { SelectorError, parseSelectorList } from '../selectors/parse-selector.js';
import type { SelectorList } from '../selectors/selector.js';

/** Pseudo-classes that hold in some state or other of an element. */
const STATES = /:(?:hover|focus-visible|focus-within|focus|active|visited|link|disabled|enabled|checked|user-invalid|invalid|valid|placeholder-shown)(?![-\w(])/g;

/** A selector that matches whatever a rule's selector may match in any state; `null` where that is everything. */
export function statelessSelectors(selector: string): SelectorList | null {
  const bare = selector.replace(/:not\(\s*:(?:placeholder-shown|hover|focus|disabled)\s*\)/g, '').replace(STATES, '').replace(/(^|[\s,>+~(])(?=$|[\s,>+~)]|::)/g, '$1*');
  try {
    return parseSelectorList(bare);
  } catch (error) {
    if (error instanceof SelectorError) return null;
    throw error;
  }
}

/** What rules with these selectors may change on a page: elements they can match in some state, and all inside them, which may inherit. */
export function touchedOn(page: Page, selectors: readonly string[], simulated: readonly ElementNode[] = []): { readonly hits: ReadonlySet<ElementNode>; readonly touched: readonly ElementNode[] } {
  const context = restContext(page.document);
  const lists = selectors.map(statelessSelectors);
  const hits = new Set<ElementNode>(simulated);
  for (const element of page.document.elements) {
    if (lists.some((list) => list === null || matchesAny(list, element, context) || list.some((selector) => selector.pseudoElements.some(({ name }) => name === 'part')))) hits.add(element);
  }
  if (hits.size === 0) return { hits, touched: [] };
  const inside = new Map<ElementNode, boolean>();
  const isInside = (element: ElementNode): boolean => {
    const known = inside.get(element);
    if (known !== undefined) return known;
    const answer = hits.has(element) || (element.flatParent !== null && isInside(element.flatParent));
    inside.set(element, answer);
    return answer;
  };
  return { hits, touched: page.document.elements.filter(isInside) };
}
