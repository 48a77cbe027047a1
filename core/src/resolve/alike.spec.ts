import type { ElementNode } from '../dom/tree.js';
import { restContext } from '../selectors/match-context.js';
import { matchesSelector } from '../selectors/match-selector.js';
import { seededRandom } from '../testing/random.js';
import { parsePage, withVeneer, type Page } from './page.js';
import { StyleView } from './style-view.js';

const random = seededRandom(41);
const pick = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)];
const COMPOUNDS = [
  'a',
  'b',
  '.x',
  '.y',
  '#k',
  '[data-k]',
  '[data-k="1"]',
  '[data-m^="1"]',
  'a:hover',
  '.x:not(:hover)',
  ':is(.x, #k)',
  ':not([data-m="1"])',
  ':first-child',
  ':nth-child(2n)',
  ':last-of-type',
  ':empty',
  'a:focus-visible',
  ':has(> b)',
  'a:link',
  ':disabled',
  'button:not(.y)',
  ':root *',
];
const drawSelector = (): string => {
  let text = pick(COMPOUNDS);
  for (let more = Math.floor(random() * 3); more > 0; more -= 1)
    text += pick([' ', ' > ', ' + ', ' ~ ']) + pick(COMPOUNDS);
  return text;
};
const drawTree = (depth: number): string =>
  Array.from({ length: 1 + Math.floor(random() * 3) }, () => {
    const name = pick(['a', 'b', 'button', 'i']);
    const attributes = pick([
      '',
      '',
      ' class="x"',
      ' class="x y"',
      ' class=y',
      ' data-k=1',
      ' data-k=2',
      ' data-m=1',
      ' data-m=12',
      ' id=k',
      ' id=other',
      ' href=1',
      ' disabled',
    ]);
    return `<${name}${attributes}>${depth > 0 ? drawTree(depth - 1) : ''}</${name}>`;
  }).join('');
const STATES = [['hover'], ['focus-visible', 'focus'], ['.x'], ['!.x'], ['[data-k=1'], ['![data-m'], ['disabled']];

/** Texts of the author rules that match, each asked of the element alone: the matcher itself is held against Chromium elsewhere. */
function alone(page: Page, element: ElementNode, states: ReadonlyMap<ElementNode, ReadonlySet<string>>): string[] {
  const context = { ...restContext(page.document), states };
  return [...page.base.rules, ...page.veneerRules]
    .filter(({ selectors }) => selectors.some((selector) => matchesSelector(selector, element, context)))
    .map(({ selectors }) => selectors.map(({ text }) => text).join())
    .sort();
}

describe('what elements that are alike match', () => {
  it('is what each matches alone, in any state and with any veneer', () => {
    let matched = 0;
    for (let round = 0; round < 60; round += 1) {
      const css = Array.from(
        { length: 25 },
        () => `${drawSelector()}${random() < 0.3 ? `, ${drawSelector()}` : ''} { color: red }`,
      ).join('\n');
      const page = withVeneer(
        parsePage(`<!doctype html><style>${css}</style><body>${drawTree(3)}${drawTree(2).repeat(4)}`),
        round % 2 ? `${drawSelector()} { color: blue } [data-m="12"] .x { color: teal } #other b { color: navy }` : '',
      );
      const { elements } = page.document;
      const states = new Map<ElementNode, ReadonlySet<string>>();
      for (let i = round % 4; i > 0; i -= 1) states.set(pick(elements), new Set(pick(STATES)));
      const view = new StyleView(page, { states });
      for (const element of elements) {
        const found = view
          .style(element)
          .blocks.filter(({ origin, rule }) => origin === 'author' && rule !== null)
          .map(({ rule }) => (rule?.selectors ?? []).map(({ text }) => text).join())
          .sort();
        expect(found)
          .withContext(`round ${round}, ${element.localName} ${element.number}`)
          .toEqual(alone(page, element, states));
        matched += found.length;
      }
    }
    expect(matched).toBeGreaterThan(3_000);
  });
});
