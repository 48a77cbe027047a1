import { say } from '@upper-veneer/words';
import { planOverride, withOverrides } from '../plan/plan-override.js';
import { dressSite, openSite, type SiteModel } from '../site/site-model.js';
import { takeCensus, type Census } from './census.js';
import type { PageMeasure } from './page-measure.js';
import { parsePage } from '../resolve/page.js';
import { StyleView } from '../resolve/style-view.js';
import { visibleFills } from './visible-fills.js';

const CSS = `
  :root { --brand: #b4582a; --accent: var(--brand); --gap: 4px }
  body { margin: 0; color: #1d2b2a; background: #f7f3e9 }
  .a { color: var(--accent); border: 2px solid }
  .a:hover { color: #b5592b; background: linear-gradient(red, #00f) }
  .b::before { content: "x"; color: #6d8a35 }
  .c { box-shadow: 0 1px 2px rgb(0 0 0 / 25%); outline: 1px solid teal }
  .gone { color: #123456 }
  @media (max-width: 400px) { .b { color: #000 } }
  .d:focus { outline: 2px solid #0f4a48 }
`;
const site = (body: string, css = CSS): SiteModel =>
  openSite({
    pages: [
      { id: 7, name: 'Home', path: 'index.html', html: `<!doctype html><link rel=stylesheet href=a.css><body>${body}` },
    ],
    stylesheets: { 'a.css': css },
    parts: [{ id: 3, name: 'B', kind: 'theme', selector: '.b', openers: [] }],
    veneerPlace: 'head-end',
    prefix: 'brand',
  });

function census(
  model: SiteModel,
  measures: readonly PageMeasure[] = [],
): { readonly result: Census; readonly shares: number[] } {
  const steps = takeCensus(model, measures, 1280);
  const shares: number[] = [];
  for (;;) {
    const step = steps.next();
    if (step.done) return { result: step.value, shares };
    shares.push(step.value.share);
  }
}

describe('a custom property that is overridden', () => {
  const theme =
    ':root { --tone: teal } .x, .y { --edge: #123456 } .z { color: var(--tone) } .x, .y { border: 1px solid var(--edge) } .z:hover { --tone: red }';
  const model = site('<p class=z>a</p><p class=x>b</p><p class=y>c</p>', theme);

  it('stays listed where the page declares it, with the value it has now; our own names for the palette are not', () => {
    const at = model.pages.get(7)?.document.rootElement.number ?? -1;
    const plan = planOverride(model, {
      pageId: 7,
      element: at,
      pseudo: '',
      reach: 'group',
      group: ':root',
      state: 'rest',
      property: '--tone',
      value: { kind: 'literal', css: '#00ff00' },
      width: 1280,
    });
    if (!plan.ok) throw new Error(say(plan.reason));
    const { properties } = census(withOverrides(model, plan)).result;
    expect(
      properties.filter(({ name }) => name === '--tone').map(({ hex, sheet, selector }) => [hex, sheet, selector]),
    ).toEqual([['#00ff00', 'a.css', ':root']]);
    const swatch = dressSite(
      model,
      [
        {
          id: 'o',
          partId: null,
          pageId: 7,
          element: at,
          pseudo: '',
          reach: 'one',
          state: 'rest',
          property: 'color',
          value: { kind: 'swatch', swatchId: 1, shade: 0 },
          selector: '.z.z',
          important: false,
        },
      ],
      { swatches: [{ id: 1, name: 'Willow', css: '#b4582a' }], roles: [] },
    );
    expect(census(swatch).result.properties.some(({ name }) => name.startsWith('--brand'))).toBeFalse();
  });

  it('is gathered by all selectors of its rule, so that whatever follows it changes', () => {
    const { properties } = census(model).result;
    expect(properties.map(({ name, group }) => [name, group]).sort()).toEqual([
      ['--edge', ':is(.x, .y)'],
      ['--tone', ':root'],
    ]);
    const edge = properties.find(({ name }) => name === '--edge');
    const plan = planOverride(model, {
      ...(edge?.setOn ?? { pageId: 7, element: 0 }),
      pseudo: '',
      reach: 'group',
      group: edge?.group,
      state: 'rest',
      property: '--edge',
      value: { kind: 'literal', css: '#00ff00' },
      width: 1280,
    });
    if (!plan.ok) throw new Error(say(plan.reason));
    expect(census(withOverrides(model, plan)).result.properties.find(({ name }) => name === '--edge')).toEqual(
      jasmine.objectContaining({ hex: '#00ff00', places: edge?.places, elements: 2 }),
    );
  });
});

describe('takeCensus', () => {
  const { result, shares } = census(
    site(
      '<p class=a>one</p><p class=b>two</p><div class=c></div><p class=d tabindex=0>three</p><svg><path fill="#ff8800"/></svg><div style="display:none"><p style="color:#010203">hid</p></div>',
    ),
  );
  const find = (hex: string) => result.colors.find((color) => color.hex === hex);
  const uses = (hex: string) =>
    find(hex)
      ?.uses.map(({ use, elements }) => `${use} ${elements}`)
      .sort();

  // Worked out by hand from the sheet above.
  it('counts each colour by what it is used for', () => {
    expect(uses('#b4582a')).toEqual(['edge 1', 'text 1']);
    expect(uses('#1d2b2a')).toEqual(['text 2']);
    expect(uses('#f7f3e9')).toEqual(['fill 1']);
    expect(uses('#6d8a35')).toEqual(['icon 1']);
    expect(uses('#00000040')).toEqual(['shadow 1']);
    expect(uses('#008080')).toEqual(['ring 1']);
    expect(uses('#ff8800')).toEqual(['icon 1']);
    expect(find('#123456')).toBeUndefined();
    expect(find('#000000')).toBeUndefined();
  });

  it('adds what other states paint, gradient stops among it', () => {
    expect(find('#b5592b')?.states).toEqual(['hover', 'active']);
    expect(uses('#ff0000')).toEqual(['gradient 1']);
    expect(find('#0000ff')?.states).toEqual(['hover', 'active']);
    expect(find('#0f4a48')?.states).toEqual(['focus']);
  });

  it('names the declaration, also where a colour is the current one or inherited', () => {
    expect(
      find('#b4582a')?.declarations.map(
        ({ declaration, line, selector, places }) => `${line} ${selector} { ${declaration} } ${places}`,
      ),
    ).toEqual(['4 .a { color: var(--accent) } 5']);
    expect(find('#1d2b2a')?.declarations.map(({ selector }) => selector)).toEqual(['body']);
    expect(find('#ff8800')?.declarations[0].sheet).toBe('attribute');
  });

  it('groups near-duplicates under the more painted one', () => {
    // ΔE2000 of #b4582a and #b5592b is 0.4 by the published formula.
    expect(find('#b5592b')?.group).toBe('#b4582a');
    expect(find('#6d8a35')?.group).toBe('#6d8a35');
  });

  it('says which places follow a custom property, through others too', () => {
    expect(result.properties.map(({ name, hex, places, elements }) => [name, hex, places, elements])).toEqual([
      ['--accent', '#b4582a', 5, 1],
      ['--brand', '#b4582a', 5, 1],
    ]);
  });

  it('knows parts and what is hidden, and reports its progress up to the whole', () => {
    expect(find('#6d8a35')?.partIds).toEqual([3]);
    expect(find('#010203')?.places.every(({ isHidden, area }) => isHidden && area === 0)).toBe(true);
    // 12 elements: head and link have no box, nor have the hidden div and what is in it.
    expect([result.elements, result.shown]).toEqual([12, 8]);
    expect(shares.at(-1)).toBe(1);
    expect([...shares].sort((a, b) => a - b)).toEqual(shares);
  });

  it('lists sheets with the rules nothing needs, in any state or width', () => {
    expect(result.sheets.map(({ name, origin, rules, unused }) => [name, origin, rules, unused])).toEqual([
      ['a.css', 'file', 9, 1],
    ]);
  });

  it('lists fonts by the text set in them', () => {
    expect(result.fonts.map(({ size, weight, elements }) => [size, weight, elements])).toEqual([[16, 400, 4]]);
  });

  it('has an answer for an empty page and for a page of one element', () => {
    expect(census(site('', '')).result.colors).toEqual([]);
    expect(
      census(openSite({ pages: [], stylesheets: {}, parts: [], veneerPlace: 'head-end', prefix: 'brand' })).result
        .elements,
    ).toBe(0);
  });
});

/** A layout of boxes, four numbers an element. */
const laidOut = (...boxes: readonly (readonly number[])[]): PageMeasure['layout'] => ({
  width: 100,
  height: 100,
  boxes: Float32Array.from(boxes.flat()),
  fragments: new Map(),
  lines: new Map(),
  pseudoBoxes: new Map(),
});
const NO_BOX = [0, 0, 0, 0];

describe('visibleFills', () => {
  // Elements: html 0, head 1, style 2, body 3, then those of the page.
  const page = (body: string, css = '') =>
    new StyleView(parsePage(`<!doctype html><style>${css}</style><body>${body}`));
  const areas = (view: StyleView, layout: PageMeasure['layout'], opacityOf: (number: number) => number): number[][] =>
    [...visibleFills(view, layout, opacityOf, 10_000)].sort((a, b) => a[0] - b[0]);

  it('gives each point to the topmost fill, and what that lets through to the next', () => {
    const layout = laidOut([0, 0, 100, 100], NO_BOX, NO_BOX, [0, 0, 100, 40], [0, 0, 100, 20], [0, 20, 40, 20]);
    expect(areas(page('<p></p><p></p>'), layout, (number) => [0, 0, 0, 1, 1, 0.5][number])).toEqual([
      [3, 1600],
      [4, 2000],
      [5, 400],
    ]);
  });

  it('follows the painting order, clips and visibility, not the order of the document', () => {
    const layout = laidOut([0, 0, 100, 100], NO_BOX, NO_BOX, [0, 0, 100, 100], [0, 0, 100, 100], [0, 0, 100, 100]);
    const shown = (css: string): number[][] =>
      areas(page('<p class=a></p><p class=b></p>', css), layout, (number) => Number(number >= 4));
    expect(shown('')).toEqual([[5, 10000]]);
    expect(shown('.a { position: relative }')).toEqual([[4, 10000]]);
    expect(shown('.b { visibility: hidden }')).toEqual([[4, 10000]]);
    const inside = laidOut([0, 0, 100, 100], NO_BOX, NO_BOX, [0, 0, 100, 100], [0, 0, 100, 40], [0, 0, 100, 80]);
    expect(
      areas(page('<div class=a><p class=b></p></div>', '.a { overflow: hidden }'), inside, (number) =>
        Number(number === 5),
      ),
    ).toEqual([[5, 4000]]);
  });
});

describe('areas of the census', () => {
  it('come from the boxes measured: fills as they show, edges by width and length, text by its ink', () => {
    const model = site(
      '<p class=a>one</p>',
      'body { background: #fff } .a { color: #b4582a; border-left: 4px solid #00f; background: #eee }',
    );
    // Elements: html 0, head 1, link 2, body 3, p 4.
    const measure: PageMeasure = {
      pageId: 7,
      layout: laidOut([0, 0, 100, 100], NO_BOX, NO_BOX, [0, 0, 100, 60], [0, 0, 100, 20]),
      ink: Float32Array.from([0, 0, 0, 0, 33]),
      pseudoSizes: {},
    };
    const { colors } = census(model, [measure]).result;
    expect(colors.map(({ hex, area }) => [hex, area])).toEqual([
      ['#ffffff', 4000],
      ['#eeeeee', 2000],
      ['#0000ff', 80],
      ['#b4582a', 33],
    ]);
  });
});
