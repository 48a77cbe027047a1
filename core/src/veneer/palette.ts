import { shade } from '../color/shade.js';
import { hexOf } from '../color/read-notation.js';
import { resolveColorValue } from '../values/compute-color.js';
import { BLACK, type Color } from '../values/color.js';
import { parseColor } from '../values/parse-color.js';

/** Jobs a swatch, or a shade of one, can have. */
export const ROLE_NAMES = ['ground', 'panel', 'ink', 'soft-ink', 'line', 'accent', 'on-accent', 'second', 'on-second', 'link', 'visited', 'ring', 'signal', 'on-signal'] as const;
export type RoleName = (typeof ROLE_NAMES)[number];

/** A brand colour with a name. */
export interface Swatch {
  readonly id: number;
  readonly name: string;
  /** A CSS colour that needs no context. */
  readonly css: string;
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

/** Value of an override: a role or a shade of it, a swatch or a shade of it, or a literal. */
export type OverrideValue =
  | { readonly kind: 'role'; readonly role: RoleName; readonly shade: number }
  | { readonly kind: 'swatch'; readonly swatchId: number; readonly shade: number }
  | { readonly kind: 'literal'; readonly css: string };

/** Colour of a CSS text that needs no context; `null` when it is none. */
export function colorOfCss(css: string): Color | null {
  const value = parseColor(css);
  return value ? resolveColorValue(value, { scheme: 'light', currentColor: BLACK }) : null;
}

/** Colour a value stands for; `null` for a literal that is no colour, or a role nobody fills. */
export function colorOfValue(value: OverrideValue, palette: Palette): Color | null {
  if (value.kind === 'literal') return colorOfCss(value.css);
  const fill = value.kind === 'role' ? palette.roles.find(({ role }) => role === value.role) : { swatchId: value.swatchId, shade: 0 };
  const swatch = palette.swatches.find(({ id }) => id === fill?.swatchId);
  const color = swatch ? colorOfCss(swatch.css) : null;
  return color && fill ? shade(color, fill.shade + value.shade) : null;
}

/** Name of the custom property that carries a value, and what it holds; `null` for a literal. */
export function customPropertyOf(value: OverrideValue, palette: Palette, prefix: string): { readonly name: string; readonly css: string } | null {
  if (value.kind === 'literal') return null;
  const base = value.kind === 'role' ? value.role : slug(palette.swatches.find(({ id }) => id === value.swatchId)?.name ?? '');
  const color = colorOfValue(value, palette);
  if (base === '' || !color) return null;
  const step = value.shade === 0 ? '' : `-${value.shade < 0 ? 'd' : 'l'}${Math.abs(value.shade)}`;
  return { name: `--${prefix}-${base}${step}`, css: hexOf(color) };
}

/** A name fit for a custom property: lower case, words joined by hyphens. */
export function slug(name: string): string {
  return name.toLowerCase().normalize('NFKD').replace(/[^a-z0-9]+/g, '-').replace(/^-+|-+$/g, '');
}
