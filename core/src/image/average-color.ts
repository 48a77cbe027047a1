import type { Color } from '../values/color.js';
import { convertChannels, type Triple } from '../values/convert-color.js';
import { clipBox, type PixelBox, type Raster } from './raster.js';

/** Linear light of the 256 sRGB values (IEC 61966-2-1). */
const LINEAR = Float64Array.from({ length: 256 }, (_, i) =>
  i / 255 <= 0.04045 ? i / 255 / 12.92 : ((i / 255 + 0.055) / 1.055) ** 2.4,
);

/**
 * Average of a box of pixels in linear light, as the eye would mix them from afar; each pixel counts by its alpha.
 * @throws {RangeError} outside the picture.
 */
export function averageColor(raster: Raster, box: PixelBox): Color {
  const { left, top, width, height } = clipBox(raster, box);
  const sum = [0, 0, 0];
  let alpha = 0;
  for (let y = top; y < top + height; y += 1) {
    for (let x = left; x < left + width; x += 1) {
      const at = (y * raster.width + x) * 4;
      const weight = raster.data[at + 3] / 255;
      alpha += weight;
      for (let i = 0; i < 3; i += 1) sum[i] += LINEAR[raster.data[at + i]] * weight;
    }
  }
  const channels = sum.map((value) => (alpha === 0 ? 0 : value / alpha)) as unknown as Triple;
  return {
    space: 'legacy',
    channels: convertChannels(channels, 'srgb-linear', 'srgb'),
    alpha: alpha / (width * height),
  };
}
