import { parseHtml } from '../dom/parse-html.js';
import { browserMatches, isInBrowser } from '../testing/browser-reference.js';
import { seededRandom } from '../testing/random.js';
import { restContext, type MatchContext } from './match-context.js';
import { matchesAny } from './match-selector.js';
import { parseSelectorList } from './parse-selector.js';

const NAMES = ['a', 'b', 'c'];
const COMBINATORS = [' ', ' > ', ' + ', ' ~ '];

describe('matching in nested pages', () => {
  // Only where there is a browser to ask.
  if (isInBrowser)
    it('agrees with the browser on drawn selectors over drawn trees, :has() among them', () => {
      const draw = drawsFrom(20261126);
      for (let run = 0; run < 60; run += 1) {
        const html = `<!doctype html><title>t</title>${drawTree(draw, 4)}`;
        const document = parseHtml(html);
        for (let i = 0; i < 8; i += 1) {
          const selector = drawSelector(draw);
          const list = parseSelectorList(selector);
          const context = restContext(document);
          const own = document.elements
            .filter((element) => matchesAny(list, element, context))
            .map(({ number }) => number);
          expect(own)
            .withContext(`${selector} in ${html}`)
            .toEqual(browserMatches(html, selector) as number[]);
        }
      }
    });

  const hard: readonly (readonly [what: string, selector: string])[] = [
    ['descendants of descendants', `${'div '.repeat(30)}.none`],
    ['descendants that never stand under what is asked', `.none ${'div '.repeat(12)}div`],
    ['children under descendants', `.none > ${'div > div '.repeat(8)}div`],
    ['what :has() looks for below what it found', `div:has(${'div '.repeat(8)}.none)`],
    ['siblings in nested layers', `.none ${'i ~ b '.repeat(6)}i`],
  ];
  for (const [what, selector] of hard) {
    it(`takes steps in proportion to the page for ${what}`, () => {
      const depth = 400;
      const document = parseHtml(`<body>${'<div><i></i><b></b><i></i>'.repeat(depth)}`);
      const list = parseSelectorList(selector);
      const context: MatchContext = { ...restContext(document), budget: { steps: 1e9 } };
      for (const element of document.elements) matchesAny(list, element, context);
      // Each element looks at most once at each of what stands above and beside it, a compound.
      const bound = document.elements.length * (depth + 10) * list[0].compounds.length;
      expect(1e9 - context.budget.steps).toBeLessThan(bound);
    });
  }

  it('finds one element from 20,000 by one walk', () => {
    const document = parseHtml(`<body>${'<div class=a><p class=b></p></div>'.repeat(10_000)}`);
    const context: MatchContext = { ...restContext(document), budget: { steps: 200_000 } };
    const list = parseSelectorList('div:has(> .b):has(.missing, .b)');
    expect(document.elements.filter((element) => matchesAny(list, element, context)).length).toBe(10_000);
  });
});

interface Draws {
  below(count: number): number;
  pick<T>(from: readonly T[]): T;
}

function drawsFrom(seed: number): Draws {
  const random = seededRandom(seed);
  const below = (count: number): number => Math.floor(random() * count);
  return { below, pick: (from) => from[below(from.length)] };
}

function drawTree(draw: Draws, depth: number): string {
  let html = '';
  for (let i = draw.below(4); i >= 0; i -= 1) {
    const type = draw.pick(['div', 'section']);
    html += `<${type} class="${draw.pick(NAMES)}">${depth > 0 && draw.below(3) > 0 ? drawTree(draw, depth - 1) : ''}</${type}>`;
  }
  return html;
}

function drawCompound(draw: Draws): string {
  return draw.pick(['', 'div', 'section']) + (draw.below(3) > 0 ? `.${draw.pick(NAMES)}` : '') || '*';
}

function drawChain(draw: Draws, most: number): string {
  let text = drawCompound(draw);
  for (let i = draw.below(most); i > 0; i -= 1) text += draw.pick(COMBINATORS) + drawCompound(draw);
  return text;
}

function drawSelector(draw: Draws): string {
  if (draw.below(2) === 0) return drawChain(draw, 5);
  return `${drawChain(draw, 2)}:has(${draw.pick(['', '> ', '+ ', '~ '])}${drawChain(draw, 3)})${draw.pick(['', ` ${drawCompound(draw)}`])}`;
}
