import { hexOf } from '../color/read-notation.js';
import {
  colorOfValue,
  fillComposite,
  plainCssOfValue,
  strengthOf,
  type OverrideValue,
  type PlainValue,
} from './override-value.js';
import type { Naming } from './naming.js';
import type { Palette } from './palette.js';
import { namesOf } from './palette-names.js';

/** Name of the custom property that carries a value, and what it holds; `null` for a literal. */
export function customPropertyOf(
  value: PlainValue,
  palette: Palette,
  { prefix, names, flatFor }: Pick<Naming, 'prefix' | 'names' | 'flatFor'>,
): { readonly name: string; readonly css: string } | null {
  if (value.kind === 'literal') return null;
  const named = namesOf(palette, names);
  const base =
    value.kind === 'role'
      ? named.roles.get(value.role)
      : named.swatches[palette.swatches.findIndex(({ id }) => id === value.swatchId)];
  // A sheer colour is mixed from the whole one where it is used, but for engines that cannot mix.
  const strength = flatFor ? strengthOf(value) : 1;
  const color = colorOfValue({ ...value, alpha: strength }, palette);
  if (base === undefined || !color) return null;
  const step = value.shade === 0 ? '' : `-${value.shade < 0 ? 'd' : 'l'}${Math.abs(value.shade)}`;
  const sheer = strength === 1 ? '' : `-a${String(percentOf(strength)).replace('.', '_')}`;
  return { name: `--${prefix}-${base}${step}${sheer}`, css: hexOf(color) };
}

/** The value of the palette that a custom property carries; `null` for a name that is none of the palette's. Undoes `customPropertyOf`. */
export function valueOfCustomProperty(
  name: string,
  palette: Palette,
  { prefix, names, flatFor }: Pick<Naming, 'prefix' | 'names' | 'flatFor'>,
): PlainValue | null {
  const start = `--${prefix}-`;
  if (!name.startsWith(start)) return null;
  const named = namesOf(palette, names);
  const find = (base: string, shade: number): PlainValue | null => {
    for (const [role, own] of named.roles) if (own === base) return { kind: 'role', role, shade };
    const swatch = palette.swatches.find((_, i) => named.swatches[i] === base);
    return swatch ? { kind: 'swatch', swatchId: swatch.id, shade } : null;
  };
  const whole = name.slice(start.length);
  const sheer = flatFor ? /-a(\d{1,3}(?:_\d{1,2})?)$/.exec(whole) : null;
  const base = sheer ? whole.slice(0, sheer.index) : whole;
  const step = /-([dl])(\d{1,3})$/.exec(base);
  const found = step ? find(base.slice(0, step.index), Number(step[2]) * (step[1] === 'd' ? -1 : 1)) : find(base, 0);
  const value: PlainValue | null =
    found && sheer && found.kind !== 'literal' ? { ...found, alpha: Number(sheer[1].replace('_', '.')) / 100 } : found;
  return value && customPropertyOf(value, palette, { prefix, names, flatFor })?.name === name ? value : null;
}

/** CSS of a value as it is published: roles and swatches by their custom property. */
export function cssOfValue(
  value: OverrideValue,
  palette: Palette,
  naming: Naming,
  declare: (name: string, css: string) => void = () => undefined,
): string {
  if (value.kind === 'composite') return fillComposite(value, (plain) => cssOfValue(plain, palette, naming, declare));
  if (value.kind === 'literal' || value.kind === 'house') return plainCssOfValue(value, palette);
  const custom = customPropertyOf(value, palette, naming);
  if (!custom) return 'inherit';
  const strength = strengthOf(value);
  if (naming.asValues) return strength === 1 ? custom.css : plainCssOfValue(value, palette);
  declare(custom.name, custom.css);
  return strength === 1 || naming.flatFor
    ? `var(${custom.name})`
    : `color-mix(in srgb, var(${custom.name}) ${percentOf(strength)}%, transparent)`;
}

/** A strength in percent, to the hundredth. */
function percentOf(strength: number): number {
  return Number((strength * 100).toFixed(2));
}
