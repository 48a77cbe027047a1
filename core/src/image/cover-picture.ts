import { compositeOver } from '../color/contrast.js';
import { channels8 } from '../color/read-notation.js';
import { rgb8, type Color } from '../values/color.js';
import type { Raster } from './raster.js';

/** A picture with a colour laid over all of it, as a highlight is. Source: CSS Compositing 1, 5.1, source-over. */
export function coverPicture(raster: Raster, cover: Color): Raster {
  const data = new Uint8ClampedArray(raster.data);
  const known = new Map<number, readonly number[]>();
  for (let at = 0; at < data.length; at += 4) {
    const key = (data[at] << 16) | (data[at + 1] << 8) | data[at + 2];
    let covered = known.get(key);
    if (!covered) {
      covered = channels8(compositeOver(cover, rgb8(data[at], data[at + 1], data[at + 2])));
      known.set(key, covered);
    }
    [data[at], data[at + 1], data[at + 2]] = covered;
  }
  return { ...raster, data };
}
