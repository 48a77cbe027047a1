import { T, tokenText, tokenizeCss } from '../syntax/tokens.js';
import { evaluateMath } from './math.js';
import { absoluteLengthInPx } from './units.js';

/** What relative lengths refer to; sizes in CSS px. */
export interface LengthContext {
  readonly em: () => number;
  readonly rem: () => number;
  readonly viewport: { readonly width: number; readonly height: number };
}

/**
 * A value with its lengths in px, as far as they are known without layout and font metrics; percentages stay.
 * Source: CSS Values 4 §6.
 */
export function computeLengths(text: string, context: LengthContext): string {
  if (!/[\d(]/.test(text)) return text;
  const single = SINGLE.test(text) ? lengthInPx(text, context) : null;
  if (single !== null) return `${formatNumber(single)}px`;
  const tokens = tokenizeCss(text);
  let result = '';
  for (let i = 0; i < tokens.count; i += 1) {
    const written = tokenText(tokens, i);
    if (tokens.types[i] === T.Dimension) {
      const px = lengthInPx(written, context);
      result += px === null ? written : `${formatExact(px)}px`;
    } else if (tokens.types[i] === T.Number && text.trim() === written && Number(written) === 0) {
      result += '0px';
    } else {
      result += tokens.types[i] === T.Comment ? '' : written;
    }
  }
  const simple = evaluateMath(result);
  return simple.replace(
    /(^|[\s(,])([+-]?(?:\d+(?:\.\d*)?|\.\d+)(?:e[+-]?\d+)?)px/gi,
    (_, before: string, number: string) => `${before}${formatNumber(Number(number))}px`,
  );
}

/** One length, which is what most texts are: it needs no tokens. */
const SINGLE = /^[+-]?(?:\d+(?:\.\d+)?|\.\d+)[a-z]+$/i;

function lengthInPx(dimension: string, context: LengthContext): number | null {
  const parsed = /^([+-]?(?:\d+(?:\.\d*)?|\.\d+)(?:e[+-]?\d+)?)([a-z]+)$/i.exec(dimension);
  if (!parsed) return null;
  const value = Number(parsed[1]);
  const unit = parsed[2].toLowerCase();
  switch (unit) {
    case 'em':
      return value * context.em();
    case 'rem':
      return value * context.rem();
    case 'vw':
    case 'svw':
    case 'lvw':
    case 'dvw':
    case 'vi':
      return (value / 100) * context.viewport.width;
    case 'vh':
    case 'svh':
    case 'lvh':
    case 'dvh':
    case 'vb':
      return (value / 100) * context.viewport.height;
    case 'vmin':
      return (value / 100) * Math.min(context.viewport.width, context.viewport.height);
    case 'vmax':
      return (value / 100) * Math.max(context.viewport.width, context.viewport.height);
    default:
      return absoluteLengthInPx(value, unit);
  }
}

function formatExact(value: number): string {
  return String(Number(value.toPrecision(12)));
}

/** Longest length that Chromium's layout holds, CSS px: 2^25. */
const LONGEST = 33_554_432;

/** A length in px within the bounds that Chromium keeps lengths of boxes to; other texts as they are. @param least 0 for properties that take no negative length. */
export function clampLength(text: string, least = -LONGEST): string {
  const px = /^([+-]?(?:\d+(?:\.\d*)?|\.\d+)(?:e[+-]?\d+)?)px$/i.exec(text);
  if (!px) return text;
  const value = Number(px[1]);
  const kept = Math.min(LONGEST, Math.max(least, value));
  return kept === value ? text : `${formatNumber(kept)}px`;
}

/** A number as CSSOM writes it: six significant digits, no trailing zeros, an exponent from a million on and below a ten-thousandth. */
export function formatNumber(value: number): string {
  const rounded = Number(value.toPrecision(6));
  if (rounded === 0) return '0';
  const size = Math.abs(rounded);
  if (size < 1e6 && size >= 1e-4) return String(rounded);
  const [digits, exponent] = rounded.toExponential().split('e');
  return `${digits}e${exponent[0]}${exponent.slice(1).padStart(2, '0')}`;
}
