import { spoken } from '@upper-veneer/words';
import { dressSite } from '../site/site-model.js';
import { openOnePage, numberOn } from '../testing/one-page-site.js';
import type { Override } from '../veneer/override.js';
import { itemHolds } from './item-holds.js';
import type { RequestLook } from './request.js';
import { splitRequest } from './split-request.js';

const PARTS = [
  { id: 1, name: 'Header and menu' },
  { id: 2, name: 'Booking form' },
];

describe('a client’s request', () => {
  it('is split by its lines, or its sentences, and leads to the parts it names', () => {
    expect(
      splitRequest('A few things:\n- Menus in green\n2) The booking button orange!\n\n• bigger', PARTS, []),
    ).toEqual([
      { words: 'Menus in green', partIds: [1], pageIds: [] },
      { words: 'The booking button orange!', partIds: [2], pageIds: [] },
      { words: 'bigger', partIds: [], pageIds: [] },
    ]);
    expect(
      splitRequest('The form is hard to read. Please darken it; and on Trips, too.', PARTS, [{ id: 5, name: 'Trips' }]),
    ).toEqual([
      { words: 'The form is hard to read', partIds: [2], pageIds: [] },
      { words: 'Please darken it', partIds: [], pageIds: [] },
      { words: 'and on Trips, too', partIds: [], pageIds: [5] },
    ]);
    expect(splitRequest(' \n ', PARTS, [])).toEqual([]);
    expect(splitRequest(`${'1'.repeat(100_000)} `, PARTS, [])[0].words.length).toBe(400);
  });

  // CSS Cascading 5 §6.1 decides what shows; Media Queries 4 §4.1 the widths.
  describe('holds', () => {
    const site = openOnePage(
      'a { color: red } a:hover { color: blue } @media (max-width: 600px) { .b { color: teal } } .b { font-weight: 700 }',
      '<a href=x>1</a><a class=b href=y>2</a>',
      { swatches: [{ id: 1, name: 'Willow', css: '#b4582a' }], roles: [{ role: 'accent', swatchId: 1, shade: 0 }] },
    );
    const WILLOW = { kind: 'role', role: 'accent', shade: 0 } as const;
    const look = (some: Partial<RequestLook> = {}): RequestLook => ({
      selector: 'a',
      property: 'color',
      value: WILLOW,
      state: null,
      ...some,
    });
    const dressed = (...selectors: string[]) =>
      dressSite(
        site,
        selectors.map((selector): Override => ({
          id: selector,
          partId: null,
          pageId: 1,
          element: numberOn(site, 'a'),
          pseudo: '',
          reach: 'alike',
          state: selector.includes(':hover') ? 'hover' : 'rest',
          property: 'color',
          value: WILLOW,
          selector,
          important: false,
        })),
        site.palette,
      );
    const holds = (of: ReturnType<typeof dressed>, ...looks: RequestLook[]) => itemHolds(of, { looks, pageIds: [] });

    it('where every match has the look in every state and width, and says who does not', () => {
      const rest = holds(dressed('a'), look());
      expect(rest.places).toBe(2);
      expect(rest.missed.map(({ element, states, shown }) => [element, states.join(), shown])).toEqual([
        [numberOn(site, '.b'), 'rest', '#008080'],
        [numberOn(site, 'a'), 'hover', '#0000ff'],
      ]);
      const both = holds(dressed('a', 'a:hover'), look());
      expect(both.missed.map(({ element, width, shown }) => [element, width <= 600, shown])).toEqual([
        [numberOn(site, '.b'), true, '#008080'],
      ]);
      expect(holds(dressed('a.b, a', 'a:hover', 'body a'), look()).missed).toEqual([]);
      expect(holds(dressed('body a:any-link', 'body a:hover'), look()).missed).toEqual([]);
    });

    it('in the state that is named alone, of what is no colour too', () => {
      expect(holds(dressed('body a:any-link'), look({ state: 'rest' })).missed).toEqual([]);
      expect(
        holds(dressed(), look({ selector: '.b', property: 'font-weight', value: { kind: 'literal', css: '700' } }))
          .missed,
      ).toEqual([]);
      expect(
        holds(dressed(), look({ property: 'font-weight', value: { kind: 'literal', css: '700' } })).missed.length,
      ).toBe(1);
    });

    it('in two states at once, and at the widths that are meant alone', () => {
      const rings = openOnePage('a:hover:focus { color: teal }', '<a href=x>1</a>', site.palette);
      const css = { kind: 'literal', css: 'teal' } as const;
      const [first] = itemHolds(rings, { looks: [look({ value: css })], pageIds: [] }).missed;
      expect(first.states.join()).toBe('rest');
      const plain = dressSite(rings, [], rings.palette, { ownCss: [{ partId: null, css: 'a { color: #b4582a }' }] });
      expect(holds(plain, look()).missed.map(({ states, shown }) => [states.join(), shown])).toEqual([
        ['hover,focus', '#008080'],
      ]);
      const wide = dressed('a', 'a:hover');
      expect(holds(wide, look({ widths: { min: 601, max: null } })).missed).toEqual([]);
      expect(holds(wide, look({ widths: { min: null, max: 600 } })).misses).toBe(1);
    });

    it('and what was not looked at is said', () => {
      expect(spoken(holds(dressed(), look({ selector: '.nowhere' })).unseen)).toEqual([
        '.nowhere matches nothing on the pages here',
      ]);
      expect(holds(dressed(), look({ selector: 'a >' })).unseen.length).toBe(1);
      expect(holds(dressed()).places).toBe(0);
    });
  });
});
