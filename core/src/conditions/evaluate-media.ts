import { T, isBlank, isDelim, skipBlank, splitAtCommas, tokenText, tokenizeCss, type TokenList } from '../syntax/tokens.js';
import { absoluteLengthInPx } from '../values/units.js';
import { evaluateCondition, isWord } from './parse-condition.js';
import { not, or, type MediaEnvironment, type Ternary } from './environment.js';

/** Font size behind `em` and `rem` in media queries: the initial one. Source: Media Queries 4 §1.3. */
const INITIAL_FONT_SIZE = 16;

/**
 * Evaluates a media query list.
 * Source: Media Queries 5, https://drafts.csswg.org/mediaqueries-5/
 * @returns `false` for what is malformed or unknown, as the standard has it.
 */
export function evaluateMedia(text: string, environment: MediaEnvironment): boolean {
  const tokens = tokenizeCss(text);
  if (skipBlank(tokens, 0, tokens.count) >= tokens.count) return true;
  return or(splitAtCommas(tokens, 0, tokens.count).map(([from, to]) => evaluateQuery(tokens, from, to, environment))) === true;
}

function evaluateQuery(tokens: TokenList, from: number, to: number, environment: MediaEnvironment): boolean {
  const read = (list: TokenList, start: number, end: number): Ternary | null => readFeature(list, start, end, environment);
  let i = skipBlank(tokens, from, to);
  if (i >= to) return false;
  if (tokens.types[i] !== T.Ident || (isWord(tokens, i, 'not') && tokens.types[skipBlank(tokens, i + 1, to)] !== T.Ident)) {
    return evaluateCondition(tokens, i, to, read) === true;
  }
  let negated = false;
  if (isWord(tokens, i, 'not') || isWord(tokens, i, 'only')) {
    negated = isWord(tokens, i, 'not');
    i = skipBlank(tokens, i + 1, to);
  }
  if (i >= to || tokens.types[i] !== T.Ident) return false;
  const type = tokenText(tokens, i).toLowerCase();
  if (['and', 'or', 'not', 'only', 'layer'].includes(type)) return false;
  let matches: Ternary = type === 'all' || type === environment.type;
  i = skipBlank(tokens, i + 1, to);
  if (i < to) {
    if (!isWord(tokens, i, 'and')) return false;
    const rest = evaluateCondition(tokens, i + 1, to, read);
    if (rest === null || hasTopLevelOr(tokens, i + 1, to)) return false;
    matches = matches && rest;
  }
  return (negated ? not(matches) : matches) === true;
}

function hasTopLevelOr(tokens: TokenList, from: number, to: number): boolean {
  for (let i = from; i < to; i += 1) {
    if (tokens.closers[i] !== 0) i = tokens.closers[i];
    else if (isWord(tokens, i, 'or')) return true;
  }
  return false;
}

type FeatureValue = number | string;

/** Features with a range; lengths in CSS px, resolution in dppx. */
const RANGES: ReadonlyMap<string, (environment: MediaEnvironment) => number> = new Map([
  ['width', (e: MediaEnvironment) => e.width],
  ['height', (e: MediaEnvironment) => e.height],
  ['device-width', (e: MediaEnvironment) => e.width],
  ['device-height', (e: MediaEnvironment) => e.height],
  ['aspect-ratio', (e: MediaEnvironment) => e.width / e.height],
  ['device-aspect-ratio', (e: MediaEnvironment) => e.width / e.height],
  ['resolution', (e: MediaEnvironment) => e.resolution],
  ['-webkit-device-pixel-ratio', (e: MediaEnvironment) => e.resolution],
  ['color', () => 8],
  ['color-index', () => 0],
  ['monochrome', () => 0],
]);

/** Features with keywords, the current one and those that count as none. */
const DISCRETE: ReadonlyMap<string, (environment: MediaEnvironment) => { readonly is: readonly string[]; readonly known: readonly string[] }> = new Map([
  ['orientation', (e: MediaEnvironment) => ({ is: [e.height >= e.width ? 'portrait' : 'landscape'], known: ['portrait', 'landscape'] })],
  ['prefers-color-scheme', (e: MediaEnvironment) => ({ is: [e.colorScheme], known: ['light', 'dark'] })],
  ['prefers-reduced-motion', (e: MediaEnvironment) => ({ is: [e.reducedMotion ? 'reduce' : 'no-preference'], known: ['reduce', 'no-preference'] })],
  ['prefers-reduced-transparency', () => ({ is: ['no-preference'], known: ['reduce', 'no-preference'] })],
  ['prefers-reduced-data', () => ({ is: ['no-preference'], known: ['reduce', 'no-preference'] })],
  ['prefers-contrast', (e: MediaEnvironment) => ({ is: [e.contrast], known: ['no-preference', 'more', 'less', 'custom'] })],
  ['forced-colors', (e: MediaEnvironment) => ({ is: [e.forcedColors ? 'active' : 'none'], known: ['active', 'none'] })],
  ['inverted-colors', () => ({ is: ['none'], known: ['none', 'inverted'] })],
  ['hover', (e: MediaEnvironment) => ({ is: [e.hover ? 'hover' : 'none'], known: ['hover', 'none'] })],
  ['any-hover', (e: MediaEnvironment) => ({ is: [e.hover ? 'hover' : 'none'], known: ['hover', 'none'] })],
  ['pointer', (e: MediaEnvironment) => ({ is: [e.pointer], known: ['none', 'coarse', 'fine'] })],
  ['any-pointer', (e: MediaEnvironment) => ({ is: [e.pointer], known: ['none', 'coarse', 'fine'] })],
  ['update', () => ({ is: ['fast'], known: ['none', 'slow', 'fast'] })],
  ['overflow-block', () => ({ is: ['scroll'], known: ['none', 'scroll', 'paged'] })],
  ['overflow-inline', () => ({ is: ['scroll'], known: ['none', 'scroll'] })],
  ['display-mode', () => ({ is: ['browser'], known: ['fullscreen', 'standalone', 'minimal-ui', 'browser', 'window-controls-overlay', 'picture-in-picture'] })],
  ['scripting', () => ({ is: ['enabled'], known: ['none', 'initial-only', 'enabled'] })],
  ['color-gamut', () => ({ is: ['srgb'], known: ['srgb', 'p3', 'rec2020'] })],
  ['dynamic-range', () => ({ is: ['standard'], known: ['standard', 'high'] })],
  ['video-dynamic-range', () => ({ is: ['standard'], known: ['standard', 'high'] })],
  ['scan', () => ({ is: [], known: ['interlace', 'progressive'] })],
  ['grid', () => ({ is: ['0'], known: ['0', '1'] })],
]);

/** One `(feature)`, `(feature: value)` or range; undecided when unknown, which makes neither it nor its negation hold (§3.1). */
function readFeature(tokens: TokenList, from: number, to: number, environment: MediaEnvironment): Ternary | null {
  if (tokens.types[from] !== T.LeftParenthesis) return 'undecided';
  const end = Math.min(tokens.closers[from], to);
  const parts = splitFeature(tokens, from + 1, end);
  if (parts === null) return 'undecided';
  if (parts.length === 1) {
    const name = wordOf(tokens, parts[0]);
    if (name === null) return 'undecided';
    const range = RANGES.get(name);
    if (range) return range(environment) !== 0;
    const discrete = DISCRETE.get(name)?.(environment);
    return discrete ? discrete.is.some((value) => value !== 'none' && value !== 'no-preference' && value !== '0') : 'undecided';
  }
  const [left, operator, right] = parts;
  if (parts.length === 3 && operatorOf(tokens, operator) === ':') {
    const name = wordOf(tokens, left);
    if (name === null) return 'undecided';
    const bound = /^(-webkit-)?(min|max)-(.+)$/.exec(name);
    const key = bound ? `${bound[1] ?? ''}${bound[3]}` : name;
    const range = RANGES.get(key);
    const value = valueOf(tokens, right, key);
    if (range) {
      if (typeof value !== 'number') return 'undecided';
      const actual = range(environment);
      return bound ? (bound[2] === 'min' ? actual >= value : actual <= value) : Math.abs(actual - value) < 1e-6;
    }
    const discrete = DISCRETE.get(name)?.(environment);
    return discrete && discrete.known.includes(String(value)) ? discrete.is.includes(String(value)) : 'undecided';
  }
  const nameAt = parts.length === 5 ? 2 : wordOf(tokens, left) !== null && RANGES.has(wordOf(tokens, left) as string) ? 0 : 2;
  const name = wordOf(tokens, parts[nameAt]);
  const range = name === null ? undefined : RANGES.get(name);
  if (!range || name === null || (parts.length !== 3 && parts.length !== 5)) return 'undecided';
  const actual = range(environment);
  const compare = (a: FeatureValue | undefined, sign: string | null, b: FeatureValue | undefined): boolean => {
    if (typeof a !== 'number' || typeof b !== 'number') return false;
    return sign === '<' ? a < b : sign === '<=' ? a <= b : sign === '>' ? a > b : sign === '>=' ? a >= b : sign === '=' ? Math.abs(a - b) < 1e-6 : false;
  };
  const at = (index: number): FeatureValue | undefined => (index === nameAt ? actual : valueOf(tokens, parts[index], name));
  return compare(at(0), operatorOf(tokens, parts[1]), at(2)) && (parts.length === 3 || compare(at(2), operatorOf(tokens, parts[3]), at(4)));
}

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
    const isSign = tokens.types[i] === T.Colon || isDelim(tokens, i, '<') || isDelim(tokens, i, '>') || isDelim(tokens, i, '=');
    if (!isSign) continue;
    const signEnd = !isDelim(tokens, i, '=') && tokens.types[i] !== T.Colon && i + 1 < to && isDelim(tokens, i + 1, '=') ? i + 2 : i + 1;
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
  const text = tokens.text.slice(tokens.starts[from], tokens.ends[to - 1]).trim().toLowerCase();
  if (feature.endsWith('aspect-ratio')) {
    const ratio = /^([\d.]+)(?:\s*\/\s*([\d.]+))?$/.exec(text);
    return ratio ? Number(ratio[1]) / Number(ratio[2] ?? 1) : undefined;
  }
  const number = /^([+-]?(?:\d+\.?\d*|\.\d+)(?:e[+-]?\d+)?)([a-z]*)$/.exec(text);
  if (!number) return /^[a-z-]+$/.test(text) ? text : lengthOfCalc(text);
  const value = Number(number[1]);
  const unit = number[2];
  if (feature === 'resolution') return unit === 'dppx' || unit === 'x' ? value : unit === 'dpi' ? value / 96 : unit === 'dpcm' ? (value * 2.54) / 96 : undefined;
  if (unit === '') return feature.includes('width') || feature.includes('height') ? (value === 0 ? 0 : undefined) : DISCRETE.has(feature) ? text : value;
  if (unit === 'em' || unit === 'rem') return value * INITIAL_FONT_SIZE;
  return absoluteLengthInPx(value, unit) ?? undefined;
}

/** A sum of lengths in `calc()`, as media queries use it. */
function lengthOfCalc(text: string): number | undefined {
  const inner = /^calc\(([^()]+)\)$/.exec(text)?.[1];
  if (!inner) return undefined;
  let sum = 0;
  for (const term of inner.replace(/\s([+-])\s/g, ' $1').split(/\s+(?=[+-]?[\d.])/)) {
    const number = /^([+-]?[\d.]+)([a-z]+)$/.exec(term.trim());
    if (!number) return undefined;
    const px = number[2] === 'em' || number[2] === 'rem' ? Number(number[1]) * INITIAL_FONT_SIZE : absoluteLengthInPx(Number(number[1]), number[2]);
    if (px === null) return undefined;
    sum += px;
  }
  return sum;
}
