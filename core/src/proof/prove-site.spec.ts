import { say, spoken } from '@upper-veneer/words';
import ColorJs from 'colorjs.io';
import { openOnePage } from '../testing/one-page-site.js';
import { readExceptions, type SiteException } from '../site/exceptions.js';
import { planOverride, withOverrides } from '../plan/plan-override.js';
import { dressSite, openSite, pageOf, type SiteModel } from '../site/site-model.js';
import { toEnd } from '../to-end.js';
import type { Override } from '../veneer/override.js';
import type { OwnCss } from '../veneer/own-css.js';
import type { Palette } from '../veneer/palette.js';
import { thingsOf } from './gather-findings.js';
import { ProofMemo } from './proof-memo.js';
import type { ProofFinding, ProofKind } from './proof-finding.js';
import { proveSite } from './prove-site.js';
import { tryMend } from './try-mend.js';

const PALETTE: Palette = {
  swatches: [
    { id: 1, name: 'River', css: '#104a47' },
    { id: 2, name: 'Chalk', css: '#ffffff' },
    { id: 3, name: 'Ink', css: '#1d2b2a' },
  ],
  roles: [
    { role: 'accent', swatchId: 1, shade: 0 },
    { role: 'ground', swatchId: 2, shade: 0 },
    { role: 'ink', swatchId: 3, shade: 0 },
  ],
};
const BASE = 'body { background: #fff; color: #1d2b2a } a, button { color: #104a47 }';

interface Given {
  readonly css?: string;
  readonly body: string;
  readonly overrides?: readonly Override[];
  readonly exceptions?: readonly SiteException[];
  readonly palette?: Palette;
  readonly ownCss?: readonly OwnCss[];
}

function opened({ css = '', body, overrides = [], exceptions = [], palette = PALETTE, ownCss = [] }: Given): SiteModel {
  const html = `<!doctype html><head><style>${BASE} ${css}</style></head><body>${body}</body>`;
  const site = openSite({
    pages: [{ id: 1, name: 'Home', path: 'index.html', html }],
    stylesheets: {},
    parts: [{ id: 1, name: 'Form', kind: 'widget', selector: '.form', openers: [] }],
    veneerPlace: 'head-end',
    prefix: 'brand',
  });
  return dressSite(site, overrides, palette, { exceptions: readExceptions(exceptions), ownCss });
}

function found(given: Given, kind: ProofKind): ProofFinding[] {
  return toEnd(proveSite(opened(given))).findings.filter((finding) => finding.kind === kind);
}

const titles = (findings: readonly ProofFinding[]): string[] =>
  findings.map(({ level, title }) => `${level} ${say(title)}`);

function override(selector: string, property: string, css: string, some: Partial<Override> = {}): Override {
  return {
    id: `${selector} ${property}`,
    pageId: 1,
    element: 0,
    pseudo: '',
    reach: 'one',
    state: 'rest',
    partId: null,
    property,
    value: { kind: 'literal', css },
    selector,
    important: false,
    ...some,
  };
}

describe('the proof', () => {
  // Ratios by WCAG 2.2's formula: #767676 on white is the well-known border case of 4.54 : 1, #777777 of 4.48 : 1.
  it('finds what cannot be read, and only that, with its figure', () => {
    const body = '<p style="color: #777">Grey</p><p style="color: #767676">Darker</p>';
    const [first, ...others] = found({ body }, 'reads');
    expect(others).toEqual([]);
    expect(spoken(first.title)).toBe('Text of Grey');
    expect(first.figure).toBeCloseTo(4.48, 2);
    expect([first.needed, first.level]).toEqual([4.5, 'fails']);
  });

  it('looks in every state and at every width a rule asks for', () => {
    const css = '.t:hover { color: #ddd } @media (max-width: 400px) { .u { color: #ccc } }';
    const reads = found({ css, body: '<p class=t>One</p><p class=u>Two</p>' }, 'reads');
    expect(spoken(reads.map(({ title, states, widths }) => [title, states, widths]))).toEqual([
      ['Text of One', ['hover', 'active'], [1280, 820, 390]],
      ['Text of Two', ['rest'], [390]],
    ]);
  });

  it('says one cause once, with all its places', () => {
    const css = '.t { color: #aaa }';
    const [first, ...others] = found(
      { css, body: '<p class=t>One</p><p class=t>Two</p><div class=form><p class=t>Three' },
      'reads',
    );
    expect(others).toEqual([]);
    expect(spoken(first.title)).toBe('Text of One, Two and 1 more');
    expect(first.places.map(({ partId }) => partId)).toEqual([null, null, 1]);
  });

  // WCAG 2.2, 1.4.1 and technique G183: blue (#0000ff) beside black is 2.44 : 1, under 3.
  it('finds links in running text that colour alone tells from it', () => {
    const css = 'p { color: #000 } a { color: #00f; text-decoration: none } .u { text-decoration: underline }';
    const prose = (link: string): string => `<p>Words that go on around it, and on and on ${link} and on.</p>`;
    const reads = found({ css, body: prose('<a href=x>plain</a>') + prose('<a href=y class=u>lined</a>') }, 'reads');
    expect(titles(reads)).toEqual(['fails Told from its text by colour alone: Plain']);
    expect(reads[0].figure).toBeCloseTo(2.44, 2);
  });

  // WCAG 2.2, 2.4.7.
  it('finds what does not show its focus, and what shows it by what forced colours take away', () => {
    const css =
      'button { outline: none } .ring:focus { outline: 2px solid #104a47 } .glow:focus { box-shadow: 0 0 0 3px #104a47 }';
    const body = '<button>Plain</button><button class=ring>Ring</button><button class=glow>Glow</button>';
    expect(titles(found({ css, body }, 'seen'))).toEqual(['fails Nothing shows the focus of Plain']);
    expect(titles(found({ css, body }, 'eyes'))).toEqual(['look In forced colours nothing shows the focus of Glow']);
  });

  it('finds what the theme still shows in a state of what is ours, by whatever property', () => {
    const css =
      '.a { background: #104a47; color: #fff } .a:hover { background: #a030c0 } .b { background: #104a47; color: #fff } .b:hover { box-shadow: 0 0 4px #a030c0 }';
    const body = '<button class=a>Fill</button><button class=b>Glow</button>';
    expect(titles(found({ css, body }, 'answers')).sort()).toEqual([
      'fails Hover still shows the theme’s fill: Fill',
      'fails Hover still shows the theme’s shadow: Glow',
      'fails Pressed still shows the theme’s fill: Fill',
      'fails Pressed still shows the theme’s shadow: Glow',
    ]);
  });

  it('finds what does not answer the pointer, a current one like its neighbours, and visited links that hide hover', () => {
    const css =
      '.t:hover { color: #1d2b2a } .o:hover { color: #1d2b2a } .o:visited { color: #fff } a { text-decoration: none }';
    const body =
      '<a href=1 class=still>Still</a><nav><a href=2 class="t current">Here</a><a href=3 class=t>There</a></nav><a href=4 class=o>Order</a>';
    expect(titles(found({ css, body }, 'answers'))).toEqual([
      'look The current one looks like its neighbours: Here',
      'look Looks hovered as at rest: Still',
      'look Once visited it no longer answers the pointer: Order',
    ]);
  });

  it('finds colours that are not the brand’s, and passes exceptions over', () => {
    const css = '.x { background: #a030c0 } .y { border: 2px solid #d0241c } .z { background: #115b57 }';
    const given = { css, body: '<p class=x>One</p><p class=y>Two</p><p class=z style="color: #fff">Three</p>' };
    expect(titles(found(given, 'ours'))).toEqual([
      'fails #d0241c: line of Two',
      'fails #a030c0: ground of One',
      jasmine.stringMatching(/^(?:look|fails) #115b57/),
    ]);
    const exceptions = [
      { kind: 'color', target: '#a030c0' },
      { kind: 'place', target: '.y' },
    ] as const;
    expect(found({ ...given, exceptions }, 'ours').length).toBe(1);
  });

  it('finds rules of the sheet that match nothing, never win, or are not needed', () => {
    const overrides = [
      override('.gone', 'color', '#104a47'),
      override('.t', 'color', '#104a47'),
      override('.same', 'color', '#1d2b2a'),
      override('.good', 'color', '#104a47'),
    ];
    const css = '#strong { color: #1d2b2a }';
    const body = '<p id=strong class=t>One</p><p class=same>Two</p><p class=good>Three</p>';
    expect(titles(found({ css, body, overrides }, 'holds'))).toEqual([
      'fails .gone { color } matches nothing',
      'fails .t { color } never wins',
      'look .same { color } changes nothing',
    ]);
  });

  it('finds what a rule changes outside its reach', () => {
    const body = '<p class=t>One</p><p class=t>Two</p>';
    const [, , , , first] = [...opened({ body }).pages.values()][0].document.elements;
    const wide = override('.t', 'color', '#104a47', { element: first.number });
    expect(titles(found({ body, overrides: [wide] }, 'inside'))).toEqual(['fails color spills to Two']);
    expect(found({ body, overrides: [{ ...wide, isByHand: true }] }, 'inside')).toEqual([]);
  });

  // Machado et al. 2009 by way of `seenAs`: a red and a green of like lightness merge for deuteranopes.
  it('finds what only hue tells apart, for those who do not see it', () => {
    const css = 'a { text-decoration: none; color: #8a7000 } a.current { color: #b85c00 }';
    const body = '<nav><a href=2 class=current>Here</a><a href=3>There</a></nav>';
    const eyes = found({ css, body }, 'eyes').filter(({ title }) => say(title).includes('merge'));
    expect(titles(eyes)).toEqual([
      jasmine.stringMatching(/^look The current one and its neighbours merge with \w+anopia: Here$/),
    ]);
    expect(found({ css: `${css} a.current { font-weight: 700 }`, body }, 'eyes')).toEqual([]);
  });

  it('says what it did not look at', () => {
    const css = '@container (width > 300px) { p { color: #a030c0 } }';
    const { unseen } = toEnd(proveSite(opened({ css, body: '<p>One</p><iframe src="x"></iframe>' })));
    expect(spoken(unseen.map(({ what }) => what))).toEqual(['@container (width > 300px)', '1 framed part on Home']);
    const bare = toEnd(proveSite(opened({ body: '<p>One', palette: { swatches: [], roles: [] } })));
    expect(spoken(bare.unseen.map(({ what }) => what))).toEqual(['colours that are not the brand’s']);
  });

  it('passes over what does not show, and says how many texts no state shows', () => {
    const css =
      '.menu { opacity: 0; color: #bbb } .bar:hover .menu { opacity: 1; color: #1d2b2a } .off { display: none; color: #bbb }';
    const body =
      '<div class=bar>Bar <p class=menu>Shown when hovered</p></div><p class=off>Never</p><p class=off>Nor this</p>';
    const proof = toEnd(proveSite(opened({ css, body })));
    expect(proof.findings.filter(({ kind }) => kind === 'reads')).toEqual([]);
    expect(spoken(proof.unseen.map(({ what }) => what))).toEqual(['2 hidden texts on Home']);
  });

  it('leaves exceptions alone whatever they show, and counts them once', () => {
    const css = '.o:hover { color: #1d2b2a } .o:visited { color: #888 } .o { text-decoration: none }';
    const body = '<nav><a class=o href=1>One</a><a class=o href=2>Two</a></nav>';
    const exceptions = [{ kind: 'place', target: 'nav' }] as const;
    const proof = toEnd(proveSite(opened({ css, body, exceptions })));
    expect(proof.findings).toEqual([]);
    expect(proof.leftAlone).toBe(3);
  });

  it('follows rules for parts of a scrollbar', () => {
    const css = 'html { overflow: auto }';
    const thumb = override('::-webkit-scrollbar-thumb', 'background-color', '#104a47', {
      pseudo: '-webkit-scrollbar-thumb',
      isByHand: true,
    });
    const proof = toEnd(proveSite(opened({ css, body: '<p>One', overrides: [thumb] })));
    expect(proof.findings.filter(({ kind }) => kind === 'holds')).toEqual([]);
    expect(proof.unseen).toEqual([]);
  });

  it('lists a place in each lighting it fails in', () => {
    const palette: Palette = { ...PALETTE, second: { told: { kind: 'scheme' }, roles: [] } };
    const [first] = found({ css: '.t { color: #888; background: #999 }', body: '<p class=t>One', palette }, 'reads');
    expect(first.lightings).toEqual(['light', 'inverted']);
    expect(first.places.map(({ lighting }) => lighting)).toEqual(['light', 'inverted']);
    expect(thingsOf(first)).toBe(1);
  });

  it('opens hidden parts', () => {
    const html = `<!doctype html><style>${BASE} .drawer { display: none } .drawer.open { display: block } .drawer p { color: #ccc }</style><div class=drawer><p>Inside</p></div>`;
    const site = openSite({
      pages: [{ id: 1, name: 'Home', path: 'index.html', html }],
      stylesheets: {},
      parts: [
        {
          id: 4,
          name: 'Drawer',
          kind: 'pop-up',
          selector: '.drawer',
          openers: [{ selector: '.drawer', act: 'add-class', name: 'open', value: '' }],
        },
      ],
      veneerPlace: 'head-end',
      prefix: 'brand',
    });
    const proof = toEnd(proveSite(dressSite(site, [], PALETTE)));
    expect(spoken(proof.findings.filter(({ kind }) => kind === 'reads').map(({ title }) => title))).toEqual([
      'Text of Inside',
    ]);
  });
});

describe('what a proof leaves out or takes over', () => {
  const css =
    '.a { background: #104a47; color: #fff } .a:hover { background: #a030c0 } @media (max-width: 900px) { .a { color: #1d2b2a } } @media (max-width: 500px) { .b { font-size: 30px } .b:hover { color: #ddd } }   .b { color: var(--tone, #777) }';
  const body = '<button class=a>Go</button><p class=b>Text</p><p class=b><a href=x>Link</a></p>';
  const told = (proof: { readonly findings: readonly ProofFinding[] }): string[] =>
    proof.findings
      .flatMap(({ id, level, places, widths }) =>
        places.map((place) => [id, level, place.element, place.state, place.property, widths].join('|')),
      )
      .sort();

  it('is what looking at each width by itself finds', () => {
    const site = opened({ css, body });
    const whole = toEnd(proveSite(site));
    const singly = whole.settings.map((setting) => toEnd(proveSite(site, { at: { settings: [setting], unseen: [] } })));
    const key = ({ findings }: { readonly findings: readonly ProofFinding[] }): Set<string> =>
      new Set(
        findings.flatMap(({ id, places }) =>
          places.map(({ element, state, property }) => [id, element, state, property].join('|')),
        ),
      );
    expect(whole.settings.length).toBeGreaterThan(2);
    expect([...key(whole)].sort()).toEqual([...new Set(singly.flatMap((proof) => [...key(proof)]))].sort());
    for (const [i, setting] of whole.settings.entries())
      for (const { id, widths } of whole.findings.filter(({ kind }) => kind !== 'holds'))
        expect([id, setting.width, widths.includes(setting.width)]).toEqual([
          id,
          setting.width,
          singly[i].findings.some((other) => other.id === id),
        ]);
  });

  it('is looked at again where an override is meant for other places by the same rule', () => {
    const memo = new ProofMemo();
    const site = opened({ body: '<p class=t>One</p><p class=t>Two</p>' });
    const first = [...site.pages.values()][0].document.elements.find(({ classes }) => classes.includes('t'));
    const one = override('.t', 'color', '#104a47', { element: first?.number ?? 0 });
    const spilt = (own: Override): number =>
      toEnd(proveSite(dressSite(site, [own], PALETTE), { memo })).findings.filter(({ kind }) => kind === 'inside')
        .length;
    expect([spilt({ ...one, reach: 'alike' }), spilt(one), spilt({ ...one, reach: 'alike' })]).toEqual([0, 1, 0]);
  });

  it('is the same after a change as when all is looked at anew', () => {
    const memo = new ProofMemo();
    const site = opened({ css, body });
    toEnd(proveSite(site, { memo }));
    for (const overrides of [
      [override('.b', 'color', '#1d2b2a')],
      [override(':root', '--tone', '#104a47', { isByHand: true })],
      [override('.b', 'color', '#1d2b2a'), override('.a:hover', 'background-color', '#1d2b2a', { state: 'hover' })],
      [],
    ]) {
      const next = dressSite(site, overrides, PALETTE);
      expect(told(toEnd(proveSite(next, { memo })))).toEqual(told(toEnd(proveSite(next))));
    }
  });

  describe('with three states at once', () => {
    // Source: Selectors 4 §9 and §13: each pseudo-class holds by itself, so that all may hold together.
    const css =
      'input { background: #fff; color: #1d2b2a } input:hover { background: #104a47; color: #fff } input:invalid { color: #8a1010 }';
    const body = '<form class=form><input required value=x></form>';

    it('finds what cannot be read where they come together, and can in each', () => {
      const reads = found({ css, body }, 'reads').filter(({ level }) => level === 'fails');
      expect(reads.map(({ states, mend }) => [states, mend])).toEqual([[['together'], null]]);
      // #8a1010 on #104a47 by the formula of WCAG 2.2, relative luminances 0.0561 and 0.0566.
      expect(reads[0].figure).toBeCloseTo(1.0, 1);
    });

    it('says nothing more of what fails in one of them already', () => {
      const each = css.replace('color: #8a1010', 'color: #e8e8e8');
      const reads = found({ css: each, body }, 'reads').filter(({ level }) => level === 'fails');
      expect(reads.flatMap(({ states }) => states)).not.toContain('together');
    });
  });

  describe('as other eyes see it', () => {
    // #c0392b and #6b7a1e lie on a line of confusion of deuteranopes; by the tables of Machado et al. 2009 that `vision.spec.ts` checks.
    const merging = 'a, button { border: 0; color: #fff } .go { background: #c0392b } .no { background: #6b7a1e }';
    const both = '<p class=form><button class=go>Go</button> <button class=no>No</button></p>';

    it('names two actions, and a reduced price beside a link, that only hue tells apart', () => {
      expect(titles(found({ css: merging, body: both }, 'eyes'))).toEqual([
        'look Two actions beside each other merge with deuteranopia: No',
      ]);
      const prices =
        '<p>From <b class=sale>39</b> <a href=x>Book</a></p><style>.sale { color: #c0392b; font-weight: 400 } a { color: #6b7a1e !important; text-decoration: none }</style>';
      expect(titles(found({ body: prices }, 'eyes'))).toContain(
        'look A link and a coloured text beside it merge with deuteranopia: Book',
      );
    });

    it('says nothing where lightness or an edge tells them as well', () => {
      const lighter = merging.replace('#6b7a1e', '#dfe8b0; color: #1d2b2a');
      expect(found({ css: lighter, body: both }, 'eyes')).toEqual([]);
      const edged = `${merging} .no { border: 2px solid #1d2b2a }`;
      expect(found({ css: edged, body: both }, 'eyes')).toEqual([]);
    });
  });
});

describe('what is left of an old family', () => {
  it('is named by its colour, by distance to the eye, and mended to the brand', () => {
    const css = `${BASE} .a { color: #0a5c8a } .b { color: #12648f } .c { color: #7a1f1f } .d { color: #1d2b2a }`;
    const opened = openOnePage(css, '<p class=a>One</p><p class=b>Two</p><p class=c>Three</p><p class=d>Four</p>');
    const site = dressSite(opened, [], { ...PALETTE, former: ['#0a5c8a'] });
    // CIEDE2000 by an implementation of its own: colorjs.io.
    const distance = (a: string, b: string): number => new ColorJs(a).deltaE(b, '2000');
    const proof = toEnd(proveSite(site));
    const left = proof.findings.filter(({ title }) => say(title).startsWith('Left of the old #0a5c8a'));
    expect(left.map(({ level, places }) => [level, places.length])).toEqual([['fails', 2]]);
    expect(distance('#0a5c8a', '#12648f')).toBeLessThan(10);
    expect(distance('#0a5c8a', '#7a1f1f')).toBeGreaterThan(10);
    expect(left[0].figure).toBeCloseTo(0, 3);
    // Of another family, and the brand's own.
    expect(proof.findings.filter(({ kind }) => kind === 'ours').map(({ title }) => say(title).slice(0, 7))).toEqual([
      'Left of',
      '#7a1f1f',
    ]);
  });
});

// Source: design.md §3, "stays in"; what a rule written by hand reaches is read off the page here.
describe('what own CSS of a part reaches', () => {
  const body = '<div class="form"><p><a class="x" href="a">in it</a></p></div><a class="x" href="b">outside</a>';
  const own = (css: string, partId: number | null = 1): ProofFinding[] =>
    found({ body, ownCss: [{ partId, css }] }, 'inside');

  it('is told where it changes what stands outside of the part', () => {
    const [finding, ...more] = own('.x { color: #103020; letter-spacing: 0 }');
    expect(more).toEqual([]);
    expect([finding.level, new Set(finding.places.map(({ element }) => element)).size, finding.mend]).toEqual([
      'look',
      1,
      null,
    ]);
    expect(spoken(finding.title)).toContain('own CSS of a part: color reaches');
  });

  it('is nothing to tell inside of it, by nesting and in a condition too, nor in the section of no part', () => {
    expect(own('.form .x { color: #103020 }')).toEqual([]);
    expect(
      own('.form { & .x:hover { color: #103020 } } @media (min-width: 1px) { .form p { color: #103020 } }'),
    ).toEqual([]);
    expect(own('.x { color: #103020 }', null)).toEqual([]);
  });

  it('is told of a state alone, and through nesting', () => {
    expect(own('body { & > .x:hover { color: #a03020 } }').map(({ places }) => places[0].state)).toEqual(['hover']);
  });
});

describe('what the proof asks of fields and scrollbars', () => {
  it('holds a box that is ticked against itself unticked, and no field that cannot be ticked', () => {
    const css =
      'input { appearance: none; border: 1px solid #555 } .on:checked { background: #555 } [checked].by { opacity: .5 }';
    // The last two are ticked as captured, and tell it by their state and by their attribute.
    const body =
      '<div class="form"><input placeholder="p"><input type="checkbox" id="t"></div><p><input type="radio" checked></p><p><input type="checkbox" class="on" checked></p><p><input type="checkbox" class="by" checked></p>';
    const ticked = found({ css, body }, 'answers').filter(({ title }) => say(title).startsWith('Looks ticked'));
    const page = pageOf(opened({ css, body }), 1);
    expect(
      ticked.flatMap(({ places }) =>
        places.map(({ element }) => page.document.elements[element].attributes.get('type')),
      ),
    ).toEqual(['checkbox', 'radio']);
  });

  // CSS Scrollbars 1 §2: one property has both colours; WCAG 2.2, 1.4.11 asks 3 : 1.
  it('mends a thumb that cannot be seen on its track in the one property that says both', () => {
    const site = opened({ css: 'html { scrollbar-color: #eee #fff }', body: '<div class="form">x</div>' });
    const memo = new ProofMemo();
    const proof = toEnd(proveSite(site, { memo }));
    const [finding] = proof.findings.filter(({ kind, level }) => kind === 'seen' && level === 'fails');
    const tried = toEnd(tryMend(site, finding, proof, memo));
    expect(tried.ok && tried.mend.put.map(({ property, value }) => [property, value.kind])).toEqual([
      ['scrollbar-color', 'composite'],
    ]);
    expect(tried.ok && tried.mend.after.css).toMatch(/scrollbar-color: .+ #ffffff;/);
  });

  it('keeps what matches in a state that a script brings about', () => {
    const css = '.tab { background: #fff } .tab.on { background: #ccc }';
    const body = '<div class="form"><a class="tab on" href="a">A</a><a class="tab" href="b">B</a></div>';
    const site = opened({ css, body });
    const element =
      pageOf(site, 1).document.elements.find(({ attributes }) => attributes.get('href') === 'b')?.number ?? 0;
    const plan = planOverride(site, {
      pageId: 1,
      element,
      pseudo: '',
      reach: 'one',
      state: 'switched',
      parent: element,
      property: 'background-color',
      value: { kind: 'role', role: 'accent', shade: 0 },
      width: 1280,
    });
    if (!plan.ok) throw new Error(say(plan.reason));
    expect(plan.put[0].selector).toMatch(/\.on$/);
    expect(plan.put[0].selector).not.toContain(':not(.on)');
    const { findings } = toEnd(proveSite(withOverrides(site, plan)));
    expect(findings.filter(({ kind }) => kind === 'holds')).toEqual([]);
  });

  it('asks no contrast of what ARIA says is off, or is in it, and of what merely says so in words', () => {
    const css = '.pale { color: #bbb }';
    const body =
      '<div class="form"><a class="pale" href="a" aria-disabled="true"><b>Off</b></a><a class="pale" href="b" aria-disabled="false">On</a></div>';
    const [finding, ...more] = found({ css, body }, 'reads').filter(({ level }) => level === 'fails');
    expect([more.length, new Set(finding.places.map(({ element }) => element)).size]).toEqual([0, 1]);
  });
});
