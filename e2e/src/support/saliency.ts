import Color from 'colorjs.io';
import { PNG } from 'pngjs';

/**
 * Frequency-tuned saliency of every pixel: the distance in CIELAB of the picture, blurred by a 5 × 5 binomial kernel, from its mean
 * colour. Source: R. Achanta, S. Hemami, F. Estrada, S. Süsstrunk, "Frequency-tuned Salient Region Detection", CVPR 2009, eq. 4.
 */
export function frequencyTunedSaliency(png: Buffer): {
  readonly width: number;
  readonly height: number;
  readonly values: Float64Array;
} {
  const { width, height, data } = PNG.sync.read(png);
  const known = new Map<number, readonly [number, number, number]>();
  const lab = [0, 1, 2].map(() => new Float64Array(width * height));
  for (let i = 0; i < width * height; i += 1) {
    const key = (data[4 * i] << 16) | (data[4 * i + 1] << 8) | data[4 * i + 2];
    let own = known.get(key);
    if (!own) {
      const [l, a, b] = new Color('srgb', [data[4 * i] / 255, data[4 * i + 1] / 255, data[4 * i + 2] / 255]).to('lab')
        .coords as [number, number, number];
      known.set(key, (own = [l, a, b]));
    }
    own.forEach((value, k) => (lab[k][i] = value));
  }
  const means = lab.map((channel) => channel.reduce((sum, value) => sum + value, 0) / channel.length);
  const blurred = lab.map((channel) => blur(channel, width, height));
  const values = new Float64Array(width * height);
  for (let i = 0; i < values.length; i += 1)
    values[i] = Math.hypot(...blurred.map((channel, k) => channel[i] - means[k]));
  return { width, height, values };
}

const KERNEL = [1, 4, 6, 4, 1].map((weight) => weight / 16);

/** Binomial blur, edges repeated. */
function blur(channel: Float64Array, width: number, height: number): Float64Array {
  const pass = (from: Float64Array, step: (x: number, y: number, k: number) => number): Float64Array => {
    const to = new Float64Array(from.length);
    for (let y = 0; y < height; y += 1)
      for (let x = 0; x < width; x += 1)
        for (let k = 0; k < KERNEL.length; k += 1) to[y * width + x] += KERNEL[k] * from[step(x, y, k - 2)];
    return to;
  };
  const clamp = (value: number, most: number): number => Math.min(most - 1, Math.max(0, value));
  const across = pass(channel, (x, y, k) => y * width + clamp(x + k, width));
  return pass(across, (x, y, k) => clamp(y + k, height) * width + x);
}
