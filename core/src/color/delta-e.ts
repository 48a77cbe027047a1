import { differenceCiede2000, modeLab65, modeRgb, useMode } from 'culori/fn';
import type { Color } from '../values/color.js';
import { srgbChannels } from './contrast.js';

const toLab = useMode(modeLab65);
useMode(modeRgb);
const measure = differenceCiede2000();

/** Below this, two colours side by side look the same to most people (common practice). */
export const SAME_TO_THE_EYE = 2.3;

/** CIE Lab coordinates: L 0–100, a and b unbounded. */
export type LabTriple = readonly [l: number, a: number, b: number];

/**
 * Colour difference ΔE2000 of two colours in CIE Lab.
 * Source: Sharma, Wu, Dalal, "The CIEDE2000 color-difference formula", 2005; by the culori library.
 */
export function deltaE2000OfLab([l1, a1, b1]: LabTriple, [l2, a2, b2]: LabTriple): number {
  return measure({ mode: 'lab65', l: l1, a: a1, b: b1 }, { mode: 'lab65', l: l2, a: a2, b: b2 });
}

/** Colour difference ΔE2000 of two colours as a display shows them: clipped to sRGB, CIE Lab at D65; alpha ignored. */
export function deltaE2000(a: Color, b: Color): number {
  return deltaE2000OfLab(labOf(a), labOf(b));
}

/** CIE Lab at D65 of a colour clipped to sRGB. */
export function labOf(color: Color): LabTriple {
  const [r, g, b] = srgbChannels(color);
  const lab = toLab({ mode: 'rgb', r, g, b });
  return [lab.l, lab.a, lab.b];
}
