import { inner, message, type Message } from '../message/message.js';
import { roleTold } from '../veneer/own-role.js';
import { SAME_TO_THE_EYE, deltaE2000 } from '../color/delta-e.js';
import { shadeTold } from '../color/shade.js';
import type { Color } from '../values/color.js';
import { colorOfValue } from '../veneer/override-value.js';
import type { Palette } from '../veneer/palette.js';
import { INDISTINCT } from './pair-matrix.js';

/** How a painted colour stands to the palette: one of its own, nearly one, or none. */
export interface BrandStanding {
  readonly kind: 'brand' | 'near' | 'stray';
  /** The nearest brand colour: a swatch, or the role that is a shade of one; empty for an empty palette. */
  readonly nearest: Message | '';
  /** ΔE2000 to it; infinite for an empty palette. */
  readonly deltaE: number;
}

/**
 * The nearest brand colour to a painted one, alpha left aside: within `SAME_TO_THE_EYE` it is the brand's, within
 * `INDISTINCT` it is nearly so, else a stray.
 */
export function brandStandingOf(color: Color, palette: Palette): BrandStanding {
  let nearest: Message | '' = '';
  let least = Number.POSITIVE_INFINITY;
  for (const { name, color: brand } of brandColors(palette)) {
    const deltaE = deltaE2000(brand, color);
    if (deltaE < least) [least, nearest] = [deltaE, name];
  }
  return { kind: least <= SAME_TO_THE_EYE ? 'brand' : least <= INDISTINCT ? 'near' : 'stray', nearest, deltaE: least };
}

function brandColors(palette: Palette): { readonly name: Message; readonly color: Color }[] {
  const swatches = palette.swatches.map(({ id, name }) => ({
    name: message('plain', { text: name }),
    color: colorOfValue({ kind: 'swatch', swatchId: id, shade: 0 }, palette),
  }));
  const isInverted = palette.lighting === 'inverted' && palette.second != null;
  const shades = palette.roles
    .filter(({ shade }) => isInverted || shade !== 0)
    .map(({ role, swatchId, shade }) => {
      const swatch = colorOfValue({ kind: 'swatch', swatchId, shade: 0 }, palette);
      return {
        name: isInverted
          ? message('brand.inverted', { role: inner(roleTold(role)) })
          : message('brand.shade', { role: inner(roleTold(role)), shade: shadeTold(shade, swatch) }),
        color: colorOfValue({ kind: 'role', role, shade: 0 }, palette),
      };
    });
  return [...swatches, ...shades].flatMap(({ name, color }) => (color ? [{ name, color }] : []));
}
