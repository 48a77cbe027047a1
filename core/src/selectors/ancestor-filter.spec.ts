import { parseHtml } from '../dom/parse-html.js';
import { ancestorBits, filterAbove, mayStandUnder } from './ancestor-filter.js';
import { restContext } from './match-context.js';
import { matchesSelector } from './match-selector.js';
import { parseSelectorList } from './parse-selector.js';

describe('the ancestor filter', () => {
  const document = parseHtml(
    '<body class="Page"><div id="a" class="x y"><p class="s"></p><p class="t"><b class="z"><i></i></b></p></div><section><i></i></section></body>',
  );
  const selectors = [
    '.x i',
    '#a > p > b i',
    '.s + .t i',
    '.x .s ~ .t b',
    'section i',
    '.none i',
    '.x > i',
    'body.page i',
    'i',
    '.y .s + p > .z',
    'DIV i',
    ':is(.none) i',
    ':not(.x) i',
  ];
  // Matching itself is the reference: the filter may pass what does not match, never stop what does.
  for (const text of selectors) {
    it(`never stops a match of ${text}`, () => {
      const [selector] = parseSelectorList(text);
      for (const element of document.elements) {
        if (matchesSelector(selector, element, restContext(document)))
          expect(mayStandUnder(ancestorBits(selector), filterAbove(element)))
            .withContext(String(element.number))
            .toBe(true);
      }
    });
  }

  it('stops what stands under nothing of the name', () => {
    const [selector] = parseSelectorList('.none i');
    expect(
      document.elements
        .filter(({ localName }) => localName === 'i')
        .map((element) => mayStandUnder(ancestorBits(selector), filterAbove(element))),
    ).toEqual([false, false]);
  });
});
