import { easeIntoSrgb } from '../color/gamut.js';
import type { Color } from '../values/color.js';
import { channelsIn } from '../values/convert-color.js';

/** Turns of the hue in degrees, by the name painters and printers give them (common practice). */
const TURNS = {
  analogous: [-30, 30],
  complementary: [180],
  split: [150, 210],
  triad: [120, 240],
  tetrad: [90, 180, 270],
} as const;

export const HARMONIES = [...(Object.keys(TURNS) as (keyof typeof TURNS)[]), 'same hue'] as const;
export type Harmony = (typeof HARMONIES)[number];

/** Lightness of a series of one hue, 0–1. */
const SERIES = [0.95, 0.8, 0.65, 0.5, 0.35, 0.22] as const;

/**
 * Colours that stand in a relation of hue to a colour, by turns in OKLCH at its lightness and chroma, the chroma eased
 * where sRGB does not hold it. Same hue gives a series from pale to dark.
 * @returns the partners, without the colour itself; a grey has none but its series.
 */
export function harmonyOf(color: Color, harmony: Harmony): readonly Color[] {
  const [lightness, chroma, hue] = channelsIn(color, 'oklch');
  if (harmony === 'same hue') return SERIES.map((step) => easeIntoSrgb(step, chroma, hue));
  if (chroma < 0.01) return [];
  return TURNS[harmony].map((turn) => easeIntoSrgb(lightness, chroma, (hue + turn + 360) % 360));
}
