import type { Color } from '../values/color.js';
import { channelsIn } from '../values/convert-color.js';
import { easeIntoSrgb } from './gamut.js';

/** Lightness 0–1, chroma and hue in degrees of OKLCH. */
export interface Lch {
  readonly lightness: number;
  readonly chroma: number;
  readonly hue: number;
}

/** The smallest steps a colour is nudged by: about a third of what the eye just notices. */
export const NUDGES: Lch = { lightness: 0.0025, chroma: 0.0015, hue: 0.5 };
/** The most chroma that sRGB has at any hue, rounded up. */
export const MOST_CHROMA = 0.33;

/** A colour in OKLCH; the hue of a grey is 0. */
export function lchOf(color: Color): Lch {
  const [lightness, chroma, hue] = channelsIn(color, 'oklch');
  return chroma < 0.0005 ? { lightness, chroma: 0, hue: 0 } : { lightness, chroma, hue };
}

/** The sRGB colour of OKLCH values; chroma that the gamut does not hold is eased, the alpha of `of` kept. */
export function fromLch({ lightness, chroma, hue }: Lch, of: Color): Color {
  const eased = easeIntoSrgb(
    Math.min(1, Math.max(0, lightness)),
    Math.min(MOST_CHROMA, Math.max(0, chroma)),
    ((hue % 360) + 360) % 360,
  );
  return { ...eased, alpha: of.alpha };
}
