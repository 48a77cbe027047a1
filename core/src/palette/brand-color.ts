import { brandStandingOf } from './brand-standing.js';
import type { Color } from '../values/color.js';
import type { Palette } from '../veneer/palette.js';

/** Whether a colour is a swatch or a role's shade, to the eye; alpha does not matter. */
export function isBrandColor(color: Color, palette: Palette): boolean {
  return brandStandingOf(color, palette).kind === 'brand';
}
