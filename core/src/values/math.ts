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
  try {
    return withoutInfinity(calc(text, { precision: 12, toCanonicalUnits: false }));
  } catch (error) {
    // The library fails on some texts that are no values at all.
    if (error instanceof TypeError || error instanceof RangeError) return text;
    throw error;
  }
}

/** What is infinite or no number at all becomes the greatest number of the engine, or 0. Source: CSS Values 4 §10.13; the number is the greatest of IEEE 754 single precision. */
function withoutInfinity(text: string): string {
  if (!/infinity|nan/i.test(text)) return text;
  return text.replace(
    /calc\((-?)(infinity|NaN)(?: \* 1([a-z]+|%))?\)/gi,
    (_, sign: string, word: string, unit = '') =>
      `${word.toLowerCase() === 'nan' ? '0' : `${sign}${GREATEST_TEXT}`}${unit as string}`,
  );
}

/** Greatest number of the engine: that of IEEE 754 single precision. */
export const GREATEST = 3.40282e38;

const GREATEST_TEXT = '3.40282e+38';
