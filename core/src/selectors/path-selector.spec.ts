import { parsePage } from '../resolve/page.js';
import { matchingElements } from './matching-elements.js';
import { parseSelectorList } from './parse-selector.js';
import { pathSelector } from './path-selector.js';

describe('the path to an element', () => {
  it('finds that element, and no other', () => {
    const page = parsePage(
      '<!doctype html><body><main id="a:b"><p>One<p>Two <b>x</b><b>y</b></main><ul><li><li><a href=x>z</a></ul><svg><path/><path/></svg>',
    );
    for (const element of page.document.elements) {
      const selector = pathSelector(element);
      expect([selector, matchingElements(page, parseSelectorList(selector))]).toEqual([selector, [element]]);
    }
  });
});
