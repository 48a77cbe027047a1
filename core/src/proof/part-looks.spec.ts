import { dressSite, openSite, type SiteModel } from '../site/site-model.js';
import { toEnd } from '../to-end.js';
import type { Override } from '../veneer/override.js';
import type { Palette } from '../veneer/palette.js';
import { partLooks } from './part-looks.js';

const PALETTE: Palette = {
  swatches: [{ id: 1, name: 'Willow', css: '#b4582a' }],
  roles: [{ role: 'accent', swatchId: 1, shade: 0 }],
};

interface Given {
  readonly form?: string;
  readonly css?: string;
  readonly overrides?: readonly Override[];
  readonly palette?: Palette;
}

function siteOf({ form = 'Book', css = 'p { color: #333 }', overrides = [], palette = PALETTE }: Given): SiteModel {
  const page = (id: number, body: string) => ({
    id,
    name: `Page ${id}`,
    path: `${id}.html`,
    html: `<!doctype html><link rel=stylesheet href=a.css><body>${body}`,
  });
  const source = {
    pages: [
      page(1, `<nav class=menu><a href=x>Home</a></nav><form class=form><button>${form}</button></form>`),
      page(2, '<nav class=menu><a href=x>Home</a></nav><div class=pop hidden><p>Letter</p></div>'),
    ],
    stylesheets: { 'a.css': css },
    parts: [
      { id: 1, name: 'Menu', kind: 'theme', selector: '.menu', openers: [] },
      { id: 2, name: 'Form', kind: 'widget', selector: '.form', openers: [] },
      {
        id: 3,
        name: 'Letter',
        kind: 'pop-up',
        selector: '.pop',
        openers: [{ selector: '.pop', act: 'drop-attribute' as const, name: 'hidden', value: '' }],
      },
    ],
    veneerPlace: 'head-end' as const,
    prefix: 'brand',
  };
  return dressSite(openSite(source), overrides, palette);
}

function override(selector: string, value: Override['value']): Override {
  return {
    id: selector,
    partId: 2,
    pageId: 1,
    element: 7,
    pseudo: '',
    reach: 'one',
    state: 'rest',
    property: 'color',
    value,
    selector,
    important: false,
  };
}

/** Places whose fingerprint differs between two sites. */
function changed(a: SiteModel, b: SiteModel): string[] {
  const now = new Map(toEnd(partLooks(b)).map((own) => [`${own.partId} on ${own.pageId}`, own.look]));
  return toEnd(partLooks(a)).flatMap(({ partId, pageId, look }) =>
    now.get(`${partId} on ${pageId}`) === look ? [] : [`${partId} on ${pageId}`],
  );
}

describe('how parts on pages look', () => {
  it('names each once, a hidden one opened', () => {
    expect(toEnd(partLooks(siteOf({}))).map(({ partId, pageId, step }) => [partId, pageId, step])).toEqual([
      [1, 1, 'shown'],
      [2, 1, 'shown'],
      [1, 2, 'shown'],
      [3, 2, 'opened'],
    ]);
  });

  it('is the same until something it hangs on changes: an override of it, a colour that is bound to, its markup, its sheets', () => {
    const plain = siteOf({});
    const bound = siteOf({ overrides: [override('.form button', { kind: 'role', role: 'accent', shade: 0 })] });
    expect(changed(plain, siteOf({}))).toEqual([]);
    expect(changed(plain, bound)).toEqual(['2 on 1']);
    const other: Palette = { ...PALETTE, swatches: [{ id: 1, name: 'Willow', css: '#1f6f74' }] };
    expect(changed(bound, siteOf({ overrides: bound.overrides, palette: other }))).toEqual(['2 on 1']);
    expect(changed(plain, siteOf({ palette: other }))).toEqual([]);
    expect(changed(plain, siteOf({ form: 'Reserve' }))).toEqual(['2 on 1']);
    expect(changed(plain, siteOf({ css: 'p { color: #444 }' })).length).toBe(4);
  });
});
