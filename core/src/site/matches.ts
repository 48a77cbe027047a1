import type { ElementNode } from '../dom/tree.js';
import type { Page } from '../resolve/page.js';
import { selectorProblem } from '../selectors/selector-problem.js';
import { matchedInAnyState } from '../selectors/touched.js';
import type { SiteModel } from './site-model.js';

/** An element that a selector styles in some state. */
export interface Match {
  readonly pageId: number;
  readonly page: Page;
  readonly element: ElementNode;
}

/** Elements on all pages that a selector styles in some state, page by page; none where browsers drop it. */
export function matchesOf(site: SiteModel, selector: string): Match[] {
  if (selectorProblem(selector) !== null) return [];
  return [...site.pages].flatMap(([pageId, page]) =>
    matchedInAnyState(page, selector).map((element) => ({ pageId, page, element })),
  );
}
