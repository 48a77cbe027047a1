import { parseHtml } from './parse-html.js';
import { browserMatches } from '../testing/browser-reference.js';

// Reference: in Karma, Chromium's own tree of the same text, by the numbers of elements that selectors match.
describe('a page nested deeper than any walk', () => {
  const page = (depth: number): string =>
    `<!doctype html><body><main>${'<div>'.repeat(depth)}deep<b class=in>x</b>${'</div>'.repeat(depth)}<i class=after>y</i></main><p class=last>z</p>`;
  for (const depth of [500, 509, 510, 511, 512, 600, 3000]) {
    it(`keeps its numbers: ${depth} blocks in one another`, () => {
      const html = page(depth);
      const { elements } = parseHtml(html);
      expect(elements.map(({ localName }) => localName)).toEqual([
        'html',
        'head',
        'body',
        'main',
        ...Array.from({ length: depth }, () => 'div'),
        'b',
        'i',
        'p',
      ]);
      expect(elements.every(({ number }, i) => number === i)).toBeTrue();
      const found = (test: (element: (typeof elements)[number]) => boolean): number[] =>
        elements.filter(test).map(({ number }) => number);
      for (const [selector, own] of [
        ['.in', found(({ classes }) => classes.includes('in'))],
        ['main > .after', found(({ classes, parent }) => classes.includes('after') && parent?.localName === 'main')],
        [
          'div > .in:last-child',
          found(
            ({ classes, parent, position }) =>
              classes.includes('in') && parent?.localName === 'div' && position === parent.children.length - 1,
          ),
        ],
        [
          'div:empty',
          found(({ localName, children, ownText }) => localName === 'div' && children.length === 0 && ownText === ''),
        ],
      ] as const) {
        const theirs = browserMatches(html, selector);
        if (theirs !== null)
          expect(own)
            .withContext(selector)
            .toEqual(theirs as number[]);
      }
    });
  }
});
