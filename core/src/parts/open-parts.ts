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

/** The attribute changes that put away what a selector matches on a page: a dialog is closed, anything else is not displayed. */
export function closingsOf(page: Page, selector: string): Amendments {
  return new Map(
    matchingElements(page, parseSelectorList(selector)).map((element): [number, AttributeChange[]] => [
      element.number,
      element.localName === 'dialog' && element.attributes.has('open')
        ? [{ act: 'drop-attribute', name: 'open', value: '' }]
        : [
            {
              act: 'set-attribute',
              name: 'style',
              value: `${element.attributes.get('style') ?? ''}; display: none !important`,
            },
          ],
    ]),
  );
}
