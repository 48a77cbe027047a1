import type { Color } from '../values/color.js';
import { channelsIn } from '../values/convert-color.js';
import { contrastRatio } from './contrast.js';
import { deltaE2000 } from './delta-e.js';
import { easeIntoSrgb } from './gamut.js';

/** Steps of lightness tried from black to white. */
const STEPS = 400;

/** A shade that reaches a ratio, and how far it lies from the colour. */
export interface PassingShade {
  readonly color: Color;
  /** ΔE2000 from the colour it stands in for. */
  readonly moved: number;
}

/**
 * The shade of a colour that reaches a contrast ratio against another with the smallest ΔE2000 move: lightness moves
 * in OKLCH, the hue is held.
 * @param wanted contrast ratio, 1–21.
 * @returns `null` when no shade of this hue reaches it; the colour itself when it does already.
 */
export function nearestPassingShade(color: Color, against: Color, wanted: number): PassingShade | null {
  if (contrastRatio(color, against) >= wanted) return { color, moved: 0 };
  const [, chroma, hue] = channelsIn(color, 'oklch');
  let best: PassingShade | null = null;
  for (let step = 0; step <= STEPS; step += 1) {
    const candidate = easeIntoSrgb(step / STEPS, chroma, hue);
    if (contrastRatio(candidate, against) < wanted) continue;
    const moved = deltaE2000(color, candidate);
    if (!best || moved < best.moved) best = { color: candidate, moved };
  }
  return best;
}
