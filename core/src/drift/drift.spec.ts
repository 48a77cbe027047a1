import { say, spoken } from '@upper-veneer/words';
import { openSite, dressSite, type SiteModel } from '../site/site-model.js';
import { withOverrides } from '../plan/plan-override.js';
import { toEnd } from '../to-end.js';
import type { Override } from '../veneer/override.js';
import type { Palette } from '../veneer/palette.js';
import { driftOf, type Drift } from './drift.js';
import type { FormerCapture } from './former-capture.js';
import { proposeDrift, withoutIdleSelectors } from './propose-drift.js';

const HTML =
  '<!doctype html><link rel=stylesheet href=theme.css><body><main><a class="rv-go" href=a>Book</a><a class="rv-go" href=b>Gear</a><p class=note>Low water</p></main>';
/** A second lighting, told by a class of the root. */
const NIGHT: Palette = {
  swatches: [],
  roles: [],
  second: { told: { kind: 'marker', on: 'html', attribute: 'class', value: 'night' }, roles: [] },
};
const CSS = '.rv-go { color: #123 } .note { color: #456 }';

function siteOf(
  html: string,
  css: string,
  overrides: readonly Override[],
  palette: Palette = { swatches: [], roles: [] },
): SiteModel {
  const bare = openSite({
    pages: [{ id: 1, name: 'Home', path: 'index.html', html }],
    stylesheets: { 'theme.css': css },
    parts: [],
    veneerPlace: 'head-end',
    prefix: 'brand',
  });
  return dressSite(bare, overrides, palette);
}

function override(some: Partial<Override>): Override {
  return {
    id: 'o',
    partId: null,
    pageId: 1,
    element: 5,
    pseudo: '',
    reach: 'alike',
    state: 'rest',
    property: 'color',
    value: { kind: 'literal', css: '#b4582a' },
    selector: '.rv-go',
    important: false,
    ...some,
  };
}

/** What drifted when a page was captured again, and the site after. */
function captured(
  after: { readonly html?: string; readonly css?: string },
  own: Override = override({}),
): { readonly site: SiteModel; readonly drifts: readonly Drift[] } {
  const site = siteOf(after.html ?? HTML, after.css ?? CSS, [own]);
  const former: FormerCapture = {
    id: 1,
    pageId: 1,
    html: HTML,
    stylesheets: { 'theme.css': CSS },
    overrides: [own],
  };
  return { site, drifts: toEnd(driftOf(site, [former])) };
}

/** Selector by which an override is to go on, once it is proposed and taken. */
function selectorAfter({ site, drifts }: ReturnType<typeof captured>, keepsFirst = false): string {
  const proposal = proposeDrift(site, drifts[0], keepsFirst);
  return proposal.ok ? (withOverrides(site, proposal).overrides[0]?.selector ?? 'taken out') : say(proposal.reason);
}

describe('drift', () => {
  it('is nothing where everything is matched as it was, and new ones of the kind are', () => {
    expect(captured({}).drifts).toEqual([]);
    const more = HTML.replace('<p class=note>', '<a class="rv-go" href=c>Trips</a><p class=note>');
    expect(captured({ html: more }).drifts).toEqual([]);
  });

  it('tells lost targets of a renamed class and leads to what they became', () => {
    const renamed = captured({
      html: HTML.replaceAll('rv-go', 'rv-button'),
      css: CSS.replaceAll('rv-go', 'rv-button'),
    });
    expect(renamed.drifts.map(({ lost, kept }) => [lost.length, kept])).toEqual([[2, 0]]);
    expect(selectorAfter(renamed)).toBe('.rv-button');
    expect(selectorAfter(renamed, true)).toBe('.rv-button, .rv-go');
  });

  it('tells what another rule covers now, and writes it more strongly', () => {
    const stronger = captured({ css: CSS.replace('.rv-go', 'main .rv-go') });
    expect(spoken(stronger.drifts[0].beaten.map(({ by }) => by))).toEqual([
      'main .rv-go in theme.css',
      'main .rv-go in theme.css',
    ]);
    expect(selectorAfter(stronger)).toBe('a.rv-go');
  });

  it('tells what covers it in the state of another element, on one of several alike, and in the other lighting', () => {
    const hover = override({ state: 'parent-hover', parent: 4, selector: 'main:hover .rv-go' });
    const stronger = captured({ css: `${CSS} main:hover a.rv-go.rv-go { color: #789 }` }, hover);
    expect(stronger.drifts.map(({ beaten }) => beaten.length)).toEqual([2]);
    const one = captured({ css: `${CSS} .rv-go[href=b] { color: #789 }` });
    expect(one.drifts.map(({ beaten, kept }) => [beaten.length, kept])).toEqual([[1, 1]]);
    // Source: CSS Cascading 5 §6.4, specificity; the marker stands on the root in the second lighting alone.
    const lit = siteOf(HTML, `${CSS} .night .rv-go { color: #789 }`, [override({})], NIGHT);
    const former: FormerCapture = {
      id: 1,
      pageId: 1,
      html: HTML,
      stylesheets: { 'theme.css': CSS },
      overrides: [override({})],
    };
    expect(spoken(toEnd(driftOf(lit, [former])).map(({ beaten }) => beaten.map(({ by }) => by)))).toEqual([
      ['.night .rv-go in theme.css', '.night .rv-go in theme.css'],
    ]);
  });

  it('tells what it matches besides now, and keeps to what it was', () => {
    const wider = captured({ html: HTML.replace('class=note', 'class="note rv-go"') });
    expect(wider.drifts[0].gained.length).toBe(1);
    expect(wider.drifts[0].kept).toBe(2);
    expect(selectorAfter(wider)).toBe('a.rv-go');
  });

  it('takes out what nothing is left of', () => {
    const gone = captured({ html: '<!doctype html><link rel=stylesheet href=theme.css><body><p class=note>Low water' });
    expect(gone.drifts[0].gone.length).toBe(2);
    expect(selectorAfter(gone)).toBe('taken out');
  });

  it('counts the first of several captures that has an override, and none that was put right since', () => {
    const renamed = HTML.replaceAll('rv-go', 'rv-button');
    const right = override({ selector: '.rv-button' });
    const site = siteOf(renamed, CSS, [right]);
    const formers: FormerCapture[] = [HTML, renamed].map((html, i) => ({
      id: i + 1,
      pageId: 1,
      html,
      stylesheets: {},
      overrides: [override({})],
    }));
    expect(toEnd(driftOf(site, formers))).toEqual([]);
    expect(toEnd(driftOf(siteOf(renamed, CSS, [override({})]), formers)).length).toBe(1);
  });

  it('drops the selector of a list that matches nothing any more, and no other', () => {
    const both = override({ selector: '.rv-go, :is(.rv-old, .rv-older) b' });
    expect(withoutIdleSelectors(siteOf(HTML, CSS, [both]), both)?.selector).toBe('.rv-go');
    const none = override({ selector: '.rv-old, .rv-older' });
    expect(withoutIdleSelectors(siteOf(HTML, CSS, [none]), none)).toBeNull();
  });
});
