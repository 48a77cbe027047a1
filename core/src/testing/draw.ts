import type { Raster } from '../image/raster.js';

export type Rgba = readonly [red: number, green: number, blue: number, alpha: number];

/**
 * A picture drawn from a function of place, edges smoothed by 8 × 8 samples a pixel, mixed in sRGB with straight alpha.
 * @param paint colour at a place, both coordinates 0–1; `null` is clear.
 */
export function drawRaster(width: number, height: number, paint: (x: number, y: number) => Rgba | null): Raster {
  const data = new Uint8ClampedArray(width * height * 4);
  const side = 8;
  for (let y = 0; y < height; y += 1) {
    for (let x = 0; x < width; x += 1) {
      const sum = [0, 0, 0, 0];
      for (let k = 0; k < side * side; k += 1) {
        const color = paint(
          (x + ((k % side) + 0.5) / side) / width,
          (y + (Math.floor(k / side) + 0.5) / side) / height,
        );
        if (!color) continue;
        const alpha = color[3] / 255;
        for (let i = 0; i < 3; i += 1) sum[i] += color[i] * alpha;
        sum[3] += alpha;
      }
      const at = (y * width + x) * 4;
      for (let i = 0; i < 3; i += 1) data[at + i] = sum[3] === 0 ? 0 : Math.round(sum[i] / sum[3]);
      data[at + 3] = Math.round((sum[3] / (side * side)) * 255);
    }
  }
  return { width, height, data };
}
