import type { CssNode } from 'css-tree';
import { groupsBetweenCommas } from './comma-groups.js';
import { formatNumber } from './compute-length.js';
import { angleInDegrees } from './units.js';

/** How the pieces of a gradient are written. */
export interface GradientWriter {
  /** Computed text of a node: lengths in px, colours resolved. */
  readonly write: (node: CssNode) => string;
  readonly isColor: (node: CssNode) => boolean;
  /** Whether a colour is of the notations that mix in sRGB by default: hex, names, `rgb()`, `hsl()`, `hwb()`. */
  readonly isLegacyColor: (node: CssNode) => boolean;
  /** Computed text of a position. */
  readonly position: (nodes: readonly CssNode[]) => string;
}

/**
 * Arguments of a gradient function as `getComputedStyle` of Chromium writes them: what is the default is left out, stops with
 * two positions are two stops, angles are in degrees.
 * Source: CSS Images 4 §3 and CSSOM's shortest form; the order of the parts is Chromium's.
 * @param name of the function, lower case.
 */
export function serializeGradient(name: string, children: readonly CssNode[], writer: GradientWriter): string {
  const groups = groupsBetweenCommas(children);
  if (name === '-webkit-gradient') return groups.map((group) => serializeOldPart(group, writer)).join(', ');
  const first = groups[0] ?? [];
  const hasPrelude = first.length > 0 && !first.some(writer.isColor);
  const isConic = name.endsWith('conic-gradient');
  if (name === '-webkit-radial-gradient' || name === '-webkit-repeating-radial-gradient')
    return [
      ...oldRadial(groups, writer),
      ...groups.filter((group) => group.some(writer.isColor)).flatMap((group) => serializeStop(group, false, writer)),
    ].join(', ');
  const stops = (hasPrelude ? groups.slice(1) : groups).flatMap((group) => serializeStop(group, isConic, writer));
  const prelude = preludeOf(
    name,
    hasPrelude ? first : [],
    groups.flat().every((node) => !writer.isColor(node) || writer.isLegacyColor(node)),
    writer,
  );
  return [...(prelude === '' ? [] : [prelude]), ...stops].join(', ');
}

/** One stop or hint; a stop of two positions is written as two. */
function serializeStop(group: readonly CssNode[], isConic: boolean, writer: GradientWriter): string[] {
  const color = group.find(writer.isColor);
  const positions = group
    .filter((node) => node !== color)
    .map((node) => (isConic ? angleOf(node, writer) : writer.write(node)))
    .map((text) => (text === '0' ? '0px' : text));
  if (!color) return positions;
  const text = writer.write(color);
  return positions.length === 0 ? [text] : positions.map((position) => `${text} ${position}`);
}

/** An angle in degrees; a percentage stays. */
function angleOf(node: CssNode, writer: GradientWriter): string {
  if (node.type === 'Number' && Number(node.value) === 0) return '0deg';
  const degrees = node.type === 'Dimension' ? angleInDegrees(Number(node.value), node.unit.toLowerCase()) : null;
  return degrees === null ? writer.write(node) : `${formatNumber(degrees)}deg`;
}

function preludeOf(name: string, nodes: readonly CssNode[], isLegacy: boolean, writer: GradientWriter): string {
  if (name.startsWith('-webkit-')) return oldPrelude(name, nodes, writer);
  const at = (word: string): number =>
    nodes.findIndex((node) => node.type === 'Identifier' && node.name.toLowerCase() === word);
  const inAt = at('in');
  const space = inAt === -1 ? [] : nodes.slice(inAt + 1, inAt + 1 + spaceLength(nodes, inAt));
  const rest = inAt === -1 ? nodes : [...nodes.slice(0, inAt), ...nodes.slice(inAt + 1 + space.length)];
  const mixing = space
    .map((node) => (node.type === 'Identifier' ? node.name.toLowerCase() : ''))
    .filter((word, _, all) => !(all.includes('shorter') && (word === 'shorter' || word === 'hue')))
    .join(' ');
  const isDefaultMixing = mixing === '' || mixing === (isLegacy ? 'srgb' : 'oklab');
  const shape = shapeOf(name, rest, writer);
  return [shape, isDefaultMixing ? '' : `in ${mixing}`].filter((part) => part !== '').join(' ');
}

function shapeOf(name: string, nodes: readonly CssNode[], writer: GradientWriter): string {
  if (name.endsWith('linear-gradient')) return directionOf(nodes, writer);
  return name.endsWith('radial-gradient') ? radialShape(nodes, writer) : conicStart(nodes, writer);
}

/** Nodes of a colour space with its hue method. */
function spaceLength(nodes: readonly CssNode[], inAt: number): number {
  const method = nodes[inAt + 2];
  return method?.type === 'Identifier' && /^(shorter|longer|increasing|decreasing)$/i.test(method.name) ? 3 : 1;
}

function directionOf(nodes: readonly CssNode[], writer: GradientWriter): string {
  const words = nodes.flatMap((node) => (node.type === 'Identifier' ? [node.name.toLowerCase()] : []));
  if (words[0] === 'to') {
    const sides = words
      .slice(1)
      .sort((a, b) => Number(a === 'top' || a === 'bottom') - Number(b === 'top' || b === 'bottom'));
    return sides.join(' ') === 'bottom' ? '' : `to ${sides.join(' ')}`;
  }
  if (nodes.length === 0) return '';
  const angle = angleOf(nodes[0], writer);
  return angle === '180deg' ? '' : angle;
}

function radialShape(nodes: readonly CssNode[], writer: GradientWriter): string {
  const [before, position] = splitAtPosition(nodes, writer);
  const words = before.flatMap((node) => (node.type === 'Identifier' ? [node.name.toLowerCase()] : []));
  const lengths = before.filter((node) => node.type !== 'Identifier').map(writer.write);
  const extent = words.find((word) => /-(side|corner)$/.test(word)) ?? '';
  // An ellipse is what two lengths or none make, a circle what one makes.
  const shape = words.includes('circle') && lengths.length === 0 ? 'circle' : '';
  return [shape, extent === 'farthest-corner' ? '' : extent, ...lengths, position]
    .filter((part) => part !== '')
    .join(' ');
}

function conicStart(nodes: readonly CssNode[], writer: GradientWriter): string {
  const [before, position] = splitAtPosition(nodes, writer);
  const angle = before.find((node) => node.type !== 'Identifier');
  const from = angle ? angleOf(angle, writer) : '0deg';
  return [from === '0deg' ? '' : `from ${from}`, position].filter((part) => part !== '').join(' ');
}

/** What stands before `at`, and the position after it as it is written; the centre is left out. */
function splitAtPosition(
  nodes: readonly CssNode[],
  writer: GradientWriter,
): readonly [before: readonly CssNode[], position: string] {
  const at = nodes.findIndex((node) => node.type === 'Identifier' && node.name.toLowerCase() === 'at');
  if (at === -1) return [nodes, ''];
  const position = writer.position(nodes.slice(at + 1));
  return [nodes.slice(0, at), position === '50% 50%' ? '' : `at ${position}`];
}

/** Vendor gradients keep their own way of writing. Source: Compatibility Standard §4.3. */
function oldPrelude(name: string, nodes: readonly CssNode[], writer: GradientWriter): string {
  if (name.endsWith('linear-gradient') && nodes.length === 0) return 'top';
  return nodes.map((node) => (node.type === 'Dimension' ? angleOf(node, writer) : writer.write(node))).join(' ');
}

/** Position, then shape and size, both always written. */
function oldRadial(groups: readonly (readonly CssNode[])[], writer: GradientWriter): string[] {
  const preludes = groups
    .slice(
      0,
      groups.findIndex((group) => group.some(writer.isColor)),
    )
    .map((group) => group.map((node) => (node.type === 'Identifier' ? node.name.toLowerCase() : writer.write(node))));
  const isShape = (words: readonly string[]): boolean =>
    words.some((word) => /^(circle|ellipse|cover|contain|(closest|farthest)-(side|corner))$/.test(word));
  const position = preludes.find((words) => !isShape(words))?.join(' ') ?? 'center';
  const words = preludes.find(isShape) ?? [];
  const extent = words.find((word) => word !== 'circle' && word !== 'ellipse') ?? 'cover';
  return [position, `${words.includes('circle') ? 'circle' : 'ellipse'} ${extent}`];
}

function serializeOldPart(group: readonly CssNode[], writer: GradientWriter): string {
  const [first] = group;
  if (group.length === 1 && first.type === 'Function') {
    const parts = groupsBetweenCommas(first.children.toArray()).map((part) => part.map(writer.write).join(' '));
    return `${first.name.toLowerCase()}(${parts.join(', ')})`;
  }
  return group.length === 2 ? writer.position(group) : group.map(writer.write).join(' ');
}
