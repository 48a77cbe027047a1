import { message, type Message } from '../message/message.js';
import { roleTold } from './own-role.js';
import { hexOf } from '../color/read-notation.js';
import { shade, shadeTold } from '../color/shade.js';
import { houseTold, type HousePart } from './house-shape.js';
import { fillColor, roleColor, stepIn } from './role-color.js';
import { serializeColor } from '../values/serialize-color.js';
import type { Color } from '../values/color.js';
import { sameColor } from '../color/same-color.js';
import { colorOfCss, type Palette, type RoleName } from './palette.js';
import { capital } from '../text/capital.js';

/** How much of a colour of the palette there is. */
export interface Strength {
  /** Alpha, 0–1, by which the colour's own is multiplied; 1 when absent. */
  readonly alpha?: number | null;
}

/** A role or a shade of it, a swatch or a shade of it, or a literal. */
export type PlainValue =
  | ({ readonly kind: 'role'; readonly role: RoleName; readonly shade: number } & Strength)
  | ({ readonly kind: 'swatch'; readonly swatchId: number; readonly shade: number } & Strength)
  | { readonly kind: 'literal'; readonly css: string };

/** Several colours in one value, such as a gradient's stops: `css` holds `{0}`, `{1}`… in their places. */
export interface CompositeValue {
  readonly kind: 'composite';
  readonly css: string;
  readonly colors: readonly PlainValue[];
}

/** A part of the house shape, which follows when that changes. */
export interface HouseValue {
  readonly kind: 'house';
  readonly part: HousePart;
}

/** Value of an override. */
export type OverrideValue = PlainValue | CompositeValue | HouseValue;

/** The colours a value is made of: none for what is no colour of the palette's. */
export function plainValuesIn(value: OverrideValue): readonly PlainValue[] {
  if (value.kind === 'house') return [];
  return value.kind === 'composite' ? value.colors : [value];
}

const HOLE = /\{(\d+)\}/g;

/** A composite's text with its colours written by a function. */
export function fillComposite({ css, colors }: CompositeValue, write: (value: PlainValue) => string): string {
  return css.replace(HOLE, (hole, index: string) => (colors[Number(index)] ? write(colors[Number(index)]) : hole));
}

/** CSS of a value without custom properties. */
export function plainCssOfValue(value: OverrideValue, palette: Palette): string {
  if (value.kind === 'composite') return fillComposite(value, (plain) => plainCssOfValue(plain, palette));
  if (value.kind === 'house') return palette.shape?.[value.part] ?? 'inherit';
  const color = colorOfValue(value, palette);
  return value.kind === 'literal' ? value.css : color ? serializeColor(color) : 'inherit';
}

/** Colour a value stands for; `null` for what is no single colour, or a role nobody fills. */
export function colorOfValue(value: OverrideValue, palette: Palette): Color | null {
  if (value.kind === 'composite' || value.kind === 'house') return null;
  if (value.kind === 'literal') return colorOfCss(value.css);
  const color =
    value.kind === 'role'
      ? roleColor(palette, value.role, value.shade)
      : fillColor(palette, { swatchId: value.swatchId, shade: value.shade });
  return color && withStrength(color, value);
}

/** A value some points lighter or darker; `null` where it has no shade of its own. */
export function shadeOfValue(value: OverrideValue, steps: number, palette: Palette): PlainValue | null {
  if (value.kind === 'role' || value.kind === 'swatch')
    return { ...value, shade: Math.max(-100, Math.min(100, value.shade + steps)) };
  const color = colorOfValue(value, palette);
  return color ? { kind: 'literal', css: hexOf(shade(color, steps)) } : null;
}

/** What a value is called: `Accent, 12 darker, 60 % strong`; a literal by its CSS. */
export function valueTold(site: { readonly palette: Palette }, value: OverrideValue): Message {
  if (value.kind === 'literal') return message('plain', { text: value.css });
  if (value.kind === 'composite') return compositeTold(site, value);
  if (value.kind === 'house') {
    const css = site.palette.shape?.[value.part];
    return message('value.house', {
      part: houseTold(value.part),
      settled: css === undefined ? 'no' : 'yes',
      css: css ?? '',
    });
  }
  const swatch = value.kind === 'swatch' ? site.palette.swatches.find(({ id }) => id === value.swatchId) : undefined;
  const name =
    value.kind === 'role'
      ? roleTold(value.role)
      : swatch
        ? message('plain', { text: capital(swatch.name) })
        : message('value.lost-swatch');
  const steps = value.kind === 'role' ? stepIn(site.palette, value.role, value.shade) : value.shade;
  const percent = Math.round(strengthOf(value) * 100);
  return message('value', {
    name,
    shaded: steps === 0 ? 'no' : 'yes',
    shade: shadeTold(steps, colorOfValue({ ...value, shade: 0, alpha: 1 }, site.palette)),
    strong: strengthOf(value) < 1 ? 'part' : 'whole',
    percent,
  });
}

/** A composite with each of its colours called by its name. */
function compositeTold(site: { readonly palette: Palette }, { css, colors }: CompositeValue): Message {
  return css
    .split(HOLE)
    .map((piece, i) => (i % 2 === 0 ? message('plain', { text: piece }) : valueTold(site, colors[Number(piece)])))
    .reduce((first, second) => message('joined', { first, second }));
}

/** The swatch or role that comes to a colour, for values to be bound by, as strong as the colour is; the literal where none does. */
export function boundValue(color: Color, palette: Palette): PlainValue {
  const alpha = color.alpha ?? 1;
  const candidates: PlainValue[] = [
    ...palette.roles.map(({ role }): PlainValue => ({ kind: 'role', role, shade: 0 })),
    ...palette.swatches.map(({ id }): PlainValue => ({ kind: 'swatch', swatchId: id, shade: 0 })),
  ];
  const comesTo =
    (wanted: Color) =>
    (value: PlainValue): boolean => {
      const own = colorOfValue(value, palette);
      return own !== null && sameColor(own, wanted);
    };
  const exact = candidates.find(comesTo(color));
  if (exact) return exact;
  // What is wholly clear has no colour to be told by.
  const opaque = alpha > 0 && alpha < 1 ? candidates.find(comesTo({ ...color, alpha: 1 })) : undefined;
  return opaque && opaque.kind !== 'literal'
    ? { ...opaque, alpha: Number(alpha.toFixed(4)) }
    : { kind: 'literal', css: serializeColor(color) };
}

/** How strong a value is, 0–1. */
export function strengthOf(value: PlainValue): number {
  return value.kind === 'literal' ? 1 : (value.alpha ?? 1);
}

function withStrength(color: Color, value: PlainValue): Color {
  const strength = strengthOf(value);
  return strength === 1 ? color : { ...color, alpha: (color.alpha ?? 1) * strength };
}
