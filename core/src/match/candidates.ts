import { relativeLuminance } from '../color/contrast.js';
import { labOf, type LabTriple } from '../color/delta-e.js';
import { turns } from '../color/shade.js';
import type { Color } from '../values/color.js';
import { channelsIn, type Triple } from '../values/convert-color.js';
import { colorOfValue, type PlainValue } from '../veneer/override-value.js';
import { paletteIn, type Palette, type RoleName } from '../veneer/palette.js';

/** One value that a row could become, with all that is reckoned from it. */
export interface Candidate {
  /** `null` for leaving the colour alone. */
  readonly value: PlainValue | null;
  readonly role: RoleName | null;
  readonly shade: number;
  readonly figures: ColorFigures;
  /** What it comes to in the second lighting; `null` in a site of one. */
  readonly inverted: ColorFigures | null;
}

/** What is asked of a colour again and again. */
export interface ColorFigures {
  readonly color: Color;
  readonly luminance: number;
  readonly lab: LabTriple;
  readonly oklch: Triple;
}

/** Shades tried of each role and swatch, points of lightness. */
const SHADES = [0, -4, 4, -8, 8, -12, 12, -16, 16, -20, 20, -26, 26, -32, 32, -40, 40, -50, 50, -60, 60];

export function figuresOf(color: Color): ColorFigures {
  return { color, luminance: relativeLuminance(color), lab: labOf(color), oklch: channelsIn(color, 'oklch') };
}

/** Every role that is filled and every swatch that fills none, with their shades; none that turns about, which would say what it is not. */
export function candidatesOf(palette: Palette): Candidate[] {
  const filled = new Set(palette.roles.map(({ swatchId }) => swatchId));
  const bases: { readonly role: RoleName | null; readonly at: (shade: number) => PlainValue }[] = [
    ...palette.roles.map(({ role }) => ({ role, at: (shade: number): PlainValue => ({ kind: 'role', role, shade }) })),
    ...palette.swatches
      .filter(({ id }) => !filled.has(id))
      .map(({ id }) => ({ role: null, at: (shade: number): PlainValue => ({ kind: 'swatch', swatchId: id, shade }) })),
  ];
  return bases.flatMap(({ role, at }) => {
    const own = colorOfValue(at(0), palette);
    if (!own) return [];
    return SHADES.flatMap((shade): Candidate[] => {
      const value = at(shade);
      const color = colorOfValue(value, palette);
      return color && !turns(own, shade)
        ? [{ value, role, shade, figures: figuresOf(color), inverted: invertedFigures(value, palette) }]
        : [];
    });
  });
}

/** What a value comes to in the second lighting; `null` in a site of one. */
export function invertedFigures(value: PlainValue, palette: Palette): ColorFigures | null {
  const color = palette.second ? colorOfValue(value, paletteIn(palette, 'inverted')) : null;
  return color && figuresOf(color);
}
