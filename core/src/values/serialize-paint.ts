import { generate, type CssNode } from 'css-tree';
import type { Color } from './color.js';
import { resolveColorValue } from './compute-color.js';
import { computeLengths, formatNumber, type LengthContext } from './compute-length.js';
import { serializeGradient, type GradientWriter } from './serialize-gradient.js';
import { isColorFunction, parseColorNode } from './parse-color.js';
import { serializeColor } from './serialize-color.js';
import { valueNodes } from './value-nodes.js';

/** What colours and lengths inside an image or a shadow hang on. */
export interface PaintContext {
  readonly scheme: 'light' | 'dark';
  readonly currentColor: Color;
  readonly lengths: LengthContext;
}

/** Images with their colours and lengths computed. Source: CSS Images 4 §3. */
export function serializeImages(text: string, context: PaintContext): string {
  if (text === 'none') return text;
  return serializeNodes(valueNodes(text), context);
}

/**
 * Shadows as `getComputedStyle` writes them: colour, lengths, `inset`.
 * Source: CSS Backgrounds 3 §7.1, CSS Text Decoration 4 §4.
 */
export function serializeShadows(text: string, context: PaintContext, kind: 'box' | 'text'): string {
  if (text === 'none') return text;
  return readShadows(text, context, kind)
    .map(({ color, lengths, inset }) => [serializeColor(color), ...lengths, ...(inset ? ['inset'] : [])].join(' '))
    .join(', ');
}

/** One shadow; lengths are texts in px: offsets, blur and, for boxes, spread. */
export interface Shadow {
  readonly color: Color;
  readonly lengths: readonly string[];
  readonly inset: boolean;
}

/** The shadows of a `box-shadow` or `text-shadow`. */
export function readShadows(text: string, context: PaintContext, kind: 'box' | 'text'): Shadow[] {
  if (text === 'none') return [];
  const groups: CssNode[][] = [[]];
  for (const node of valueNodes(text)) {
    if (node.type === 'Operator' && node.value === ',') groups.push([]);
    else groups[groups.length - 1].push(node);
  }
  return groups.map((group) => {
    let color: Color = context.currentColor;
    let inset = false;
    const lengths: string[] = [];
    for (const node of group) {
      if (node.type === 'Identifier' && node.name.toLowerCase() === 'inset') inset = true;
      else if (isColorNode(node)) color = colorOf(node, context) ?? color;
      else lengths.push(computeLengths(generate(node), context.lengths));
    }
    while (lengths.length < (kind === 'box' ? 4 : 3)) lengths.push('0px');
    return { color, lengths: lengths.map((length) => (length === '0' ? '0px' : length)), inset };
  });
}

/** The colour stops and other colours inside an image, in order. */
export function colorsInImages(text: string, context: PaintContext): Color[] {
  const found: Color[] = [];
  const visit = (nodes: readonly CssNode[]): void => {
    for (const node of nodes) {
      const color = isColorNode(node) ? colorOf(node, context) : null;
      if (color) found.push(color);
      else if (node.type === 'Function') visit(node.children.toArray());
    }
  };
  if (text !== 'none') visit(valueNodes(text));
  return found;
}

function isColorNode(node: CssNode): boolean {
  return (
    node.type === 'Hash' ||
    (node.type === 'Function'
      ? isColorFunction(node.name)
      : node.type === 'Identifier' && parseColorNode(node) !== null)
  );
}

function colorOf(node: CssNode, context: PaintContext): Color | null {
  const value = parseColorNode(node);
  return value ? resolveColorValue(value, context) : null;
}

/** Keywords of a position as the percentages they compute to. Source: CSS Values 4 §9.1. */
const POSITION_KEYWORDS: ReadonlyMap<string, string> = new Map([
  ['left', '0%'],
  ['top', '0%'],
  ['center', '50%'],
  ['right', '100%'],
  ['bottom', '100%'],
]);

/** One or two values, horizontal first; three and four are offsets from sides. */
function serializePosition(nodes: readonly CssNode[], context: PaintContext): string {
  const words = nodes
    .filter((node) => node.type !== 'WhiteSpace')
    .map((node) => serializeNode(node, context).toLowerCase());
  if (words.length > 2) return serializeOffsets(words);
  const isVertical = (word: string | undefined): boolean => word === 'top' || word === 'bottom';
  const [first = 'center', second = 'center'] = words;
  const ordered = isVertical(first) || second === 'left' || second === 'right' ? [second, first] : [first, second];
  return ordered.map((word) => POSITION_KEYWORDS.get(word) ?? word).join(' ');
}

/** `right 10px top 20px` as distances from the left and the top. Source: CSS Values 4 §9.1. */
function serializeOffsets(words: readonly string[]): string {
  const axis: Record<'x' | 'y', string> = { x: '50%', y: '50%' };
  for (let i = 0; i < words.length; i += 1) {
    const side = words[i];
    const offset = POSITION_KEYWORDS.has(words[i + 1] ?? 'left') ? '0px' : words[++i];
    if (side === 'left' || side === 'top') axis[side === 'left' ? 'x' : 'y'] = offset;
    else if (side === 'right' || side === 'bottom')
      axis[side === 'right' ? 'x' : 'y'] = /^0(px|%)?$/.test(offset)
        ? '100%'
        : offset.endsWith('%')
          ? `${formatNumber(100 - Number.parseFloat(offset))}%`
          : `calc(100% - ${offset})`;
  }
  return `${axis.x} ${axis.y}`;
}

function serializeNodes(nodes: readonly CssNode[], context: PaintContext): string {
  let text = '';
  for (let i = 0; i < nodes.length; i += 1) {
    const node = nodes[i];
    if (node.type === 'Identifier' && node.name.toLowerCase() === 'at') {
      const end = nodes.findIndex(
        (other, at) =>
          at > i && (other.type === 'Operator' || (other.type === 'Identifier' && other.name.toLowerCase() === 'in')),
      );
      const position = nodes.slice(i + 1, end === -1 ? undefined : end);
      text += `at ${serializePosition(position, context)} `;
      i += position.length;
      continue;
    }
    if (node.type === 'Operator') {
      text = node.value === ',' ? `${text.trimEnd()}, ` : `${text.trimEnd()} ${node.value} `;
      continue;
    }
    if (node.type === 'WhiteSpace') continue;
    text += `${serializeNode(node, context)} `;
  }
  return text.trim();
}

function serializeNode(node: CssNode, context: PaintContext): string {
  if (isColorNode(node)) {
    const color = colorOf(node, context);
    if (color) return serializeColor(color);
  }
  if (node.type === 'Url') return `url("${node.value.replace(/["\\]/g, '\\$&')}")`;
  if (node.type === 'Function' && /gradient$/i.test(node.name))
    return `${node.name.toLowerCase()}(${serializeGradient(node.name.toLowerCase(), node.children.toArray(), gradientWriter(context))})`;
  if (node.type === 'Function' && /image-set$/i.test(node.name))
    return `${node.name.toLowerCase()}(${serializeChoices(node.children.toArray(), context)})`;
  if (node.type === 'Function' && /^cross-fade$/i.test(node.name))
    return `${node.name.toLowerCase()}(${serializeNodes(node.children.toArray(), context)})`;
  return computeLengths(generate(node), context.lengths);
}

function gradientWriter(context: PaintContext): GradientWriter {
  return {
    write: (node) => serializeNode(node, context),
    isColor: isColorNode,
    position: (nodes) => serializePosition(nodes, context),
    isLegacyColor: (node) =>
      node.type === 'Hash' ||
      node.type === 'Identifier' ||
      (node.type === 'Function' && /^(?:rgba?|hsla?|hwb)$/i.test(node.name)),
  };
}

/** The pictures of an `image-set()`, each with its resolution in dppx. Source: CSS Images 4 §2.5. */
function serializeChoices(nodes: readonly CssNode[], context: PaintContext): string {
  return serializeNodes(
    nodes.map((node): CssNode =>
      node.type === 'String'
        ? { type: 'Url', value: node.value }
        : node.type === 'Dimension' && node.unit.toLowerCase() === 'x'
          ? { ...node, unit: 'dppx' }
          : node,
    ),
    context,
  );
}
