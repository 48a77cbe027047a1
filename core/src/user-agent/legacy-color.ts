import { parseColor } from '../values/parse-color.js';

/** Whether a word is a named colour. */
export type IsNamedColor = (word: string) => boolean;

export const NAMED_COLORS_HINT: IsNamedColor = (word) =>
  /^[a-z]+$/.test(word) && word !== 'currentcolor' && parseColor(word)?.kind === 'color';

/**
 * A colour attribute such as `bgcolor`, as a CSS value.
 * Source: HTML §2.3.6 Colors, rules for parsing a legacy color value.
 * @returns `null` when the attribute says nothing.
 */
export function parseLegacyColor(text: string, isNamed: IsNamedColor): string | null {
  let input = text.trim();
  if (input === '' || input.toLowerCase() === 'transparent') return null;
  if (isNamed(input.toLowerCase())) return input.toLowerCase();
  if (/^#[0-9a-f]{3}$/i.test(input)) return input;
  input = input.replace(/[\u{10000}-\u{10ffff}]/gu, '00').slice(0, 128);
  if (input.startsWith('#')) input = input.slice(1);
  input = input.replace(/[^0-9a-f]/gi, '0');
  while (input.length === 0 || input.length % 3 !== 0) input += '0';
  let length = input.length / 3;
  let parts = [0, 1, 2].map((i) => input.slice(i * length, (i + 1) * length));
  if (length > 8) parts = parts.map((part) => part.slice(length - 8));
  length = Math.min(length, 8);
  while (length > 2 && parts.every((part) => part.startsWith('0'))) {
    parts = parts.map((part) => part.slice(1));
    length -= 1;
  }
  return `#${parts.map((part) => part.slice(0, 2).padStart(2, '0')).join('')}`;
}
