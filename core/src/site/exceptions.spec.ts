import { say } from '@upper-veneer/words';
import { elementOf, openSite, dressSite, pageOf } from './site-model.js';
import { isExcepted, readExceptions, type SiteException } from './exceptions.js';
import { inspect } from '../inspect/inspect.js';
import { partProgress } from '../inspect/part-progress.js';
import { copyLook, pasteLook } from '../plan/look.js';
import { proposeRow } from '../plan/propose-row.js';
import { proposeStates } from '../plan/propose-states.js';
import { fulfil, numberOn, openOnePage } from '../testing/one-page-site.js';
import { companionsOf } from '../verdict/companions.js';
import { placesOf } from './places.js';
import { colorOfCss, type Palette } from '../veneer/palette.js';
import type { Color } from '../values/color.js';

const PALETTE: Palette = { swatches: [{ id: 1, name: 'River', css: '#0f4a48' }], roles: [] };
const HTML =
  '<!doctype html><body><section id=s><p class=price style="color: #a3262a">39</p><div class=notice style="background: #fff6d8"><b style="color: #5c4a10">closed</b></div></section>';

describe('exceptions', () => {
  const open = (exceptions: readonly SiteException[]) =>
    dressSite(
      openSite({
        pages: [{ id: 1, name: 'x', path: 'x.html', html: HTML }],
        stylesheets: {},
        parts: [{ id: 1, name: 'All', kind: 'theme', selector: '#s', openers: [] }],
        veneerPlace: 'head-end',
        prefix: 'brand',
      }),
      [],
      PALETTE,
      { exceptions: readExceptions(exceptions) },
    );
  const numberOf = (site: ReturnType<typeof open>, name: string): number =>
    pageOf(site, 1).document.elements.findIndex(
      ({ classes, localName }) => classes.includes(name) || localName === name,
    );

  it('take in a colour wherever it is, to the eye, and a place with all that is in it', () => {
    const site = open([
      { kind: 'color', target: '#a3262a' },
      { kind: 'place', target: '.notice' },
    ]);
    const { document } = pageOf(site, 1);
    const at = (name: string, color: string): boolean =>
      isExcepted(
        site.exceptions,
        document,
        elementOf(pageOf(site, 1), numberOf(site, name)),
        colorOfCss(color) as Color,
      );
    expect([
      at('price', '#a3262a'),
      at('price', '#a4272b'),
      at('price', '#0000ff'),
      at('b', '#0000ff'),
      at('section', '#0000ff'),
    ]).toEqual([true, true, false, true, false]);
  });

  it('are no strays on the Bench, and count as matched', () => {
    const notes = (exceptions: readonly SiteException[], name: string): string => {
      const site = open(exceptions);
      return say(inspect(site, 1, numberOf(site, name), '', 1280).strip[0].note);
    };
    expect(notes([], 'price')).toContain('stray');
    expect(notes([{ kind: 'color', target: '#a3262a' }], 'price')).not.toContain('stray');
    expect(notes([{ kind: 'place', target: '.notice' }], 'b')).not.toContain('stray');
    expect(partProgress(open([{ kind: 'place', target: '#s' }]), 1, 1280)[0].matched).toBe(
      partProgress(open([{ kind: 'place', target: '#s' }]), 1, 1280)[0].places,
    );
    expect(partProgress(open([]), 1, 1280)[0].matched).toBeLessThan(partProgress(open([]), 1, 1280)[0].places);
  });

  it('refuse a place that is no selector', () => {
    expect(() => readExceptions([{ kind: 'place', target: '[' }])).toThrowError();
  });
});

// What is meant by each: the product's own rule that bulk acts pass exceptions over; which elements those are is read off the page.
describe('bulk acts pass over exceptions', () => {
  const THEME = `.tag { background: #fff6d8; color: #5c4a10 } .tag:hover { background: #a3262a; color: #fff }
    .tag::before { content: "new"; background: #a3262a } .band { background-image: linear-gradient(#a3262a, #ffffff) }
    .card { background: #fff } .card p { color: #777 } .card .sale { color: #a3262a }`;
  const BODY =
    '<div class=card><p class=sale>39</p><p>plain</p></div><a href="#a" class=tag>a</a><a href="#b" class=tag>b</a><div class=band>x</div><div class=card><p>other</p></div>';
  const site = dressSite(
    openOnePage(THEME, BODY, {
      swatches: [
        { id: 1, name: 'River', css: '#0f4a48' },
        { id: 2, name: 'Chalk', css: '#ffffff' },
      ],
      roles: [
        { role: 'second', swatchId: 1, shade: 0 },
        { role: 'ink', swatchId: 1, shade: 0 },
        { role: 'on-second', swatchId: 2, shade: 0 },
      ],
    }),
    [],
    { swatches: [{ id: 1, name: 'River', css: '#0f4a48' }], roles: [{ role: 'second', swatchId: 1, shade: 0 }] },
    { exceptions: readExceptions([{ kind: 'color', target: '#a3262a' }]) },
  );
  const reached = (selector: string, some: Partial<Parameters<typeof placesOf>[1]>): number =>
    placesOf(site, { pageId: 1, element: numberOn(site, selector), reach: 'alike', ...some }).length;

  it('by every property that shows the colour: a state, a pseudo-element, the stop of a gradient', () => {
    expect(reached('.tag', { property: 'background-color' })).toBe(2);
    expect(reached('.tag', { property: 'background-color', state: 'hover' })).toBe(0);
    expect(reached('.tag', { property: 'color', state: 'hover' })).toBe(2);
    expect(reached('.tag', { property: 'background-color', pseudo: 'before' })).toBe(0);
    expect(reached('.band', { property: 'background-image' })).toBe(0);
    expect(reached('.band', { property: 'color' })).toBe(1);
    expect(reached('p', { property: 'color', reach: 'everywhere' })).toBe(2);
  });

  it('a look that is pasted, states filled from rest, a row in every state', () => {
    const question = { pageId: 1, element: numberOn(site, '.tag'), pseudo: '', reach: 'one' as const, width: 1280 };
    const filled = proposeStates(site, question);
    expect(
      filled.wishes.some(({ state, property }) => state === 'hover' && property === 'background-color'),
    ).toBeFalse();
    expect(filled.leftAlone).toBeGreaterThan(0);
    expect(proposeRow(site, question, 'fill').some(({ state }) => state === 'hover')).toBeFalse();
    const look = copyLook(site, { pageId: 1, element: numberOn(site, '.card p:not(.sale)'), pseudo: '' }, 1280);
    const pasted = pasteLook(site, look, { ...question, element: numberOn(site, '.sale') }, 1280);
    expect(pasted.wishes.some(({ property }) => property === 'color')).toBeFalse();
    expect(pasted.leftAlone).toBeGreaterThan(0);
  });

  it('companions of a new ground', () => {
    const made = fulfil(site, '.card', { property: 'background-color', value: { kind: 'literal', css: '#7a1418' } });
    const names = companionsOf(made.site, made.override, 1280).map(({ wish }) => wish.element);
    expect(names).not.toContain(numberOn(site, '.sale'));
    expect(names).toContain(numberOn(site, '.card p:not(.sale)'));
  });
});
