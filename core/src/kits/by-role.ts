import { hexOf } from '../color/read-notation.js';
import { colorOfValue, type OverrideValue, type PlainValue } from '../veneer/override-value.js';
import type { Palette } from '../veneer/palette.js';

/** A value without swatches, which are one site's own: by the role a swatch fills, else as its colour. */
export function byRole(value: OverrideValue, palette: Palette): OverrideValue {
  if (value.kind === 'house') return value;
  if (value.kind === 'composite') return { ...value, colors: value.colors.map((color) => plainByRole(color, palette)) };
  return plainByRole(value, palette);
}

export function plainByRole(value: PlainValue, palette: Palette): PlainValue {
  if (value.kind !== 'swatch') return value;
  const fill = palette.roles.find(({ swatchId, shade }) => swatchId === value.swatchId && shade === 0);
  if (fill) {
    const { shade, alpha } = value;
    return { kind: 'role', role: fill.role, shade, ...(alpha === undefined ? {} : { alpha }) };
  }
  const color = colorOfValue(value, palette);
  return { kind: 'literal', css: color ? hexOf(color) : 'inherit' };
}
