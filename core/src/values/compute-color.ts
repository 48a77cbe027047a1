import {
  BLACK,
  WHITE,
  rgb8,
  type Color,
  type ColorSpace,
  type ColorValue,
  type HueMethod,
  type MixSpace,
} from './color.js';
import { channelsIn, convertChannels, type Triple } from './convert-color.js';
import { evaluateMath } from './math.js';
import { parseColor } from './parse-color.js';
import { SYSTEM_COLORS } from './system-colors.js';
import { angleInDegrees } from './units.js';

/** What a specified colour needs to become a computed one. */
export interface ColorContext {
  /** Used colour scheme of the element (CSS Color Adjustment 1 §2). */
  readonly scheme: 'light' | 'dark';
  /** Value of `color` on the element. */
  readonly currentColor: Color;
}

/** The colour a value stands for; `null` for `auto` and `none`, which are no colours. */
export function resolveColorValue(value: ColorValue, context: ColorContext): Color | null {
  switch (value.kind) {
    case 'color':
      return value.color;
    case 'currentcolor':
      return context.currentColor;
    case 'keyword':
      return null;
    case 'system':
      return systemColor(value.name, context.scheme);
    case 'light-dark':
      return resolveColorValue(context.scheme === 'dark' ? value.dark : value.light, context);
    case 'mix': {
      const [a, b] = value.parts.map((part) => resolveColorValue(part.color, context) ?? BLACK);
      return mixColors(a, value.parts[0].share, b, value.parts[1].share, value.space, value.hue);
    }
    case 'relative':
      return resolveRelative(value, resolveColorValue(value.origin, context) ?? BLACK);
    case 'contrast':
      return contrastColor(resolveColorValue(value.of, context) ?? WHITE);
  }
}

/**
 * The computed value: everything settled that does not hang on `currentcolor`, which stays for inheritance.
 * Source: CSS Color 4 §15 Resolving color values.
 */
export function computeColorValue(value: ColorValue, scheme: 'light' | 'dark'): ColorValue {
  if (value.kind === 'light-dark') return computeColorValue(scheme === 'dark' ? value.dark : value.light, scheme);
  if (mentionsCurrentColor(value)) return value;
  const color = resolveColorValue(value, { scheme, currentColor: BLACK });
  return color ? { kind: 'color', color } : value;
}

function mentionsCurrentColor(value: ColorValue): boolean {
  switch (value.kind) {
    case 'currentcolor':
      return true;
    case 'light-dark':
      return mentionsCurrentColor(value.light) || mentionsCurrentColor(value.dark);
    case 'mix':
      return value.parts.some((part) => mentionsCurrentColor(part.color));
    case 'relative':
      return mentionsCurrentColor(value.origin);
    case 'contrast':
      return mentionsCurrentColor(value.of);
    default:
      return false;
  }
}

const systemCache = new Map<string, Color>();

function systemColor(name: string, scheme: 'light' | 'dark'): Color {
  const text = SYSTEM_COLORS.get(name)?.[scheme === 'dark' ? 1 : 0] ?? 'black';
  let color = systemCache.get(text);
  if (!color) {
    const parsed = parseColor(text);
    color = parsed?.kind === 'color' ? parsed.color : BLACK;
    systemCache.set(text, color);
  }
  return color;
}

/** Channels that correspond between spaces, so that a missing one is carried over. Source: CSS Color 4 §12.2. */
const ANALOGOUS: readonly (readonly string[])[] = [
  ['r', 'x'],
  ['g', 'y'],
  ['b', 'z'],
  ['L'],
  ['C', 'S'],
  ['h'],
  ['a'],
  ['bb'],
];
const CHANNEL_NAMES: Readonly<Record<MixSpace, readonly [string, string, string]>> = {
  legacy: ['r', 'g', 'b'],
  srgb: ['r', 'g', 'b'],
  'srgb-linear': ['r', 'g', 'b'],
  'display-p3': ['r', 'g', 'b'],
  'a98-rgb': ['r', 'g', 'b'],
  'prophoto-rgb': ['r', 'g', 'b'],
  rec2020: ['r', 'g', 'b'],
  'xyz-d50': ['x', 'y', 'z'],
  'xyz-d65': ['x', 'y', 'z'],
  lab: ['L', 'a', 'bb'],
  oklab: ['L', 'a', 'bb'],
  lch: ['L', 'C', 'h'],
  oklch: ['L', 'C', 'h'],
  hsl: ['h', 'S', 'L'],
  hwb: ['h', 'w', 'k'],
};
const HUE_AT: Readonly<Partial<Record<MixSpace, number>>> = { hsl: 0, hwb: 0, lch: 2, oklch: 2 };
/** Chroma or saturation below which the hue is powerless. */
const POWERLESS: Readonly<Partial<Record<MixSpace, (c: Triple) => boolean>>> = {
  hsl: ([, s]) => s < 0.001,
  hwb: ([, w, b]) => w + b > 99.999,
  lch: ([, c]) => c < 0.0015,
  oklch: ([, c]) => c < 0.000004,
};

/** Channels in the space of interpolation, missing ones carried over or made powerless. Source: CSS Color 4 §12.1–12.2. */
function channelsForMixing(color: Color, space: MixSpace): (number | null)[] {
  const converted = channelsIn(color, space);
  const names = CHANNEL_NAMES[space];
  const own = CHANNEL_NAMES[color.space];
  const result: (number | null)[] = converted.map((channel, at) => {
    const group = ANALOGOUS.find((alike) => alike.includes(names[at]));
    const missing = group ? own.findIndex((name) => group.includes(name)) : -1;
    return missing >= 0 && color.channels[missing] === null ? null : channel;
  });
  const hueAt = HUE_AT[space];
  if (hueAt !== undefined && color.space !== space && POWERLESS[space]?.(converted)) result[hueAt] = null;
  return result;
}

/**
 * `color-mix()`. Shares are 0–1, `null` when not given.
 * Source: CSS Color 5 §3 and CSS Color 4 §12–13, https://drafts.csswg.org/css-color-5/#color-mix
 */
export function mixColors(
  a: Color,
  shareA: number | null,
  b: Color,
  shareB: number | null,
  space: MixSpace,
  hue: HueMethod = 'shorter',
): Color {
  let first = shareA ?? (shareB === null ? 0.5 : 1 - shareB);
  let second = shareB ?? 1 - first;
  const sum = first + second;
  const alphaFactor = sum < 1 ? sum : 1;
  // Two shares of nothing mix evenly into what is wholly transparent.
  first = sum === 0 ? 0.5 : first / sum;
  second = sum === 0 ? 0.5 : second / sum;
  const left = channelsForMixing(a, space);
  const right = channelsForMixing(b, space);
  const missing: boolean[] = [];
  for (let i = 0; i < 3; i += 1) {
    missing[i] = left[i] === null && right[i] === null;
    left[i] ??= right[i];
    right[i] ??= left[i];
  }
  const alphaMissing = a.alpha === null && b.alpha === null;
  const alphaA = a.alpha ?? b.alpha ?? 1;
  const alphaB = b.alpha ?? a.alpha ?? 1;
  const alpha = alphaA * first + alphaB * second;
  const hueAt = HUE_AT[space];
  if (hueAt !== undefined) [left[hueAt], right[hueAt]] = fixHues(left[hueAt] ?? 0, right[hueAt] ?? 0, hue);
  const mixed = [0, 1, 2].map((i) => {
    const x = left[i] ?? 0;
    const y = right[i] ?? 0;
    if (i === hueAt) return (((x * first + y * second) % 360) + 360) % 360;
    if (alpha === 0) return x * first + y * second;
    return (x * alphaA * first + y * alphaB * second) / alpha;
  }) as unknown as Triple;
  const finalAlpha = alphaMissing ? null : alpha * alphaFactor;
  if (space === 'hsl' || space === 'hwb' || space === 'legacy')
    return { space: 'srgb', channels: convertChannels(mixed, space, 'srgb'), alpha: finalAlpha };
  return {
    space,
    channels: mixed.map((channel, i) => (missing[i] ? null : channel)) as unknown as Color['channels'],
    alpha: finalAlpha,
  };
}

/** CSS Color 4 §12.4 Hue interpolation. Degrees. */
function fixHues(a: number, b: number, method: HueMethod): [number, number] {
  const difference = b - a;
  if (method === 'shorter') return difference > 180 ? [a + 360, b] : difference < -180 ? [a, b + 360] : [a, b];
  if (method === 'longer')
    return difference > 0 && difference < 180
      ? [a + 360, b]
      : difference > -180 && difference <= 0
        ? [a, b + 360]
        : [a, b];
  if (method === 'increasing') return difference < 0 ? [a, b + 360] : [a, b];
  return difference > 0 ? [a + 360, b] : [a, b];
}

/** Channel keywords of relative colours, in the units the keywords have. Source: CSS Color 5 §4. */
function resolveRelative(value: Extract<ColorValue, { kind: 'relative' }>, origin: Color): Color {
  const { to } = value;
  const space: MixSpace = to === 'rgb' ? 'srgb' : to;
  const names = (
    to === 'hsl'
      ? 'h s l'
      : to === 'hwb'
        ? 'h w b'
        : to === 'lab' || to === 'oklab'
          ? 'l a b'
          : to === 'lch' || to === 'oklch'
            ? 'l c h'
            : to.startsWith('xyz')
              ? 'x y z'
              : 'r g b'
  ).split(' ');
  // A missing channel of the origin counts as 0 here, as Chromium has it.
  const carried = channelsIn(origin, space);
  const scale = to === 'rgb' ? 255 : 1;
  const keywords = new Map<string, number>(names.map((name, i) => [name, carried[i] * scale]));
  keywords.set('alpha', origin.alpha ?? 0);
  const whole = (at: number): number => {
    if (to === 'rgb') return 255;
    if (to === 'hsl' || to === 'hwb') return 100;
    if (to === 'lab') return at === 0 ? 100 : 125;
    if (to === 'lch') return at === 0 ? 100 : 150;
    if (to === 'oklab' || to === 'oklch') return at === 0 ? 1 : 0.4;
    return 1;
  };
  const read = (text: string, percent: number): number | null => {
    if (text === 'none') return null;
    const replaced = text.replace(/[a-z]+/gi, (word) =>
      keywords.has(word.toLowerCase()) ? String(round(keywords.get(word.toLowerCase()) as number)) : word,
    );
    const result = /^(-?(?:\d+(?:\.\d*)?|\.\d+)(?:e[+-]?\d+)?)(%|deg|grad|rad|turn)?$/i.exec(evaluateMath(replaced));
    if (!result) return 0;
    if (result[2] === '%') return (Number(result[1]) / 100) * percent;
    return result[2] ? (angleInDegrees(Number(result[1]), result[2].toLowerCase()) ?? 0) : Number(result[1]);
  };
  const channels = value.channels.map((text, at) => read(text, whole(at)));
  const alpha = value.alpha === null ? origin.alpha : read(value.alpha, 1);
  const clamped = alpha === null ? null : Math.min(1, Math.max(0, alpha));
  if (to === 'rgb')
    return {
      space: 'srgb',
      channels: channels.map((channel) => (channel === null ? null : channel / 255)) as unknown as Color['channels'],
      alpha: clamped,
    };
  if (to === 'hsl' || to === 'hwb') {
    return {
      space: 'srgb',
      channels: convertChannels(channels.map((channel) => channel ?? 0) as unknown as Triple, to, 'srgb'),
      alpha: clamped,
    };
  }
  if (to === 'lab' || to === 'lch') channels[0] = channels[0] === null ? null : Math.min(100, Math.max(0, channels[0]));
  if (to === 'oklab' || to === 'oklch')
    channels[0] = channels[0] === null ? null : Math.min(1, Math.max(0, channels[0]));
  if ((to === 'lch' || to === 'oklch') && channels[1] !== null) channels[1] = Math.max(0, channels[1]);
  return { space: to as ColorSpace, channels: channels as unknown as Color['channels'], alpha: clamped };
}

function round(value: number): number {
  return Math.abs(value) < 1e-9 ? 0 : Number(value.toPrecision(12));
}

/** CSS Color 5 §6 `contrast-color()`: white or black, whichever has the higher WCAG 2 contrast; white on a tie. */
function contrastColor(color: Color): Color {
  const [r, g, b] = channelsIn(color, 'srgb-linear');
  const luminance = 0.2126 * r + 0.7152 * g + 0.0722 * b;
  return 1.05 / (luminance + 0.05) >= (luminance + 0.05) / 0.05 ? rgb8(255, 255, 255) : rgb8(0, 0, 0);
}
