import { T, isBlank, isDelim, skipBlank, tokenText, type TokenList } from '../syntax/tokens.js';
import { absoluteLengthInPx } from '../values/units.js';

/** Font size behind `em` and `rem` in media queries: the initial one. Source: Media Queries 4 §1.3. */
const INITIAL_FONT_SIZE = 16;

/** How a feature with a range stands to a bound. */
export type BoundSign = '<' | '<=' | '=' | '>=' | '>';

/** A bound of a feature with a range: the feature `sign` the value, lengths in CSS px, resolutions in dppx, ratios as numbers. */
export interface Bound {
  readonly sign: BoundSign;
  readonly value: number;
}

/**
 * One `(feature)` of a media query as it is written. Source: Media Queries 4 §2.4.
 * `present` stands alone, `range` is between bounds, `keyword` is one of the values of a discrete feature.
 */
export type MediaFeature =
  | { readonly kind: 'present'; readonly name: string }
  | { readonly kind: 'range'; readonly name: string; readonly bounds: readonly Bound[] }
  | { readonly kind: 'keyword'; readonly name: string; readonly value: string };

/** Features with a range. Source: Media Queries 5 §4 to §6 and its appendix of deprecated ones. */
export const RANGE_FEATURES: ReadonlySet<string> = new Set([
  'width',
  'height',
  'device-width',
  'device-height',
  'aspect-ratio',
  'device-aspect-ratio',
  'resolution',
  '-webkit-device-pixel-ratio',
  'color',
  'color-index',
  'monochrome',
]);

const MIRRORED: Readonly<Record<BoundSign, BoundSign>> = { '<': '>', '<=': '>=', '=': '=', '>=': '<=', '>': '<' };

/** Reads one parenthesised feature, the tokens `from` to `to`; `null` for what is malformed. Unknown names are read too. */
export function parseMediaFeature(tokens: TokenList, from: number, to: number): MediaFeature | null {
  if (tokens.types[from] !== T.LeftParenthesis) return null;
  const parts = splitFeature(tokens, from + 1, Math.min(tokens.closers[from], to));
  if (parts === null) return null;
  if (parts.length === 1) {
    const name = wordOf(tokens, parts[0]);
    return name === null ? null : { kind: 'present', name };
  }
  const [left, operator, right] = parts;
  if (operatorOf(tokens, operator) === ':') {
    const name = parts.length === 3 ? wordOf(tokens, left) : null;
    return name === null ? null : parsePlain(name, tokens, right);
  }
  return parseRange(tokens, parts);
}

function parsePlain(name: string, tokens: TokenList, at: Span): MediaFeature | null {
  const bound = /^(-webkit-)?(min|max)-(.+)$/.exec(name);
  const key = bound ? `${bound[1] ?? ''}${bound[3]}` : name;
  const value = valueOf(tokens, at, key);
  if (!RANGE_FEATURES.has(key)) return value === undefined ? null : { kind: 'keyword', name, value: String(value) };
  return typeof value === 'number'
    ? { kind: 'range', name: key, bounds: [{ sign: bound ? (bound[2] === 'min' ? '>=' : '<=') : '=', value }] }
    : null;
}

/** `width < 600px`, `600px >= width`, `400px <= width < 700px`; signs of a double range point one way (§2.4.3). */
function parseRange(tokens: TokenList, parts: readonly Span[]): MediaFeature | null {
  if (parts.length !== 3 && parts.length !== 5) return null;
  const first = wordOf(tokens, parts[0]);
  const nameAt = parts.length === 3 && first !== null && RANGE_FEATURES.has(first) ? 0 : 2;
  const name = wordOf(tokens, parts[nameAt]);
  if (name === null || !RANGE_FEATURES.has(name)) return null;
  const bounds: Bound[] = [];
  for (let i = 0; i < parts.length; i += 2) {
    if (i === nameAt) continue;
    const sign = signOf(operatorOf(tokens, parts[i < nameAt ? i + 1 : i - 1]));
    const value = valueOf(tokens, parts[i], name);
    if (sign === null || typeof value !== 'number') return null;
    bounds.push({ sign: i < nameAt ? MIRRORED[sign] : sign, value });
  }
  if (bounds.length === 2 && (bounds.some(({ sign }) => sign === '=') || bounds[0].sign[0] === bounds[1].sign[0]))
    return null;
  return { kind: 'range', name, bounds };
}

function signOf(text: string | null): BoundSign | null {
  return text !== null && Object.hasOwn(MIRRORED, text) ? (text as BoundSign) : null;
}

type FeatureValue = number | string;

type Span = readonly [from: number, to: number];

/** Splits at `:` and comparison signs; the signs are parts of their own. */
function splitFeature(tokens: TokenList, from: number, to: number): Span[] | null {
  const parts: Span[] = [];
  let start = from;
  for (let i = from; i < to; i += 1) {
    if (tokens.closers[i] !== 0) {
      i = Math.min(tokens.closers[i], to - 1);
      continue;
    }
    const isSign =
      tokens.types[i] === T.Colon || isDelim(tokens, i, '<') || isDelim(tokens, i, '>') || isDelim(tokens, i, '=');
    if (!isSign) continue;
    const signEnd =
      !isDelim(tokens, i, '=') && tokens.types[i] !== T.Colon && i + 1 < to && isDelim(tokens, i + 1, '=')
        ? i + 2
        : i + 1;
    parts.push([start, i], [i, signEnd]);
    start = signEnd;
    i = signEnd - 1;
  }
  parts.push([start, to]);
  return parts.every(([a, b]) => skipBlank(tokens, a, b) < b) ? parts : null;
}

function wordOf(tokens: TokenList, [from, to]: Span): string | null {
  const i = skipBlank(tokens, from, to);
  if (i >= to || tokens.types[i] !== T.Ident) return null;
  return skipBlank(tokens, i + 1, to) < to ? null : tokenText(tokens, i).toLowerCase();
}

function operatorOf(tokens: TokenList, span: Span | undefined): string | null {
  if (!span) return null;
  let text = '';
  for (let i = span[0]; i < span[1]; i += 1) if (!isBlank(tokens, i)) text += tokenText(tokens, i);
  return text;
}

/** A length in px, a resolution in dppx, a ratio, a number, or a keyword. */
function valueOf(tokens: TokenList, [from, to]: Span, feature: string): FeatureValue | undefined {
  const text = tokens.text
    .slice(tokens.starts[from], tokens.ends[to - 1])
    .trim()
    .toLowerCase();
  if (feature.endsWith('aspect-ratio')) {
    const ratio = /^([\d.]+)(?:\s*\/\s*([\d.]+))?$/.exec(text);
    return ratio ? Number(ratio[1]) / Number(ratio[2] ?? 1) : undefined;
  }
  const number = /^([+-]?(?:\d+(?:\.\d*)?|\.\d+)(?:e[+-]?\d+)?)([a-z]*)$/.exec(text);
  if (!number) return /^[a-z-]+$/.test(text) ? text : lengthOfCalc(text);
  const value = Number(number[1]);
  const unit = number[2];
  if (feature === 'resolution')
    return unit === 'dppx' || unit === 'x'
      ? value
      : unit === 'dpi'
        ? value / 96
        : unit === 'dpcm'
          ? (value * 2.54) / 96
          : undefined;
  if (unit === '')
    return feature.includes('width') || feature.includes('height')
      ? value === 0
        ? 0
        : undefined
      : RANGE_FEATURES.has(feature)
        ? value
        : text;
  if (unit === 'em' || unit === 'rem') return value * INITIAL_FONT_SIZE;
  return absoluteLengthInPx(value, unit) ?? undefined;
}

/** A sum of lengths in `calc()`, as media queries use it. */
function lengthOfCalc(text: string): number | undefined {
  const inner = /^calc\(([^()]+)\)$/.exec(text)?.[1];
  if (!inner) return undefined;
  let sum = 0;
  for (const term of inner
    .replace(/\s([+-])\s/g, ' $1')
    .split(/\s/)
    .filter(Boolean)) {
    const number = /^([+-]?[\d.]+)([a-z]+)$/.exec(term.trim());
    if (!number) return undefined;
    const px =
      number[2] === 'em' || number[2] === 'rem'
        ? Number(number[1]) * INITIAL_FONT_SIZE
        : absoluteLengthInPx(Number(number[1]), number[2]);
    if (px === null) return undefined;
    sum += px;
  }
  return sum;
}
