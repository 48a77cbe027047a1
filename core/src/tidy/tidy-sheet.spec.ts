import { drawVeneer, openDrawn, outcome, stateOf } from '../testing/drawn-veneers.js';
import { runsAsked } from '../testing/runs-asked.js';
import { compileVeneer } from '../veneer/compile-veneer.js';
import type { Override } from '../veneer/override.js';
import { dressSite } from '../site/site-model.js';
import { tidySheet } from './tidy-sheet.js';

/** Drawn veneers; `npm run prove` goes through 2,000. */
const RUNS = runsAsked('TIDY_RUNS', 48, 16);

describe('tidySheet', () => {
  const tidied = (overrides: readonly Override[]): ReturnType<typeof tidySheet> =>
    tidySheet(dressSite(openDrawn(), overrides, { swatches: [], roles: [] }));
  const make = (selector: string, property: string, css: string, some: Partial<Override> = {}): Override => ({
    id: selector + property,
    partId: 1,
    pageId: 1,
    element: 1,
    pseudo: '',
    reach: 'alike',
    state: stateOf(selector),
    property,
    value: { kind: 'literal', css },
    selector,
    important: false,
    ...some,
  });

  it('leaves out what changes nothing, and says so', () => {
    const { css, dropped } = tidied([make('.a', 'background-color', 'silver'), make('.b', 'color', '#102030')]);
    expect(css).toBe('/* One */\n.b {\n  color: #102030;\n}\n');
    expect(dropped).toEqual(['.a { background-color }']);
  });

  it('keeps what only seems to change nothing: a rule for rest that covers the theme’s hover', () => {
    // `.a:hover { background-color: gold }` of the theme is weaker than `#c .a`, which is silver as at rest.
    expect(tidied([make('#c .a', 'background-color', 'silver')]).dropped).toEqual([]);
  });

  it('puts rules of equal declarations together where that is safe, and only there', () => {
    expect(
      tidied([
        make('.d', 'opacity', '0.5'),
        make('i', 'outline-color', 'red'),
        make('p', 'opacity', '0.5', { element: 2 }),
      ]).css,
    ).toContain('.d, p {\n  opacity: 0.5;\n}');
    // Between the two equal rules stands one that must win over the first and lose to the second.
    const apart = tidied([
      make('.a', 'color', 'red', { element: 1 }),
      make('.b', 'color', '#102030', { element: 2 }),
      make('.d', 'color', 'red', { element: 3 }),
      make('button', 'color', 'red', { element: 4 }),
    ]);
    expect(outcome(openDrawn(), apart.css)).toBe(
      outcome(
        openDrawn(),
        compileVeneer(
          [
            make('.a', 'color', 'red', { element: 1 }),
            make('.b', 'color', '#102030', { element: 2 }),
            make('.d', 'color', 'red', { element: 3 }),
            make('button', 'color', 'red', { element: 4 }),
          ],
          { palette: { swatches: [], roles: [] }, parts: openDrawn().source.parts, prefix: 'brand' },
        ),
      ),
    );
  });

  it('gives the same bytes for the same overrides in any order', () => {
    for (let seed = 1; seed <= 12; seed += 1) {
      const veneer = drawVeneer(seed);
      expect(tidied([...veneer].reverse()).css)
        .withContext(`seed ${seed}`)
        .toBe(tidied(veneer).css);
    }
  });

  // Reference: the same sheet untidied, every element in every state resolved afresh, nothing shared with the check inside.
  it('changes no computed value, whatever veneer is drawn', () => {
    const site = openDrawn();
    let changed = 0;
    for (let seed = 1; seed <= RUNS; seed += 1) {
      const veneer = drawVeneer(seed);
      const plain = compileVeneer(veneer, {
        palette: { swatches: [], roles: [] },
        parts: site.source.parts,
        prefix: 'brand',
      });
      const { css, dropped, merged } = tidySheet(dressSite(site, veneer, { swatches: [], roles: [] }));
      if (dropped.length + merged === 0) continue;
      changed += 1;
      expect(outcome(site, css) === outcome(site, plain))
        .withContext(`seed ${seed}\n${plain}\nbecame\n${css}`)
        .toBeTrue();
    }
    expect(changed).toBeGreaterThan(RUNS / 2);
  });
});
