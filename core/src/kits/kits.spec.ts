import { say, spoken } from '@upper-veneer/words';
import { dressSite, openSite, pageOf, type SiteModel } from '../site/site-model.js';
import { toEnd } from '../to-end.js';
import { StyleView } from '../resolve/style-view.js';
import { matchedInAnyState } from '../selectors/touched.js';
import { statesTogether } from '../reach/threshold.js';
import { planOverride, withOverrides } from '../plan/plan-override.js';
import type { OverrideWish } from '../veneer/override-wish.js';
import type { OverrideState } from '../veneer/override.js';
import type { Palette } from '../veneer/palette.js';
import { kitFit, layKitSteps } from './lay-kit.js';
import type { Kit } from './kit.js';
import { makeKit } from './make-kit.js';

const WIDGET =
  '<form class=qs-root><p class=qs-note>n</p><input class=qs-field><button class="qs-go">Go</button><button class="qs-go qs-more">More</button></form>';
const WIDGET_CSS =
  '.qs-root .qs-go { background-color: #5b50ee; color: #fff } .qs-root .qs-go:hover { background-color: #4038c0 } .qs-note { color: gray }';
const HERE: Palette = {
  swatches: [
    { id: 1, name: 'Willow', css: '#b4582a' },
    { id: 2, name: 'Chalk', css: '#ffffff' },
    { id: 3, name: 'Moss', css: '#3d5a2b' },
  ],
  roles: [
    { role: 'accent', swatchId: 1, shade: 0 },
    { role: 'on-accent', swatchId: 2, shade: 0 },
  ],
};
const THERE: Palette = {
  swatches: [
    { id: 9, name: 'Sea', css: '#0b6e99' },
    { id: 10, name: 'Foam', css: '#f4ffff' },
  ],
  roles: [{ role: 'accent', swatchId: 9, shade: 0 }],
};

function open(css: string, body: string, palette: Palette, partSelector = '.qs-root'): SiteModel {
  return dressSite(
    openSite({
      pages: [{ id: 1, name: 'x', path: 'x.html', html: `<!doctype html><style>${css}</style><body>${body}` }],
      stylesheets: {},
      parts: [{ id: 1, name: 'Form', kind: 'form', selector: partSelector, openers: [] }],
      veneerPlace: 'head-end',
      prefix: 'brand',
    }),
    [],
    palette,
  );
}

function wish(site: SiteModel, selector: string, some: Partial<OverrideWish>): SiteModel {
  const [element] = matchedInAnyState(pageOf(site, 1), selector);
  const plan = planOverride(site, {
    pageId: 1,
    element: element.number,
    pseudo: '',
    reach: 'alike',
    state: 'rest',
    property: 'color',
    value: { kind: 'role', role: 'accent', shade: 0 },
    width: 1280,
    ...some,
  });
  if (!plan.ok) throw new Error(say(plan.reason));
  return withOverrides(site, plan);
}

/** What an element shows in a state, resolved afresh. */
function shown(site: SiteModel, selector: string, state: OverrideState, property: string): string {
  const page = pageOf(site, 1);
  const [element] = matchedInAnyState(page, selector);
  const states = statesTogether([{ page, element }], state);
  return new StyleView(page, { states }).style(element).resolved(property);
}

describe('a kit', () => {
  const matched = [
    (site: SiteModel) =>
      wish(site, '.qs-go', { property: 'background-color', value: { kind: 'swatch', swatchId: 1, shade: 0 } }),
    (site: SiteModel) =>
      wish(site, '.qs-go', {
        property: 'background-color',
        state: 'hover',
        value: { kind: 'role', role: 'accent', shade: -12 },
      }),
    (site: SiteModel) => wish(site, '.qs-go', { value: { kind: 'role', role: 'on-accent', shade: 0 } }),
    (site: SiteModel) => wish(site, '.qs-note', { value: { kind: 'swatch', swatchId: 3, shade: 0 } }),
  ].reduce((site, act) => act(site), open(WIDGET_CSS, WIDGET, HERE));
  const kit = makeKit(matched, 1, 'Booking', 'Osier');
  if (!kit) throw new Error('no kit');

  it('keeps a match by role, a swatch by the role it fills, and no text or address of the page', () => {
    expect(kit.rules.map(({ state, property, value }) => [state, property, value])).toEqual(
      jasmine.arrayWithExactContents([
        ['rest', 'background-color', { kind: 'role', role: 'accent', shade: 0 }],
        ['hover', 'background-color', { kind: 'role', role: 'accent', shade: -12 }],
        ['rest', 'color', { kind: 'role', role: 'on-accent', shade: 0 }],
        ['rest', 'color', { kind: 'literal', css: '#3d5a2b' }],
      ]),
    );
    expect(kit.classes).toEqual(['qs-root', 'qs-note', 'qs-field', 'qs-go', 'qs-more']);
    expect(kit.roles).toEqual({ accent: '#b4582a', 'on-accent': '#ffffff' });
    expect(kit.markup).not.toContain('More');
    expect(makeKit(open('', WIDGET, HERE), 1, 'x', 'y')).toBeNull();
  });

  // The other site's theme is stronger, so that the selectors of the first would lose there (CSS Cascading 5 §6.1).
  const stronger = `${WIDGET_CSS} #shop form .qs-go { background-color: silver } #shop form .qs-go:hover { background-color: gray }`;

  it('is known again by its classes, and laid on with the palette and against the theme that are there', () => {
    const there = open(stronger, `<div id=shop>${WIDGET}</div>`, THERE);
    const fit = kitFit(there, kit);
    expect([fit.partId, fit.likeness, fit.rules, fit.of]).toEqual([1, 1, 4, 4]);
    const laid = toEnd(layKitSteps(there, kit));
    expect(spoken(laid.misfits.map(({ reason }) => reason))).toEqual(['no swatch fills on accent here']);
    const after = withOverrides(there, laid);
    expect(shown(after, '.qs-go', 'rest', 'background-color')).toBe('rgb(11, 110, 153)');
    expect(shown(after, '.qs-go', 'hover', 'background-color')).not.toBe('rgb(128, 128, 128)');
    expect(shown(after, '.qs-note', 'rest', 'color')).toBe('rgb(61, 90, 43)');
  });

  it('lists what has no place, and what would reach further than the part', () => {
    const less = open(
      WIDGET_CSS,
      `<main>${WIDGET.replace('<p class=qs-note>n</p>', '')}</main><a class=qs-go>out</a>`,
      HERE,
    );
    const laid = toEnd(layKitSteps(less, kit));
    expect(spoken(laid.misfits.map(({ reason }) => reason))).toEqual(['matches nothing on the pages here']);
    expect(laid.wider.every(({ reason }) => say(reason) === 'reaches 1 outside of the part')).toBeTrue();
    const none = kitFit(open('', '<p class=qs-note>x</p>', THERE), kit);
    expect([none.spot, none.partId]).toEqual([null, null]);
  });

  describe('with own CSS', () => {
    const CSS =
      '.qs-note::after { content: "·"; color: var(--brand-accent) } .qs-go { caret-color: var(--brand-moss, red) }';
    const made = (): Kit => {
      const here = open(WIDGET_CSS, WIDGET, HERE);
      const dressed = dressSite(wish(here, '.qs-go', {}), wish(here, '.qs-go', {}).overrides, HERE, {
        ownCss: [{ partId: 1, css: CSS }],
      });
      return makeKit(dressed, 1, 'Form', 'Osier') as Kit;
    };

    it('names its colours by role, and a colour of no role by its value', () => {
      expect(made().ownCss).toBe(
        '.qs-note::after { content: "·"; color: var(--kit-accent) } .qs-go { caret-color: #3d5a2b }',
      );
    });

    it('shows the other site’s colours there, in the section of the part it is known again in', () => {
      const there = open(WIDGET_CSS, `<main>${WIDGET}</main>`, THERE);
      const laid = toEnd(layKitSteps(there, made()));
      expect(laid.ownCss).toEqual([{ partId: 1, css: made().ownCss?.replace('--kit-accent', '--brand-accent') ?? '' }]);
      const dressed = dressSite(there, laid.put, THERE, { ownCss: laid.ownCss ?? [] });
      const [note] = matchedInAnyState(pageOf(dressed, 1), '.qs-note');
      expect(new StyleView(pageOf(dressed, 1)).style(note, 'after').resolved('color')).toBe('rgb(11, 110, 153)');
      // Laid on once more, it is there already.
      expect(toEnd(layKitSteps(dressed, made())).ownCss).toBeNull();
    });

    it('stays away where a role is not filled or the text is broken, and tells what matches nothing', () => {
      const there = open(WIDGET_CSS, WIDGET, { ...THERE, roles: [] });
      expect(spoken(toEnd(layKitSteps(there, made())).misfits.map(({ reason }) => reason))).toContain(
        'no swatch fills accent here; none of it is laid on',
      );
      const broken = toEnd(layKitSteps(open(WIDGET_CSS, WIDGET, THERE), { ...made(), ownCss: '.x { color: (' }));
      expect(spoken([broken.ownCss, broken.misfits.at(-1)?.reason])).toEqual([
        null,
        jasmine.stringContaining('none of it'),
      ]);
      const idle = toEnd(layKitSteps(open(WIDGET_CSS, WIDGET, THERE), { ...made(), ownCss: '.gone { color: red }' }));
      expect(spoken(idle.misfits.at(-1))).toEqual({
        selector: '.gone',
        property: '',
        reason: 'own CSS that matches nothing on the pages here',
      });
      const twice = open(WIDGET_CSS, `${WIDGET}<p class="qs-note">out of it</p>`, THERE);
      expect(spoken(toEnd(layKitSteps(twice, made())).wider)).toContain({
        selector: '.qs-note::after',
        property: '',
        reason: 'own CSS that reaches 1 outside of the part',
      });
    });
  });
});
