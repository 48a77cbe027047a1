import { fulfil, openOnePage } from '../testing/one-page-site.js';
import { glossInWords } from '../testing/in-words.js';
import type { OverrideWish } from '../veneer/override-wish.js';

const THEME =
  '.tag::before { content: "!" } .go:hover { color: red } .card:hover .caption { color: red } @media (min-width: 700px) { .go { color: blue } } .level { color: red }';
const BODY = `<button class=go>Go</button><a class=link href=x>l</a><b class=tag>t</b><div class=card><p class=caption>c</p></div>
<river-gauge class=level><template shadowrootmode=open><style>.bar { color: var(--tone, red) }</style><p class=bar>b</p></template></river-gauge>`;

describe('glossOf', () => {
  const rows: readonly (readonly [what: string, selector: string, wish: Partial<OverrideWish>, gloss: string])[] = [
    [
      'rest',
      '.go',
      { property: 'background-color', value: { kind: 'role', role: 'second', shade: -12 } },
      'At rest, the button’s fill becomes Second, 12 darker, on 1 page.',
    ],
    ['hover', '.go', { state: 'hover' }, 'When the pointer is over it, the button’s text becomes Second, on 1 page.'],
    [
      'a swatch',
      '.link',
      { state: 'visited', value: { kind: 'swatch', swatchId: 3, shade: 0 } },
      'Once visited, the link’s text becomes Ink, on 1 page.',
    ],
    [
      'a pseudo-element',
      '.tag',
      { pseudo: 'before' },
      'At rest, the text of the mark before the element becomes Second, on 1 page.',
    ],
    [
      'selected text',
      '.caption',
      { pseudo: 'selection', property: 'background-color' },
      'At rest, the paragraph’s selected text’s fill becomes Second, on 1 page.',
    ],
    [
      'widths',
      '.go',
      { widths: { min: 700, max: null } },
      'At rest, the button’s text becomes Second, from 700 px wide, on 1 page.',
    ],
    [
      'a width up to',
      '.go',
      { widths: { min: null, max: 699 } },
      'At rest, the button’s text becomes Second, up to 699 px wide, on 1 page.',
    ],
  ];
  for (const [what, selector, wish, gloss] of rows) {
    it(`says ${what} in plain words`, () => {
      const made = fulfil(openOnePage(THEME, BODY), selector, wish);
      expect(glossInWords(made.site, made.override)).toBe(gloss);
    });
  }

  it('says of a parent’s state whose it is', () => {
    const site = openOnePage(THEME, BODY);
    const parent =
      [...site.pages.values()][0].document.elements.find(({ classes }) => classes.includes('card'))?.number ?? -1;
    const made = fulfil(site, '.caption', { state: 'parent-hover', parent });
    expect(glossInWords(made.site, made.override)).toBe(
      'When the pointer is over what it stands in, the paragraph’s text becomes Second, on 1 page.',
    );
  });

  it('says what changes behind a shadow root, and by way of what', () => {
    const site = openOnePage(THEME, BODY);
    const bar =
      [...site.pages.values()][0].document.elements.find(({ classes }) => classes.includes('bar'))?.number ?? -1;
    const made = fulfil(site, '.level', { element: bar });
    expect(glossInWords(made.site, made.override)).toBe(
      'At rest, the paragraph’s text becomes Second by way of --tone, on 1 page.',
    );
  });

  it('counts the pages of a selector by hand by what it matches', () => {
    const made = fulfil(openOnePage(THEME, BODY), '.go', { state: 'hover' });
    expect(glossInWords(made.site, { ...made.override, isByHand: true, selector: '.absent:hover' })).toContain(
      'on 0 pages',
    );
    expect(glossInWords(made.site, { ...made.override, isByHand: true, selector: 'body > .go:hover' })).toContain(
      'on 1 page.',
    );
  });
});
