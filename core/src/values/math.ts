import { calc } from '@csstools/css-calc';

/** Text longer than this is left as it is, in UTF-16 units. */
const MAX_LENGTH = 5_000;

/**
 * Simplifies the math functions in a text (`calc()`, `min()`, `clamp()`, `round()`…) as far as their units allow.
 * Source: CSS Values 4 §10, by the css-calc library.
 * @returns the text unchanged where it cannot be known.
 */
export function evaluateMath(text: string): string {
  if (text.length > MAX_LENGTH || !text.includes('(')) return text;
  return calc(text, { precision: 12, toCanonicalUnits: false });
}
