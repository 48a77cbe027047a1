import type { ColorValue } from '../values/color.js';

/** Computed value of a longhand: a colour, which may still hang on `currentcolor`, or a text as `getComputedStyle` writes it. */
export type ComputedValue =
  { readonly kind: 'color'; readonly value: ColorValue } | { readonly kind: 'text'; readonly text: string };

export function textValue(text: string): ComputedValue {
  return { kind: 'text', text };
}
