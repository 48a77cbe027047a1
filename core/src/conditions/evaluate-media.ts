import { T, skipBlank, splitAtCommas, tokenText, tokenizeCss, type TokenList } from '../syntax/tokens.js';
import { evaluateCondition, isWord, type ReadOperand } from './parse-condition.js';
import { DESKTOP, not, or, type MediaEnvironment, type Ternary } from './environment.js';
import { parseMediaFeature, type Bound, type MediaFeature } from './media-feature.js';

/**
 * Evaluates a media query list.
 * Source: Media Queries 5, https://drafts.csswg.org/mediaqueries-5/
 * @returns `false` for what is malformed or unknown, as the standard has it.
 */
export function evaluateMedia(text: string, environment: MediaEnvironment): boolean {
  const tokens = tokenizeCss(text);
  if (skipBlank(tokens, 0, tokens.count) >= tokens.count) return true;
  const read: ReadOperand = (list, start, end) => readFeature(list, start, end, environment);
  return (
    or(
      splitAtCommas(tokens, 0, tokens.count).map(([from, to]) => evaluateQuery(tokens, from, to, environment, read)),
    ) === true
  );
}

function evaluateQuery(
  tokens: TokenList,
  from: number,
  to: number,
  environment: MediaEnvironment,
  read: ReadOperand,
): boolean {
  let i = skipBlank(tokens, from, to);
  if (i >= to) return false;
  if (
    tokens.types[i] !== T.Ident ||
    (isWord(tokens, i, 'not') && tokens.types[skipBlank(tokens, i + 1, to)] !== T.Ident)
  ) {
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
const DISCRETE: ReadonlyMap<
  string,
  (environment: MediaEnvironment) => { readonly is: readonly string[]; readonly known: readonly string[] }
> = new Map([
  [
    'orientation',
    (e: MediaEnvironment) => ({
      is: [e.height >= e.width ? 'portrait' : 'landscape'],
      known: ['portrait', 'landscape'],
    }),
  ],
  ['prefers-color-scheme', (e: MediaEnvironment) => ({ is: [e.colorScheme], known: ['light', 'dark'] })],
  [
    'prefers-reduced-motion',
    (e: MediaEnvironment) => ({
      is: [e.reducedMotion ? 'reduce' : 'no-preference'],
      known: ['reduce', 'no-preference'],
    }),
  ],
  ['prefers-reduced-transparency', () => ({ is: ['no-preference'], known: ['reduce', 'no-preference'] })],
  ['prefers-reduced-data', () => ({ is: ['no-preference'], known: ['reduce', 'no-preference'] })],
  [
    'prefers-contrast',
    (e: MediaEnvironment) => ({ is: [e.contrast], known: ['no-preference', 'more', 'less', 'custom'] }),
  ],
  ['forced-colors', (e: MediaEnvironment) => ({ is: [e.forcedColors ? 'active' : 'none'], known: ['active', 'none'] })],
  ['inverted-colors', () => ({ is: ['none'], known: ['none', 'inverted'] })],
  ['hover', (e: MediaEnvironment) => ({ is: [e.hover ? 'hover' : 'none'], known: ['hover', 'none'] })],
  ['any-hover', (e: MediaEnvironment) => ({ is: [e.hover ? 'hover' : 'none'], known: ['hover', 'none'] })],
  ['pointer', (e: MediaEnvironment) => ({ is: [e.pointer], known: ['none', 'coarse', 'fine'] })],
  ['any-pointer', (e: MediaEnvironment) => ({ is: [e.pointer], known: ['none', 'coarse', 'fine'] })],
  ['update', () => ({ is: ['fast'], known: ['none', 'slow', 'fast'] })],
  ['overflow-block', () => ({ is: ['scroll'], known: ['none', 'scroll', 'paged'] })],
  ['overflow-inline', () => ({ is: ['scroll'], known: ['none', 'scroll'] })],
  [
    'display-mode',
    () => ({
      is: ['browser'],
      known: ['fullscreen', 'standalone', 'minimal-ui', 'browser', 'window-controls-overlay', 'picture-in-picture'],
    }),
  ],
  ['scripting', () => ({ is: ['enabled'], known: ['none', 'initial-only', 'enabled'] })],
  ['color-gamut', () => ({ is: ['srgb'], known: ['srgb', 'p3', 'rec2020'] })],
  ['dynamic-range', () => ({ is: ['standard'], known: ['standard', 'high'] })],
  ['video-dynamic-range', () => ({ is: ['standard'], known: ['standard', 'high'] })],
  ['scan', () => ({ is: [], known: ['interlace', 'progressive'] })],
  ['grid', () => ({ is: ['0'], known: ['0', '1'] })],
]);

/** One `(feature)`, `(feature: value)` or range; undecided when unknown, which makes neither it nor its negation hold (§3.1). */
function readFeature(tokens: TokenList, from: number, to: number, environment: MediaEnvironment): Ternary {
  const feature = parseMediaFeature(tokens, from, to);
  if (feature === null) return 'undecided';
  const range = RANGES.get(feature.name)?.(environment);
  if (feature.kind === 'range')
    return range === undefined ? 'undecided' : feature.bounds.every((bound) => isWithin(range, bound));
  const discrete = DISCRETE.get(feature.name)?.(environment);
  if (feature.kind === 'keyword')
    return discrete?.known.includes(feature.value) ? discrete.is.includes(feature.value) : 'undecided';
  if (range !== undefined) return range !== 0;
  return discrete
    ? discrete.is.some((value) => value !== 'none' && value !== 'no-preference' && value !== '0')
    : 'undecided';
}

/** Features a media query list asks about, in the order they stand, those of media other than screens left out. */
export function mediaFeaturesIn(text: string): MediaFeature[] {
  const features: MediaFeature[] = [];
  const tokens = tokenizeCss(text);
  for (const [from, to] of splitAtCommas(tokens, 0, tokens.count)) {
    const own: MediaFeature[] = [];
    const isOfScreens = typeOfQuery(tokens, from, to, (list, start, end) => {
      const feature = parseMediaFeature(list, start, end);
      if (feature) own.push(feature);
      return 'undecided';
    });
    if (isOfScreens) features.push(...own);
  }
  return features;
}

/** Reads a query for its features; whether it is for screens at all. */
function typeOfQuery(tokens: TokenList, from: number, to: number, read: ReadOperand): boolean {
  evaluateQuery(tokens, from, to, DESKTOP, read);
  const first = skipBlank(tokens, from, to);
  const isModified = isWord(tokens, first, 'only');
  const at = isModified ? skipBlank(tokens, first + 1, to) : first;
  return (
    at >= to || tokens.types[at] !== T.Ident || ['all', 'screen', 'not'].includes(tokenText(tokens, at).toLowerCase())
  );
}

function isWithin(actual: number, { sign, value }: Bound): boolean {
  switch (sign) {
    case '<':
      return actual < value;
    case '<=':
      return actual <= value;
    case '=':
      return Math.abs(actual - value) < 1e-6;
    case '>=':
      return actual >= value;
    case '>':
      return actual > value;
  }
}
