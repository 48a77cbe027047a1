import type { Amendments, AttributeChange } from '../dom/amendment.js';
import type { Page } from '../resolve/page.js';
import { matchingElements } from '../selectors/matching-elements.js';
import { parseSelectorList } from '../selectors/parse-selector.js';
import type { Opener } from './part.js';

/** The attribute changes that openers make on a page. */
export function amendmentsOf(page: Page, openers: readonly Opener[]): Amendments {
  const amendments = new Map<number, AttributeChange[]>();
  for (const { selector, act, name, value } of openers) {
    for (const { number } of matchingElements(page, parseSelectorList(selector))) {
      const list = amendments.get(number);
      if (list) list.push({ act, name, value });
      else amendments.set(number, [{ act, name, value }]);
    }
  }
  return amendments;
}
