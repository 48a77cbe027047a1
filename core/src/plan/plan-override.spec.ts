import { say, spoken } from '@upper-veneer/words';
import { explain } from '../resolve/explain.js';
import { inspect } from '../inspect/inspect.js';
import { partProgress } from '../inspect/part-progress.js';
import { glossInWords } from '../testing/in-words.js';
import { planOverride } from './plan-override.js';
import type { OverrideWish } from '../veneer/override-wish.js';
import { judgeInWords } from '../testing/in-words.js';
import { dressSite, openSite, pageOf, viewIn, type SiteModel } from '../site/site-model.js';
import type { Palette } from '../veneer/palette.js';

const PALETTE: Palette = {
  swatches: [
    { id: 1, name: 'Willow', css: '#b4582a' },
    { id: 2, name: 'Chalk', css: '#ffffff' },
  ],
  roles: [{ role: 'accent', swatchId: 1, shade: 0 }],
};
const THEME = `
.btn { background: #ddd; color: #333 } #top .btn { background: #ccc } .card .btn:hover { background: yellow } main p a:hover { color: gold !important }
main a:link { color: blue } main a:visited { color: purple } .tab { color: #111 } .tab.wide { color: #222 } input:focus { border-color: teal } button:focus-visible { color: navy }
@layer low { .low { color: red !important } .soft { color: red } } .css-1x7q9ka { color: maroon }
.edged { border-bottom: 2px solid red }`;
const PAGE = (
  id: number,
) => `<!doctype html><link rel=stylesheet href=theme.css><body class="page p${id}"><header id=top><a class="btn" href=a>Top</a></header><main><div class=card><button class=btn>Go</button><p>x <a href=b>link ${id}</a></p></div>
<span class="tab">a</span><span class="tab wide">b</span><span class="tab">c</span><i style="color: red">i</i><b style="color: red !important">b</b><u class=low>u</u><u class=soft>s</u><em class="css-1x7q9ka">e</em><em>f</em><s class=edged>s</s>
<input placeholder=x></main><style>.late { color: red }</style><q class=late>q</q></body>`;

function open(): SiteModel {
  const site = openSite({
    pages: [1, 2].map((id) => ({ id, name: `Page ${id}`, path: `${id}.html`, html: PAGE(id) })),
    stylesheets: { 'theme.css': THEME },
    parts: [
      { id: 1, name: 'Top', kind: 'theme', selector: '#top', openers: [] },
      { id: 2, name: 'Main', kind: 'theme', selector: 'main', openers: [] },
    ],
    veneerPlace: 'head-end',
    prefix: 'brand',
  });
  return dressSite(site, [], PALETTE);
}

function number(site: SiteModel, selector: string): number {
  const [tag, name] = selector.split('.');
  const found = pageOf(site, 1).document.elements.find(
    (element) => element.localName === tag && (name === undefined || element.classes.includes(name)),
  );
  if (!found) throw new Error(`No ${selector} in the page`);
  return found.number;
}

function wish(site: SiteModel, on: string, some: Partial<OverrideWish> = {}): OverrideWish {
  return {
    pageId: 1,
    element: number(site, on),
    pseudo: '',
    reach: 'alike',
    state: 'rest',
    property: 'color',
    value: { kind: 'role', role: 'accent', shade: 0 },
    width: 1280,
    ...some,
  };
}

/** Makes an override; the site then, and its selector. */
function make(site: SiteModel, wanted: OverrideWish): { readonly site: SiteModel; readonly selector: string } {
  const plan = planOverride(site, wanted);
  if (!plan.ok) return { site, selector: say(plan.reason) };
  const kept = site.overrides.filter(({ id }) => !plan.drop.includes(id) && !plan.put.some((put) => put.id === id));
  return {
    site: dressSite(site, [...kept, ...plan.put], site.palette),
    selector: plan.put[0].selector + (plan.put[0].important ? ' !important' : ''),
  };
}

describe('planOverride', () => {
  // The least selector that matches exactly the reach and beats the winner, worked out by hand from Selectors 4 §17.
  const rows: readonly (readonly [what: string, on: string, some: Partial<OverrideWish>, selector: string])[] = [
    ['a plain class is enough', 'button.btn', { property: 'background-color' }, 'button.btn'],
    ['an id in the way', 'a.btn', { property: 'background-color' }, '#top .btn'],
    ['a hover stronger than rest', 'button.btn', { property: 'background-color', state: 'hover' }, '.card .btn:hover'],
    ['an important hover', 'a', { element: -1, state: 'hover' }, 'main p a:hover !important'],
    ['leaving out by a class the others have', 'span.tab', {}, '.tab:not(.wide)'],
    ['an inline style', 'i', {}, 'i !important'],
    [
      'an inline style that cannot be beaten',
      'b',
      {},
      'Its style attribute says !important, which no stylesheet can beat',
    ],
    [
      'an important layer that cannot be beaten',
      'u.low',
      {},
      'Layer low says !important, which no rule outside layers can beat',
    ],
    ['a layer gives way to anything', 'u.soft', {}, '.soft'],
    ['a sheet after the veneer wins ties', 'q.late', {}, 'q.late'],
    ['focus as the page shows it', 'input', { property: 'border-color', state: 'focus' }, 'input:focus'],
    ['focus for the keyboard', 'button.btn', { state: 'focus' }, 'button:focus-visible'],
    ['everything of a kind', 'button.btn', { reach: 'everywhere' }, ':root button'],
    ['one element among alike', 'button.btn', { reach: 'one', property: 'background-color' }, '.p1 button'],
  ];
  for (const [what, on, some, selector] of rows) {
    it(`${what}: ${selector}`, () => {
      const site = open();
      const target =
        some.element === -1
          ? (pageOf(site, 1).document.elements.find(
              (element) => element.localName === 'a' && element.parent?.localName === 'p',
            )?.number ?? 0)
          : number(site, on);
      const made = make(site, wish(site, on, { ...some, element: target }));
      expect(made.selector).toBe(selector);
      if (made.site === site) return;
      const [override] = made.site.overrides;
      const [reach, spill] = judgeInWords(made.site, override, 1280);
      expect([reach.standing, spill.standing]).withContext(reach.text).toEqual(['holds', 'holds']);
    });
  }

  it('does not lean on generated class names', () => {
    const made = make(open(), wish(open(), 'em.css-1x7q9ka', { reach: 'one' }));
    expect(made.selector).not.toContain('css-1x7q9ka');
    expect(judgeInWords(made.site, made.site.overrides[0], 1280)[0].text).toBe('reaches 1 of 1');
  });

  it('writes only the sides that show', () => {
    const site = open();
    const plan = planOverride(site, wish(site, 's.edged', { property: 'border-color' }));
    expect(plan.ok && plan.put.map(({ property }) => property)).toEqual(['border-bottom-color']);
  });

  it('replaces its own former value instead of outbidding it', () => {
    let site = open();
    const first = make(site, wish(site, 'button.btn', { property: 'background-color', state: 'hover' }));
    site = first.site;
    const second = make(
      site,
      wish(site, 'button.btn', {
        property: 'background-color',
        state: 'hover',
        value: { kind: 'swatch', swatchId: 1, shade: -12 },
      }),
    );
    expect(second.selector).toBe(first.selector);
    expect(second.site.overrides.length).toBe(1);
  });

  it('beats an own wider override with a narrower one', () => {
    let site = open();
    site = make(site, wish(site, 'button.btn', { reach: 'everywhere' })).site;
    site = make(site, wish(site, 'button.btn', { reach: 'one', value: { kind: 'literal', css: '#010203' } })).site;
    const page = pageOf(site, 1);
    const element = page.document.elements[number(site, 'button.btn')];
    expect(viewIn(page, element, 'rest', 1280).style(element).resolved('color')).toBe('rgb(1, 2, 3)');
  });

  it('puts our ply on top and says why the page’s lies under it', () => {
    let site = open();
    site = make(site, wish(site, 'button.btn', { property: 'background-color', state: 'hover' })).site;
    const page = pageOf(site, 1);
    const element = page.document.elements[number(site, 'button.btn')];
    const { plies } = explain(viewIn(page, element, 'hover', 1280), element, 'background-color');
    expect(spoken(plies.slice(0, 3).map((ply) => [ply.source.isVeneer, ply.under?.text ?? null]))).toEqual([
      [true, null],
      [false, 'earlier sheet'],
      [false, 'fewer classes'],
    ]);
  });

  it('says what it does in plain words', () => {
    const { site } = make(
      open(),
      wish(open(), 'button.btn', {
        property: 'background-color',
        state: 'hover',
        value: { kind: 'role', role: 'accent', shade: -12 },
      }),
    );
    expect(glossInWords(site, site.overrides[0])).toBe(
      'When the pointer is over it, the button’s fill becomes Accent, 12 darker, on 2 pages.',
    );
  });
});

describe('inspect', () => {
  it('lays out lineage, states, grid, strip and reach', () => {
    const site = open();
    const found = inspect(site, 1, number(site, 'button.btn'), '', 1280);
    expect(spoken(found.name)).toBe('Go');
    expect(found.lineage.map(({ label }) => label)).toEqual(['html', 'body.page.p1', 'main', 'div.card', 'button.btn']);
    expect(found.states).toEqual(['rest', 'hover', 'focus', 'active', 'disabled']);
    const fill = found.grid[1].cells;
    expect(fill.map(({ hex, isOwn }) => [hex, isOwn])).toEqual([
      ['#dddddd', true],
      ['#ffff00', true],
      ['#dddddd', false],
      ['#ffff00', true],
      ['#dddddd', false],
    ]);
    expect(found.grid.find(({ row }) => row === 'edge')?.cells.every(({ css }) => css !== null)).toBe(true);
    expect(found.reach.map(({ reach, elements, pages }) => [reach, elements, pages])).toEqual([
      ['one', 1, 1],
      ['alike', 2, 2],
      ['everywhere', 2, 2],
    ]);
    expect(spoken(found.strip[0].note)).toBe('stray text, fill, edge');
  });

  it('names generated classes that no selector leans on', () => {
    const site = open();
    const em = inspect(site, 1, number(site, 'em.css-1x7q9ka'), '', 1280);
    expect(em.avoided).toEqual(['.css-1x7q9ka']);
    const plan = planOverride(site, wish(site, 'em.css-1x7q9ka', { reach: 'one' }));
    expect(plan.ok && plan.put[0].selector).not.toContain('css-1x7q9ka');
    expect(inspect(site, 1, number(site, 'button.btn'), '', 1280).avoided).toEqual([]);
  });

  it('knows visited for links only, and pseudo-elements that are generated', () => {
    const site = open();
    expect(inspect(site, 1, number(site, 'a.btn'), '', 1280).states).toContain('visited');
    expect(inspect(site, 1, number(site, 'q.late'), '', 1280).below.map(({ pseudo }) => pseudo)).toEqual([
      'before',
      'after',
      'selection',
    ]);
  });

  it('refuses what is not there, with the number and the bound', () => {
    expect(() => inspect(open(), 1, 9999, '', 1280)).toThrowError(RangeError, /No element 9999 in a page of/);
    expect(() => inspect(open(), 7, 0, '', 1280)).toThrowError(/No page 7/);
  });

  it('counts how much of a part is matched', () => {
    let site = open();
    const before = partProgress(site, 1, 1280).find(({ partId }) => partId === 1);
    site = make(site, wish(site, 'a.btn', { property: 'background-color' })).site;
    const after = partProgress(site, 1, 1280).find(({ partId }) => partId === 1);
    expect(after?.places).toBe(before?.places);
    expect((after?.matched ?? 0) - (before?.matched ?? 0)).toBe(1);
  });
});
