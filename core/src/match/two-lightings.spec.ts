import { spoken } from '@upper-veneer/words';
import { toEnd } from '../to-end.js';
import Reference from 'colorjs.io';
import { withOverrides } from '../plan/plan-override.js';
import { lightSite, pageOf, type SiteModel } from '../site/site-model.js';
import { numberOn, openOnePage } from '../testing/one-page-site.js';
import { StyleView } from '../resolve/style-view.js';
import { hexOf } from '../color/read-notation.js';
import type { LightingSignal } from '../veneer/lighting.js';
import type { Palette, RoleName } from '../veneer/palette.js';
import { foundColors } from './find-colors.js';
import { layMatch } from './lay-match.js';
import { proposeMatch } from './propose-match.js';
import { verifyLightings } from './verify-lightings.js';
import { isProved } from './verify-match.js';

const COLORS: readonly (readonly [RoleName, string])[] = [
  ['ground', '#f7f3e9'],
  ['panel', '#ffffff'],
  ['ink', '#1d2b2a'],
  ['soft-ink', '#5c6b68'],
  ['line', '#8a7f66'],
  ['accent', '#b4582a'],
  ['on-accent', '#ffffff'],
  ['link', '#0f4a48'],
  ['ring', '#0f4a48'],
];
const palette = (told: LightingSignal): Palette => ({
  swatches: COLORS.map(([name, css], i) => ({ id: i + 1, name, css })),
  roles: COLORS.map(([role], i) => ({ role, swatchId: i + 1, shade: 0 })),
  second: { told, roles: [] },
});

/** A page that is partly ours already, and turns its card dark by a rule of its own that is stronger there. */
const THEME = `body { background: #f7f3e9; color: #1d2b2a }
  .card { background: #efeaff; color: #333 } .card a { color: #5b3fc4 } .card a:hover { color: #2c1780 }
  #go { background: #7a5cf0; color: #fff } #go:hover { background: #5b3fc4 }
  @media (prefers-color-scheme: dark) { main .card { background: #221d33; color: #ddd } main .card p a { color: #b5a4ff } }
  html.night main .card { background: #221d33; color: #ddd } html.night main .card p a { color: #b5a4ff }`;
const BODY =
  '<main><section class=card><h2>Trips</h2><p>See <a href="#r">the river</a></p><form><button id=go>Go</button></form></section></main>';
const SIGNALS: readonly (readonly [string, LightingSignal])[] = [
  ['the scheme', { kind: 'scheme' }],
  ['a class of the root', { kind: 'marker', on: 'html', attribute: 'class', value: 'night' }],
];

describe('a match in two lightings', () => {
  // A switch's knob, drawn by a shadow that moves when it is ticked: its white is the panel's in the light alone.
  it('follows in a state that the theme says once more in the colour it is to have in the light', () => {
    const theme =
      'body { background: #f7f3e9; color: #1d2b2a } .knob { box-shadow: inset 12px 0 0 7px #fff } .tick:checked + .knob { box-shadow: inset -12px 0 0 7px #fff }';
    const body = '<label><input type=checkbox class=tick><span class=knob></span> Text</label>';
    const site = openOnePage(theme, body, palette({ kind: 'scheme' }));
    const scope = { kind: 'site' } as const;
    const found = foundColors(site, scope, 1280);
    const proposal = proposeMatch(site, scope, found, { strategy: 'blend', locked: {}, equal: [] });
    const shadow = proposal.rows.find(({ found: row }) => row.job === 'shadow');
    expect(shadow?.inverted?.css).not.toBe(shadow?.css);
    const after = withOverrides(site, toEnd(layMatch(site, proposal, 1280)));
    expect(spoken(toEnd(verifyLightings(site, after, scope, proposal)).missed.words)).toEqual([]);
  });

  for (const [told, signal] of SIGNALS) {
    // Ratios by WCAG 2.2, reckoned by colorjs.io from what the laid-on site resolves to.
    it(`told by ${told} is read in both, brand colours bound so that they follow`, () => {
      const site = openOnePage(THEME, BODY, palette(signal));
      const scope = { kind: 'site' } as const;
      const found = foundColors(site, scope, 1280);
      const proposal = proposeMatch(site, scope, found, { strategy: 'blend', locked: {}, equal: [] });
      expect(proposal.unmet).toEqual([]);
      const after = withOverrides(site, toEnd(layMatch(site, proposal, 1280)));
      const proof = toEnd(verifyLightings(site, after, scope, proposal));
      expect(isProved(proof)).withContext(spoken(proof.missed.words).join('\n')).toBeTrue();
      const grounds = (['light', 'inverted'] as const).map((lighting) => {
        const lit = lightSite(after, lighting);
        for (const [text, ground] of [
          ['h2', '.card'],
          ['.card a', '.card'],
          ['#go', '#go'],
        ] as const) {
          const ratio = new Reference(colorOf(lit, text, 'color')).contrastWCAG21(
            new Reference(colorOf(lit, ground, 'background-color')),
          );
          expect(ratio).withContext(`${lighting}: ${text}`).toBeGreaterThanOrEqual(4.49);
        }
        return colorOf(lit, 'body', 'background-color');
      });
      expect(grounds[0]).toBe('#f7f3e9');
      expect(new Reference(grounds[1]).to('oklch').l ?? 1).toBeLessThan(0.25);
    });
  }
});

function colorOf(site: SiteModel, selector: string, property: string): string {
  const color = new StyleView(pageOf(site, 1)).styleAt(numberOn(site, selector)).color(property);
  return color ? hexOf(color) : 'none';
}
