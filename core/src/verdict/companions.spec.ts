import { say } from '@upper-veneer/words';
import ColorJs from 'colorjs.io';
import { fulfil, openOnePage } from '../testing/one-page-site.js';
import { companionsOf, type Companion } from './companions.js';
import { planAll, withOverrides } from '../plan/plan-override.js';
import type { OverrideWish } from '../veneer/override-wish.js';

const THEME = `.panel { background: #fff; color: #222 } .panel h2 { color: #123 } .panel a { color: #00c } .panel a:hover { color: #fff } .panel .tag::before { content: "New "; color: #333 } .panel .dot::before { content: ""; color: #333 }
.panel input { border: 1px solid #224 } .panel .inner { background: #ffe; color: #222 } .panel .lit { text-shadow: 0 1px 0 #fff; color: #ccc } path { fill: #224 } ::selection { background: gold; color: #222 }`;
const BODY = `<div class=panel><h2>Head</h2><p class=text>Text <a href=x>link</a></p><b class=tag>t</b><i class=dot>d</i><input><p class=inner>apart</p><p class=lit>lit</p><svg><path d="M0 0h1"/></svg><p class=text>more</p></div>`;

function companions(some: Partial<OverrideWish>, selector = '.panel'): readonly Companion[] {
  const made = fulfil(openOnePage(THEME, BODY), selector, { property: 'background-color', ...some });
  return companionsOf(made.site, made.override, 1280);
}

const words = ({ kind, state, wish }: Companion): string =>
  `${kind} ${state} ${wish.property}${wish.pseudo === '' ? '' : ` ${wish.pseudo}`}`;

// What fails on the new ground is worked out by hand from WCAG 2.2, 1.4.3 and 1.4.11; the ratios are held against colorjs.io.
describe('companionsOf', () => {
  it('lists what fails on a new ground once for all alike, and leaves what has a ground of its own', () => {
    const found = companions({});
    expect(found.map(words)).toEqual(
      jasmine.arrayWithExactContents([
        'heading rest color',
        'text rest color',
        'link rest color',
        'link visited color',
        'link focus color',
        'icon rest color before',
        'edge rest border-color',
        'shadow rest text-shadow',
        'icon rest fill',
        'text rest color',
        'text rest color',
      ]),
    );
    expect(found.find(({ kind, wish }) => kind === 'text' && wish.pseudo === '')?.count).toBeGreaterThan(0);
    expect(found.some(({ name }) => /apart/i.test(say(name)))).toBeFalse();
  });

  it('gives the ratios that another library has', () => {
    const ground = new ColorJs('#104a47');
    for (const companion of companions({})) {
      if (companion.kind === 'shadow' || companion.proposedRatio === null) continue;
      expect(companion.ratio).toBeLessThan(companion.wanted);
      const proposed = companion.proposed.kind === 'role' && companion.proposed.role === 'ink' ? '#1d2b2a' : '#ffffff';
      if (companion.wish.property === 'color')
        expect(companion.proposedRatio).withContext(words(companion)).toBeCloseTo(ground.contrastWCAG21(proposed), 1);
    }
    const heading = companions({}).find(({ kind }) => kind === 'heading');
    expect(heading?.ratio).toBeCloseTo(ground.contrastWCAG21('#112233'), 1);
    expect(heading?.wanted).toBe(3);
  });

  it('is mended by taking all: nothing is listed any more but what was left to taste', () => {
    const made = fulfil(openOnePage(THEME, BODY), '.panel', { property: 'background-color' });
    const found = companionsOf(made.site, made.override, 1280).filter(({ kind }) => kind !== 'shadow');
    const after = withOverrides(
      made.site,
      planAll(
        made.site,
        found.map(({ wish }) => wish),
      ),
    );
    expect(companionsOf(after, made.override, 1280).filter(({ kind }) => kind !== 'shadow')).toEqual([]);
  });

  it('goes with the state: what stands in a hovered panel changes as the child of a hovered parent', () => {
    const found = companions({ state: 'hover' });
    expect(new Set(found.map(({ state }) => state))).toEqual(new Set(['parent-hover']));
    expect(found.every(({ wish }) => wish.parent !== undefined)).toBeTrue();
  });

  it('of a pseudo-element is its own text alone, where it has one', () => {
    expect(companions({ pseudo: 'selection' }, '.text').map(words)).toEqual(['text rest color selection']);
    expect(companions({ pseudo: 'before' }, '.tag').map(words)).toEqual(['icon rest color before']);
    expect(companions({ pseudo: 'before' }, '.dot')).toEqual([]);
  });

  it('is asked of grounds only', () => {
    expect(companions({ property: 'color' })).toEqual([]);
    expect(companions({ property: 'border-color' }, 'input')).toEqual([]);
  });
});
