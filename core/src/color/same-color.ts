import type { Color } from '../values/color.js';
import { srgbChannels } from './contrast.js';

/** Half a step of an 8-bit channel, and the float noise of a conversion. */
const TOLERANCE = 0.6 / 255;

/** Whether two colours come to the same 8-bit sRGB pixels, whatever space each is written in. */
export function sameColor(a: Color, b: Color): boolean {
  const [one, other] = [srgbChannels(a), srgbChannels(b)];
  return (
    Math.abs((a.alpha ?? 0) - (b.alpha ?? 0)) <= TOLERANCE &&
    ((a.alpha ?? 0) === 0 || one.every((channel, i) => Math.abs(channel - other[i]) <= TOLERANCE))
  );
}
