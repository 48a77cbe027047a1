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
  return simple.replace(/(^|[\s(,])([+-]?(?:\d+\.?\d*|\.\d+)(?:e[+-]?\d+)?)px/gi, (_, before: string, number: string) => `${before}${formatNumber(Number(number))}px`);
}

function lengthInPx(dimension: string, context: LengthContext): number | null {
  const parsed = /^([+-]?(?:\d+\.?\d*|\.\d+)(?:e[+-]?\d+)?)([a-z]+)$/i.exec(dimension);
  if (!parsed) return null;
  const value = Number(parsed[1]);
  const unit = parsed[2].toLowerCase();
  switch (unit) {
    case 'em': return value * context.em();
    case 'rem': return value * context.rem();
    case 'vw': case 'svw': case 'lvw': case 'dvw': case 'vi': return (value / 100) * context.viewport.width;
    case 'vh': case 'svh': case 'lvh': case 'dvh': case 'vb': return (value / 100) * context.viewport.height;
    case 'vmin': return (value / 100) * Math.min(context.viewport.width, context.viewport.height);
    case 'vmax': return (value / 100) * Math.max(context.viewport.width, context.viewport.height);
    default: return absoluteLengthInPx(value, unit);
  }
}

function formatExact(value: number): string {
  return String(Number(value.toPrecision(12)));
}

/** A number as CSSOM writes it: six significant digits, no trailing zeros. */
export function formatNumber(value: number): string {
  const rounded = Number(value.toPrecision(6));
  return String(Object.is(rounded, -0) ? 0 : rounded);
}
