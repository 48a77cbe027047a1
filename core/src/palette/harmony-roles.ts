import { RATIOS } from '../color/contrast.js';
import { passingShade, readOn } from '../color/derive.js';
import type { Color } from '../values/color.js';
import type { Lighting } from '../veneer/lighting.js';
import type { StandardRole } from '../veneer/palette.js';
import { proposeRoles, type PaletteStart } from './propose-roles.js';

/**
 * Roles from a start, the partners of its accent in a harmony among them: the first fills second, the next is what visited links are
 * read in. Each is moved to its nearest shade of the same hue that reaches what its pairs ask.
 */
export function harmonyRoles(
  start: PaletteStart,
  [first, next]: readonly Color[],
  lighting: Lighting,
): Readonly<Record<StandardRole, Color>> {
  const roles = proposeRoles(start, lighting);
  const grounds = [roles.ground, roles.panel];
  const second = (first && passingShade(first, grounds, RATIOS.nonText)) ?? roles.second;
  return {
    ...roles,
    second,
    'on-second': readOn(second, [roles.ground, roles.ink]),
    visited: (next && passingShade(next, grounds, RATIOS.text)) ?? roles.visited,
  };
}
