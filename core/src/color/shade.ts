import type { Color } from '../values/color.js';
import { channelsIn } from '../values/convert-color.js';
import { easeIntoSrgb } from './gamut.js';

/** Lightness that leaves no room for a step in its own direction, 0–1. */
const DARK_END = 0.02;
const LIGHT_END = 0.995;

/**
 * A shade: the lightness moved in OKLCH, hue held, kept in sRGB.
 * Where the step would leave the scale, it goes the other way, so that it shows.
 * @param steps points of lightness of 100: negative is darker, positive lighter.
 */
export function shade(color: Color, steps: number): Color {
  if (steps === 0) return color;
  const [lightness, chroma, hue] = channelsIn(color, 'oklch');
  const wanted = lightness + steps / 100;
  const turned = wanted < DARK_END || wanted > LIGHT_END ? lightness - steps / 100 : wanted;
  const eased = easeIntoSrgb(Math.min(1, Math.max(0, turned)), chroma, hue);
  return { ...eased, alpha: color.alpha };
}

/** How a shade is said: `12 darker`, `8 lighter`; empty for none. */
export function describeShade(steps: number): string {
  return steps === 0 ? '' : `${Math.abs(steps)} ${steps < 0 ? 'darker' : 'lighter'}`;
}
