import { hexOf } from '../color/read-notation.js';
import { colorOfValue, type OverrideValue, type PlainValue } from './override-value.js';
import type { Palette } from './palette.js';

/**
 * A value made for one palette as it is in another: bound as it was where what it names is there, else the colour, or the part of the
 * house shape, that it stood for.
 * @param then the palette it was made for; `null` where that is not known.
 * @returns `null` where nobody can tell what it stood for.
 */
export function carriedValue(value: OverrideValue, then: Palette | null, now: Palette): OverrideValue | null {
  if (value.kind === 'house') {
    if (now.shape?.[value.part]) return value;
    const css = then?.shape?.[value.part];
    return css ? { kind: 'literal', css } : null;
  }
  if (value.kind !== 'composite') return carriedPlain(value, then, now);
  const colors = value.colors.map((color) => carriedPlain(color, then, now));
  return colors.every((color) => color !== null) ? { ...value, colors } : null;
}

function carriedPlain(value: PlainValue, then: Palette | null, now: Palette): PlainValue | null {
  if (value.kind === 'literal' || colorOfValue(value, now)) return value;
  const color = then && colorOfValue(value, then);
  return color && { kind: 'literal', css: hexOf(color) };
}
