import { framePage } from '../frame/frame-page.js';
import { rewriteStates } from '../frame/rewrite-states.js';
import { CSS_PIECES } from '../testing/css-pieces.js';
import { seededRandom } from '../testing/random.js';
import { runsAsked } from '../testing/runs-asked.js';
import { explain } from './explain.js';
import { parsePage } from './page.js';
import { shortfallOf } from './shortfall.js';
import { StyleShare } from './style-share.js';
import { StyleView } from './style-view.js';

/** Mutated sheets, and a quarter as many pages; the first of one seeded row. `npm run prove` goes on to 20,000. */
const RUNS = runsAsked('FUZZ_RUNS', 400);
/** No single sheet may hold the run up for longer, in ms. It guards against hanging, not against slowness. */
const BOUND = 10_000;

/** Rules that walk all siblings before each of 400 for nothing. */
const DEAR_RULES =
  Array.from({ length: 36 }, (_, i) => `.none${i} ~ i { color: red }`).join(' ') + 'i { color: rgb(9, 8, 7) }';

const HTML_PIECES = [
  '<',
  '>',
  '</',
  '<p class=t>',
  '<b',
  '"',
  "'",
  '=',
  '&',
  '&lt;',
  '<!--',
  '-->',
  '<style>',
  '</style>',
  '<template shadowrootmode=open>',
  '</template>',
  '<svg>',
  '<math>',
  '<table>',
  '<td>',
  '<select>',
  '<option>',
  '<form>',
  '<slot>',
  ' style="',
  ' class=t',
  ' bgcolor=#12',
  '\0',
  '<script>',
  '<noscript>',
  '<a href=x>',
  '<frameset>',
  '<plaintext>',
  '<body',
  '<html',
];
const SEED_CSS =
  '.t { color: red; background: var(--x, blue) } @media (min-width: 1px) { p:hover > b { border: 1px solid } } @layer a { .t::before { content: "x" } } p { & b { color: color-mix(in srgb, red, blue) } }';
const SEED_HTML = '<div class=t><p>x<b>y</b></p><a href=x>l</a><input><table><tr><td>c</table></div>';
// No piece can write this property, so a rule that sets it is touched by nothing but itself.
const MARK = 'column-rule-color';
const BEFORE = `#m { ${MARK}: rgb(7, 8, 9) }`;
const AFTER = `#n { ${MARK}: rgb(9, 8, 7) }`;

function mutate(text: string, pieces: readonly string[], random: () => number): string {
  let result = text;
  for (let i = 1 + Math.floor(random() * 12); i > 0; i -= 1) {
    const at = Math.floor(random() * (result.length + 1));
    const pick = random();
    if (pick < 0.65) result = result.slice(0, at) + pieces[Math.floor(random() * pieces.length)] + result.slice(at);
    else if (pick < 0.85) result = result.slice(0, at) + result.slice(at + 1 + Math.floor(random() * 6));
    else result += result.slice(at, at + Math.floor(random() * 40));
  }
  return result;
}

describe('robustness', () => {
  it(`survives ${RUNS} mutated sheets and leaves every other rule as it was`, () => {
    const random = seededRandom(20260614);
    let slowest = 0;
    for (let run = 0; run < RUNS; run += 1) {
      const css = mutate(SEED_CSS, CSS_PIECES, random).replaceAll(/<\/style/gi, '');
      const started = Date.now();
      const files = new Map([
        ['a.css', `${BEFORE}\n${css}`],
        ['b.css', AFTER],
      ]);
      const page = parsePage(
        `<!doctype html><link rel=stylesheet href=a.css><link rel=stylesheet href=b.css><div id=m><p id=n class=t>x<b>y</b></p></div>`,
        { loadSheet: (path) => files.get(path) ?? null },
      );
      const view = new StyleView(page);
      const [mark, next] = page.document.elements.filter(({ id }) => id !== null);
      const seen = [view.style(mark).resolved(MARK), view.style(next).resolved(MARK)];
      if (seen[0] !== 'rgb(7, 8, 9)' || seen[1] !== 'rgb(9, 8, 7)') {
        fail(`Run ${run} changed other rules to ${seen.join(' and ')}: ${JSON.stringify(css)}`);
        return;
      }
      for (const property of ['color', 'background-color', 'font-size', 'display', 'border-top-width'])
        view.style(next).resolved(property);
      explain(view, next, 'color');
      rewriteStates(css);
      slowest = Math.max(slowest, Date.now() - started);
    }
    expect(slowest).toBeLessThan(BOUND);
  });

  it(`survives ${RUNS / 4} mutated pages`, () => {
    const random = seededRandom(7);
    for (let run = 0; run < RUNS / 4; run += 1) {
      const html = mutate(`<!doctype html><style>${SEED_CSS}</style>${SEED_HTML}`, HTML_PIECES, random);
      const page = parsePage(html);
      const view = new StyleView(page);
      for (const element of page.document.elements.slice(0, 12)) view.style(element).resolved('color');
      page.document.elements.forEach((element, i) => {
        if (element.number !== i)
          fail(`Run ${run}: element ${i} is numbered ${element.number}: ${JSON.stringify(html)}`);
      });
      framePage(html, { path: 'a.html', filesAt: '/f/' });
    }
    expect(true).toBe(true);
  });

  const hostile: readonly (readonly [what: string, css: string, code: string])[] = [
    ['thousands of :has()', `${':has(b)'.repeat(4000)} { color: red }`, ''],
    ['a selector nested deep', `${':is('.repeat(3000)}a${')'.repeat(3000)} { color: red }`, 'invalid-selector'],
    ['blocks nested deep', `${'a { '.repeat(3000)}`, 'too-deep'],
    ['a line of 10 MB', `.x { color: ${'r'.repeat(10_000_000)} }`, ''],
    ['a selector of 10 MB', `${'a'.repeat(10_000_000)} { color: red }`, 'invalid-selector'],
    ['a sheet over the bound', ' '.repeat(16_000_001), 'too-large'],
    ['brackets never closed', `a[b="${'('.repeat(50_000)}`, 'invalid-selector'],
    [
      'variables that multiply',
      `#m { --a: x; ${Array.from({ length: 40 }, (_, i) => `--v${i + 1}: var(--v${i}) var(--v${i})`).join('; ')}; --v0: xxxxxxxxxxxxxxxx; color: var(--v40) }`,
      '',
    ],
    [
      'a long ring of variables',
      `#m { ${Array.from({ length: 90 }, (_, i) => `--v${i}: var(--v${(i + 1) % 90})`).join('; ')}; color: var(--v0) }`,
      '',
    ],
  ];
  for (const [what, css, code] of hostile) {
    it(`bounds and reports ${what}`, () => {
      const files = new Map([
        ['a.css', css],
        ['b.css', AFTER],
      ]);
      const page = parsePage(
        '<!doctype html><link rel=stylesheet href=a.css><link rel=stylesheet href=b.css><div id=m><p id=n>x</p></div>',
        { loadSheet: (path) => files.get(path) ?? null },
      );
      const view = new StyleView(page);
      for (const element of page.document.elements) view.style(element).resolved('color');
      expect(view.styleAt(page.document.elements.length - 1).resolved(MARK)).toBe('rgb(9, 8, 7)');
      if (code !== '')
        expect(page.problems.map((problem) => problem.code)).toContain(code as (typeof page.problems)[number]['code']);
    });
  }

  it('gives up on matching that would never end, and says so', () => {
    const page = parsePage(`<!doctype html><style>${DEAR_RULES}</style>${'<i></i>'.repeat(400)}`);
    const view = new StyleView(page);
    for (const element of page.document.elements) view.style(element).resolved('color');
    expect(view.problems.map(({ code }) => code)).toEqual(['too-large']);
    expect(shortfallOf(page)).toBeGreaterThan(0);
    // A view that shares takes over what was matched before it, never what was not.
    const share = new StyleShare();
    const colors = [0, 1].map(() => {
      const shared = new StyleView(page, { share });
      return {
        shared,
        found: new Set(
          page.document.elements
            .filter(({ localName }) => localName === 'i')
            .map((element) => shared.style(element).resolved('color')),
        ),
      };
    });
    expect(colors[0].shared.problems.length).toBe(1);
    expect(colors[1].shared.problems.length).toBe(0);
    expect([...colors[1].found]).toEqual(['rgb(9, 8, 7)']);
  });
});

describe('a media query list past what is read', () => {
  it('is told, and keeps what is built on the page from being called proved', () => {
    const long = Array.from({ length: 2_000 }, () => '(min-width: 1px)').join(', ');
    const [plain, given] = ['(min-width: 1px)', long].map((media) =>
      parsePage(`<!doctype html><style>@media ${media} { p { color: red } }</style><p>`),
    );
    expect(plain.problems).toEqual([]);
    expect(given.problems.map(({ code }) => code)).toEqual(['too-large']);
    const linked = parsePage(`<!doctype html><style media="${long}">p { color: red }</style><p>`);
    expect(linked.problems.map(({ code }) => code)).toEqual(['too-large']);
  });
});
