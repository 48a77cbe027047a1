import { resolveColorValue } from '../values/compute-color.js';
import { BLACK, type Color } from '../values/color.js';
import { parseColor } from '../values/parse-color.js';

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
export type RoleName = (typeof ROLE_NAMES)[number];

/** A brand colour with a name. */
export interface Swatch {
  readonly id: number;
  readonly name: string;
  /** A CSS colour that needs no context. */
  readonly css: string;
  /** Name of its custom property, without prefix, once it has been published; it is kept from then on. */
  readonly token?: string | null;
}

/** What fills a role: a swatch, `shade` points lighter (positive) or darker (negative). */
export interface RoleFill {
  readonly role: RoleName;
  readonly swatchId: number;
  readonly shade: number;
}

export interface Palette {
  readonly swatches: readonly Swatch[];
  readonly roles: readonly RoleFill[];
}

/** Colour of a CSS text that needs no context; `null` when it is none. */
export function colorOfCss(css: string): Color | null {
  const value = parseColor(css);
  return value ? resolveColorValue(value, { scheme: 'light', currentColor: BLACK }) : null;
}
