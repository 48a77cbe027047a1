import type { CssNode } from 'css-tree';
import { resolveColorValue, mixColors } from '../values/compute-color.js';
import { BLACK, type Color, type HueMethod, type MixSpace } from '../values/color.js';
import { groupsBetweenCommas } from '../values/comma-groups.js';
import { isColorFunction, parseColorNode } from '../values/parse-color.js';
import { valueNodes } from '../values/value-nodes.js';

/** One layer of a resolved `background-image`. A gradient answers for a point of its own box, CSS px from the box's top left. */
export type ImageLayer =
  | {
      readonly kind: 'gradient';
      readonly colorAt: (x: number, y: number, width: number, height: number) => Color | null;
    }
  | { readonly kind: 'picture' }
  | { readonly kind: 'none' };

const known = new Map<string, readonly ImageLayer[]>();
const MOST_KNOWN = 500;

/** The layers of a resolved `background-image`, the topmost first. */
export function imageLayers(text: string): readonly ImageLayer[] {
  const before = known.get(text);
  if (before) return before;
  const layers = text === 'none' || text === '' ? [] : readLayers(text);
  if (known.size >= MOST_KNOWN) known.clear();
  known.set(text, layers);
  return layers;
}

function readLayers(text: string): ImageLayer[] {
  return groupsBetweenCommas(valueNodes(text)).map(([node]): ImageLayer => {
    if (node?.type === 'Identifier' && node.name.toLowerCase() === 'none') return { kind: 'none' };
    const gradient = node?.type === 'Function' ? readGradient(node.name.toLowerCase(), node.children.toArray()) : null;
    return gradient ? { kind: 'gradient', colorAt: gradient } : { kind: 'picture' };
  });
}

type ColorAt = (x: number, y: number, width: number, height: number) => Color | null;

/** A length along the gradient line: a share of it, plus px. */
interface Along {
  readonly share: number;
  readonly px: number;
}

interface Stop {
  readonly color: Color;
  readonly at: Along | null;
}

/** Source: CSS Images 4 §3.1 linear, §3.2 radial, §3.3 conic, §3.4 repeating, §3.5 stops. */
function readGradient(name: string, nodes: readonly CssNode[]): ColorAt | null {
  const match = /^(?:-webkit-)?(repeating-)?(linear|radial|conic)-gradient$/.exec(name);
  if (!match || name.startsWith('-webkit-')) return null;
  const groups = groupsBetweenCommas(nodes);
  const hasPrelude = groups.length > 0 && !groups[0].some((node) => colorOf(node) !== null);
  const prelude = hasPrelude ? groups[0] : [];
  const stops = groups.slice(hasPrelude ? 1 : 0).flatMap((group): Stop[] => {
    const color = group.map(colorOf).find((found) => found !== null);
    if (!color) return [];
    const places = group.filter((node) => colorOf(node) === null).map((node) => alongOf(node, match[2] === 'conic'));
    return places.length === 0 ? [{ color, at: null }] : places.map((at) => ({ color, at }));
  });
  if (stops.length === 0) return null;
  const mix = mixerOf(prelude, stops);
  const paint = (t: number, length: number): Color => colorAlong(place(stops, length), t, match[1] !== undefined, mix);
  switch (match[2]) {
    case 'linear':
      return (x, y, width, height) => {
        const [dx, dy] = directionOf(prelude, width, height);
        const length = Math.abs(width * dx) + Math.abs(height * dy);
        return paint(length === 0 ? 0 : ((x - width / 2) * dx + (y - height / 2) * dy) / length + 0.5, length);
      };
    case 'radial':
      return (x, y, width, height) => {
        const [cx, cy] = centerOf(prelude, width, height);
        const [rx, ry] = radiiOf(prelude, cx, cy, width, height);
        return rx <= 0 || ry <= 0 ? stops[stops.length - 1].color : paint(Math.hypot((x - cx) / rx, (y - cy) / ry), rx);
      };
    default:
      return (x, y, width, height) => {
        const [cx, cy] = centerOf(prelude, width, height);
        const turn = Math.atan2(x - cx, cy - y) / (2 * Math.PI) - conicStart(prelude);
        return paint(((turn % 1) + 1) % 1, 1);
      };
  }
}

type Mix = (a: Color, b: Color, share: number) => Color;

function mixerOf(prelude: readonly CssNode[], stops: readonly Stop[]): Mix {
  const words = wordsOf(prelude);
  const at = words.indexOf('in');
  const space = (
    at === -1 ? (stops.every(({ color }) => color.space === 'legacy') ? 'srgb' : 'oklab') : words[at + 1]
  ) as MixSpace;
  const hue =
    words.find((word): word is HueMethod => ['longer', 'increasing', 'decreasing'].includes(word)) ?? 'shorter';
  return (a, b, share) => mixColors(a, 1 - share, b, share, space, hue);
}

/** Positions of stops as shares of the line, filled in between and never falling. */
function place(stops: readonly Stop[], length: number): { readonly color: Color; readonly at: number }[] {
  const at = stops.map((stop): number | null =>
    stop.at ? stop.at.share + (length === 0 ? 0 : stop.at.px / length) : null,
  );
  at[0] ??= 0;
  at[at.length - 1] ??= 1;
  let greatest = -Infinity;
  for (let i = 0; i < at.length; i += 1) {
    const own = at[i];
    if (own !== null) at[i] = greatest = Math.max(greatest, own);
  }
  for (let i = 1; i < at.length; i += 1) {
    if (at[i] !== null) continue;
    let next = i;
    while (at[next] === null) next += 1;
    const from = at[i - 1] as number;
    const step = ((at[next] as number) - from) / (next - i + 1);
    for (let k = i; k < next; k += 1) at[k] = from + step * (k - i + 1);
  }
  return stops.map(({ color }, i) => ({ color, at: at[i] as number }));
}

function colorAlong(
  stops: readonly { readonly color: Color; readonly at: number }[],
  t: number,
  repeats: boolean,
  mix: Mix,
): Color {
  const first = stops[0];
  const last = stops[stops.length - 1];
  const span = last.at - first.at;
  const place = repeats && span > 0 ? first.at + ((((t - first.at) % span) + span) % span) : t;
  if (place <= first.at) return first.color;
  for (let i = 1; i < stops.length; i += 1) {
    const [from, to] = [stops[i - 1], stops[i]];
    if (place < to.at) return mix(from.color, to.color, to.at === from.at ? 1 : (place - from.at) / (to.at - from.at));
  }
  return last.color;
}

/** Unit vector of the gradient line, y down. */
function directionOf(prelude: readonly CssNode[], width: number, height: number): [number, number] {
  const words = wordsOf(prelude);
  if (words[0] === 'to') {
    const x = words.includes('right') ? 1 : words.includes('left') ? -1 : 0;
    const y = words.includes('bottom') ? 1 : words.includes('top') ? -1 : 0;
    // Towards a corner, the line of the middle colour runs through the two others.
    const [dx, dy] = x !== 0 && y !== 0 ? [x * height, y * width] : [x, y];
    const size = Math.hypot(dx, dy) || 1;
    return [dx / size, dy / size];
  }
  const angle = prelude.find((node) => node.type === 'Dimension');
  const radians = ((angle?.type === 'Dimension' ? Number(angle.value) : 180) * Math.PI) / 180;
  return [Math.sin(radians), -Math.cos(radians)];
}

function centerOf(prelude: readonly CssNode[], width: number, height: number): [number, number] {
  const at = prelude.findIndex((node) => node.type === 'Identifier' && node.name === 'at');
  const [x, y] = at === -1 ? [] : prelude.slice(at + 1, at + 3);
  return [lengthOf(x, width, width / 2), lengthOf(y, height, height / 2)];
}

function radiiOf(prelude: readonly CssNode[], cx: number, cy: number, width: number, height: number): [number, number] {
  const at = prelude.findIndex((node) => node.type === 'Identifier' && node.name === 'at');
  const own = at === -1 ? prelude : prelude.slice(0, at);
  const lengths = own.filter((node) => node.type === 'Dimension' || node.type === 'Percentage');
  if (lengths.length > 0) return [lengthOf(lengths[0], width, 0), lengthOf(lengths[1] ?? lengths[0], height, 0)];
  const words = wordsOf(own);
  const [nearX, farX] = [Math.min(Math.abs(cx), Math.abs(width - cx)), Math.max(Math.abs(cx), Math.abs(width - cx))];
  const [nearY, farY] = [Math.min(Math.abs(cy), Math.abs(height - cy)), Math.max(Math.abs(cy), Math.abs(height - cy))];
  const isCircle = words.includes('circle');
  if (words.includes('closest-side'))
    return isCircle ? [Math.min(nearX, nearY), Math.min(nearX, nearY)] : [nearX, nearY];
  if (words.includes('farthest-side')) return isCircle ? [Math.max(farX, farY), Math.max(farX, farY)] : [farX, farY];
  const [x, y] = words.includes('closest-corner') ? [nearX, nearY] : [farX, farY];
  if (isCircle) return [Math.hypot(x, y), Math.hypot(x, y)];
  return [x * Math.SQRT2, y * Math.SQRT2];
}

/** Turn at which a conic gradient starts, 0–1. */
function conicStart(prelude: readonly CssNode[]): number {
  const at = prelude.findIndex((node) => node.type === 'Identifier' && node.name === 'from');
  const angle = at === -1 ? undefined : prelude[at + 1];
  return angle?.type === 'Dimension' ? Number(angle.value) / 360 : 0;
}

function lengthOf(node: CssNode | undefined, whole: number, otherwise: number): number {
  if (node?.type === 'Percentage') return (Number(node.value) / 100) * whole;
  if (node?.type === 'Dimension' || node?.type === 'Number') return Number(node.value);
  return otherwise;
}

function alongOf(node: CssNode, isConic: boolean): Along {
  if (node.type === 'Percentage') return { share: Number(node.value) / 100, px: 0 };
  if (node.type === 'Dimension')
    return isConic ? { share: Number(node.value) / 360, px: 0 } : { share: 0, px: Number(node.value) };
  return { share: 0, px: 0 };
}

function colorOf(node: CssNode): Color | null {
  const mayBe =
    node.type === 'Hash' ||
    (node.type === 'Function'
      ? isColorFunction(node.name)
      : node.type === 'Identifier' &&
        !/^(?:to|at|in|from|top|right|bottom|left|center|circle|ellipse)$/i.test(node.name));
  const value = mayBe ? parseColorNode(node) : null;
  return value ? resolveColorValue(value, { scheme: 'light', currentColor: BLACK }) : null;
}

function wordsOf(nodes: readonly CssNode[]): string[] {
  return nodes.flatMap((node) => (node.type === 'Identifier' ? [node.name.toLowerCase()] : []));
}
