import type { ElementNode, PageDocument } from '../dom/tree.js';
import { restContext } from './match-context.js';
import { matchesAny, matchesSelector } from './match-selector.js';
import { subjectOf, type ComplexSelector, type SelectorList } from './selector.js';

const listings = new WeakMap<PageDocument, ReadonlyMap<string, readonly ElementNode[]>>();

/** Elements of the document's own tree by what a subject may ask for: id, class, tag. */
function listingOf(document: PageDocument): ReadonlyMap<string, readonly ElementNode[]> {
  let listing = listings.get(document);
  if (!listing) {
    const built = new Map<string, ElementNode[]>();
    const add = (key: string, element: ElementNode): void => {
      const list = built.get(key);
      if (list) list.push(element);
      else built.set(key, [element]);
    };
    for (const element of document.elements) {
      if (element.root !== document.root) continue;
      add('*', element);
      add(`<${element.localName.toLowerCase()}`, element);
      if (element.id !== null) add(`#${element.id}`, element);
      for (const name of new Set(element.classes)) add(`.${name}`, element);
    }
    listings.set(document, (listing = built));
  }
  return listing;
}

function keyOf(selector: ComplexSelector): string {
  const { ids, classes, type } = subjectOf(selector);
  return ids.length > 0
    ? `#${ids[0]}`
    : classes.length > 0
      ? `.${classes[0]}`
      : type !== null
        ? `<${type.toLowerCase()}`
        : '*';
}

/** Elements of a page's own tree that any of some selectors matches as the page stands, in document order. */
export function matchingElements(page: { readonly document: PageDocument }, selectors: SelectorList): ElementNode[] {
  const { document } = page;
  const context = restContext(document);
  const listing = listingOf(document);
  // Quirks mode folds case in names, which the listing does not.
  if (document.quirks) return (listing.get('*') ?? []).filter((element) => matchesAny(selectors, element, context));
  if (selectors.length === 1)
    return (listing.get(keyOf(selectors[0])) ?? []).filter((element) =>
      matchesSelector(selectors[0], element, context),
    );
  const found = new Set(
    selectors.flatMap((selector) =>
      (listing.get(keyOf(selector)) ?? []).filter((element) => matchesSelector(selector, element, context)),
    ),
  );
  return [...found].sort((a, b) => a.number - b.number);
}
