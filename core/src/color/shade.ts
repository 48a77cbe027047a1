import { message, type Message } from '../message/message.js';
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
  const turned = lightness + (turns(color, steps) ? -steps : steps) / 100;
  const eased = easeIntoSrgb(Math.min(1, Math.max(0, turned)), chroma, hue);
  return { ...eased, alpha: color.alpha };
}

/** Whether a step goes the other way, since it would leave the scale: lighter than white is darker. */
export function turns(color: Color, steps: number): boolean {
  const wanted = channelsIn(color, 'oklch')[0] + steps / 100;
  return steps !== 0 && (wanted < DARK_END || wanted > LIGHT_END);
}

/** How a shade is told: `12 darker`, `8 lighter`. @param of the colour it is a shade of, by which a step that turns is told to. */
export function shadeTold(steps: number, of: Color | null = null): Message {
  const isTurned = of !== null && turns(of, steps);
  return message('shade', {
    steps: Math.abs(steps),
    way: steps < 0 !== isTurned ? 'darker' : 'lighter',
    turned: !isTurned ? 'no' : steps < 0 ? 'darker' : 'lighter',
  });
}
