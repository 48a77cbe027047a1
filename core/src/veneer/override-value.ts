import { hexOf } from '../color/read-notation.js';
import { describeShade, shade } from '../color/shade.js';
import { serializeColor } from '../values/serialize-color.js';
import type { Color } from '../values/color.js';
import { colorOfCss, type Palette, type RoleName } from './palette.js';

/** A role or a shade of it, a swatch or a shade of it, or a literal. */
export type PlainValue =
  | { readonly kind: 'role'; readonly role: RoleName; readonly shade: number }
  | { readonly kind: 'swatch'; readonly swatchId: number; readonly shade: number }
  | { readonly kind: 'literal'; readonly css: string };

/** Several colours in one value, such as a gradient's stops: `css` holds `{0}`, `{1}`… in their places. */
export interface CompositeValue {
  readonly kind: 'composite';
  readonly css: string;
  readonly colors: readonly PlainValue[];
}

/** Value of an override. */
export type OverrideValue = PlainValue | CompositeValue;

const HOLE = /\{(\d+)\}/g;

/** A composite's text with its colours written by a function. */
export function fillComposite({ css, colors }: CompositeValue, write: (value: PlainValue) => string): string {
  return css.replace(HOLE, (hole, index: string) => (colors[Number(index)] ? write(colors[Number(index)]) : hole));
}

/** CSS of a value without custom properties. */
export function plainCssOfValue(value: OverrideValue, palette: Palette): string {
  if (value.kind === 'composite') return fillComposite(value, (plain) => plainCssOfValue(plain, palette));
  const color = colorOfValue(value, palette);
  return value.kind === 'literal' ? value.css : color ? serializeColor(color) : 'inherit';
}

/** Colour a value stands for; `null` for what is no single colour, or a role nobody fills. */
export function colorOfValue(value: OverrideValue, palette: Palette): Color | null {
  if (value.kind === 'composite') return null;
  if (value.kind === 'literal') return colorOfCss(value.css);
  const fill = value.kind === 'role' ? palette.roles.find(({ role }) => role === value.role) : { swatchId: value.swatchId, shade: 0 };
  const swatch = palette.swatches.find(({ id }) => id === fill?.swatchId);
  const color = swatch ? colorOfCss(swatch.css) : null;
  return color && fill ? shade(color, fill.shade + value.shade) : null;
}

/** A value some points lighter or darker; `null` where it has no shade of its own. */
export function shadeOfValue(value: OverrideValue, steps: number, palette: Palette): PlainValue | null {
  if (value.kind === 'role' || value.kind === 'swatch') return { ...value, shade: Math.max(-100, Math.min(100, value.shade + steps)) };
  const color = colorOfValue(value, palette);
  return color ? { kind: 'literal', css: hexOf(shade(color, steps)) } : null;
}

/** A value in words: `Accent, 12 darker`. */
export function valueWords(site: { readonly palette: Palette }, value: OverrideValue): string {
  if (value.kind === 'literal') return value.css;
  if (value.kind === 'composite') return fillComposite(value, (plain) => valueWords(site, plain));
  const base = value.kind === 'role' ? value.role.replace('-', ' ') : site.palette.swatches.find(({ id }) => id === value.swatchId)?.name ?? 'a lost swatch';
  const name = base.charAt(0).toUpperCase() + base.slice(1);
  return [name, describeShade(value.shade)].filter((part) => part !== '').join(', ');
}

/** The swatch or role that comes to a colour, for values to be bound by; the literal where none does. */
export function boundValue(color: Color, palette: Palette): PlainValue {
  const css = serializeColor(color);
  const role = palette.roles.find((fill) => sameCss(colorOfValue({ kind: 'role', role: fill.role, shade: 0 }, palette), css));
  if (role) return { kind: 'role', role: role.role, shade: 0 };
  const swatch = palette.swatches.find(({ id }) => sameCss(colorOfValue({ kind: 'swatch', swatchId: id, shade: 0 }, palette), css));
  return swatch ? { kind: 'swatch', swatchId: swatch.id, shade: 0 } : { kind: 'literal', css };
}

function sameCss(color: Color | null, css: string): boolean {
  return color !== null && serializeColor(color) === css;
}
