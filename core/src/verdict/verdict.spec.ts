import { say, spoken } from '@upper-veneer/words';
import { dressSite, openSite, pageOf, viewIn, type SiteModel } from '../site/site-model.js';
import { companionsOf } from './companions.js';
import { checkSelector } from '../plan/hand-selector.js';
import { copyLook, pasteLook } from '../plan/look.js';
import { overridesOfCell, planAll, planOverride, withOverrides } from '../plan/plan-override.js';
import type { OverrideWish } from '../veneer/override-wish.js';
import { proposeStates } from '../plan/propose-states.js';
import { judgeInWords } from '../testing/in-words.js';
import { whatPaints } from '../inspect/what-paints.js';
import type { Palette } from '../veneer/palette.js';

const PALETTE: Palette = {
  swatches: [
    { id: 1, name: 'Willow', css: '#8a3a14' },
    { id: 2, name: 'Chalk', css: '#ffffff' },
    { id: 3, name: 'Ink', css: '#1d2b2a' },
  ],
  roles: [
    { role: 'accent', swatchId: 1, shade: 0 },
    { role: 'on-accent', swatchId: 2, shade: 0 },
    { role: 'ink', swatchId: 3, shade: 0 },
    { role: 'ground', swatchId: 2, shade: 0 },
  ],
};
const THEME = `body { background: #fff; color: #222 } .go { background: #ddd; color: #333 } .go:hover { background: #bbb } .go:focus { background: #ccc } .go[disabled] { background: #eee }
.panel { background: #fafafa } .panel h2 { color: #444 } .panel a { color: blue } .panel a:visited { color: purple } .card:hover .caption { color: gold } .wide { color: #333 }
@media (max-width: 600px) { .wide { color: #666 } #top .wide { color: #777 } } @media (min-width: 48em) { .late { color: red } } .pager .is-current a { background: navy } .pager a { background: #eee }
input { border: 1px solid #ccc } input::placeholder { color: #999 } .cover { background: linear-gradient(red, blue) }
.css-1x7q9ka { color: maroon }`;
const PAGE = (
  id: number,
): string => `<!doctype html><link rel=stylesheet href=t.css><body class="p p${id}"><div id=top><span class=wide>w</span></div><button class=go>Go</button><button class=go disabled>Off</button>
<div class=panel><h2>Head</h2><p>Text <a href=x>link</a></p></div><div class=card><p class=caption>c</p></div><span class=late>l</span>
<ul class=pager><li><a href=1>1</a></li><li class=is-current><a href=2>2</a></li><li><a href=3>3</a></li></ul><input placeholder=x><button class="go cover">Cover</button></body>`;

function open(pages = [1, 2]): SiteModel {
  return dressSite(
    openSite({
      pages: pages.map((id) => ({ id, name: `Page ${id}`, path: `${id}.html`, html: PAGE(id) })),
      stylesheets: { 't.css': THEME },
      parts: [],
      veneerPlace: 'head-end',
      prefix: 'brand',
    }),
    [],
    PALETTE,
  );
}

function number(site: SiteModel, selector: string, nth = 0): number {
  const [tag, name] = selector.split('.');
  return pageOf(site, 1).document.elements.filter(
    (element) => (tag === '' || element.localName === tag) && (name === undefined || element.classes.includes(name)),
  )[nth].number;
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

function make(
  site: SiteModel,
  wanted: OverrideWish,
): { readonly site: SiteModel; readonly selector: string; readonly texts: string[] } {
  const plan = planOverride(site, wanted);
  if (!plan.ok) throw new Error(say(plan.reason));
  const dressed = withOverrides(site, plan);
  return {
    site: dressed,
    selector: plan.put[0].selector,
    texts: judgeInWords(dressed, plan.put[0], wanted.width).map(({ text }) => text),
  };
}

describe('overrides that lead outside', () => {
  it('are said to, with the host', () => {
    const site = open();
    const texts = (css: string): string[] =>
      make(site, wish(site, '.go', { property: 'background-image', value: { kind: 'literal', css } })).texts.filter(
        (text) => text.startsWith('asks'),
      );
    expect(texts('url(https://pictures.test/a.png)')).toEqual(['asks pictures.test']);
    expect(texts('url("//a.test/x"), image-set("http://b.test/y" 1x)')).toEqual(['asks 2 other hosts']);
    expect([
      ...texts('url(img/a.png)'),
      ...texts('url(data:image/png;base64,AA==)'),
      ...texts('linear-gradient(red, blue)'),
    ]).toEqual([]);
  });
});

// Expected selectors and values worked out by hand from Selectors 4 and CSS Cascading 5.
describe('overrides by state', () => {
  it('write the current page by the mark the list itself uses, and leave the others alone', () => {
    const site = open();
    const made = make(
      site,
      wish(site, 'a', { element: number(site, 'a', 1), property: 'background-color', state: 'current' }),
    );
    expect(made.selector).toBe('.pager .is-current a');
    const page = pageOf(made.site, 1);
    const fills = page.document.elements
      .filter(({ localName, parent }) => localName === 'a' && parent?.localName === 'li')
      .map((element) => viewIn(page, element, 'rest', 1280).style(element).resolved('background-color'));
    expect(fills).toEqual(['rgb(238, 238, 238)', 'rgb(138, 58, 20)', 'rgb(238, 238, 238)']);
  });

  it('write rest of the others without the current one', () => {
    const site = open();
    const made = make(site, wish(site, 'a', { element: number(site, 'a', 1), property: 'background-color' }));
    expect(made.texts).toContain('reaches 4 of 4');
    expect(made.texts).toContain('no spill');
  });

  it('write a parent’s hover as a state of the child', () => {
    const site = open();
    const made = make(site, wish(site, 'p.caption', { state: 'parent-hover', parent: number(site, 'div.card') }));
    expect(made.selector).toBe('.card:hover .caption');
    expect(made.texts.slice(0, 2)).toEqual(['reaches 2 of 2', 'no spill']);
  });

  const rows: readonly (readonly [state: OverrideWish['state'], on: string, property: string, selector: string])[] = [
    ['disabled', 'button.go', 'background-color', ':disabled'],
    ['filled', 'input', 'color', 'input:not(:placeholder-shown)'],
    ['invalid', 'input', 'border-color', 'input:user-invalid'],
  ];
  for (const [state, on, property, selector] of rows) {
    it(`write ${state} as ${selector}`, () => {
      const site = open();
      const made = make(site, wish(site, on, { state, property }));
      expect(made.selector).toContain(selector.replace('button.go', '.go'));
      expect(made.texts[0]).toMatch(/^reaches (\d+) of \1$/);
      expect(made.texts[1]).toBe('no spill');
    });
  }

  it('reach a placeholder', () => {
    const site = open();
    expect(make(site, wish(site, 'input', { pseudo: 'placeholder' })).selector).toBe('input::placeholder');
  });
});

describe('overrides by width, page and match', () => {
  it('beat what only holds at another width, and say where they hold', () => {
    const site = open();
    // At rest and 1280 px a class is enough; at 390 px an id is in the way.
    const made = make(site, wish(site, 'span.wide'));
    expect(made.selector).toBe('#top .wide');
    expect(made.texts[0]).toBe('reaches 2 of 2');
  });

  it('hold from or to a breakpoint only', () => {
    const site = open();
    const made = make(site, wish(site, 'span.late', { widths: { min: null, max: 767 } }));
    expect(made.site.css).toContain('@media (max-width: 767px) {\n  .late {\n    color: var(--brand-accent);\n  }\n}');
    const page = pageOf(made.site, 1);
    const element = page.document.elements[number(made.site, 'span.late')];
    expect([1280, 390].map((width) => viewIn(page, element, 'rest', width).style(element).resolved('color'))).toEqual([
      'rgb(255, 0, 0)',
      'rgb(138, 58, 20)',
    ]);
  });

  it('keep to one page by what tells it apart, and leave single matches out', () => {
    const site = open();
    expect(make(site, wish(site, 'span.late', { pages: [2] })).selector).toBe('.p2 > span');
    const spared = make(site, wish(site, 'span.late', { spared: [{ pageId: 2, element: number(site, 'span.late') }] }));
    expect(spared.texts[0]).toBe('reaches 1 of 1');
    const none = planOverride(
      open([1]),
      wish(open([1]), 'span.late', { spared: [{ pageId: 1, element: number(open([1]), 'span.late') }] }),
    );
    expect(spoken(none.ok ? '' : none.reason)).toContain('left out');
  });
});

describe('the verdict', () => {
  it('lists what a rest rule covers and what a state keeps, each with its repair', () => {
    const site = open();
    const plan = planOverride(
      site,
      wish(site, 'button.go', { property: 'background-color', important: true } as Partial<OverrideWish>),
    );
    if (!plan.ok) throw new Error(say(plan.reason));
    const covering = plan.put.map((override) => ({ ...override, selector: 'body .go.go.go' }));
    const covered = dressSite(site, covering, PALETTE);
    const findings = judgeInWords(covered, covering[0], 1280);
    const hover = findings.find(({ text }) => text === 'hides hover');
    expect(hover?.repair?.label).toBe('Hover: Accent, 12 darker');
    const repaired = planAll(covered, hover?.repair?.wishes ?? []);
    const after = withOverrides(covered, repaired);
    expect(judgeInWords(after, covering[0], 1280).map(({ text }) => text)).not.toContain('hides hover');
  });

  it('lists spill with its elements', () => {
    const site = open();
    const made = make(site, wish(site, 'h2'));
    const wide = made.site.overrides.map((override) => ({ ...override, selector: '.panel h2, .caption' }));
    const findings = judgeInWords(dressSite(site, wide, PALETTE), wide[0], 1280);
    expect(findings[1].text).toBe('spills to 2');
    expect(findings[1].spots).toEqual([1, 2].map((pageId) => ({ pageId, element: number(site, 'p.caption') })));
  });

  it('counts all that it outlines only some of', () => {
    const site = dressSite(
      openSite({
        pages: [{ id: 1, name: 'x', path: 'x.html', html: `<!doctype html><body><h2>h</h2>${'<p>x</p>'.repeat(350)}` }],
        stylesheets: {},
        parts: [],
        veneerPlace: 'head-end',
        prefix: 'brand',
      }),
      [],
      PALETTE,
    );
    const plan = planOverride(site, wish(site, 'h2'));
    const wide = plan.ok ? plan.put.map((override) => ({ ...override, selector: 'h2, p' })) : [];
    const [, spill] = judgeInWords(dressSite(site, wide, PALETTE), wide[0], 1280);
    expect([spill.text, spill.spots?.length]).toEqual(['spills to 350', 200]);
  });

  it('says at once that a gradient hides a plain fill, and offers to clear it', () => {
    const site = open();
    const cover = { element: number(site, 'button.cover'), reach: 'one' as const };
    const made = make(site, wish(site, 'button.cover', { property: 'background-color', ...cover }));
    const finding = judgeInWords(made.site, made.site.overrides[0], 1280).find(({ text }) =>
      text.includes('covers this fill'),
    );
    const cleared = withOverrides(made.site, planAll(made.site, finding?.repair?.wishes ?? []));
    const page = pageOf(cleared, 1);
    const element = page.document.elements[cover.element];
    expect(viewIn(page, element, 'rest', 1280).style(element).resolved('background-image')).toBe('none');
  });

  it('warns of what hiding takes away', () => {
    const site = open();
    expect(
      make(site, wish(site, 'div.panel', { property: 'display', value: { kind: 'literal', css: 'none' } })).texts,
    ).toContain('hides 1 that people use');
  });
});

describe('what goes with an override', () => {
  it('companions of a ground: text, heading and links in their states, each with a role that passes', () => {
    const site = open();
    const made = make(site, wish(site, 'div.panel', { property: 'background-color' }));
    const found = companionsOf(made.site, made.site.overrides[0], 1280);
    expect(found.map(({ kind, state }) => `${kind} ${state}`)).toContain('link visited');
    expect(new Set(found.map(({ kind }) => kind))).toEqual(new Set(['heading', 'text', 'link']));
    for (const { proposedRatio, wanted } of found) expect(proposedRatio ?? 0).toBeGreaterThanOrEqual(wanted);
    const after = withOverrides(
      made.site,
      planAll(
        made.site,
        found.map((companion) => companion.wish),
      ),
    );
    expect(companionsOf(after, made.site.overrides[0], 1280)).toEqual([]);
  });

  it('states filled from rest keep the text readable and differ from rest', () => {
    const site = open();
    const made = make(site, wish(site, 'button.go', { property: 'background-color' }));
    const { wishes } = proposeStates(made.site, {
      pageId: 1,
      element: number(site, 'button.go'),
      pseudo: '',
      reach: 'alike',
      width: 1280,
    });
    expect(wishes.find(({ state, property }) => state === 'hover' && property === 'background-color')?.value).toEqual({
      kind: 'role',
      role: 'accent',
      shade: -12,
    });
    expect(wishes.find(({ state, property }) => state === 'hover' && property === 'color')?.value).toEqual({
      kind: 'role',
      role: 'on-accent',
      shade: 0,
    });
    const after = withOverrides(made.site, planAll(made.site, wishes));
    const page = pageOf(after, 1);
    const element = page.document.elements[number(site, 'button.go')];
    const fills = (['rest', 'hover', 'active'] as const).map((state) =>
      viewIn(page, element, state, 1280).style(element).resolved('background-color'),
    );
    expect(new Set(fills).size).toBe(3);
  });

  it('a look copied from one and pasted on another makes them computed alike', () => {
    const site = open();
    const look = copyLook(site, { pageId: 1, element: number(site, 'button.go'), pseudo: '' }, 1280);
    const { wishes } = pasteLook(
      site,
      look,
      { pageId: 1, element: number(site, 'p.caption'), pseudo: '', reach: 'alike' },
      1280,
    );
    const after = withOverrides(site, planAll(site, wishes));
    const page = pageOf(after, 1);
    const [from, to] = [number(site, 'button.go'), number(site, 'p.caption')].map((at) => page.document.elements[at]);
    for (const property of ['color', 'background-color', 'border-top-width', 'border-top-style', 'font-weight'])
      expect(viewIn(page, to, 'rest', 1280).style(to).resolved(property))
        .withContext(property)
        .toBe(viewIn(page, from, 'rest', 1280).style(from).resolved(property));
    expect(
      pasteLook(
        after,
        look,
        { pageId: 1, element: number(site, 'p.caption'), pseudo: '', reach: 'alike' },
        1280,
      ).wishes.filter(({ state }) => state === 'rest'),
    ).toEqual([]);
  });

  it('a selector by hand is checked: reach, specificity, what it loses against', () => {
    const site = open();
    const [override] = make(site, wish(site, 'span.wide')).site.overrides;
    const dressed = make(site, wish(site, 'span.wide')).site;
    expect(spoken(checkSelector(dressed, override, '#top span'))).toEqual(
      jasmine.objectContaining({
        problem: '',
        specificity: [1, 0, 1],
        elements: 2,
        pages: 2,
        missing: [],
        extra: [],
        losesTo: jasmine.stringContaining('#top .wide'),
      }),
    );
    expect(checkSelector(dressed, override, 'span').extra.length).toBe(2);
    expect(spoken(checkSelector(dressed, override, '#top .wide.wide').losesTo)).toBe('');
    expect(spoken(checkSelector(dressed, override, 'a >').problem)).not.toBe('');
    expect(checkSelector(dressed, override, '.nothing').missing.length).toBe(2);
  });

  it('a selector by hand stays when the value changes', () => {
    const made = make(open(), wish(open(), 'span.late'));
    const byHand = dressSite(
      made.site,
      made.site.overrides.map((override) => ({ ...override, selector: 'body span.late', isByHand: true })),
      PALETTE,
    );
    const plan = planOverride(byHand, wish(byHand, 'span.late', { value: { kind: 'literal', css: 'green' } }));
    expect(plan.ok && plan.put[0].selector).toBe('body span.late');
    expect(
      overridesOfCell(byHand, {
        pageId: 1,
        element: number(byHand, 'span.late'),
        pseudo: '',
        state: 'rest',
        property: 'color',
      }).length,
    ).toBe(1);
  });

  it('what paints a pixel: the topmost of the stack that shows anything, sheer ones passed through', () => {
    const site = open();
    const stack = [number(site, 'a'), number(site, 'p'), number(site, 'div.panel'), number(site, 'body')];
    expect(whatPaints(site, 1, stack, 1280).map(({ label, what }) => `${label} ${what}`)).toEqual(['div.panel fill']);
    expect(whatPaints(site, 1, [number(site, 'button.cover')], 1280).map(({ what }) => what)).toEqual(['gradient']);
  });

  it('what paints a pixel: not what is invisible over it', () => {
    const site = dressSite(
      openSite({
        pages: [
          {
            id: 1,
            name: 'x',
            path: 'x.html',
            html: '<!doctype html><body><label><input type=checkbox class=a style="opacity: 0; background: red"><span class=b style="background: #ccc"></span><i class=c style="visibility: hidden; background: lime"></i></label>',
          },
        ],
        stylesheets: {},
        parts: [],
        veneerPlace: 'head-end',
        prefix: 'brand',
      }),
      [],
      PALETTE,
    );
    const at = (name: string): number =>
      pageOf(site, 1).document.elements.findIndex(({ classes }) => classes.includes(name));
    expect(whatPaints(site, 1, [at('c'), at('a'), at('b')], 1280).map(({ label }) => label)).toEqual(['span.b']);
  });
});
