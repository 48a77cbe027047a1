import { compositeOver, relativeLuminance } from '../color/contrast.js';
import { rgb8, type Color } from '../values/color.js';
import type { Raster } from './raster.js';

/** Share of the pixels at either end that is left out, as specks. */
const SPECKS = 0.05;
const MOST_PIXELS = 40_000;

/**
 * How dark and how light a colour comes out over a picture: composited over its darkest and lightest pixels, one in twenty at
 * either end left aside.
 * @param raster what lies under it, 8-bit sRGB.
 * @returns the darker first; `null` for an empty picture.
 */
export function rangeOverPicture(color: Color, raster: Raster): readonly [Color, Color] | null {
  const count = raster.width * raster.height;
  if (count === 0) return null;
  const step = Math.max(1, Math.floor(count / MOST_PIXELS));
  const pixels = new Map<number, { readonly color: Color; readonly luminance: number; count: number }>();
  let seen = 0;
  for (let i = 0; i < count; i += step) {
    const [red, green, blue] = raster.data.subarray(i * 4, i * 4 + 3);
    const key = (red << 16) | (green << 8) | blue;
    const known = pixels.get(key);
    if (known) known.count += 1;
    else {
      const under = rgb8(red, green, blue);
      pixels.set(key, { color: under, luminance: relativeLuminance(under), count: 1 });
    }
    seen += 1;
  }
  const byLuminance = [...pixels.values()].sort((a, b) => a.luminance - b.luminance);
  const at = (share: number): Color => {
    let left = share * seen;
    const pixel = byLuminance.find((own) => (left -= own.count) < 0) ?? byLuminance[byLuminance.length - 1];
    return compositeOver(color, pixel.color);
  };
  return [at(SPECKS), at(1 - SPECKS)];
}
