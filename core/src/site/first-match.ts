import { selectorProblem } from '../selectors/selector-problem.js';
import { matchedInAnyState } from '../selectors/touched.js';
import type { Spot } from '../veneer/override.js';
import type { SiteModel } from './site-model.js';

/** The first element on any page that a selector styles in some state; `null` where there is none, or browsers drop it. */
export function firstMatch(site: SiteModel, selector: string): Spot | null {
  if (selectorProblem(selector) !== null) return null;
  for (const [pageId, page] of site.pages) {
    const [element] = matchedInAnyState(page, selector);
    if (element) return { pageId, element: element.number };
  }
  return null;
}
