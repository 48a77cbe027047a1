import type { Color } from '../values/color.js';
import { channelsIn } from '../values/convert-color.js';

const STEPS = 14;

/** Whether a colour lies in sRGB, within a hair that no display shows. */
export function isInSrgb(color: Color): boolean {
  return channelsIn(color, 'srgb').every((channel) => channel >= -0.0001 && channel <= 1.0001);
}

/**
 * The sRGB colour of an OKLCH lightness and hue with as much of the chroma as the gamut holds.
 * Chroma is eased at constant lightness and hue, as CSS Color 4 §13.2 asks of gamut mapping; without its final clip,
 * which would turn the hue.
 * @param lightness 0–1. @param hue degrees.
 */
export function easeIntoSrgb(lightness: number, chroma: number, hue: number): Color {
  const at = (c: number): Color => ({ space: 'oklch', channels: [lightness, c, hue], alpha: 1 });
  let color = at(chroma);
  if (!isInSrgb(color)) {
    let low = 0;
    let high = chroma;
    for (let i = 0; i < STEPS; i += 1) {
      const middle = (low + high) / 2;
      if (isInSrgb(at(middle))) low = middle;
      else high = middle;
    }
    color = at(low);
  }
  const [r, g, b] = channelsIn(color, 'srgb').map(
    (channel) => Math.round(Math.min(1, Math.max(0, channel)) * 255) / 255,
  );
  return { space: 'legacy', channels: [r, g, b], alpha: 1 };
}
