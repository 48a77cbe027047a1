import { runsAsked } from '../testing/runs-asked.js';
import { contrastRatio } from '../color/contrast.js';
import { deltaE2000 } from '../color/delta-e.js';
import { hexOf } from '../color/read-notation.js';
import { isInSrgb } from '../color/gamut.js';
import { seededRandom } from '../testing/random.js';
import { BLACK, rgb8, type Color } from '../values/color.js';
import { channelsIn } from '../values/convert-color.js';
import { ROLE_NAMES, colorOfCss } from '../veneer/palette.js';
import { type HARMONIES, harmonyOf } from './harmonies.js';
import { MEANT_PAIRS } from './meant-pairs.js';
import { proposeRoles } from './propose-roles.js';

const of = (css: string): Color => colorOfCss(css) ?? BLACK;

/** Seeded palettes to begin with; `npm run prove` goes on to 200. */
const STARTS = runsAsked('ROLE_RUNS', 16);

describe('proposeRoles', () => {
  // The ratios asked are WCAG 2.2's (1.4.3, 1.4.11); the starts are seeded, so that awkward ones are among them.
  it('fills every role so that every pair that is meant to meet passes, light and inverted, over seeded starts', () => {
    const random = seededRandom(11);
    const any = (): Color => rgb8(Math.floor(random() * 256), Math.floor(random() * 256), Math.floor(random() * 256));
    for (let i = 0; i < STARTS; i += 1) {
      // A ground that can be read on at all: no palette has its text on a middle grey.
      const ground = any();
      const start = {
        ground:
          i % 2 === 0
            ? rgb8(
                ...(channelsIn(ground, 'srgb').map((channel) => Math.round(215 + channel * 40)) as [
                  number,
                  number,
                  number,
                ]),
              )
            : rgb8(
                ...(channelsIn(ground, 'srgb').map((channel) => Math.round(channel * 50)) as [number, number, number]),
              ),
        ink: any(),
        accent: any(),
      };
      for (const lighting of ['light', 'inverted'] as const) {
        const roles = proposeRoles(start, lighting);
        expect(Object.keys(roles).sort()).toEqual([...ROLE_NAMES].sort());
        for (const { above, below, wanted } of MEANT_PAIRS) {
          expect(contrastRatio(roles[above], roles[below]))
            .withContext(
              `${lighting} ${hexOf(start.ground)} ${hexOf(start.ink)} ${hexOf(start.accent)}: ${above} ${hexOf(roles[above])} on ${below} ${hexOf(roles[below])}`,
            )
            .toBeGreaterThanOrEqual(wanted);
        }
        for (const color of Object.values(roles)) expect(isInSrgb(color)).toBe(true);
      }
    }
  });

  it('keeps the three colours where they pass, and turns ground and ink about when inverted', () => {
    const start = { ground: of('#f7f3e9'), ink: of('#1d2b2a'), accent: of('#a34a1e') };
    const light = proposeRoles(start, 'light');
    expect([light.ground, light.ink, light.accent].map(hexOf)).toEqual(['#f7f3e9', '#1d2b2a', '#a34a1e']);
    const inverted = proposeRoles(start, 'inverted');
    expect(channelsIn(inverted.ground, 'oklch')[0]).toBeLessThan(0.25);
    expect(channelsIn(inverted.ink, 'oklch')[0]).toBeGreaterThan(0.85);
  });
});

describe('harmonyOf', () => {
  it('turns the hue by the angles of the colour wheel and holds lightness', () => {
    const base = of('#7a6a4f');
    const [lightness, , hue] = channelsIn(base, 'oklch');
    const turns = (harmony: (typeof HARMONIES)[number]) =>
      harmonyOf(base, harmony).map((color) => Math.round((channelsIn(color, 'oklch')[2] - hue + 720) % 360));
    // Angles by common practice; a degree or two is lost to 8 bits a channel.
    for (const [harmony, wanted] of [
      ['analogous', [330, 30]],
      ['complementary', [180]],
      ['split', [150, 210]],
      ['triad', [120, 240]],
      ['tetrad', [90, 180, 270]],
    ] as const) {
      turns(harmony).forEach((turn, i) =>
        expect(Math.abs(turn - wanted[i]))
          .withContext(`${harmony} ${turn}`)
          .toBeLessThanOrEqual(4),
      );
      for (const color of harmonyOf(base, harmony)) expect(channelsIn(color, 'oklch')[0]).toBeCloseTo(lightness, 1);
    }
  });

  it('gives a series of one hue, and no partner to a grey', () => {
    const series = harmonyOf(of('#0f4a48'), 'same hue').map((color) => channelsIn(color, 'oklch'));
    series.slice(1).forEach(([lightness], i) => expect(lightness).toBeLessThan(series[i][0]));
    expect(harmonyOf(of('#808080'), 'triad')).toEqual([]);
    expect(deltaE2000(harmonyOf(of('#808080'), 'same hue')[3], of('#636363'))).toBeLessThan(2);
  });
});
