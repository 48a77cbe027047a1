import { deltaE2000 } from '../color/delta-e.js';
import { hexOf } from '../color/read-notation.js';
import { drawRaster, type Rgba } from '../testing/draw.js';
import { seededRandom } from '../testing/random.js';
import { rgb8, type Color } from '../values/color.js';
import { averageColor } from './average-color.js';
import { distinctInks, type InkReport } from './distinct-inks.js';
import { logoOnGround } from './logo-on-ground.js';
import { pixelAt, type Raster } from './raster.js';
import { recoverInk } from './recover-ink.js';

const TEAL: Rgba = [15, 74, 72, 255];
const GREEN: Rgba = [109, 138, 53, 255];
const RUST: Rgba = [180, 88, 42, 255];
const WHITE: Rgba = [255, 255, 255, 255];
const colorOf = ([r, g, b]: Rgba): Color => rgb8(r, g, b);

/** A disc in two halves with a diagonal bar: curved, straight and slanting edges, three inks that meet. */
const emblem =
  (ground: Rgba | null) =>
  (x: number, y: number): Rgba | null => {
    if (Math.abs(x - y) < 0.07 && x > 0.2 && x < 0.8) return RUST;
    if (Math.hypot(x - 0.5, y - 0.5) < 0.37) return y < 0.5 ? TEAL : GREEN;
    return ground;
  };

function inksOf(raster: Raster): InkReport {
  const steps = distinctInks(raster);
  for (;;) {
    const step = steps.next();
    if (step.done) return step.value;
  }
}

describe('distinctInks', () => {
  // The inks the emblem is drawn in are the reference; its edges hold hundreds of blends.
  for (const size of [24, 33, 64, 150, 400]) {
    for (const ground of [null, WHITE, [29, 43, 42, 255] as Rgba]) {
      it(`finds each ink once and no other, ${size} px ${ground ? `on rgb(${ground.slice(0, 3).join(' ')})` : 'on clear ground'}`, () => {
        const { inks, edgePixels, clearPixels } = inksOf(drawRaster(size, size, emblem(ground)));
        const known = [TEAL, GREEN, RUST, ...(ground ? [ground] : [])];
        expect(inks.map(({ color }) => hexOf(color)).length)
          .withContext(inks.map(({ color, share }) => `${hexOf(color)} ${share.toFixed(3)}`).join(', '))
          .toBe(known.length);
        for (const ink of known)
          expect(Math.min(...inks.map(({ color }) => deltaE2000(color, colorOf(ink)))))
            .withContext(ink.join())
            .toBeLessThan(1);
        expect(inks.filter(({ isGround }) => isGround).map(({ color }) => hexOf(color))).toEqual(
          ground ? [hexOf(colorOf(ground))] : [],
        );
        expect(edgePixels).toBeGreaterThan(0);
        expect(clearPixels > 0).toBe(ground === null);
        expect(inks.reduce((sum, { share }) => sum + share, 0)).toBeGreaterThan(0.9);
      });
    }
  }

  it('gives the shares of the areas', () => {
    const halves = drawRaster(100, 100, (x) => (x < 0.25 ? TEAL : GREEN));
    expect(inksOf(halves).inks.map(({ color, share }) => [hexOf(color), Math.round(share * 100)])).toEqual([
      ['#6d8a35', 75],
      ['#0f4a48', 25],
    ]);
  });

  it('keeps a flat grey that lies between black and white', () => {
    const bands = drawRaster(90, 30, (x) => (x < 1 / 3 ? [0, 0, 0, 255] : x < 2 / 3 ? [128, 128, 128, 255] : WHITE));
    expect(
      inksOf(bands)
        .inks.map(({ color }) => hexOf(color))
        .sort(),
    ).toEqual(['#000000', '#808080', '#ffffff']);
  });

  it('takes the noise of compression for one ink, and says how much of a photograph is left over', () => {
    const random = seededRandom(3);
    const noisy = drawRaster(80, 80, (x) => (x < 0.5 ? TEAL : WHITE));
    for (let at = 0; at < noisy.data.length; at += 1)
      if (at % 4 < 3) noisy.data[at] += Math.round((random() - 0.5) * 6);
    const { inks } = inksOf(noisy);
    expect(inks.length).toBe(2);
    expect(Math.min(...inks.map(({ color }) => deltaE2000(color, colorOf(TEAL))))).toBeLessThan(1.5);
    const photo = drawRaster(60, 60, (x, y) => [x * 255, y * 255, ((x * 7 + y * 3) % 1) * 255, 255]);
    expect(inksOf(photo).rest).toBeGreaterThan(0.1);
    expect(inksOf(photo).inks.length).toBeLessThanOrEqual(16);
  });

  it('has nothing to say of a clear picture, and something of one pixel', () => {
    expect(inksOf(drawRaster(10, 10, () => null))).toEqual({ inks: [], edgePixels: 0, clearPixels: 100, rest: 0 });
    expect(inksOf(drawRaster(1, 1, () => RUST)).inks.map(({ color, share }) => [hexOf(color), share])).toEqual([
      ['#b4582a', 1],
    ]);
  });
});

describe('the loupe', () => {
  const checker = drawRaster(4, 4, (x, y) => ((Math.floor(x * 4) + Math.floor(y * 4)) % 2 ? [0, 0, 0, 255] : WHITE));

  it('reads one pixel', () => {
    expect([hexOf(pixelAt(checker, 0, 0)), hexOf(pixelAt(checker, 1, 0))]).toEqual(['#ffffff', '#000000']);
    expect(() => pixelAt(checker, 4, 0)).toThrowError(RangeError);
  });

  // Half the light of white is sRGB 188 (IEC 61966-2-1: 0.5 encodes to 0.7354).
  it('averages light, not numbers', () => {
    expect(hexOf(averageColor(checker, { left: 0, top: 0, width: 4, height: 4 }))).toBe('#bcbcbc');
    expect(hexOf(averageColor(checker, { left: -3, top: -3, width: 4, height: 4 }))).toBe('#ffffff');
    expect(() => averageColor(checker, { left: 9, top: 9, width: 2, height: 2 })).toThrowError(RangeError);
  });
});

describe('recoverInk', () => {
  it('follows the blends of thin strokes to their end', () => {
    // Strokes of 1.2 px: hardly a pixel holds nothing but ink.
    const strokes = drawRaster(60, 20, (x, y) =>
      Math.abs(((x * 60 + y * 2) % 6) - 3) < 0.6 ? RUST : [247, 243, 233, 255],
    );
    const found = recoverInk(strokes, { left: 0, top: 0, width: 60, height: 20 });
    expect(found && hexOf(found.ground)).toBe('#f7f3e9');
    expect(found && deltaE2000(found.ink, colorOf(RUST))).toBeLessThan(2);
  });

  it('follows each channel where edges are smoothed by thirds of a pixel', () => {
    const striped = drawRaster(40, 10, (x) => (Math.abs(((x * 40) % 8) - 4) < 2 ? TEAL : WHITE));
    const shifted = {
      ...striped,
      data: Uint8ClampedArray.from(striped.data, (value, at) =>
        at % 4 === 0 ? (striped.data[at + 4] ?? value) : value,
      ),
    };
    const found = recoverInk(shifted, { left: 0, top: 0, width: 40, height: 10 });
    expect(found && deltaE2000(found.ink, colorOf(TEAL))).toBeLessThan(1);
  });

  it('finds no ink where there is none', () => {
    expect(
      recoverInk(
        drawRaster(9, 9, () => WHITE),
        { left: 0, top: 0, width: 9, height: 9 },
      ),
    ).toBeNull();
  });
});

describe('logoOnGround', () => {
  const logo = drawRaster(100, 100, (x) => (x < 0.5 ? TEAL : x < 0.75 ? WHITE : null));

  // By the formula of WCAG 2.2 teal #0f4a48 has 1.5 : 1 on #1d2b2a, and white 14.7.
  it('gives the share of ink that a ground swallows', () => {
    const onDark = logoOnGround(logo, rgb8(29, 43, 42));
    expect(onDark.lost).toBeCloseTo(2 / 3, 2);
    expect(onDark.ink).toBeCloseTo(0.75, 2);
    expect(onDark.worst).toBeLessThan(2);
    expect(logoOnGround(logo, rgb8(255, 255, 255)).lost).toBeCloseTo(1 / 3, 2);
    expect(logoOnGround(logo, rgb8(255, 255, 255), rgb8(255, 255, 255)).lost).toBe(0);
    expect(
      logoOnGround(
        drawRaster(3, 3, () => null),
        rgb8(0, 0, 0),
      ).lost,
    ).toBe(0);
  });
});
