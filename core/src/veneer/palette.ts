import { resolveColorValue } from '../values/compute-color.js';
import { BLACK, type Color } from '../values/color.js';
import { parseColor } from '../values/parse-color.js';
import type { HouseShape } from './house-shape.js';
import type { Lighting, LightingSignal } from './lighting.js';

/** Jobs a swatch, or a shade of one, can have. */
export const ROLE_NAMES = [
  'ground',
  'panel',
  'ink',
  'soft-ink',
  'line',
  'accent',
  'on-accent',
  'second',
  'on-second',
  'link',
  'visited',
  'ring',
  'signal',
  'on-signal',
] as const;
export type StandardRole = (typeof ROLE_NAMES)[number];
/** A role of the designer's own, such as `own-heading`. */
export type OwnRole = `own-${string}`;
export type RoleName = StandardRole | OwnRole;

/** A brand colour with a name. */
export interface Swatch {
  readonly id: number;
  readonly name: string;
  /** A CSS colour that needs no context. */
  readonly css: string;
  /** Name of its custom property, without prefix, once it has been published; it is kept from then on. */
  readonly token?: string | null;
  /** Where it came from, in words, such as `logo.svg`; empty or absent where nobody said. */
  readonly origin?: string;
  /** What the designer noted of it. */
  readonly note?: string;
}

/** What fills a role: a swatch, `shade` points lighter (positive) or darker (negative). */
export interface RoleFill {
  readonly role: RoleName;
  readonly swatchId: number;
  readonly shade: number;
  /** Whether the product filled it, and nobody has confirmed that yet. */
  readonly isAssumed?: boolean;
}

/** The inverted set of roles, and when it is shown. */
export interface SecondLighting {
  readonly told: LightingSignal;
  /** Roles set by hand; the others that the first set fills are derived from it. */
  readonly roles: readonly RoleFill[];
}

export interface Palette {
  readonly swatches: readonly Swatch[];
  readonly roles: readonly RoleFill[];
  /** What of the brand is no colour; absent where nothing was settled. */
  readonly shape?: HouseShape | null;
  /** Colours of an older brand that are to go, as CSS; absent where none are named. */
  readonly former?: readonly string[];
  /** Absent for a site of one lighting. */
  readonly second?: SecondLighting | null;
  /** The lighting in which its roles are asked for their colours; light when absent. */
  readonly lighting?: Lighting;
}

/** The palette as it is in a lighting; one without a second set is the same in both. */
export function paletteIn(palette: Palette, lighting: Lighting): Palette {
  return (palette.lighting ?? 'light') === lighting ? palette : { ...palette, lighting };
}

/** Colour of a CSS text that needs no context; `null` when it is none. */
export function colorOfCss(css: string): Color | null {
  const value = parseColor(css);
  return value ? resolveColorValue(value, { scheme: 'light', currentColor: BLACK }) : null;
}
