import {
  convertA98ToXyz65,
  convertHslToRgb,
  convertHwbToRgb,
  convertLabToLch,
  convertLabToXyz50,
  convertLchToLab,
  convertLrgbToRgb,
  convertLrgbToOklab,
  convertOklabToLrgb,
  convertP3ToXyz65,
  convertProphotoToXyz50,
  convertRec2020ToXyz65,
  convertRgbToHsl,
  convertRgbToHwb,
  convertRgbToLrgb,
  convertRgbToXyz65,
  convertXyz50ToLab,
  convertXyz50ToProphoto,
  convertXyz50ToXyz65,
  convertXyz65ToA98,
  convertXyz65ToP3,
  convertXyz65ToRec2020,
  convertXyz65ToRgb,
  convertXyz65ToXyz50,
} from 'culori/fn';
import type { Color, MixSpace } from './color.js';

/** Three channels of one colour space, none of them missing. */
export type Triple = readonly [number, number, number];

interface Conversion {
  /** To and from XYZ relative to D65. */
  readonly toXyz: (channels: Triple) => Triple;
  readonly fromXyz: (xyz: Triple) => Triple;
}

type Xyz = { x: number; y: number; z: number };
type Rgb = { r: number; g: number; b: number };
type Lab = { l: number; a: number; b: number };
/* eslint-disable @typescript-eslint/no-explicit-any -- culori's types ask for modes that its plain functions do not read */
const call = (convert: unknown, color: object): any => (convert as (color: any) => any)({ ...color });
/* eslint-enable @typescript-eslint/no-explicit-any */
const xyz = ([x, y, z]: Triple): Xyz => ({ x, y, z });
const rgb = ([r, g, b]: Triple): Rgb => ({ r, g, b });
const ofXyz = ({ x, y, z }: Xyz): Triple => [x, y, z];
const ofRgb = ({ r, g, b }: Rgb): Triple => [r, g, b];
const ofLab = ({ l, a, b }: Lab): Triple => [l, a, b];

const rgbToXyz = (channels: Triple): Triple => ofXyz(call(convertRgbToXyz65, rgb(channels)));
const xyzToRgb = (channels: Triple): Triple => ofRgb(call(convertXyz65ToRgb, xyz(channels)));
const toPolar = ([l, a, b]: Triple): Triple => [l, Math.hypot(a, b), ((Math.atan2(b, a) * 180) / Math.PI + 360) % 360];
const fromPolar = ([l, c, h]: Triple): Triple => [
  l,
  c * Math.cos((h * Math.PI) / 180),
  c * Math.sin((h * Math.PI) / 180),
];
const oklabToXyz = ([l, a, b]: Triple): Triple =>
  rgbToXyz(ofRgb(call(convertLrgbToRgb, call(convertOklabToLrgb, { l, a, b }))));
const xyzToOklab = (channels: Triple): Triple =>
  ofLab(call(convertLrgbToOklab, call(convertRgbToLrgb, rgb(xyzToRgb(channels)))));
const labToXyz = ([l, a, b]: Triple): Triple => ofXyz(call(convertXyz50ToXyz65, call(convertLabToXyz50, { l, a, b })));
const xyzToLab = (channels: Triple): Triple => ofLab(call(convertXyz50ToLab, call(convertXyz65ToXyz50, xyz(channels))));

/** Conversions by space. Source of the arithmetic: CSS Color 4 §17, by the culori library. */
const CONVERSIONS: Readonly<Record<MixSpace, Conversion>> = {
  legacy: { toXyz: rgbToXyz, fromXyz: xyzToRgb },
  srgb: { toXyz: rgbToXyz, fromXyz: xyzToRgb },
  'srgb-linear': {
    toXyz: (c) => rgbToXyz(ofRgb(call(convertLrgbToRgb, rgb(c)))),
    fromXyz: (c) => ofRgb(call(convertRgbToLrgb, rgb(xyzToRgb(c)))),
  },
  'display-p3': {
    toXyz: (c) => ofXyz(call(convertP3ToXyz65, rgb(c))),
    fromXyz: (c) => ofRgb(call(convertXyz65ToP3, xyz(c))),
  },
  'a98-rgb': {
    toXyz: (c) => ofXyz(call(convertA98ToXyz65, rgb(c))),
    fromXyz: (c) => ofRgb(call(convertXyz65ToA98, xyz(c))),
  },
  'prophoto-rgb': {
    toXyz: (c) => ofXyz(call(convertXyz50ToXyz65, call(convertProphotoToXyz50, rgb(c)))),
    fromXyz: (c) => ofRgb(call(convertXyz50ToProphoto, call(convertXyz65ToXyz50, xyz(c)))),
  },
  rec2020: {
    toXyz: (c) => ofXyz(call(convertRec2020ToXyz65, rgb(c))),
    fromXyz: (c) => ofRgb(call(convertXyz65ToRec2020, xyz(c))),
  },
  'xyz-d65': { toXyz: (c) => c, fromXyz: (c) => c },
  'xyz-d50': {
    toXyz: (c) => ofXyz(call(convertXyz50ToXyz65, xyz(c))),
    fromXyz: (c) => ofXyz(call(convertXyz65ToXyz50, xyz(c))),
  },
  lab: { toXyz: labToXyz, fromXyz: xyzToLab },
  lch: {
    toXyz: ([l, c, h]) => labToXyz(ofLab(call(convertLchToLab, { l, c, h }))),
    fromXyz: (c) => {
      const [l, a, b] = xyzToLab(c);
      const polar = call(convertLabToLch, { l, a, b }) as { l: number; c: number; h?: number };
      return [polar.l, polar.c, polar.h ?? 0];
    },
  },
  oklab: { toXyz: oklabToXyz, fromXyz: xyzToOklab },
  oklch: { toXyz: (c) => oklabToXyz(fromPolar(c)), fromXyz: (c) => toPolar(xyzToOklab(c)) },
  hsl: {
    toXyz: ([h, s, l]) => rgbToXyz(ofRgb(call(convertHslToRgb, { h, s: s / 100, l: l / 100 }))),
    fromXyz: (c) => hslOf(xyzToRgb(c)),
  },
  hwb: {
    toXyz: ([h, w, b]) => rgbToXyz(ofRgb(call(convertHwbToRgb, { h, w: w / 100, b: b / 100 }))),
    fromXyz: (c) => hwbOf(xyzToRgb(c)),
  },
};

function hslOf(channels: Triple): Triple {
  const { h, s, l } = call(convertRgbToHsl, rgb(channels)) as { h?: number; s: number; l: number };
  return [h ?? 0, s * 100, l * 100];
}

function hwbOf(channels: Triple): Triple {
  const { h, w, b } = call(convertRgbToHwb, rgb(channels)) as { h?: number; w: number; b: number };
  return [h ?? 0, w * 100, b * 100];
}

/** Spaces that share their RGB encoding, so that no rounding comes in between. */
const RGB_ALIKE: ReadonlySet<string> = new Set(['legacy', 'srgb']);

function isWhole(channels: Color['channels']): channels is Triple {
  return channels[0] !== null && channels[1] !== null && channels[2] !== null;
}

/**
 * Channels of a colour in another space; missing ones count as 0.
 * `hsl` and `hwb` have their hue in degrees and the rest in 0–100.
 */
export function channelsIn(color: Color, space: MixSpace): Triple {
  const channels = isWhole(color.channels)
    ? color.channels
    : (color.channels.map((channel) => channel ?? 0) as unknown as Triple);
  if (color.space === space || (RGB_ALIKE.has(color.space) && RGB_ALIKE.has(space))) return channels;
  if (RGB_ALIKE.has(color.space) && space === 'hsl') return hslOf(channels);
  if (RGB_ALIKE.has(color.space) && space === 'hwb') return hwbOf(channels);
  if (color.space === 'oklab' && space === 'oklch') return toPolar(channels);
  if (color.space === 'oklch' && space === 'oklab') return fromPolar(channels);
  return CONVERSIONS[space].fromXyz(CONVERSIONS[color.space].toXyz(channels));
}

/** Channels given in any space, `hsl` and `hwb` included, as channels of another. */
export function convertChannels(channels: Triple, from: MixSpace, to: MixSpace): Triple {
  if (from === to || (RGB_ALIKE.has(from) && RGB_ALIKE.has(to))) return channels;
  return CONVERSIONS[to].fromXyz(CONVERSIONS[from].toXyz(channels));
}
