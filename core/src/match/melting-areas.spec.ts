import { spoken } from '@upper-veneer/words';
import Reference from 'colorjs.io';
import { layOut, pageOf, type SiteModel } from '../site/site-model.js';
import { toEnd } from '../to-end.js';
import { numberOn, openOnePage } from '../testing/one-page-site.js';
import type { Becomes } from './proposal.js';
import { foundColors } from './find-colors.js';
import { meltingAreas, type MeltingAreas } from './melting-areas.js';
import { proposeMatch } from './propose-match.js';

const SITE = { kind: 'site' } as const;
const BODY = '<header><b>Osier</b></header><main><p>Trips</p></main><footer><i>Reed</i></footer>';
const THEME =
  'body { background: #fff } header { background: #5a3f9c } main { background: #efe7ff } footer { background: #3d2a70 }';

/** Three areas one under the other, each 100 px high and as wide as the page. */
function stacked(theme: string): SiteModel {
  const site = openOnePage(theme, BODY);
  const { document } = pageOf(site, 1);
  const boxes = new Float32Array(document.elements.length * 4);
  boxes.set([0, 0, 1280, 300], numberOn(site, 'body') * 4);
  ['header', 'main', 'footer'].forEach((name, i) => boxes.set([0, 100 * i, 1280, 100], numberOn(site, name) * 4));
  return layOut(site, 1, {
    width: 1280,
    height: 800,
    boxes,
    fragments: new Map(),
    lines: new Map(),
    pseudoBoxes: new Map(),
  });
}

/** What melts when the grounds of a hex are given to a role by hand. */
function melting(theme: string, locked: Readonly<Record<string, string>>): readonly MeltingAreas[] {
  const site = stacked(theme);
  const found = foundColors(site, SITE, 1280);
  const choice = (css: string): Becomes => ({ kind: 'value', value: { kind: 'literal', css } });
  const set = Object.fromEntries(
    found.rows.map(({ id, hex, job }): [string, Becomes] => [
      id,
      job === 'ground' && locked[hex] ? choice(locked[hex]) : { kind: 'leave' },
    ]),
  );
  const proposal = proposeMatch(site, SITE, found, { strategy: 'blend', locked: set, equal: [] });
  return toEnd(meltingAreas(site, SITE, proposal, 1280));
}

describe('areas that become one', () => {
  // Reference: ΔE2000 by colorjs.io, whose Lab has another white point.
  it('are named where they touch and can be told apart no longer', () => {
    const found = melting(THEME, { '#efe7ff': '#fdfdfd', '#3d2a70': '#ffffff' });
    expect(found.length).toBe(1);
    expect(spoken(found[0].words)).toBe('Main content and Footer');
    expect([found[0].pairs, found[0].pages]).toEqual([1, 1]);
    expect(Math.abs(found[0].before - new Reference('#efe7ff').deltaE2000(new Reference('#3d2a70')))).toBeLessThan(1);
    expect(Math.abs(found[0].after - new Reference('#fdfdfd').deltaE2000(new Reference('#ffffff')))).toBeLessThan(0.1);
  });

  it('are no others: not where an edge stands between, where they do not touch, or were one before', () => {
    expect(
      melting(`${THEME} footer { border-top: 2px solid #000 }`, { '#efe7ff': '#ffffff', '#3d2a70': '#ffffff' }),
    ).toEqual([]);
    expect(melting(THEME, { '#5a3f9c': '#ffffff', '#3d2a70': '#ffffff' })).toEqual([]);
    const one = THEME.replace('#3d2a70', '#efe7ff');
    expect(melting(one, { '#efe7ff': '#ffffff' })).toEqual([]);
  });

  it('are not told of a page that was not laid out', () => {
    const site = openOnePage(THEME, BODY);
    const proposal = proposeMatch(site, SITE, foundColors(site, SITE, 1280), {
      strategy: 'blend',
      locked: {},
      equal: [],
    });
    expect(toEnd(meltingAreas(site, SITE, proposal, 1280))).toEqual([]);
  });
});
