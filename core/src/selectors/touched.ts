import type { ElementNode, PageDocument } from '../dom/tree.js';
import { partNamesFor } from '../dom/part-names.js';
import { matchingElements } from './matching-elements.js';
import { SelectorError, parseSelectorList } from './parse-selector.js';
import type { ComplexSelector } from './selector.js';
import { withoutStates } from './without-states.js';

/** A page, for what depends on its document alone. */
interface Captured {
  readonly document: PageDocument;
}

/** Elements of a page that a selector may style in some state, itself or a pseudo-element of theirs; parts of a shadow tree by their names. */
export function matchedInAnyState(page: Captured, selector: string): ElementNode[] {
  try {
    return [...new Set(withoutStates(parseSelectorList(selector)).flatMap((complex) => matchedBy(page, complex)))];
  } catch (error) {
    // A rule whose selector no browser reads styles nothing.
    if (error instanceof SelectorError) return [];
    throw error;
  }
}

function matchedBy(page: Captured, complex: ComplexSelector): ElementNode[] {
  const part = complex.pseudoElements.find(({ name }) => name === 'part');
  const subjects = matchingElements(page, [{ ...complex, pseudoElements: [] }]);
  if (!part) return subjects;
  return page.document.elements.filter(
    (element) =>
      element.root.host !== null &&
      element.attributes.has('part') &&
      subjects.some((host) => {
        const names = partNamesFor(element, host);
        return part.parts.every((name) => names.includes(name));
      }),
  );
}

/** What rules with these selectors may change on a page: elements they can match in some state, and all inside them, which may inherit. */
export function touchedOn(
  page: Captured,
  selectors: readonly string[],
  simulated: readonly ElementNode[] = [],
): { readonly hits: ReadonlySet<ElementNode>; readonly touched: readonly ElementNode[] } {
  const hits = new Set<ElementNode>([
    ...simulated,
    ...selectors.flatMap((selector) => matchedInAnyState(page, selector)),
  ]);
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
