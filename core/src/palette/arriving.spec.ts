import Reference from 'colorjs.io';
import { hexOf } from '../color/read-notation.js';
import { fromLch, lchOf } from '../color/nudge.js';
import { colorOfCss } from '../veneer/palette.js';
import type { Color } from '../values/color.js';
import { HARMONIES, harmonyOf } from './harmonies.js';
import { harmonyRoles } from './harmony-roles.js';
import { lowestPair } from './lowest-pair.js';
import { MEANT_PAIRS } from './meant-pairs.js';
import { neutralRamp } from './neutral-ramp.js';

const color = (css: string): Color => colorOfCss(css) ?? fail(css);
const fail = (css: string): never => {
  throw new Error(`${css} is no colour`);
};
const lch = (of: Color): readonly number[] => new Reference(hexOf(of)).to('oklch').coords.map((value) => value ?? 0);

describe('a neutral ramp', () => {
  // Reference: OKLCH by colorjs.io.
  it('is pure grey without a tint, from pale to dark', () => {
    const ramp = neutralRamp(null);
    expect(ramp.every(({ channels: [r, g, b] }) => r === g && g === b)).toBeTrue();
    const lightness = ramp.map((step) => lch(step)[0]);
    expect(lightness).toEqual([...lightness].sort((a, b) => b - a));
    expect(lightness[0] - (lightness.at(-1) ?? 1)).toBeGreaterThan(0.75);
  });

  it('takes the hue of its tint, and no more chroma than a grey has', () => {
    const hue = lch(color('#f7f3e9'))[2];
    // The darkest steps have too few levels of eight bits to tell a hue by.
    for (const step of neutralRamp(color('#f7f3e9')).slice(1, -3)) {
      const [, chroma, own] = lch(step);
      expect(chroma).toBeLessThan(0.016);
      expect(Math.abs(own - hue)).toBeLessThan(14);
    }
  });
});

describe('roles in harmony', () => {
  const start = { ground: color('#f7f3e9'), ink: color('#1d2b2a'), accent: color('#b4582a') };
  for (const harmony of HARMONIES)
    // Reference: WCAG 2.2's ratio by colorjs.io.
    it(`arrive so that every pair passes: ${harmony}`, () => {
      for (const lighting of ['light', 'inverted'] as const) {
        const roles = harmonyRoles(start, harmonyOf(start.accent, harmony), lighting);
        for (const { above, below, wanted } of MEANT_PAIRS)
          expect(new Reference(hexOf(roles[above])).contrastWCAG21(new Reference(hexOf(roles[below]))))
            .withContext(`${above} on ${below}, ${lighting}`)
            .toBeGreaterThanOrEqual(wanted);
        const lowest = lowestPair(roles);
        expect(lowest && lowest.ratio / lowest.wanted).toBeGreaterThanOrEqual(1);
      }
    });

  it('take the partner’s hue for second', () => {
    const [partner] = harmonyOf(start.accent, 'complementary');
    const { second } = harmonyRoles(start, [partner], 'light');
    expect(Math.abs(lch(second)[2] - lch(partner)[2])).toBeLessThan(4);
  });

  it('name the pair that comes nearest to failing', () => {
    const lowest = lowestPair({ ground: color('#ffffff'), ink: color('#777777'), accent: color('#000000') });
    // 4.48 : 1 is the well-known border case of #777777 on white (WCAG 2.2, 1.4.3).
    expect(lowest?.above).toBe('ink');
    expect(lowest?.ratio).toBeCloseTo(4.48, 2);
    expect(lowestPair({ ground: color('#ffffff') })).toBeNull();
  });
});

describe('a nudge', () => {
  // Reference: OKLCH by colorjs.io.
  it('moves one of lightness, chroma and hue and holds the others, alpha too', () => {
    const from = color('rgb(180 88 42 / 0.5)');
    const { lightness, chroma, hue } = lchOf(from);
    const next = fromLch({ lightness: lightness + 0.03, chroma, hue }, from);
    const [l, c, h] = lch({ ...next, alpha: 1 });
    expect(l - lightness).toBeCloseTo(0.03, 2);
    expect(c).toBeCloseTo(chroma, 2);
    expect(Math.abs(h - hue)).toBeLessThan(1.5);
    expect(next.alpha).toBe(0.5);
  });

  it('comes back to the same eight bits, and eases what sRGB does not hold', () => {
    for (const css of ['#b4582a', '#0f4a48', '#ffffff', '#000000', '#808080', '#0000ff'])
      expect(hexOf(fromLch(lchOf(color(css)), color(css)))).toBe(css);
    const beyond = fromLch({ lightness: 0.7, chroma: 0.4, hue: 150 }, color('#000000'));
    expect(Math.abs(lch(beyond)[2] - 150)).toBeLessThan(2);
  });
});
