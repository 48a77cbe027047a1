import { expectLikeBrowser } from '../testing/expect-like-browser.js';
import { parsePage } from '../resolve/page.js';
import { StyleView } from '../resolve/style-view.js';

/** Text colour of the element of a class, in states of its pseudo-element. */
function colorOf(css: string, body: string, pseudo = '', pseudoStates: readonly string[] = []): string {
  const page = parsePage(`<!doctype html><style>p, i, b, button, input { color: black } ${css}</style><body>${body}`);
  const target = page.document.elements.find(({ classes }) => classes.includes('t'));
  if (!target) throw new Error('No .t in the page');
  return new StyleView(page, { pseudoStates: new Set(pseudoStates) }).style(target, pseudo).resolved('color');
}

const RED = 'rgb(255, 0, 0)';
const BLACK = 'rgb(0, 0, 0)';

describe('& inside :has()', () => {
  // CSS Nesting 1 §3.2: & stands for the rule around it, wherever it is written.
  const rows: readonly (readonly [css: string, body: string, color: string])[] = [
    ['.x { :root:has(&) p { color: red } }', '<p class=t></p><i class=x></i>', RED],
    ['.x { :root:has(&) p { color: red } }', '<p class=t></p>', BLACK],
    ['.t { &:has(+ &.x) { color: red } }', '<p class=t></p><p class="u t x"></p>', RED],
    ['.t { &:has(+ &.x) { color: red } }', '<p class=t></p><p class=x></p>', BLACK],
    ['.t { &:has(&.x) { color: red } }', '<div class=t><b class="t x"></b></div>', RED],
    ['.x { body:has(> &) .t { color: red } }', '<p class=t></p><i class=x></i>', RED],
    ['.x { body:has(> &) .t { color: red } }', '<p class=t></p><div><i class=x></i></div>', BLACK],
    ['.x { &:not(:has(&)) + .t { color: red } }', '<i class=x></i><p class=t></p>', RED],
    ['.t { :is(&, b):has(i) { color: red } }', '<p class=t><i></i></p>', RED],
  ];
  for (const [css, body, color] of rows) {
    it(`${css} on ${body}`, async () => {
      expect(colorOf(css, body)).toBe(color);
      await expectLikeBrowser(
        `<!doctype html><style>p, i, b, button, input { color: black } ${css}</style><body>${body}`,
        ['color'],
      );
    });
  }
});

describe('a list that forgives', () => {
  it('keeps a rule whose pseudo-element takes some of its arguments only', async () => {
    // As a framework writes the hover of its buttons (common practice).
    const css =
      '.t:is([aria-current], :hover), [type=file]::file-selector-button:is([aria-current], :hover), .u { color: red }';
    expect(colorOf(css, '<p class="t u"></p>')).toBe(RED);
    await expectLikeBrowser(
      `<!doctype html><style>${css}</style><body><p class="t u"></p><p class=t aria-current=true></p>`,
      ['color'],
    );
  });

  it('answers states of the pseudo-element in functions', () => {
    const css = 'input::file-selector-button:is([aria-current], :hover) { color: red }';
    expect(colorOf(css, '<input class=t type=file>', 'file-selector-button', ['hover'])).toBe(RED);
    expect(colorOf(css, '<input class=t type=file>', 'file-selector-button')).not.toBe(RED);
    expect(
      colorOf(
        'input::file-selector-button:not(:hover) { color: red }',
        '<input class=t type=file>',
        'file-selector-button',
        ['hover'],
      ),
    ).not.toBe(RED);
  });

  it('reads vendor names of standard pseudo-elements', () => {
    expect(
      colorOf('input::-webkit-input-placeholder { color: red }', '<input class=t placeholder=x>', 'placeholder'),
    ).toBe(RED);
    expect(
      colorOf(
        'input::placeholder { color: lime } input::-webkit-input-placeholder { color: red }',
        '<input class=t placeholder=x>',
        'placeholder',
      ),
    ).toBe(RED);
    expect(
      colorOf('input::-webkit-file-upload-button { color: red }', '<input class=t type=file>', 'file-selector-button'),
    ).toBe(RED);
  });

  it('keeps :is() after a part', () => {
    const page = parsePage(
      '<!doctype html><style>x-a::part(p):is(:disabled, .n) { color: red } x-a::part(q):is(.n) { color: red }</style><body><x-a><template shadowrootmode=open><button part=p disabled>x</button><button part=q disabled>y</button></template></x-a>',
    );
    const view = new StyleView(page);
    const [p, q] = page.document.elements.filter(({ localName }) => localName === 'button');
    expect(view.style(p).resolved('color')).toBe(RED);
    expect(view.style(q).resolved('color')).not.toBe(RED);
  });
});
