import { pointerStates } from '../elsewhere/pointer-states.js';
import { seededRandom } from '../testing/random.js';
import { applicableStates } from '../grid/applicable-states.js';
import { parsePage, withVeneer } from './page.js';
import { StyleShare, isByWidth } from './style-share.js';
import { StyleView } from './style-view.js';

const THEME = `.card { color: #333; --tone: teal } .card:hover a { color: var(--tone) } a:visited { color: purple } a:focus + b { color: navy } li:nth-child(2 of :hover) { color: lime }
input:checked ~ .knob { background: gold } form:has(input:invalid) label { color: red } .card:not(:hover) b { border: 1px solid } button:disabled { opacity: .4 } fieldset[disabled] button { color: gray }
.row:focus-within::before { content: attr(title); color: crimson } .row::before { content: attr(title); color: inherit } b { color: currentcolor; text-decoration-color: silver !important } label:is(:hover, .on) { background: #eee }
@media (max-width: 600px) { a { color: olive } .card:hover { font-size: 2em } } @media (prefers-color-scheme: dark) { .card { color: #ddd } } :where(.card) li { padding-left: 1.5em }`;
const BODY = `<main class=card><p class=row title=one>x<a href=1>l<i>i</i></a><b>b</b></p><p class=row title=two>x<a href=2>l</a><b>b</b></p><ul><li>1</li><li>2</li><li>3</li></ul></main>
<form><input type=checkbox id=s><span class=knob></span><label for=s>On</label><input required placeholder=p><button disabled>Off</button></form><fieldset><legend>l</legend><button style="color: teal">b</button></fieldset><aside class=card><a href=3>l</a><b>b</b></aside>`;
const VENEERS = [
  '',
  '.card a { color: green }',
  '.card a { color: green } .row:hover::before { color: blue !important }',
  'b { all: unset } a:focus { outline-color: red }',
  ':has(> a:focus) { background-color: pink }',
];
const PROPERTIES = [
  'color',
  'background-color',
  'border-top-color',
  'text-decoration-color',
  'font-size',
  'opacity',
  'content',
  'padding-left',
  'outline-color',
];

// Reference: a view made anew, which shares nothing.
describe('what views share', () => {
  it('changes no value, in any state, with any veneer, at any width', () => {
    const random = seededRandom(23);
    const pick = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)];
    const page = parsePage(`<!doctype html><style>${THEME}</style>${BODY}`);
    const shares = new Map([
      ['light', new StyleShare()],
      ['dark', new StyleShare()],
    ]);
    let taken = 0;
    for (let round = 0; round < 250; round += 1) {
      const dressed = withVeneer(page, pick(VENEERS));
      const element = pick(page.document.elements);
      const environment = { width: pick([1280, 500]), colorScheme: pick(['light', 'dark'] as const) };
      const states = pointerStates(page.document, element, round % 3 === 0 ? 'rest' : pick(applicableStates(element)));
      const view = new StyleView(dressed, { states, environment, share: shares.get(environment.colorScheme) });
      const alone = new StyleView(dressed, { states, environment });
      for (const node of page.document.elements) {
        for (const pseudo of ['', 'before', 'selection']) {
          const values = (own: StyleView): string[] =>
            PROPERTIES.map((property) => own.style(node, pseudo).resolved(property));
          expect(values(view))
            .withContext(`round ${round}, ${node.localName} ${node.number} ${pseudo}`)
            .toEqual(values(alone));
          taken += 1;
        }
      }
    }
    expect(taken).toBeGreaterThan(15_000);
  });

  it('is kept to one width where values hang on the viewport', () => {
    expect(isByWidth(parsePage('<style>a { color: red; width: 10em }</style><a>'))).toBe(false);
    expect(isByWidth(parsePage('<style>a { font-size: clamp(1rem, 2.5VW, 2rem) }</style><a>'))).toBe(true);
    expect(isByWidth(parsePage('<a style="width: 3dvh">'))).toBe(true);
    expect(isByWidth(withVeneer(parsePage('<a>'), 'a { width: 5vmin }'))).toBe(true);
  });

  it('knows of a size worked out for a twin whether it was a length', () => {
    // Chromium sets a lone monospace at 13 to 16 where the size is relative (CSS Fonts 4 §2.5 note).
    const page = parsePage(
      '<!doctype html><style>p { font-size: 2em } code { font-family: monospace; font-size: 1em } p + p code { color: red }</style><p><code>a</code></p><p><code>b</code></p>',
    );
    const view = new StyleView(page);
    expect(
      page.document.elements
        .filter(({ localName }) => localName === 'code')
        .map((element) => view.style(element).resolved('font-size')),
    ).toEqual(['26px', '26px']);
  });

  it('gives elements in unlike surroundings values of their own', () => {
    const page = parsePage(
      '<!doctype html><style>i { color: red } .on i { color: blue }</style><p><i>a</i></p><p class=on><i>b</i></p><p><i>c</i></p>',
    );
    const share = new StyleShare();
    const italics = page.document.elements.filter(({ localName }) => localName === 'i');
    const [first, second, third] = italics.map((element) => new StyleView(page, { share }).style(element).identity);
    expect(first).toBe(third);
    expect(first).not.toBe(second);
    expect(new StyleView(withVeneer(page, '.on i { color: blue }'), { share }).style(italics[0]).identity).toBe(first);
  });
});
