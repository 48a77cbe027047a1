import { say } from '@upper-veneer/words';
import { rgb8 } from '../values/color.js';
import { stepsThatGoOn } from './ladder.js';
import { channelsIn } from '../values/convert-color.js';
import { BLACK } from '../values/color.js';
import { colorOfCss } from '../veneer/palette.js';
import { easeIntoSrgb, isInSrgb } from './gamut.js';
import { shadeTold, shade } from './shade.js';

const of = (css: string) => colorOfCss(css) ?? BLACK;

describe('a ladder', () => {
  // OKLCH lightness of white is 1, of black 0 (CSS Color 4 §9.2).
  it('has only steps that go on in their direction', () => {
    expect(stepsThatGoOn(rgb8(255, 255, 255), [24, 8, 0, -6, -24])).toEqual([0, -6, -24]);
    expect(stepsThatGoOn(rgb8(0, 0, 0), [24, 8, 0, -6, -24])).toEqual([24, 8, 0]);
    expect(stepsThatGoOn(rgb8(180, 88, 42), [24, 8, 0, -6, -24])).toEqual([24, 8, 0, -6, -24]);
  });
});

describe('shade', () => {
  // The definition: lightness moved in OKLCH (CSS Color 4 §9.2), hue held, inside sRGB.
  for (const css of ['#b4582a', '#0f4a48', '#6d8a35', '#f7f3e9', '#a3262a', '#3e7bfa', '#ffd700', '#ff00ff']) {
    for (const steps of [-30, -12, -4, 4, 12]) {
      it(`${css} ${say(shadeTold(steps))} holds its hue and stays in sRGB`, () => {
        const before = channelsIn(of(css), 'oklch');
        const after = shade(of(css), steps);
        const [lightness, chroma, hue] = channelsIn(after, 'oklch');
        expect(isInSrgb(after)).toBe(true);
        // 8-bit rounding moves a point of lightness at most, and the hue of what has little chroma.
        const wanted = before[0] + steps / 100;
        if (wanted > 0.02 && wanted < 0.995) expect(Math.abs(lightness - wanted)).toBeLessThan(0.006);
        if (chroma > 0.03) expect(Math.abs(((hue - before[2] + 540) % 360) - 180)).toBeLessThan(3);
        expect(chroma).toBeLessThan(before[1] + 0.004);
      });
    }
  }

  it('goes the other way where the step would not show', () => {
    expect(channelsIn(shade(of('#000'), -12), 'oklch')[0]).toBeGreaterThan(0.1);
    expect(channelsIn(shade(of('#fff'), 8), 'oklch')[0]).toBeLessThan(0.95);
  });

  it('keeps alpha, and the colour itself at no step', () => {
    expect(shade(of('rgb(180 88 42 / 40%)'), -8).alpha).toBe(0.4);
    expect(shade(of('#b4582a'), 0)).toEqual(of('#b4582a'));
  });
});

describe('easeIntoSrgb', () => {
  it('gives up chroma only, and only as much as it must', () => {
    const eased = easeIntoSrgb(0.7, 0.4, 150);
    const [lightness, chroma] = channelsIn(eased, 'oklch');
    expect(lightness).toBeCloseTo(0.7, 2);
    expect(chroma).toBeGreaterThan(0.18);
    expect(isInSrgb({ space: 'oklch', channels: [0.7, chroma + 0.01, 150], alpha: 1 })).toBe(false);
  });
});
