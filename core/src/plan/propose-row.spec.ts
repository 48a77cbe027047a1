import { spoken } from '@upper-veneer/words';
import { contrastRatio } from '../color/contrast.js';
import { planAll, withOverrides } from './plan-override.js';
import { proposeRow } from './propose-row.js';
import { numberOn, openOnePage, RIVER_PALETTE } from '../testing/one-page-site.js';
import { elementOf, pageOf, viewIn } from '../site/site-model.js';
import type { Palette } from '../veneer/palette.js';

const PALETTE: Palette = {
  swatches: [
    ...RIVER_PALETTE.swatches,
    { id: 4, name: 'Alarm', css: '#b3261e' },
    { id: 5, name: 'Willow', css: '#b4582a' },
  ],
  roles: [
    ...RIVER_PALETTE.roles,
    { role: 'signal', swatchId: 4, shade: 0 },
    { role: 'ring', swatchId: 5, shade: 0 },
    { role: 'accent', swatchId: 5, shade: 0 },
  ],
};
const THEME =
  'button { background: #104a47; color: #fff; border: 1px solid #104a47 } button:hover { background: violet } input { border: 1px solid #104a47; color: #1d2b2a; background: #fff }';

describe('one row in every state', () => {
  const site = openOnePage(THEME, '<button class=b>Go</button><input class=f placeholder=p>', PALETTE);
  const question = (selector: string): Parameters<typeof proposeRow>[1] => ({
    pageId: 1,
    element: numberOn(site, selector),
    pseudo: '',
    reach: 'alike',
    width: 1280,
  });

  it('says what each would be before it is, a step from rest where the pointer or the keyboard is', () => {
    expect(spoken(proposeRow(site, question('.b'), 'fill').map(({ words }) => words))).toEqual(
      [
        'Hover fill: Second, 12 lighter',
        'Focus fill: Second, 6 lighter',
        'Pressed fill: Second, 18 lighter',
        'Disabled fill: Second, 24 lighter',
      ].map((words) => jasmine.stringMatching(words.replace(/lighter/, '(?:darker|lighter)'))),
    );
  });

  it('comes out so in the chosen row, with its text kept readable (WCAG 2.2, 1.4.3)', () => {
    const wishes = proposeRow(site, question('.b'), 'fill').flatMap((proposal) => proposal.wishes);
    const done = withOverrides(site, planAll(site, wishes));
    const page = pageOf(done, 1);
    const button = elementOf(page, numberOn(done, '.b'));
    const fills = (['rest', 'hover', 'focus', 'active', 'disabled'] as const).map((state) =>
      viewIn(page, button, state, 1280).style(button),
    );
    expect(new Set(fills.map((style) => style.resolved('background-color'))).size).toBe(5);
    for (const style of fills.slice(0, 4)) {
      const [fill, text] = [style.color('background-color'), style.color('color')];
      expect(fill && text && contrastRatio(fill, text)).toBeGreaterThanOrEqual(4.5);
    }
    expect(proposeRow(done, question('.b'), 'fill')).toEqual([]);
  });

  it('takes the palette’s roles for what a state says, and leaves the rest as at rest', () => {
    const edges = proposeRow(site, question('.f'), 'edge');
    expect(spoken(edges.find(({ state }) => state === 'invalid')?.words)).toBe('Invalid edge: Signal');
    expect(edges.some(({ state }) => state === 'filled' || state === 'read-only')).toBe(false);
    expect(spoken(proposeRow(site, question('.f'), 'ring').find(({ state }) => state === 'focus')?.words)).toBe(
      'Focus ring: Ring',
    );
  });
});
