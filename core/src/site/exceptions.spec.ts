import { elementOf, openSite, dressSite, pageOf } from './site-model.js';
import { isExcepted, readExceptions, type SiteException } from './exceptions.js';
import { inspect } from '../inspect/inspect.js';
import { partProgress } from '../inspect/part-progress.js';
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
      readExceptions(exceptions),
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
      return inspect(site, 1, numberOf(site, name), '', 1280).strip[0].note;
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
