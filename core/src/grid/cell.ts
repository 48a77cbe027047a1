import { message, type Message } from '../message/message.js';
import type { ElementNode } from '../dom/tree.js';
import { hexOf } from '../color/read-notation.js';
import { EDGE_SIDES } from '../properties/edges.js';
import { longhandsOfProperty } from '../properties/grouped.js';
import { drawnEdges, isDrawn } from '../resolve/drawn-edges.js';
import type { ElementStyle } from '../resolve/element-style.js';
import { VENEER_SHEET_NAME } from '../resolve/page.js';
import { showsText } from '../resolve/text-figures.js';
import { colorsInImages } from '../values/serialize-paint.js';
import type { Color } from '../values/color.js';
import type { OverrideState } from '../veneer/override.js';
import { colorOfCss } from '../veneer/palette.js';
import { GRID_ROWS, ROW_PROPERTIES, isScrollbarRow, type GridRowName } from './rows.js';
import { CLOSED_TO_VISITED, isOpenToVisited } from './visited.js';

const SVG_SHAPES = new Set([
  'svg',
  'g',
  'path',
  'circle',
  'rect',
  'ellipse',
  'line',
  'polyline',
  'polygon',
  'text',
  'tspan',
  'use',
]);
const TYPED_INTO = new Set(['input', 'textarea']);
const NATIVE_ACCENTS = new Set(['checkbox', 'radio', 'range']);

/** What one state paints, or says, in one row. */
export interface GridCell {
  readonly state: OverrideState;
  /** Longhands the cell stands for. */
  readonly longhands: readonly string[];
  /** As `getComputedStyle` gives it; `null` where nothing paints. */
  readonly css: string | null;
  /** Colours to show, the most telling first; empty for a measure. */
  readonly colors: readonly string[];
  readonly hex: string | null;
  /** Whether the state declares a value of its own; at rest, whether anything does. */
  readonly isOwn: boolean;
  /** Whether an override of ours decides it. */
  readonly isOverride: boolean;
  /** Whether a gradient or picture lies over the colour. */
  readonly isCovered: boolean;
  /** Why it cannot be changed; empty where it can. */
  readonly closed: Message | '';
}

/** Rows that say something of an element or pseudo-element; the first three always do. */
export function rowsFor(element: ElementNode, pseudo: string, styles: readonly ElementStyle[]): GridRowName[] {
  if (pseudo === 'selection') return ['text', 'fill', 'text-shadow'];
  if (pseudo.startsWith('-webkit-scrollbar')) return ['fill', 'radius'];
  const any = (test: (style: ElementStyle) => boolean): boolean => styles.some(test);
  const type = (element.attributes.get('type') ?? '').toLowerCase();
  const applies: Readonly<Record<GridRowName, () => boolean>> = {
    text: () => true,
    fill: () => true,
    image: () => true,
    edge: () => true,
    radius: () => true,
    underline: () =>
      any((style) => showsText(style)) || any((style) => style.resolved('text-decoration-line') !== 'none'),
    ring: () => pseudo === '',
    shadow: () => true,
    'text-shadow': () => any((style) => showsText(style)),
    icon: () => element.namespace === 'svg' && SVG_SHAPES.has(element.localName),
    caret: () => TYPED_INTO.has(element.localName) && !NATIVE_ACCENTS.has(type) && pseudo === '',
    accent: () => element.localName === 'progress' || (element.localName === 'input' && NATIVE_ACCENTS.has(type)),
    opacity: () => true,
    type: () => any((style) => showsText(style)) || element.children.length > 0,
    box: () => true,
    shown: () => pseudo === '',
    thumb: () => scrolls(),
    'thumb-over': () => scrolls(),
    track: () => scrolls(),
    bar: () => scrolls(),
    scrollbar: () => scrolls(),
  };
  const scrolls = (): boolean =>
    pseudo === '' &&
    (element.localName === 'html' ||
      any((style) => /auto|scroll/.test(`${style.resolved('overflow-x')} ${style.resolved('overflow-y')}`)) ||
      element.localName === 'textarea');
  return GRID_ROWS.filter((row) => applies[row]());
}

/** Longhands of a row: for the edge, the sides that show, or all when none does. */
export function longhandsOfRow(row: GridRowName, style: ElementStyle): string[] {
  if (row === 'edge') {
    const shown = drawnEdges(style);
    return (shown.length > 0 ? shown : EDGE_SIDES).map(({ color }) => color);
  }
  if (row === 'scrollbar') return ['scrollbar-color'];
  if (row === 'bar') return ['width'];
  if (row === 'icon') return [style.resolved('fill') === 'none' ? 'stroke' : 'fill'];
  return [...longhandsOfProperty(ROW_PROPERTIES[row][0].property)];
}

/** What a state of a target shows in a row. */
export function cellOf(row: GridRowName, state: OverrideState, style: ElementStyle, restStyle: ElementStyle): GridCell {
  const longhands = longhandsOfRow(row, style);
  const [first] = longhands;
  const css = paintedCss(row, style, first);
  const color = style.color(first);
  const isCovered = row === 'fill' && textOf(style, 'background-image') !== 'none';
  const winner = winnerOf(style, first);
  const restWinner = winnerOf(restStyle, first);
  const colors = css === null ? [] : color && (color.alpha ?? 0) > 0 ? [hexOf(color)] : colorsIn(row, style);
  return {
    state,
    longhands,
    css: css ?? (isCovered ? style.resolved(first) : null),
    colors,
    hex: colors[0] ?? null,
    isOwn:
      state === 'rest' ? winner !== null : winner !== restWinner || style.resolved(first) !== restStyle.resolved(first),
    isOverride:
      winner !== null && winner.sheet.name === VENEER_SHEET_NAME && (state === 'rest' || winner !== restWinner),
    isCovered,
    closed:
      isScrollbarRow(row) && state !== 'rest'
        ? message('grid.one-scrollbar')
        : state === 'visited' && !isOpenToVisited(ROW_PROPERTIES[row][0].property)
          ? CLOSED_TO_VISITED
          : '',
  };
}

/** What shows of a row, as text; `null` where nothing does. */
function paintedCss(row: GridRowName, style: ElementStyle, longhand: string): string | null {
  const value = style.resolved(longhand);
  const color = style.color(longhand);
  const isSeen = color !== null && (color.alpha ?? 0) > 0;
  switch (row) {
    case 'text':
    case 'fill':
      return isSeen ? value : null;
    case 'edge':
      return isSeen && EDGE_SIDES.some((edge) => isDrawn(style, edge)) ? value : null;
    case 'image':
      return value === 'none' ? null : value;
    case 'radius':
      return /^0px(?: 0px)?$/.test(value) ? null : value;
    case 'underline':
      return style.resolved('text-decoration-line') === 'none' ? null : value;
    case 'ring':
      return style.resolved('outline-style') === 'none' || style.resolved('outline-width') === '0px' ? null : value;
    case 'shadow':
    case 'text-shadow':
      return value === 'none' ? null : value;
    case 'icon':
      return isSeen ? value : null;
    case 'opacity':
      return value === '1' ? null : value;
    case 'thumb':
    case 'thumb-over':
    case 'track':
      return isSeen ? value : null;
    case 'bar':
      return value === 'auto' ? null : value;
    case 'scrollbar':
      return value === 'auto' ? null : value;
    default:
      return value;
  }
}

function colorsIn(row: GridRowName, style: ElementStyle): string[] {
  const context = {
    scheme: style.colorScheme(),
    currentColor: style.currentColor(),
    lengths: { em: () => style.fontSize(), rem: () => 16, viewport: style.environment },
  };
  if (row === 'image') return colorsInImages(textOf(style, 'background-image'), context).map(hexOf).slice(0, 6);
  if (row === 'shadow' || row === 'text-shadow') {
    return (
      style
        .resolved(row === 'shadow' ? 'box-shadow' : 'text-shadow')
        .match(/(?:rgba?|color|oklch|oklab|lab|lch)\([^)]*\)/g)
        ?.map((text) => colorOfCss(text))
        .filter((found): found is Color => found !== null)
        .map(hexOf)
        .slice(0, 4) ?? []
    );
  }
  if (row === 'scrollbar')
    return (
      style
        .resolved('scrollbar-color')
        .match(/rgba?\([^)]*\)/g)
        ?.map((text) => colorOfCss(text))
        .filter((found): found is Color => found !== null)
        .map(hexOf) ?? []
    );
  return [];
}

/** Rule or browser default that decides a longhand, told apart by visited links too. */
export function winnerOf(style: ElementStyle, property: string): { readonly sheet: { readonly name: string } } | null {
  return style.seen(property).ranked(property)[0]?.block.rule ?? null;
}

function textOf(style: ElementStyle, property: string): string {
  const value = style.computed(property);
  return value.kind === 'text' && value.text !== '' ? value.text : 'none';
}
