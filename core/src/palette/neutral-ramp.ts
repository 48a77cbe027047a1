import { easeIntoSrgb } from '../color/gamut.js';
import type { Color } from '../values/color.js';
import { channelsIn } from '../values/convert-color.js';

/** OKLCH lightness of the steps, from pale to dark, closer together where grounds are chosen. */
const STEPS = [0.985, 0.96, 0.92, 0.86, 0.77, 0.66, 0.55, 0.44, 0.34, 0.25, 0.17] as const;
/** OKLCH chroma of a tint that is still taken for grey (common practice). */
const TINT = 0.012;

/** A ramp of greys, palest first: pure, or each tinted by the hue of a colour and by no more chroma than it has. */
export function neutralRamp(tint: Color | null): readonly Color[] {
  const [, chroma, hue] = tint ? channelsIn(tint, 'oklch') : [0, 0, 0];
  return STEPS.map((lightness) => easeIntoSrgb(lightness, Math.min(TINT, chroma), chroma > 0.0005 ? hue : 0));
}
