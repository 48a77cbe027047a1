import { say, spoken } from '@upper-veneer/words';
import { parsePage } from '../resolve/page.js';
import type { ElementNode } from '../dom/tree.js';
import { compareSpecificity } from '../selectors/selector.js';
import { parseSelectorList } from '../selectors/parse-selector.js';
import { seededRandom } from '../testing/random.js';
import { findThreshold } from './threshold.js';
import type { WrittenSelector } from './selector-request.js';
import { matchesExactly, writeSelector } from './write-selector.js';

function write(
  theme: string,
  body: string,
  find: (element: ElementNode) => boolean,
): { readonly written: WrittenSelector; readonly isExact: boolean } {
  const page = parsePage(`<!doctype html><style>${theme}</style><body>${body}`);
  const targets = page.document.elements.filter(find).map((element) => ({ page, element }));
  const written = writeSelector({
    lead: targets[0],
    targets,
    pages: [page],
    everywhere: false,
    pseudo: '',
    state: 'rest',
    longhands: ['color'],
    isReplaced: () => false,
  });
  return {
    written,
    isExact: written.ok && matchesExactly(written.selector, new Set(targets.map(({ element }) => element)), [page]),
  };
}

// Specificities by Selectors 4 §17, worked out by hand; that a name may be said again to raise it is its own note there.
describe('writeSelector over strong rules', () => {
  const rows: readonly (readonly [what: string, theme: string, body: string, tag: string, selector: string])[] = [
    ['says its own id again', '#box#box { color: red }', '<div id=box>h</div>', 'div', '#box#box'],
    ['says its own class again', '.note.note.note { color: red }', '<p class=note>n</p>', 'p', '.note.note.note'],
    [
      'names the ids that the rule names',
      '#left #right p { color: red }',
      '<div id=left><div id=right><p>h</p></div></div>',
      'p',
      '#left #right p',
    ],
    [
      'names two ids and says one again for a third',
      '#left #right #deep p.kind { color: red }',
      '<div id=left><div id=right><section id=deep><p class=kind>h</p></section></div></div>',
      'p',
      '#left #deep#deep p.kind',
    ],
    [
      'repeats a class under an id',
      '#left .kind.kind.kind { color: red }',
      '<div id=left><p class=kind>h</p></div>',
      'p',
      '#left .kind.kind.kind',
    ],
    [
      'stands one id above classes it does not have',
      '#box.is-on.is-on { color: red }',
      '<div id=box class=is-on>h</div>',
      'div',
      '#box#box',
    ],
    [
      'takes names that nothing has where it has none',
      'p:not(#no) { color: red }',
      '<p>one</p>',
      'p',
      'p:not(#uv-none)',
    ],
    [
      'takes a rule’s own names before it says one again',
      '.form .card button.go.go { color: red }',
      '<div class=form><div class=card><button class=go>Go</button></div></div>',
      'button',
      '.form .card button.go.go',
    ],
    [
      'takes ancestors’ names where they are enough',
      '.form .card button.go { color: red }',
      '<div class=form><div class=card><button class=go>Go</button></div><a class=go>no</a></div>',
      'button',
      '.form .card button.go',
    ],
    ['starts from the root where one class more is needed', 'p:not(.no) { color: red }', '<p>one</p>', 'p', ':root p'],
    ['does so as often as it takes', 'p:not(.no.no) { color: red }', '<p>one</p>', 'p', ':root:root p'],
    ['but not for the root itself', 'html:not(.no) { color: red }', '', 'html', 'html:not(.uv-none)'],
    [
      'outweighs many classes by one id',
      `.kind${'.kind'.repeat(14)} { color: red }`,
      '<p class=kind>k</p>',
      'p',
      'p:not(#uv-none)',
    ],
    [
      'needs no more than the tag over a rule of its strength',
      'p { color: red }',
      '<p>one</p><div>two</div>',
      'p',
      'p',
    ],
  ];
  for (const [what, theme, body, tag, expected] of rows) {
    it(what, () => {
      const { written, isExact } = write(theme, body, ({ localName }) => localName === tag);
      expect(spoken(written.ok ? written.selector : written.reason)).toBe(expected);
      expect(isExact).toBeTrue();
    });
  }

  // A menu's entries without the current one: what lasts is the menu and its mark, not their places.
  const menus: readonly (readonly [body: string, selector: string])[] = [
    [
      '<nav><a href=1 aria-current=page>a</a><a href=2>b</a><a href=3>c</a></nav><p><a href=4>d</a></p>',
      'nav a:not([aria-current])',
    ],
    ['<nav class=top><a href=1 class=active>a</a><a href=2>b</a></nav><p><a href=4>d</a></p>', 'nav a:not(.active)'],
    [
      '<ul><li><a href=1 aria-current=page>a</a></li><li><a href=2>b</a></li><li><a href=3>c</a></li></ul><p><a href=4>d</a></p>',
      'li a:not([aria-current])',
    ],
  ];
  for (const [body, expected] of menus) {
    it(`gathers a menu by what lasts: ${expected}`, () => {
      const { written, isExact } = write(
        'nav a, li a { color: red }',
        body,
        ({ localName, attributes, parent }) =>
          localName === 'a' &&
          parent?.localName !== 'p' &&
          !attributes.has('aria-current') &&
          attributes.get('class') !== 'active',
      );
      expect(spoken(written.ok ? written.selector : written.reason)).toBe(expected);
      expect(isExact).toBeTrue();
    });
  }

  // `::part()` counts as a pseudo-element, and rules of the page stand above those in the tree: CSS Shadow Parts 1 §4, CSS Cascading 5 §6.1.
  it('raises the selector of the host for a part that the page styles strongly', () => {
    const gauge =
      '<river-gauge class=level><template shadowrootmode=open><style>b { color: red }</style><b part=bar>b</b></template></river-gauge>';
    for (const [theme, expected] of [
      ['', 'river-gauge::part(bar)'],
      ['.level.level::part(bar) { color: red }', '.level.level::part(bar)'],
      ['#no, body .level::part(bar) { color: red }', 'river-gauge.level::part(bar)'],
    ]) {
      const { written } = write(theme, gauge, ({ localName }) => localName === 'b');
      expect(spoken(written.ok ? written.selector : written.reason))
        .withContext(theme)
        .toBe(expected);
    }
  });

  it('says the specificity its text has, matches exactly and clears the bar, whatever is drawn', () => {
    const random = seededRandom(20261125);
    const pick = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)];
    const some = (list: readonly string[]): string => list.filter(() => random() < 0.4).join('');
    for (let round = 0; round < 250; round += 1) {
      const body = `<div id=left class="wrap">${Array.from({ length: 4 }, () => `<${pick(['section', 'div'])} ${random() < 0.5 ? `id=${pick(['deep', 'wide'])}${Math.floor(random() * 9)}` : ''} class="${pick(['card', 'card tall', 'panel'])}"><p class="${pick(['kind', 'kind late', 'late', ''])}">a</p><em>b</em></section></div>`).join('')}</div>`;
      const theme = `#left${some(['#left', '.wrap', '.wrap', '.wrap'])} ${pick(['p', 'em', '.kind', '.card p', '.tall em'])}${some(['.kind', '.kind', ':not(#no)'])} { color: red }`;
      const tag = pick(['p', 'em']);
      const page = parsePage(`<!doctype html><style>${theme}</style><body>${body}`);
      const element = page.document.elements.filter(({ localName }) => localName === tag)[Math.floor(random() * 4)];
      const request = {
        lead: { page, element },
        targets: [{ page, element }],
        pages: [page],
        everywhere: false,
        pseudo: '',
        state: 'rest' as const,
        longhands: ['color'],
        isReplaced: () => false,
      };
      const written = writeSelector(request);
      if (!written.ok) continue;
      const [parsed] = parseSelectorList(written.selector);
      expect(parsed.specificity).withContext(written.selector).toEqual(written.specificity);
      expect(matchesExactly(written.selector, new Set([element]), [page]))
        .withContext(written.selector)
        .toBeTrue();
      const bar = findThreshold({ ...request, places: request.targets });
      expect(compareSpecificity(written.specificity, bar.specificity))
        .withContext(`${theme} ${written.selector}`)
        .toBeGreaterThanOrEqual(bar.strict ? 1 : 0);
    }
  });

  // A descendant or child of the hovered element, by Selectors 4 §14; told from its like by place where no name does.
  it('tells one of several alike under a hovered parent by its way down', () => {
    const body =
      '<ul id=lines class=lines><li class=line>a<a class=drop href=1>x</a></li><li class=line>b<a class=drop href=2>x</a></li></ul><ul class=lines><li class=line><a class=drop href=3>x</a></li><li class=line><a class=drop href=4>x</a></li></ul>';
    const page = parsePage(`<!doctype html><style>.drop { color: red }</style><body>${body}`);
    const find = (name: string, nth = 0): ElementNode =>
      page.document.elements.filter(({ id, classes }) => id === name || classes.includes(name))[nth];
    const underHover = (element: ElementNode, parent: ElementNode, places = [{ page, element, parent }]): string => {
      const written = writeSelector({
        lead: { page, element, parent },
        targets: places,
        pages: [page],
        everywhere: false,
        pseudo: '',
        state: 'parent-hover',
        longhands: ['color'],
        isReplaced: () => false,
      });
      return written.ok ? written.selector : say(written.reason);
    };
    expect(underHover(find('drop', 1), find('lines'))).toBe('#lines:hover > li:nth-of-type(2) > a');
    expect(underHover(find('drop', 2), find('lines', 1))).toMatch(
      /^\.lines:nth-of-type\(2\):hover|^ul:nth-of-type\(2\):hover/,
    );
    const both = [find('drop'), find('drop', 1)].map((element) => ({ page, element, parent: find('lines') }));
    expect(underHover(find('drop'), find('lines'), both)).toBe('#lines:hover a');
  });

  it('tells what has no class from its like before it counts', () => {
    const body =
      '<div class=wrap><p>a</p><p class=small>b</p><section><p>c</p></section><p class=lede>l</p><p>d</p></div><div class=other><p>e</p></div>';
    const page = parsePage(`<!doctype html><style>p { color: red }</style><body>${body}`);
    const targets = page.document.elements
      .filter(
        ({ localName, parent, classes }) =>
          localName === 'p' && classes.length === 0 && parent?.classes.includes('wrap'),
      )
      .map((element) => ({ page, element }));
    const written = writeSelector({
      lead: targets[0],
      targets,
      pages: [page],
      everywhere: false,
      pseudo: '',
      state: 'rest',
      longhands: ['color'],
      isReplaced: () => false,
    });
    expect(spoken(written.ok ? written.selector : written.reason)).toBe('.wrap > p:not([class])');
    expect(
      written.ok && matchesExactly(written.selector, new Set(targets.map(({ element }) => element)), [page]),
    ).toBeTrue();
  });

  it('tells a page from others by any of its classes', () => {
    const pages = ['home', 'trips'].map((name) =>
      parsePage(
        `<!doctype html><style>p { color: red }</style><body class="page page-${name}"><main><div class=wrap><p>one</p><p>two</p></div></main>`,
      ),
    );
    const element = pages[1].document.elements.filter(({ localName }) => localName === 'p')[1];
    const written = writeSelector({
      lead: { page: pages[1], element },
      targets: [{ page: pages[1], element }],
      pages,
      everywhere: false,
      pseudo: '',
      state: 'rest',
      longhands: ['color'],
      isReplaced: () => false,
    });
    expect(spoken(written.ok ? written.selector : written.reason)).toBe('.page-trips p:nth-of-type(2)');
  });
});
