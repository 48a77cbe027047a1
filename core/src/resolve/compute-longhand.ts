import type { Longhand } from '../properties/longhands.js';
import { computeColorValue, resolveColorValue } from '../values/compute-color.js';
import { parseColor } from '../values/parse-color.js';
import { clampLength, computeLengths, formatNumber } from '../values/compute-length.js';
import { serializeImages, serializeShadows, type PaintContext } from '../values/serialize-paint.js';
import { GREATEST, evaluateMath } from '../values/math.js';
import { BLACK, type Color, type ColorValue } from '../values/color.js';
import { textValue, type ComputedValue } from './computed-value.js';
import { computeFontSize } from './font-size.js';
import type { StyleSource } from './style-source.js';
import { adjustNativeDisplay, isBlockByKind } from './native-controls.js';

const LINE_WIDTHS: ReadonlyMap<string, number> = new Map([
  ['thin', 1],
  ['medium', 3],
  ['thick', 5],
]);

/**
 * Computed value of a longhand from its specified value.
 * @returns `null` when the text does not fit the longhand.
 */
export function computeLonghand(
  property: string,
  longhand: Longhand,
  text: string,
  style: StyleSource,
): ComputedValue | null {
  switch (longhand.kind) {
    case 'color':
      return computeColor(property, text, style);
    case 'number':
      return computeNumber(property, text);
    case 'keyword':
      return textValue(property === 'display' ? computeDisplay(text.toLowerCase(), style) : text.toLowerCase());
    case 'font-size':
      return computeFontSize(text, style);
    case 'font-weight':
      return computeFontWeight(text.toLowerCase(), style);
    case 'line-height':
      return computeLineHeight(text, style);
    case 'line-width':
      return computeLineWidth(property, text, style);
    case 'length':
      return textValue(
        clampLength(
          computeLengths(text.toLowerCase(), lengthContext(style)),
          TAKES_NEGATIVE.test(property) ? undefined : 0,
        ),
      );
    case 'radius':
      return textValue(
        computeLengths(text.toLowerCase(), lengthContext(style))
          .split(' ')
          .map((radius) => clampLength(radius, 0))
          .join(' '),
      );
    case 'image':
      return textValue(text.toLowerCase() === 'none' ? 'none' : text);
    case 'shadow':
      return textValue(text.toLowerCase() === 'none' ? 'none' : text);
    case 'text':
      return textValue(property === 'font-family' ? serializeFamilies(text) : text);
  }
}

/** Lengths that may be negative. */
const TAKES_NEGATIVE =
  /^(?:margin|letter-spacing|word-spacing|text-indent|outline-offset|text-underline-offset|top|right|bottom|left|inset|background-position|stroke-dashoffset)/;

/** The resolved text of a computed value: what hangs on the current colour or on the font size is settled (CSSOM §9). */
export function finishLonghand(property: string, value: ComputedValue, style: StyleSource): string {
  if (value.kind === 'color') return '';
  const { text } = value;
  switch (property) {
    case 'line-height':
      return Number.isFinite(Number(text))
        ? `${formatNumber(Math.min(GREATEST, Number(text) * style.fontSize()))}px`
        : text;
    case 'background-image':
    case 'mask-image':
    case 'border-image-source':
    case 'list-style-image':
      return text === 'none' ? text : serializeImages(text, paintContext(style));
    case 'box-shadow':
      return text === 'none' ? text : serializeShadows(text, paintContext(style), 'box');
    case 'text-shadow':
      return text === 'none' ? text : serializeShadows(text, paintContext(style), 'text');
    case 'letter-spacing':
      return text === '0px' ? 'normal' : text;
    default:
      return text;
  }
}

function paintContext(style: StyleSource): PaintContext {
  return {
    scheme: style.colorScheme(),
    currentColor: style.color('color') ?? style.currentColor(),
    lengths: lengthContext(style),
  };
}

/** What relative lengths of a style refer to. */
export function lengthContext(style: StyleSource): Parameters<typeof computeLengths>[1] {
  return {
    em: () => style.fontSize(),
    rem: () => style.root?.fontSize() ?? style.fontSize(),
    viewport: style.environment,
  };
}

function computeColor(property: string, text: string, style: StyleSource): ComputedValue | null {
  const word = text.toLowerCase();
  if (word === 'auto' && (property === 'caret-color' || property === 'accent-color' || property === 'outline-color'))
    return { kind: 'color', value: { kind: 'keyword', name: 'auto' } };
  if (property === 'fill' || property === 'stroke') {
    if (word === 'none') return { kind: 'color', value: { kind: 'keyword', name: 'none' } };
    if (/^url\(/i.test(text) || word === 'context-fill' || word === 'context-stroke') return textValue(text);
  }
  const value = parseColor(text);
  if (!value) return null;
  if (property === 'color') {
    if (value.kind === 'currentcolor' && style.parent) return style.parent.computed('color');
    if (value.kind !== 'color')
      return { kind: 'color', value: { kind: 'color', color: resolveAgainstParent(value, style) } };
  }
  return { kind: 'color', value: computeColorValue(value, style.colorScheme()) };
}

function computeNumber(property: string, text: string): ComputedValue | null {
  const simple = evaluateMath(text);
  const number = simple.endsWith('%') ? Number(simple.slice(0, -1)) / 100 : Number(simple);
  if (!Number.isFinite(number)) return null;
  return textValue(formatNumber(property.endsWith('opacity') ? Math.min(1, Math.max(0, number)) : number));
}

function computeFontWeight(text: string, style: StyleSource): ComputedValue | null {
  const parent = style.parent?.computed('font-weight');
  const inherited = parent?.kind === 'text' ? Number(parent.text) : 400;
  // CSS Fonts 4 §2.2.1, table of relative weights.
  if (text === 'bolder')
    return textValue(String(inherited < 350 ? 400 : inherited < 550 ? 700 : inherited < 900 ? 900 : inherited));
  if (text === 'lighter')
    return textValue(String(inherited < 100 ? inherited : inherited < 550 ? 100 : inherited < 750 ? 400 : 700));
  if (text === 'normal') return textValue('400');
  if (text === 'bold') return textValue('700');
  const number = Number(evaluateMath(text));
  return Number.isFinite(number) ? textValue(formatNumber(Math.min(1000, Math.max(1, number)))) : null;
}

function computeLineHeight(text: string, style: StyleSource): ComputedValue {
  const word = evaluateMath(text.toLowerCase());
  if (word === 'normal' || (word !== '' && Number.isFinite(Number(word)))) return textValue(word);
  if (/^[\d.]+%$/.test(word)) return textValue(`${formatNumber((Number.parseFloat(word) / 100) * style.fontSize())}px`);
  return textValue(clampLength(computeLengths(word, lengthContext(style)), 0));
}

/** Backgrounds 3 §4.3: no width without a style; CSS Values 4 "snap a length as a border width" for the rest. */
function computeLineWidth(property: string, text: string, style: StyleSource): ComputedValue | null {
  if (property.startsWith('border-')) {
    const lineStyle = style.computed(property.replace(/-width$/, '-style'));
    if (lineStyle.kind === 'text' && (lineStyle.text === 'none' || lineStyle.text === 'hidden'))
      return textValue('0px');
  }
  const named = LINE_WIDTHS.get(text.toLowerCase());
  const length = named === undefined ? computeLengths(text.toLowerCase(), lengthContext(style)) : `${named}px`;
  const px = /^([\d.]+(?:e[+-]?\d+)?)px$/.exec(clampLength(length, 0));
  if (!px) return textValue(length);
  const width = Number(px[1]);
  if (property === '-webkit-text-stroke-width') return textValue(`${formatNumber(width)}px`);
  return textValue(`${formatNumber(width > 0 && width < 1 ? 1 : Math.floor(width))}px`);
}

const BLOCKIFIED: ReadonlyMap<string, string> = new Map([
  ['inline', 'block'],
  ['inline-block', 'block'],
  ['inline-flex', 'flex'],
  ['inline-grid', 'grid'],
  ['inline-table', 'table'],
  ['-webkit-inline-box', '-webkit-box'],
  ['table-row', 'block'],
  ['table-row-group', 'block'],
  ['table-header-group', 'block'],
  ['table-footer-group', 'block'],
  ['table-cell', 'block'],
  ['table-column', 'block'],
  ['table-column-group', 'block'],
  ['table-caption', 'block'],
  ['ruby', 'block ruby'],
  ['ruby-text', 'block'],
  ['inline flow-root', 'block'],
]);
const DISPLAY_ALIASES: ReadonlyMap<string, string> = new Map([
  ['block flow', 'block'],
  ['inline flow', 'inline'],
  ['flow', 'block'],
  ['block flow-root', 'flow-root'],
  ['inline flow-root', 'inline-block'],
  ['block flex', 'flex'],
  ['inline flex', 'inline-flex'],
  ['block grid', 'grid'],
  ['inline grid', 'inline-grid'],
  ['block table', 'table'],
  ['inline table', 'inline-table'],
  ['-webkit-flex', 'flex'],
  ['-webkit-inline-flex', 'inline-flex'],
]);

/** CSS Display 3 §2.7: floats, absolutely positioned boxes, flex and grid items and the root are blocks. */
function computeDisplay(text: string, style: StyleSource): string {
  if (style.pseudo === 'marker') {
    const position = style.parent?.computed('list-style-position');
    return position?.kind === 'text' && position.text === 'inside' ? 'inline' : 'inline-block';
  }
  // These are not boxes of their own in the parent's layout.
  if (style.pseudo === 'first-letter') return text;
  if (style.pseudo === 'selection') return 'inline';
  const display = adjustNativeDisplay(DISPLAY_ALIASES.get(text) ?? text, style);
  if (display === 'none' || display === 'contents')
    return display === 'contents' && style.parent === null ? 'block' : display;
  const position = style.computed('position');
  const float = style.computed('float');
  let container = style.parent;
  while (container && isText(container.computed('display'), 'contents')) container = container.parent;
  const parentDisplay = container?.computed('display');
  const inFlexOrGrid = parentDisplay?.kind === 'text' && /(?:^|-)(?:flex|grid|box)$/.test(parentDisplay.text);
  const isBlock =
    style.parent === null ||
    isText(position, 'absolute') ||
    isText(position, 'fixed') ||
    (float.kind === 'text' && float.text !== 'none') ||
    inFlexOrGrid;
  return isBlock || isBlockByKind(style) ? (BLOCKIFIED.get(display) ?? display) : display;
}

function isText(value: ComputedValue, text: string): boolean {
  return value.kind === 'text' && value.text === text;
}

const GENERIC_FAMILIES = new Set([
  'serif',
  'sans-serif',
  'monospace',
  'cursive',
  'fantasy',
  'system-ui',
  'math',
  'ui-serif',
  'ui-sans-serif',
  'ui-monospace',
  'ui-rounded',
  '-webkit-body',
]);

/** Families as CSSOM serialises them: bare identifiers where they are one, else quoted. */
function serializeFamilies(text: string): string {
  return (text.match(/(?:"[^"]*"|'[^']*'|[^,"'])+/g) ?? [])
    .map((part) => {
      const family = part.trim();
      const quoted = /^(["'])(.*)\1$/s.exec(family);
      const name = quoted ? quoted[2] : family.replace(/\s+/g, ' ');
      if (!quoted && GENERIC_FAMILIES.has(name.toLowerCase())) return name.toLowerCase();
      return /^-?[a-zA-Z_][\w-]*$/.test(name) && !(quoted && GENERIC_FAMILIES.has(name.toLowerCase()))
        ? name
        : `"${name}"`;
    })
    .join(', ');
}

/** On `color` itself, `currentcolor` anywhere is the inherited colour (CSS Color 4 §9.2). */
function resolveAgainstParent(value: ColorValue, style: StyleSource): Color {
  return (
    resolveColorValue(value, { scheme: style.colorScheme(), currentColor: style.parent?.currentColor() ?? BLACK }) ??
    BLACK
  );
}
