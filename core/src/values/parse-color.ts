import { generate, parse, type CssNode, type FunctionNode } from 'css-tree';
import { parseNamed } from 'culori/fn';
import {
  rgb8,
  type ColorSpace,
  type ColorValue,
  type HueMethod,
  type MixSpace,
  type RelativeFunction,
} from './color.js';
import { evaluateMath } from './math.js';
import { SYSTEM_COLORS } from './system-colors.js';
import { angleInDegrees } from './units.js';

const COLOR_FUNCTIONS: ReadonlySet<string> = new Set([
  'rgb',
  'rgba',
  'hsl',
  'hsla',
  'hwb',
  'lab',
  'lch',
  'oklab',
  'oklch',
  'color',
  'color-mix',
  'light-dark',
  'contrast-color',
]);
const COLOR_SPACES: ReadonlyMap<string, ColorSpace> = new Map<string, ColorSpace>([
  ['srgb', 'srgb'],
  ['srgb-linear', 'srgb-linear'],
  ['display-p3', 'display-p3'],
  ['a98-rgb', 'a98-rgb'],
  ['prophoto-rgb', 'prophoto-rgb'],
  ['rec2020', 'rec2020'],
  ['xyz', 'xyz-d65'],
  ['xyz-d50', 'xyz-d50'],
  ['xyz-d65', 'xyz-d65'],
]);
const MIX_SPACES: ReadonlySet<string> = new Set([
  'srgb',
  'srgb-linear',
  'display-p3',
  'a98-rgb',
  'prophoto-rgb',
  'rec2020',
  'lab',
  'oklab',
  'xyz',
  'xyz-d50',
  'xyz-d65',
  'hsl',
  'hwb',
  'lch',
  'oklch',
]);
const POLAR: ReadonlySet<string> = new Set(['hsl', 'hwb', 'lch', 'oklch']);

/** Whether a CSS function name (any case) makes a colour. */
export function isColorFunction(name: string): boolean {
  return COLOR_FUNCTIONS.has(name.toLowerCase());
}

/**
 * Parses one CSS `<color>`; `null` when it is none.
 * Source: CSS Color 4 §4–10 and CSS Color 5 §2–4, https://drafts.csswg.org/css-color-5/
 */
export function parseColor(text: string): ColorValue | null {
  let value = parsedColors.get(text);
  if (value === undefined) {
    if (parsedColors.size > MAX_PARSED) parsedColors.clear();
    value = readColor(text);
    parsedColors.set(text, value);
  }
  return value;
}

const parsedColors = new Map<string, ColorValue | null>();
const MAX_PARSED = 20_000;

function readColor(text: string): ColorValue | null {
  let node: CssNode;
  try {
    node = parse(text, {
      context: 'value',
      onParseError: (error) => {
        throw error;
      },
    });
  } catch {
    return null;
  }
  if (node.type !== 'Value') return null;
  const children = node.children.toArray();
  return children.length === 1 ? parseColorNode(children[0]) : null;
}

/** Parses a colour that css-tree has read. */
export function parseColorNode(node: CssNode): ColorValue | null {
  if (node.type === 'Hash') return parseHex(node.value);
  if (node.type === 'Identifier') return parseKeyword(node.name.toLowerCase());
  return node.type === 'Function' ? parseFunction(node) : null;
}

function parseHex(digits: string): ColorValue | null {
  if (!/^(?:[0-9a-f]{3,4}|[0-9a-f]{6}|[0-9a-f]{8})$/i.test(digits)) return null;
  const pairs = digits.length <= 4 ? [...digits].map((digit) => digit + digit) : (digits.match(/../g) as string[]);
  const [r, g, b, a = 255] = pairs.map((pair) => parseInt(pair, 16));
  return { kind: 'color', color: rgb8(r, g, b, a / 255) };
}

function parseKeyword(name: string): ColorValue | null {
  if (name === 'currentcolor') return { kind: 'currentcolor' };
  if (name === 'transparent') return { kind: 'color', color: rgb8(0, 0, 0, 0) };
  if (SYSTEM_COLORS.has(name)) return { kind: 'system', name };
  const named = parseNamed(name as Parameters<typeof parseNamed>[0]);
  return named ? { kind: 'color', color: { space: 'legacy', channels: [named.r, named.g, named.b], alpha: 1 } } : null;
}

/** Arguments of a function: component texts, and where a slash or commas stand. */
interface Arguments {
  readonly parts: readonly CssNode[];
  readonly alpha: CssNode | null;
  readonly commas: boolean;
}

function readArguments(children: readonly CssNode[]): Arguments | null {
  const parts: CssNode[] = [];
  let alpha: CssNode | null = null;
  let slash = false;
  let commas = 0;
  let expectsValue = true;
  for (const child of children) {
    if (child.type === 'Operator' && child.value === ',') {
      if (expectsValue || slash) return null;
      commas += 1;
      expectsValue = true;
    } else if (child.type === 'Operator' && child.value === '/') {
      if (slash || commas > 0) return null;
      slash = true;
    } else if (child.type === 'Operator') {
      return null;
    } else if (slash) {
      if (alpha !== null) return null;
      alpha = child;
    } else {
      if (commas > 0 && !expectsValue) return null;
      parts.push(child);
      expectsValue = false;
    }
  }
  if (slash && alpha === null) return null;
  if (commas > 0) {
    if (commas !== parts.length - 1) return null;
    return parts.length === 4
      ? { parts: parts.slice(0, 3), alpha: parts[3], commas: true }
      : { parts, alpha: null, commas: true };
  }
  return { parts, alpha, commas: false };
}

function parseFunction(node: FunctionNode): ColorValue | null {
  const name = node.name.toLowerCase();
  const children = node.children.toArray();
  if (name === 'color-mix') return parseMix(children);
  if (name === 'light-dark') {
    const parts = splitCommas(children);
    if (parts.length !== 2 || parts.some((part) => part.length !== 1)) return null;
    const [light, dark] = parts.map(([part]) => parseColorNode(part));
    return light && dark ? { kind: 'light-dark', light, dark } : null;
  }
  if (name === 'contrast-color') {
    const of = children.length === 1 ? parseColorNode(children[0]) : null;
    return of ? { kind: 'contrast', of } : null;
  }
  if (children[0]?.type === 'Identifier' && children[0].name.toLowerCase() === 'from')
    return parseRelative(name, children.slice(1));
  if (name === 'color') return parseColorFunction(children);
  const read = readArguments(children);
  if (!read || read.parts.length !== 3) return null;
  const alpha = readAlpha(read.alpha);
  if (alpha === undefined) return null;
  switch (name) {
    case 'rgb':
    case 'rgba':
      return parseRgb(read, alpha);
    case 'hsl':
    case 'hsla':
    case 'hwb':
      return parseHueFunction(name === 'hwb' ? 'hwb' : 'hsl', read, alpha);
    case 'lab':
    case 'lch':
    case 'oklab':
    case 'oklch':
      return parseLabLike(name, read, alpha);
    default:
      return null;
  }
}

function parseRgb({ parts, commas }: Arguments, alpha: number | null): ColorValue | null {
  const channels = parts.map((part) => readNumber(part, 255));
  if (channels.includes(undefined)) return null;
  if (commas) {
    if (channels.includes(null)) return null;
    const kinds = new Set(parts.map(kindOf));
    if (kinds.has('number') && kinds.has('percentage')) return null;
  }
  const [r, g, b] = channels.map((channel) => Math.round(Math.min(255, Math.max(0, channel ?? 0))) / 255);
  return { kind: 'color', color: { space: 'legacy', channels: [r, g, b], alpha: alpha ?? 0 } };
}

function parseHueFunction(name: 'hsl' | 'hwb', { parts, commas }: Arguments, alpha: number | null): ColorValue | null {
  if (name === 'hwb' && commas) return null;
  const hue = readHue(parts[0]);
  const second = readNumber(parts[1], 100);
  const third = readNumber(parts[2], 100);
  if (hue === undefined || second === undefined || third === undefined) return null;
  if (commas && (hue === null || kindOf(parts[1]) !== 'percentage' || kindOf(parts[2]) !== 'percentage')) return null;
  const a = Math.min(1, Math.max(0, (second ?? 0) / 100));
  const b = Math.min(1, Math.max(0, (third ?? 0) / 100));
  const rgb = name === 'hsl' ? hslToRgb(hue ?? 0, a, b) : hwbToRgb(hue ?? 0, a, b);
  // Engines keep channels in single precision, in which halves of an 8-bit step are halves again.
  const [r, g, bl] = rgb.map(
    (channel) => Math.round(Math.fround(Math.fround(Math.min(1, Math.max(0, channel))) * 255)) / 255,
  );
  return { kind: 'color', color: { space: 'legacy', channels: [r, g, bl], alpha: alpha ?? 0 } };
}

/** CSS Color 4 §7.1: HSL to sRGB. Hue in degrees, the rest 0–1. */
export function hslToRgb(hue: number, saturation: number, lightness: number): [number, number, number] {
  const h = ((hue % 360) + 360) % 360;
  const f = (n: number): number => {
    const k = (n + h / 30) % 12;
    return lightness - saturation * Math.min(lightness, 1 - lightness) * Math.max(-1, Math.min(k - 3, 9 - k, 1));
  };
  return [f(0), f(8), f(4)];
}

/** CSS Color 4 §8.1: HWB to sRGB. Hue in degrees, the rest 0–1. */
export function hwbToRgb(hue: number, white: number, black: number): [number, number, number] {
  if (white + black >= 1) {
    const grey = white / (white + black);
    return [grey, grey, grey];
  }
  return hslToRgb(hue, 1, 0.5).map((channel) => channel * (1 - white - black) + white) as [number, number, number];
}

/** Reference ranges of percentages. Source: CSS Color 4 §9–10. */
const LAB_RANGES: Readonly<Record<'lab' | 'lch' | 'oklab' | 'oklch', readonly [number, number]>> = {
  lab: [100, 125],
  lch: [100, 150],
  oklab: [1, 0.4],
  oklch: [1, 0.4],
};

function parseLabLike(
  name: 'lab' | 'lch' | 'oklab' | 'oklch',
  { parts, commas }: Arguments,
  alpha: number | null,
): ColorValue | null {
  if (commas) return null;
  const [lightRange, range] = LAB_RANGES[name];
  const lightness = readNumber(parts[0], lightRange);
  const polar = POLAR.has(name);
  const second = readNumber(parts[1], range);
  const third = polar ? readHue(parts[2]) : readNumber(parts[2], range);
  if (lightness === undefined || second === undefined || third === undefined) return null;
  return {
    kind: 'color',
    color: {
      space: name,
      channels: [
        lightness === null ? null : Math.min(lightRange, Math.max(0, lightness)),
        polar && second !== null ? Math.max(0, second) : second,
        polar && third !== null ? ((third % 360) + 360) % 360 : third,
      ],
      alpha,
    },
  };
}

function parseColorFunction(children: readonly CssNode[]): ColorValue | null {
  const [first, ...rest] = children;
  const space = first?.type === 'Identifier' ? COLOR_SPACES.get(first.name.toLowerCase()) : undefined;
  const read = readArguments(rest);
  if (!space || !read || read.commas || read.parts.length !== 3) return null;
  const alpha = readAlpha(read.alpha);
  const channels = read.parts.map((part) => readNumber(part, 1));
  if (alpha === undefined || channels.includes(undefined)) return null;
  return {
    kind: 'color',
    color: { space, channels: channels as [number | null, number | null, number | null], alpha },
  };
}

function parseMix(children: readonly CssNode[]): ColorValue | null {
  const groups = splitCommas(children);
  let space: MixSpace = 'oklab';
  let hue: HueMethod = 'shorter';
  const head = groups[0]?.map((node) => (node.type === 'Identifier' ? node.name.toLowerCase() : ''));
  let colors = groups;
  if (head?.[0] === 'in') {
    const name = head[1] ?? '';
    if (!MIX_SPACES.has(name)) return null;
    space = name === 'xyz' ? 'xyz-d65' : (name as MixSpace);
    if (
      head.length === 4 &&
      head[3] === 'hue' &&
      POLAR.has(name) &&
      ['shorter', 'longer', 'increasing', 'decreasing'].includes(head[2])
    )
      hue = head[2] as HueMethod;
    else if (head.length !== 2) return null;
    colors = groups.slice(1);
  }
  if (colors.length !== 2) return null;
  const parts = colors.map((group) => {
    let share: number | null = null;
    let color: ColorValue | null = null;
    for (const node of group) {
      const percentage =
        node.type === 'Percentage'
          ? Number(node.value)
          : node.type === 'Function' && !isColorFunction(node.name)
            ? percentOf(evaluateMath(generate(node)))
            : null;
      if (percentage !== null && share === null && percentage >= 0 && percentage <= 100) share = percentage / 100;
      else if (color === null) color = parseColorNode(node);
      else return null;
    }
    return color && group.length <= 2 && (group.length === 1 || share !== null) ? { color, share } : null;
  });
  const [first, second] = parts;
  if (!first || !second) return null;
  return { kind: 'mix', space, hue, parts: [first, second] };
}

const RELATIVE_KEYWORDS: Readonly<Record<string, string>> = {
  rgb: 'r g b',
  hsl: 'h s l',
  hwb: 'h w b',
  lab: 'l a b',
  lch: 'l c h',
  oklab: 'l a b',
  oklch: 'l c h',
};

function parseRelative(name: string, children: readonly CssNode[]): ColorValue | null {
  const origin = children[0] ? parseColorNode(children[0]) : null;
  let rest = children.slice(1);
  let to = name.replace(/a$/, (letter) => (name === 'rgba' || name === 'hsla' ? '' : letter)) as RelativeFunction;
  if (name === 'color') {
    const space = rest[0]?.type === 'Identifier' ? COLOR_SPACES.get(rest[0].name.toLowerCase()) : undefined;
    if (!space) return null;
    to = space as RelativeFunction;
    rest = rest.slice(1);
  }
  const read = readArguments(rest);
  if (!origin || !read || read.commas || read.parts.length !== 3) return null;
  const keywords = new Set([
    ...(RELATIVE_KEYWORDS[to] ?? (to.startsWith('xyz') ? 'x y z' : 'r g b')).split(' '),
    'alpha',
    'none',
  ]);
  const texts = [...read.parts, ...(read.alpha ? [read.alpha] : [])].map((part) => {
    if (part.type === 'Identifier') return keywords.has(part.name.toLowerCase()) ? part.name.toLowerCase() : null;
    if (part.type === 'Number' || part.type === 'Percentage' || part.type === 'Dimension' || part.type === 'Function')
      return generate(part);
    return null;
  });
  if (texts.includes(null)) return null;
  const [a, b, c, alpha = null] = texts as string[];
  return { kind: 'relative', to, origin, channels: [a, b, c], alpha };
}

function splitCommas(children: readonly CssNode[]): CssNode[][] {
  const groups: CssNode[][] = [[]];
  for (const child of children) {
    if (child.type === 'Operator' && child.value === ',') groups.push([]);
    else groups[groups.length - 1].push(child);
  }
  return groups;
}

function kindOf(node: CssNode): 'number' | 'percentage' | 'other' {
  if (node.type === 'Number') return 'number';
  if (node.type === 'Percentage') return 'percentage';
  if (node.type !== 'Function') return 'other';
  const text = evaluateMath(generate(node));
  return percentOf(text) !== null ? 'percentage' : 'number';
}

function percentOf(text: string): number | null {
  return /%$/.test(text) && Number.isFinite(Number(text.slice(0, -1))) ? Number(text.slice(0, -1)) : null;
}

/** A number, or a percentage of `whole`; `null` for `none`, `undefined` when it is neither. */
function readNumber(node: CssNode, whole: number): number | null | undefined {
  if (node.type === 'Number') return Number(node.value);
  if (node.type === 'Percentage') return (Number(node.value) / 100) * whole;
  if (node.type === 'Identifier' && node.name.toLowerCase() === 'none') return null;
  if (node.type !== 'Function') return undefined;
  const text = evaluateMath(generate(node));
  const percent = percentOf(text);
  if (percent !== null) return (percent / 100) * whole;
  return Number.isFinite(Number(text)) ? Number(text) : undefined;
}

function readHue(node: CssNode): number | null | undefined {
  if (node.type === 'Number') return Number(node.value);
  if (node.type === 'Dimension') return angleInDegrees(Number(node.value), node.unit.toLowerCase()) ?? undefined;
  if (node.type === 'Identifier' && node.name.toLowerCase() === 'none') return null;
  if (node.type !== 'Function') return undefined;
  const angle = /^(-?[\d.e+-]+?)(deg|grad|rad|turn)?$/.exec(evaluateMath(generate(node)));
  return angle && Number.isFinite(Number(angle[1]))
    ? (angleInDegrees(Number(angle[1]), angle[2] ?? 'deg') ?? undefined)
    : undefined;
}

function readAlpha(node: CssNode | null): number | null | undefined {
  if (node === null) return 1;
  const alpha = readNumber(node, 1);
  return typeof alpha === 'number' ? Math.min(1, Math.max(0, alpha)) : alpha;
}
