import { seededRandom } from '../testing/random.js';
import { parsePage, withVeneer } from './page.js';
import { StyleView } from './style-view.js';

const HTML = `<!doctype html><style>.card { color: #333 } .card a { color: teal } .list li { background: inherit } b { color: currentcolor; border: 1px solid } .x:hover { color: red }</style>
<main class="card"><p class="x">a<b>b</b></p><a href="#">l<i>i</i></a><ul class="list"><li>1</li><li class="x">2<b>b</b></li></ul></main><aside class="card"><p class="x">a<b>b</b></p><a href="#">l<i>i</i></a></aside>`;
const SELECTORS = [
  '.card',
  '.card a',
  'p.x',
  'li',
  '.list .x',
  'b',
  'aside b',
  '*',
  'a i',
  '.x::before',
  'main > p',
  ':root',
];
const DECLARATIONS = [
  'color: green',
  'color: inherit',
  'background-color: gold',
  '--v: blue',
  'color: var(--v, navy)',
  'border-color: currentcolor',
  'font-size: 2em',
  'color: red !important',
  'opacity: .5',
  'all: unset',
];
const PROPERTIES = ['color', 'background-color', 'border-top-color', 'font-size', 'opacity', 'outline-color'];

function randomVeneer(random: () => number): string {
  const pick = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)];
  return Array.from(
    { length: Math.floor(random() * 5) },
    () => `${pick(SELECTORS)} { ${pick(DECLARATIONS)}; ${pick(DECLARATIONS)} }`,
  ).join('\n');
}

describe('StyleView', () => {
  // Reference: a view made anew, which takes nothing over.
  it('comes to the same values after a change of veneer as a view made anew', () => {
    const random = seededRandom(11);
    const page = parsePage(HTML);
    let view = new StyleView(withVeneer(page, ''));
    for (let round = 0; round < 300; round += 1) {
      const next = withVeneer(page, randomVeneer(random));
      for (const element of page.document.elements)
        for (const property of PROPERTIES) view.style(element).resolved(property);
      const { view: dressed } = view.dressed(next);
      const anew = new StyleView(next);
      for (const element of page.document.elements) {
        const own = PROPERTIES.map((property) => dressed.style(element).resolved(property));
        expect(own)
          .withContext(`round ${round}, element ${element.number}`)
          .toEqual(PROPERTIES.map((property) => anew.style(element).resolved(property)));
      }
      view = dressed;
    }
  });

  it('resolves again only what a change can touch', () => {
    const page = parsePage(HTML);
    const before = new StyleView(withVeneer(page, 'aside b { color: red } li { color: blue }'));
    const { touched } = before.dressed(withVeneer(page, 'aside b { color: green } li { color: blue }'));
    expect([...touched].map(({ localName }) => localName)).toEqual(['b']);
    expect(before.dressed(before.page).touched.size).toBe(0);
  });

  it('shares the work of alike elements and keeps unlike ones apart', () => {
    const page = parsePage(
      '<!doctype html><style>p { color: red } p[data-x] { color: blue } p:nth-child(3) { color: lime }</style><p>a</p><p>b</p><p>c</p><p data-x>d</p><p style="color: gold">e</p>',
    );
    const view = new StyleView(page);
    const paragraphs = page.document.elements
      .filter(({ localName }) => localName === 'p')
      .map((element) => view.style(element));
    expect(paragraphs[0].identity).toBe(paragraphs[1].identity);
    expect(new Set(paragraphs.map(({ identity }) => identity)).size).toBe(4);
    expect(paragraphs.map((style) => style.resolved('color'))).toEqual([
      'rgb(255, 0, 0)',
      'rgb(255, 0, 0)',
      'rgb(0, 255, 0)',
      'rgb(0, 0, 255)',
      'rgb(255, 215, 0)',
    ]);
  });
});
