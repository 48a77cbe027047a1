import { say, spoken } from '@upper-veneer/words';
import { toEnd } from '../to-end.js';
import Reference from 'colorjs.io';
import { withOverrides } from '../plan/plan-override.js';
import { pageOf, type SiteModel } from '../site/site-model.js';
import { StyleView } from '../resolve/style-view.js';
import { numberOn, openOnePage } from '../testing/one-page-site.js';
import { hexOf } from '../color/read-notation.js';
import type { Palette, RoleName } from '../veneer/palette.js';
import { foundColors } from './find-colors.js';
import { layMatch } from './lay-match.js';
import { proposeMatch } from './propose-match.js';
import { verifyMatch } from './verify-match.js';

const COLORS: readonly (readonly [RoleName, string])[] = [
  ['ground', '#f7f3e9'],
  ['panel', '#ffffff'],
  ['ink', '#1d2b2a'],
  ['line', '#8a7f66'],
  ['accent', '#8f3f16'],
  ['on-accent', '#ffffff'],
  ['second', '#2d5a2a'],
  ['on-second', '#ffffff'],
];
const PALETTE: Palette = {
  swatches: COLORS.map(([name, css], i) => ({ id: i + 1, name, css })),
  roles: COLORS.map(([role], i) => ({ role, swatchId: i + 1, shade: 0 })),
};
const SITE = { kind: 'site' } as const;
const BODY = '<main><p>By the river</p><p class=note>By the weir</p><div class=list><p>One</p></div></main>';

function matched(theme: string): {
  readonly site: SiteModel;
  readonly rows: string[];
  readonly missed: readonly string[];
} {
  const site = openOnePage(theme, BODY, PALETTE);
  const found = foundColors(site, SITE, 1280);
  const proposal = proposeMatch(site, SITE, found, { strategy: 'blend', locked: {}, equal: [] });
  const after = withOverrides(site, toEnd(layMatch(site, proposal, 1280)));
  const proof = toEnd(verifyMatch(site, after, SITE, proposal));
  return {
    site: after,
    rows: found.rows
      .filter(({ job }) => ['highlight', 'selected', 'thumb', 'track'].includes(job))
      .map(({ job, hex, paints, elements }) => `${job} ${hex} ${elements}: ${say(paints)}`)
      .sort(),
    missed: spoken([...proof.missed.words, ...proof.spilt.words]),
  };
}

function colorOf(site: SiteModel, selector: string, pseudo: string, property: string): string {
  const color = new StyleView(pageOf(site, 1)).styleAt(numberOn(site, selector), pseudo).color(property);
  return color ? hexOf(color) : 'none';
}

describe('overlays of a page', () => {
  // What each rule is said of: CSS Pseudo-Elements 4 §3; ratios by WCAG 2.2, reckoned by colorjs.io.
  it('are rows where the page speaks of them: selected text on its highlight, for all at once and for some', () => {
    const { site, rows, missed } = matched(
      '::selection { background: #7a5cf0; color: #fffbe0 } .note::selection { background: #ffe14d; color: #221100 }',
    );
    expect(rows).toEqual([
      'highlight #7a5cf0 1: highlight of selected text, everywhere',
      'highlight #ffe14d 1: highlight of selected text, By the weir',
      'selected #221100 1: selected text, By the weir',
      'selected #fffbe0 1: selected text, everywhere',
    ]);
    expect(missed).toEqual([]);
    const brand = new Set(COLORS.map(([, css]) => css));
    for (const selector of ['main p', '.note']) {
      const [text, ground] = [
        colorOf(site, selector, 'selection', 'color'),
        colorOf(site, selector, 'selection', 'background-color'),
      ];
      expect(new Reference(text).contrastWCAG21(new Reference(ground)))
        .withContext(selector)
        .toBeGreaterThanOrEqual(4.5);
      expect(['#7a5cf0', '#ffe14d']).not.toContain(ground);
    }
    expect(brand.has(colorOf(site, 'main p', 'selection', 'background-color'))).toBeTrue();
  });

  it('are scrollbars by their parts, or by the standard property where that is set', () => {
    const parts = matched(
      '::-webkit-scrollbar { width: 10px } ::-webkit-scrollbar-thumb { background: #7a5cf0 } ::-webkit-scrollbar-track { background: #efeaff }',
    );
    expect(parts.rows.map((row) => row.split(':')[0])).toEqual(['thumb #7a5cf0 1', 'track #efeaff 1']);
    expect(parts.missed).toEqual([]);
    const thumb = colorOf(parts.site, 'main', '-webkit-scrollbar-thumb', 'background-color');
    const track = colorOf(parts.site, 'main', '-webkit-scrollbar-track', 'background-color');
    expect(thumb).not.toBe('#7a5cf0');
    expect(new Reference(thumb).contrastWCAG21(new Reference(track))).toBeGreaterThanOrEqual(3);
    const standard = matched('.list { overflow: auto; scrollbar-color: #7a5cf0 #efeaff }');
    expect(standard.rows).toEqual(['thumb #7a5cf0 1: scrollbar thumb, List', 'track #efeaff 1: scrollbar track, List']);
    expect(standard.missed).toEqual([]);
  });

  it('are none where only the browser draws them', () => {
    expect(matched('p { color: #333 }').rows).toEqual([]);
  });
});
