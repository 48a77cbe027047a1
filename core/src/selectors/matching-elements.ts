import type { ElementNode } from '../dom/tree.js';
import type { Page } from '../resolve/page.js';
import { restContext } from './match-context.js';
import { matchesAny } from './match-selector.js';
import type { SelectorList } from './selector.js';

/** Elements of the document's own tree that a selector list matches as the page stands, in document order. */
export function matchingElements(page: Page, selectors: SelectorList): ElementNode[] {
  const context = restContext(page.document);
  return page.document.elements.filter((element) => element.root === page.document.root && matchesAny(selectors, element, context));
}
