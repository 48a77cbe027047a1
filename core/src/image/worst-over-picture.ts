import { contrastRatio, compositeOver } from '../color/contrast.js';
import { WHITE, rgb8, type Color } from '../values/color.js';
import type { Raster } from './raster.js';

/** Share of the pixels that may be worse than what counts. */
const WORST_SHARE = 0.05;
/** Most pixels that are looked at; the rest are skipped evenly. */
const MOST_PIXELS = 40_000;

/**
 * Contrast of a text with the picture under it: the ratio that all but the worst 5 % of the pixels reach.
 * @param raster what lies under the text, without the text, 8-bit sRGB.
 * @returns ratio 1–21; `null` for an empty picture.
 */
export function worstOverPicture(text: Color, raster: Raster): number | null {
  const count = raster.width * raster.height;
  if (count === 0) return null;
  const step = Math.max(1, Math.floor(count / MOST_PIXELS));
  const ratios: number[] = [];
  const known = new Map<number, number>();
  for (let i = 0; i < count; i += step) {
    const [red, green, blue] = raster.data.subarray(i * 4, i * 4 + 3);
    const key = (red << 16) | (green << 8) | blue;
    let ratio = known.get(key);
    if (ratio === undefined) {
      const ground = compositeOver(rgb8(red, green, blue), WHITE);
      known.set(key, (ratio = contrastRatio(compositeOver(text, ground), ground)));
    }
    ratios.push(ratio);
  }
  ratios.sort((a, b) => a - b);
  return ratios[Math.min(ratios.length - 1, Math.floor(ratios.length * WORST_SHARE))];
}
