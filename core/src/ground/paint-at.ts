import type { Message } from '../message/message.js';
import { CLIPPED_TO_TEXT, FILTER_OVER, PICTURE_UNDER } from './doubts.js';
import { compositeOver } from '../color/contrast.js';
import { EDGE_SIDES, type EdgeSide } from '../properties/edges.js';
import type { ElementStyle } from '../resolve/element-style.js';
import { WHITE, rgb8, type Color } from '../values/color.js';
import { readShadows } from '../values/serialize-paint.js';
import { lengthContext } from '../resolve/compute-longhand.js';
import { imageLayers } from './gradient-at.js';
import { holds, type Rect } from '../resolve/page-layout.js';
import { betweenCommas } from '../syntax/text-ends.js';

/** What a box paints at a point. */
export interface PaintAt {
  /** Its fill, pictures left out, edges and inset shadows; `null` where it paints nothing. */
  readonly color: Color | null;
  /** What of it cannot be reckoned; `null` for nothing. */
  readonly doubt: Message | null;
}

const [TOP, RIGHT, BOTTOM, LEFT] = EDGE_SIDES;
/** Longhands of corners: above and below, left and right. */
const CORNERS = [
  ['border-top-left-radius', 'border-top-right-radius'],
  ['border-bottom-left-radius', 'border-bottom-right-radius'],
] as const;
const NOTHING: PaintAt = { color: null, doubt: null };

/** What the boxes of replaced elements show is theirs, whatever CSS says. */
const PICTURES: ReadonlySet<string> = new Set([
  'img',
  'video',
  'canvas',
  'iframe',
  'object',
  'embed',
  'svg',
  'picture',
]);

/**
 * What a box paints at a point of the page: its plain fill, the gradients over that at that place, its edge and its inset shadows.
 * Source: CSS Backgrounds 3 §3 and §7.1.
 * @param isCanvas whether it is painted on the canvas, which is everywhere.
 * @param leastEdge edges thinner than it are passed over, CSS px.
 */
export function paintAt(
  style: ElementStyle,
  box: Rect,
  x: number,
  y: number,
  isCanvas: boolean,
  leastEdge = 0,
): PaintAt {
  if (text(style, 'visibility') !== 'visible') return NOTHING;
  let doubt: Message | null = null;
  let color: Color | null = null;
  const lay = (above: Color | null): void => {
    if (above && (above.alpha ?? 0) > 0) color = color ? compositeOver(above, color) : above;
  };
  if (!isCanvas && isOutsideCorners(style, box, x, y)) return NOTHING;
  const edge = [widthOf(style, TOP), widthOf(style, RIGHT), widthOf(style, BOTTOM), widthOf(style, LEFT)] as const;
  const padding: Rect = {
    left: box.left + edge[3],
    top: box.top + edge[0],
    width: box.width - edge[1] - edge[3],
    height: box.height - edge[0] - edge[2],
  };
  const isInPadding = isCanvas || holds(padding, x, y);
  if (text(style, 'background-clip') === 'text') return { color: null, doubt: CLIPPED_TO_TEXT };
  if (isInPadding || text(style, 'background-clip') === 'border-box')
    lay(nativeFill(style) ?? style.color('background-color'));
  const layers = imageLayers(style.resolved('background-image'));
  for (let i = layers.length - 1; i >= 0; i -= 1) {
    const layer = layers[i];
    if (layer.kind === 'picture') doubt = PICTURE_UNDER;
    else if (layer.kind === 'gradient') {
      const spot = spotIn(style, i, isCanvas ? box : padding, x, y);
      if (spot) lay(layer.colorAt(spot.x, spot.y, spot.width, spot.height));
    }
  }
  if (isInPadding) for (const shadow of insetShadowsAt(style, padding, x, y)) lay(shadow);
  else {
    const side = sideAt(box, edge, x, y);
    if (widthOf(style, side) >= leastEdge) lay(style.color(side.color));
  }
  if (style.pseudo === '' && PICTURES.has(style.element.localName)) doubt = PICTURE_UNDER;
  if (style.pseudo !== '' && /url\(/.test(text(style, 'content'))) doubt = PICTURE_UNDER;
  return { color, doubt };
}

/** A fill or an edge of an author's makes Chromium paint a menu by CSS. Found in Chromium 156. */
const AUTHORED = [
  'background-color',
  'background-image',
  'border-top-style',
  'border-top-color',
  'border-top-width',
  'border-top-left-radius',
] as const;

/** What Chromium paints a native menu with while no author gives it a fill or an edge, whatever its computed one is; `null` for anything else. */
function nativeFill(style: ElementStyle): Color | null {
  if (
    style.pseudo !== '' ||
    style.element.localName !== 'select' ||
    style.element.attributes.has('multiple') ||
    text(style, 'appearance') === 'none'
  )
    return null;
  const isPlain = AUTHORED.every((property) => style.ranked(property)[0]?.block.origin !== 'author');
  return isPlain ? (style.colorScheme() === 'dark' ? rgb8(59, 59, 59) : WHITE) : null;
}

/** Properties by which what lies under a box shows otherwise than by plain layers. */
const BLENDING = ['mix-blend-mode', 'filter', 'backdrop-filter', 'mask-image', 'background-blend-mode'] as const;

/** How a box's group is laid on what lies under it. */
export function groupOf(style: ElementStyle): { readonly opacity: number; readonly doubt: Message | null } {
  const opacity = Number(text(style, 'opacity'));
  const blends = BLENDING.some((property) => !/^(?:none|normal|)$/.test(text(style, property)));
  return { opacity: Number.isFinite(opacity) ? opacity : 1, doubt: blends ? FILTER_OVER : null };
}

/** Place of a point in the tile of a background layer, and the tile's size; `null` where no tile lies. Source: CSS Backgrounds 3 §3.5 to §3.9. */
function spotIn(
  style: ElementStyle,
  layer: number,
  area: Rect,
  x: number,
  y: number,
): { readonly x: number; readonly y: number; readonly width: number; readonly height: number } | null {
  const of = (property: string): string => {
    const all = betweenCommas(text(style, property));
    return all[layer % all.length] ?? '';
  };
  const [sizeX = 'auto', sizeY = 'auto'] = of('background-size').split(/\s+/);
  const isWhole = sizeX === 'cover' || sizeX === 'contain';
  const tileWidth = isWhole || sizeX === 'auto' ? area.width : measure(sizeX, area.width);
  const tileHeight = isWhole || sizeY === 'auto' ? area.height : measure(sizeY, area.height);
  if (tileWidth <= 0 || tileHeight <= 0) return null;
  const [left, top] = positionOf(of('background-position'), area.width - tileWidth, area.height - tileHeight);
  const repeat = of('background-repeat').split(/\s+/);
  const repeatsX = repeat[0] === 'repeat' || repeat[0] === 'repeat-x' || repeat[0] === 'round' || repeat[0] === 'space';
  const repeatsY =
    (repeat[1] ?? repeat[0]) === 'repeat' ||
    repeat[0] === 'repeat-y' ||
    (repeat[1] ?? repeat[0]) === 'round' ||
    (repeat[1] ?? repeat[0]) === 'space';
  const inX = x - area.left - left;
  const inY = y - area.top - top;
  if ((!repeatsX && (inX < 0 || inX >= tileWidth)) || (!repeatsY && (inY < 0 || inY >= tileHeight))) return null;
  return {
    x: ((inX % tileWidth) + tileWidth) % tileWidth,
    y: ((inY % tileHeight) + tileHeight) % tileHeight,
    width: tileWidth,
    height: tileHeight,
  };
}

const KEYWORDS: ReadonlyMap<string, string> = new Map([
  ['left', '0%'],
  ['top', '0%'],
  ['center', '50%'],
  ['right', '100%'],
  ['bottom', '100%'],
]);

function positionOf(position: string, roomX: number, roomY: number): [number, number] {
  let words = position.split(/\s+/).filter(Boolean);
  if (words[0] === 'top' || words[0] === 'bottom' || words[1] === 'left' || words[1] === 'right')
    words = [words[1] ?? 'center', words[0]];
  const at = (word: string, room: number): number => measure(KEYWORDS.get(word) ?? word, room);
  return [at(words[0] ?? '0%', roomX), at(words[1] ?? '50%', roomY)];
}

function measure(value: string, whole: number): number {
  const number = Number.parseFloat(value);
  if (!Number.isFinite(number)) return 0;
  return value.endsWith('%') ? (number / 100) * whole : number;
}

function insetShadowsAt(style: ElementStyle, padding: Rect, x: number, y: number): Color[] {
  const value = text(style, 'box-shadow');
  if (!/inset/i.test(value)) return [];
  const context = { scheme: style.colorScheme(), currentColor: style.currentColor(), lengths: lengthContext(style) };
  // The first shadow lies on top.
  return readShadows(value, context, 'box')
    .reverse()
    .flatMap(({ color, lengths, inset }): Color[] => {
      if (!inset) return [];
      const [dx, dy, blur, spread] = lengths.map((length) => Number.parseFloat(length) || 0);
      const depth = Math.min(
        x - (padding.left + spread + dx),
        padding.left + padding.width - spread + dx - x,
        y - (padding.top + spread + dy),
        padding.top + padding.height - spread + dy - y,
      );
      // Blur spreads the edge over its length, half to each side.
      const share = blur === 0 ? (depth < 0 ? 1 : 0) : Math.min(1, Math.max(0, 0.5 - depth / blur));
      return share === 0 ? [] : [{ ...color, alpha: (color.alpha ?? 0) * share }];
    });
}

function isOutsideCorners(style: ElementStyle, box: Rect, x: number, y: number): boolean {
  const isRight = x > box.left + box.width / 2;
  const isBottom = y > box.top + box.height / 2;
  const value = text(style, CORNERS[isBottom ? 1 : 0][isRight ? 1 : 0]);
  if (value === '' || value.startsWith('0px')) return false;
  const [first, second = first] = value.split(' ');
  const rx = Math.min(measure(first, box.width), box.width / 2);
  const ry = Math.min(measure(second, box.height), box.height / 2);
  if (rx <= 0 || ry <= 0) return false;
  const dx = rx - (isRight ? box.left + box.width - x : x - box.left);
  const dy = ry - (isBottom ? box.top + box.height - y : y - box.top);
  return dx > 0 && dy > 0 && (dx / rx) ** 2 + (dy / ry) ** 2 > 1;
}

function sideAt(
  box: Rect,
  [top, right, bottom]: readonly [number, number, number, number],
  x: number,
  y: number,
): EdgeSide {
  if (y < box.top + top) return TOP;
  if (y >= box.top + box.height - bottom) return BOTTOM;
  return x >= box.left + box.width - right ? RIGHT : LEFT;
}

function widthOf(style: ElementStyle, side: EdgeSide): number {
  return Number.parseFloat(style.resolved(side.width)) || 0;
}

function text(style: ElementStyle, property: string): string {
  const value = style.computed(property);
  return value.kind === 'text' ? value.text : '';
}
