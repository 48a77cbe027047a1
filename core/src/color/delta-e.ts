import { differenceCiede2000, modeLab65, modeRgb, useMode } from 'culori/fn';
import type { Color } from '../values/color.js';
import { srgbChannels } from './contrast.js';

useMode(modeRgb);
useMode(modeLab65);
const measure = differenceCiede2000();

/** Below this, two colours side by side look the same to most people (common practice). */
export const SAME_TO_THE_EYE = 2.3;

/**
 * Colour difference ΔE2000 of two opaque colours in sRGB, CIE Lab at D65; alpha ignored.
 * Source: Sharma, Wu, Dalal, "The CIEDE2000 color-difference formula", 2005.
 */
export function deltaE2000(a: Color, b: Color): number {
  const [r1, g1, b1] = srgbChannels(a);
  const [r2, g2, b2] = srgbChannels(b);
  return measure({ mode: 'rgb', r: r1, g: g1, b: b1 }, { mode: 'rgb', r: r2, g: g2, b: b2 });
}
