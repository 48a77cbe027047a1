import { parsePage } from '../resolve/page.js';
import type { Override } from '../veneer/override.js';
import { reanchorOverride } from './reanchor-override.js';
import { withoutPage } from './without-page.js';

const BEFORE = parsePage(
  '<!doctype html><body><div class=card><p class=a>one</p></div><p class=a>two</p><x-a class=h><template shadowrootmode=open><b class=in>deep</b></template></x-a>',
);
const AFTER = parsePage(
  '<!doctype html><body><header>new</header><div class=card><p class=a>one</p></div><p class=a>two</p><x-a class=h><template shadowrootmode=open><b class=in>deep</b></template></x-a>',
);
const at = (page: typeof BEFORE, text: string): number =>
  page.document.elements.findIndex(({ ownText }) => ownText === text);
const card = (page: typeof BEFORE): number =>
  page.document.elements.findIndex(({ classes }) => classes.includes('card'));

function override(some: Partial<Override>): Override {
  return {
    id: 'o',
    partId: null,
    pageId: 1,
    element: at(BEFORE, 'one'),
    pseudo: '',
    reach: 'alike',
    state: 'rest',
    property: 'color',
    value: { kind: 'literal', css: 'red' },
    selector: '.a',
    important: false,
    ...some,
  };
}

describe('an override on a page captured again', () => {
  it('moves with its element, its parent, what lies behind a shadow root and what it spares', () => {
    const { override: moved, lost } = reanchorOverride(
      BEFORE,
      AFTER,
      1,
      override({
        parent: card(BEFORE),
        through: { element: at(BEFORE, 'deep'), pseudo: '', state: 'rest', property: 'color' },
        spared: [
          { pageId: 1, element: at(BEFORE, 'two') },
          { pageId: 2, element: 4 },
        ],
      }),
    );
    expect(lost).toEqual([]);
    expect([moved.element, moved.parent, moved.through?.element, moved.spared]).toEqual([
      at(AFTER, 'one'),
      card(AFTER),
      at(AFTER, 'deep'),
      [
        { pageId: 1, element: at(AFTER, 'two') },
        { pageId: 2, element: 4 },
      ],
    ]);
  });

  it('of another page moves only what it spares on this one', () => {
    const elsewhere = override({ pageId: 2, element: 7, spared: [{ pageId: 1, element: at(BEFORE, 'two') }] });
    expect(reanchorOverride(BEFORE, AFTER, 1, elsewhere).override).toEqual({
      ...elsewhere,
      spared: [{ pageId: 1, element: at(AFTER, 'two') }],
    });
    const plain = override({ pageId: 2, element: 7 });
    expect(reanchorOverride(BEFORE, AFTER, 1, plain).override).toBe(plain);
  });

  it('says what it lost', () => {
    const empty = parsePage('<!doctype html><body><i>x</i>');
    expect(reanchorOverride(BEFORE, empty, 1, override({ parent: card(BEFORE) })).lost.length).toBe(2);
  });
});

describe('an override once a page is gone', () => {
  const rows: readonly (readonly [what: string, before: Partial<Override>, after: Partial<Override> | null])[] = [
    ['kept to it alone', { pages: [3] }, null],
    ['kept to it and others', { pages: [1, 3] }, { pages: [1] }],
    ['sparing a match on it', { spared: [{ pageId: 3, element: 1 }] }, { spared: [] }],
  ];
  for (const [what, before, after] of rows)
    it(what, () => expect(withoutPage(override(before), 3)).toEqual(after === null ? null : override(after)));
  it('untouched stays the same object', () => {
    const plain = override({ pages: [1] });
    expect(withoutPage(plain, 3)).toBe(plain);
  });
});
