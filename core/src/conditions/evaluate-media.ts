import {
  isMediaCondition,
  isMediaConditionListWithAnd,
  isMediaFeature,
  isMediaInParens,
  isMediaNot,
  isMediaQueryInvalid,
  isMediaQueryWithType,
  isMediaQueryWithoutType,
  type MediaCondition,
  type MediaFeature as FeatureNode,
  type MediaInParens,
  type MediaQuery,
  type MediaQueryWithType,
} from '@csstools/media-query-list-parser';
import { and, not, or, type MediaEnvironment, type Ternary } from './environment.js';
import { readMediaFeature, type Bound, type MediaFeature } from './media-feature.js';
import { parseMediaQueries } from './parse-media.js';

/**
 * Evaluates a media query list.
 * Source: Media Queries 5, https://drafts.csswg.org/mediaqueries-5/
 * @returns `false` for what is malformed or unknown, as the standard has it.
 */
export function evaluateMedia(text: string, environment: MediaEnvironment): boolean {
  const queries = parseMediaQueries(text);
  return queries.length === 0 || queries.some((query) => evaluateQuery(query, environment) === true);
}

/** Words that are no media types. Source: Media Queries 5 §3, `<media-type>`. */
const RESERVED: ReadonlySet<string> = new Set(['not', 'only', 'and', 'or', 'layer']);

function evaluateQuery(query: MediaQuery, environment: MediaEnvironment): Ternary {
  if (isMediaQueryInvalid(query)) return 'undecided';
  if (isMediaQueryWithoutType(query)) return evaluateCondition(query.media, environment);
  const type = query.getMediaType().toLowerCase();
  if (RESERVED.has(type)) return 'undecided';
  const ofType: Ternary = type === 'all' || type === environment.type;
  const matches = query.media ? and([ofType, evaluateCondition(query.media, environment)]) : ofType;
  return query.getModifier().toLowerCase() === 'not' ? not(matches) : matches;
}

function evaluateCondition({ media }: MediaCondition, environment: MediaEnvironment): Ternary {
  const evaluate = (operand: MediaInParens): Ternary => evaluateOperand(operand, environment);
  if (isMediaInParens(media)) return evaluate(media);
  if (isMediaNot(media)) return not(evaluate(media.media));
  const operands = [media.leading, ...media.list.map((next) => next.media)].map(evaluate);
  return isMediaConditionListWithAnd(media) ? and(operands) : or(operands);
}

function evaluateOperand({ media }: MediaInParens, environment: MediaEnvironment): Ternary {
  if (isMediaCondition(media)) return evaluateCondition(media, environment);
  return isMediaFeature(media) ? evaluateFeature(media, environment) : 'undecided';
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
function evaluateFeature(node: FeatureNode, environment: MediaEnvironment): Ternary {
  const feature = readMediaFeature(node);
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
  return parseMediaQueries(text).flatMap((query) => {
    if (isMediaQueryInvalid(query)) return [];
    if (isMediaQueryWithType(query) && !isOfScreens(query)) return [];
    const features: MediaFeature[] = [];
    query.walk(({ node }) => {
      const feature = isMediaFeature(node) ? readMediaFeature(node) : null;
      if (feature) features.push(feature);
    });
    return features;
  });
}

/** Whether a query asks something of screens: `not print` does too. */
function isOfScreens(query: MediaQueryWithType): boolean {
  const isNegated = query.getModifier().toLowerCase() === 'not';
  return isNegated || ['all', 'screen'].includes(query.getMediaType().toLowerCase());
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
