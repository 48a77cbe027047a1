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
 * @param against one colour, or several that must all be reached.
 * @param wanted contrast ratio, 1–21.
 * @returns `null` when no shade of this hue reaches it; the colour itself when it does already.
 */
export function nearestPassingShade(
  color: Color,
  against: Color | readonly Color[],
  wanted: number,
): PassingShade | null {
  const all = 'space' in against ? [against] : against;
  const passes = (candidate: Color): boolean => all.every((other) => contrastRatio(candidate, other) >= wanted);
  if (passes(color)) return { color, moved: 0 };
  const [lightness, chroma, hue] = channelsIn(color, 'oklch');
  let best: PassingShade | null = null;
  // The farther the lightness, the larger the move: the first step that passes on either side is the nearest there.
  for (const direction of [-1, 1]) {
    for (
      let step = direction < 0 ? Math.floor(lightness * STEPS) : Math.ceil(lightness * STEPS);
      step >= 0 && step <= STEPS;
      step += direction
    ) {
      const candidate = easeIntoSrgb(step / STEPS, chroma, hue);
      if (!passes(candidate)) continue;
      const moved = deltaE2000(color, candidate);
      if (!best || moved < best.moved) best = { color: candidate, moved };
      break;
    }
  }
  return best;
}
