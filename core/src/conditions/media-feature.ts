import {
  MediaFeatureEQ,
  invertComparison,
  isMediaFeatureBoolean,
  isMediaFeaturePlain,
  isMediaFeatureRangeNameValue,
  isMediaFeatureRangeValueName,
  type MediaFeature as FeatureNode,
  type MediaFeatureComparison,
  type MediaFeatureValue,
} from '@csstools/media-query-list-parser';
import { computeLengths } from '../values/compute-length.js';
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

/** Reads one parenthesised feature; `null` for what is malformed. Unknown names are read too. */
export function readMediaFeature({ feature }: FeatureNode): MediaFeature | null {
  const name = feature.getName().toLowerCase();
  if (isMediaFeatureBoolean(feature)) return { kind: 'present', name };
  if (isMediaFeaturePlain(feature)) return readPlain(name, feature.value);
  if (!RANGE_FEATURES.has(name)) return null;
  const isDouble = !isMediaFeatureRangeNameValue(feature) && !isMediaFeatureRangeValueName(feature);
  const bounds = isDouble
    ? [
        boundOf(name, mirrored(feature.valueOneOperatorKind()), feature.valueOne),
        boundOf(name, feature.valueTwoOperatorKind(), feature.valueTwo),
      ]
    : [
        boundOf(
          name,
          isMediaFeatureRangeValueName(feature) ? mirrored(feature.operatorKind()) : feature.operatorKind(),
          feature.value,
        ),
      ];
  // Signs of a double range point one way (§2.4.3).
  if (isDouble && (bounds.some((bound) => bound?.sign === '=') || bounds[0]?.sign[0] === bounds[1]?.sign[0]))
    return null;
  return bounds.every((bound) => bound !== null) ? { kind: 'range', name, bounds } : null;
}

function readPlain(name: string, written: MediaFeatureValue): MediaFeature | null {
  const bound = /^(-webkit-)?(min|max)-(.+)$/.exec(name);
  const key = bound ? `${bound[1] ?? ''}${bound[3]}` : name;
  const value = valueOf(written, key);
  if (!RANGE_FEATURES.has(key)) return value === undefined ? null : { kind: 'keyword', name, value: String(value) };
  return typeof value === 'number'
    ? { kind: 'range', name: key, bounds: [{ sign: bound ? (bound[2] === 'min' ? '>=' : '<=') : '=', value }] }
    : null;
}

/** `600px >= width` as `width <= 600px`. */
function mirrored(sign: MediaFeatureComparison | false): MediaFeatureComparison | false {
  return sign === false || sign === MediaFeatureEQ.EQ ? sign : invertComparison(sign);
}

function boundOf(name: string, sign: MediaFeatureComparison | false, written: MediaFeatureValue): Bound | null {
  const value = valueOf(written, name);
  return sign === false || typeof value !== 'number' ? null : { sign, value };
}

/** A length in px, a resolution in dppx, a ratio, a number, or a keyword. */
function valueOf(written: MediaFeatureValue, feature: string): number | string | undefined {
  const text = written.toString().trim().toLowerCase();
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

/** A length that a math function comes to; parts of the viewport, which it is to decide, are none. */
function lengthOfCalc(text: string): number | undefined {
  const px = /^([+-]?[\d.]+)px$/.exec(
    computeLengths(text, {
      em: () => INITIAL_FONT_SIZE,
      rem: () => INITIAL_FONT_SIZE,
      viewport: { width: NaN, height: NaN },
    }),
  );
  return px ? Number(px[1]) : undefined;
}
