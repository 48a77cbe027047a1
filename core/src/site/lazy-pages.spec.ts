import { compileVeneer } from '../veneer/compile-veneer.js';
import { StyleView } from '../resolve/style-view.js';
import type { Override } from '../veneer/override.js';
import { readPages } from './read-pages.js';
import { dressSite, layOut, openParts, openSite, pageOf, type SiteModel, type SiteSource } from './site-model.js';

const SOURCE: SiteSource = {
  pages: [1, 2, 3].map((id) => ({
    id,
    name: `Page ${id}`,
    path: `${id}.html`,
    html: `<!doctype html><link rel=stylesheet href=a.css><p class=x>page ${id}<div class=drawer hidden>d</div>`,
  })),
  stylesheets: { 'a.css': '.x { color: red }' },
  parts: [
    {
      id: 4,
      name: 'Drawer',
      kind: 'pop-up',
      selector: '.drawer',
      openers: [{ selector: '.drawer', act: 'drop-attribute', name: 'hidden', value: '' }],
    },
  ],
  veneerPlace: 'head-end',
  prefix: 'brand',
  asValues: false,
  names: {},
  hoverOnly: false,
};
const EMPTY = { swatches: [], roles: [] };
const paint = (css: string): Override => ({
  id: 'o',
  partId: null,
  pageId: 1,
  element: 4,
  pseudo: '',
  reach: 'alike',
  state: 'rest',
  property: 'color',
  value: { kind: 'literal', css },
  selector: '.x',
  important: false,
});
const colorOn = (site: SiteModel, pageId: number): string => {
  const page = pageOf(site, pageId);
  const element = page.document.elements.find(({ classes }) => classes.includes('x'));
  return element ? new StyleView(page).style(element).resolved('color') : 'none';
};

describe('pages of a site', () => {
  it('are read when they are first asked for, the others behind', () => {
    const site = openSite(SOURCE);
    expect(site.closed.unread).toEqual([1, 2, 3]);
    expect(colorOn(site, 2)).toBe('rgb(255, 0, 0)');
    expect(site.closed.unread).toEqual([1, 3]);
    expect([...readPages(site)].at(-1)).toEqual({ read: 3, pages: 3 });
    expect(site.closed.unread).toEqual([]);
  });

  it('take on every later veneer, whether they were read before or after', () => {
    let site = openSite(SOURCE);
    expect(colorOn(site, 1)).toBe('rgb(255, 0, 0)');
    site = dressSite(site, [paint('blue')], EMPTY);
    expect(colorOn(site, 1)).toBe('rgb(0, 0, 255)');
    site = dressSite(site, [paint('lime')], EMPTY);
    expect(site.css).toBe(compileVeneer(site.overrides, { ...SOURCE, palette: EMPTY }));
    expect([1, 2, 3].map((id) => colorOn(site, id))).toEqual(['rgb(0, 255, 0)', 'rgb(0, 255, 0)', 'rgb(0, 255, 0)']);
    site = dressSite(site, [], EMPTY);
    expect([1, 2, 3].map((id) => colorOn(site, id))).toEqual(['rgb(255, 0, 0)', 'rgb(255, 0, 0)', 'rgb(255, 0, 0)']);
  });

  it('keep what was measured of them through later veneers, and parts stay opened', () => {
    const layout = {
      width: 1280,
      height: 800,
      boxes: new Float32Array(40),
      fragments: new Map(),
      lines: new Map(),
      pseudoBoxes: new Map(),
    };
    let site = dressSite(openParts(openSite(SOURCE), [4]), [paint('blue')], EMPTY);
    site = dressSite(layOut(site, 2, layout), [paint('lime')], EMPTY);
    expect([...(pageOf(site, 2).layouts?.values() ?? [])]).toEqual([layout]);
    expect(pageOf(site, 1).layouts).toBeUndefined();
    for (const id of [1, 2, 3])
      expect(
        pageOf(site, id)
          .document.elements.find(({ classes }) => classes.includes('drawer'))
          ?.attributes.has('hidden'),
      )
        .withContext(`${id}`)
        .toBeFalse();
    expect(() => pageOf(site, 9)).toThrowError(RangeError);
  });
});
