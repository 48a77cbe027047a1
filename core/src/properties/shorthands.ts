import { generate, type CssNode } from 'css-tree';
import { parseColorNode } from '../values/parse-color.js';
import { LONGHANDS } from './longhands.js';
import { valueNodes } from '../values/value-nodes.js';

/** Longhand values that a shorthand's value sets, in its order; `null` when the parts do not fit. */
export type ExpandShorthand = (value: string) => readonly (readonly [longhand: string, value: string])[] | null;

const SIDES = ['top', 'right', 'bottom', 'left'] as const;
const LINE_STYLES: ReadonlySet<string> = new Set([
  'none',
  'hidden',
  'dotted',
  'dashed',
  'solid',
  'double',
  'groove',
  'ridge',
  'inset',
  'outset',
]);
const LINE_WIDTHS: ReadonlySet<string> = new Set(['thin', 'medium', 'thick']);

/**
 * Shorthands and what they set; a longhand left out of the value goes back to its initial value.
 * Source: Backgrounds 3, UI 4, Text Decoration 4, Fonts 4, Lists 3, Multi-column 1, Box 4, Logical 1.
 */
export const SHORTHANDS: ReadonlyMap<
  string,
  { readonly longhands: readonly string[]; readonly expand: ExpandShorthand }
> = new Map([
  ...boxShorthand(
    'padding',
    SIDES.map((side) => `padding-${side}`),
  ),
  ...boxShorthand(
    'margin',
    SIDES.map((side) => `margin-${side}`),
  ),
  ...boxShorthand('inset', [...SIDES]),
  ...boxShorthand(
    'border-color',
    SIDES.map((side) => `border-${side}-color`),
  ),
  ...boxShorthand(
    'border-style',
    SIDES.map((side) => `border-${side}-style`),
  ),
  ...boxShorthand(
    'border-width',
    SIDES.map((side) => `border-${side}-width`),
  ),
  ...(['color', 'style', 'width'] as const).flatMap((part) => [
    ...pairShorthand(`border-block-${part}`, [`border-top-${part}`, `border-bottom-${part}`]),
    ...pairShorthand(`border-inline-${part}`, [`border-left-${part}`, `border-right-${part}`]),
  ]),
  ...(['padding', 'margin'] as const).flatMap((box) => [
    ...pairShorthand(`${box}-block`, [`${box}-top`, `${box}-bottom`]),
    ...pairShorthand(`${box}-inline`, [`${box}-left`, `${box}-right`]),
  ]),
  ...pairShorthand('inset-block', ['top', 'bottom']),
  ...pairShorthand('inset-inline', ['left', 'right']),
  ...pairShorthand('overflow', ['overflow-x', 'overflow-y']),
  lineShorthand('border', SIDES, 'border', ['border-image-source']),
  ...SIDES.map((side) => lineShorthand(`border-${side}`, [side], 'border')),
  lineShorthand('border-block', ['top', 'bottom'], 'border'),
  lineShorthand('border-inline', ['left', 'right'], 'border'),
  lineShorthand('border-block-start', ['top'], 'border'),
  lineShorthand('border-block-end', ['bottom'], 'border'),
  lineShorthand('border-inline-start', ['left'], 'border'),
  lineShorthand('border-inline-end', ['right'], 'border'),
  lineShorthand('outline', [''], 'outline'),
  lineShorthand('column-rule', [''], 'column-rule'),
  entry(
    'background',
    [
      'background-color',
      'background-image',
      'background-position',
      'background-size',
      'background-repeat',
      'background-attachment',
      'background-origin',
      'background-clip',
    ],
    expandBackground,
  ),
  entry(
    'border-radius',
    ['border-top-left-radius', 'border-top-right-radius', 'border-bottom-right-radius', 'border-bottom-left-radius'],
    expandRadius,
  ),
  entry(
    'font',
    ['font-style', 'font-variant', 'font-weight', 'font-stretch', 'font-size', 'line-height', 'font-family'],
    expandFont,
  ),
  entry(
    'text-decoration',
    ['text-decoration-line', 'text-decoration-style', 'text-decoration-color', 'text-decoration-thickness'],
    expandTextDecoration,
  ),
  entry('list-style', ['list-style-position', 'list-style-image', 'list-style-type'], expandListStyle),
  entry('columns', ['column-width', 'column-count'], expandColumns),
  entry('text-emphasis', ['text-emphasis-style', 'text-emphasis-color'], (value) => {
    const parts = components(value);
    const color = parts.find((part) => parseColorNode(part));
    const rest = parts
      .filter((part) => part !== color)
      .map(text)
      .join(' ');
    return [
      ['text-emphasis-style', rest || 'none'],
      ['text-emphasis-color', color ? text(color) : 'currentcolor'],
    ];
  }),
  entry('-webkit-text-stroke', ['-webkit-text-stroke-width', '-webkit-text-stroke-color'], (value) => {
    const parts = components(value);
    const color = parts.find((part) => parseColorNode(part));
    const width = parts.find((part) => part !== color);
    return [
      ['-webkit-text-stroke-width', width ? text(width) : '0px'],
      ['-webkit-text-stroke-color', color ? text(color) : 'currentcolor'],
    ];
  }),
]);

/** Longhands that `all` resets. Source: CSS Cascading 5 §3.2. */
export const ALL_LONGHANDS: readonly string[] = [...LONGHANDS.keys()].filter((name) => name !== 'direction');

function entry(
  name: string,
  longhands: readonly string[],
  expand: ExpandShorthand,
): [string, { longhands: readonly string[]; expand: ExpandShorthand }] {
  return [name, { longhands, expand }];
}

function boxShorthand(
  name: string,
  longhands: readonly string[],
): [string, { longhands: readonly string[]; expand: ExpandShorthand }][] {
  return [
    entry(name, longhands, (value) => {
      const [top, right = top, bottom = top, left = right] = components(value).map(text);
      return top === undefined
        ? null
        : [
            [longhands[0], top],
            [longhands[1], right],
            [longhands[2], bottom],
            [longhands[3], left],
          ];
    }),
  ];
}

function pairShorthand(
  name: string,
  longhands: readonly [string, string],
): [string, { longhands: readonly string[]; expand: ExpandShorthand }][] {
  return [
    entry(name, longhands, (value) => {
      const [first, second = first] = components(value).map(text);
      return first === undefined
        ? null
        : [
            [longhands[0], first],
            [longhands[1], second],
          ];
    }),
  ];
}

function lineShorthand(
  name: string,
  sides: readonly string[],
  prefix: string,
  resets: readonly string[] = [],
): [string, { longhands: readonly string[]; expand: ExpandShorthand }] {
  const longhand = (side: string, part: string): string =>
    side === '' ? `${prefix}-${part}` : `${prefix}-${side}-${part}`;
  const longhands = [
    ...sides.flatMap((side) => ['width', 'style', 'color'].map((part) => longhand(side, part))),
    ...resets,
  ];
  return entry(name, longhands, (value) => {
    let width: string | null = null;
    let style: string | null = null;
    let color: string | null = null;
    for (const part of components(value)) {
      const written = text(part);
      const word = written.toLowerCase();
      if (style === null && (LINE_STYLES.has(word) || (prefix === 'outline' && word === 'auto'))) style = word;
      else if (color === null && (parseColorNode(part) || (prefix === 'outline' && word === 'auto'))) color = written;
      else if (
        width === null &&
        (LINE_WIDTHS.has(word) || part.type === 'Dimension' || part.type === 'Number' || part.type === 'Function')
      )
        width = written;
      else return null;
    }
    const initialColor = prefix === 'outline' ? 'auto' : 'currentcolor';
    return [
      ...sides.flatMap((side): [string, string][] => [
        [longhand(side, 'width'), width ?? 'medium'],
        [longhand(side, 'style'), style ?? 'none'],
        [longhand(side, 'color'), color ?? initialColor],
      ]),
      ...resets.map((reset): [string, string] => [reset, LONGHANDS.get(reset)?.initial ?? 'initial']),
    ];
  });
}

const REPEATS = new Set(['repeat', 'repeat-x', 'repeat-y', 'no-repeat', 'space', 'round']);
const ATTACHMENTS = new Set(['scroll', 'fixed', 'local']);
const BOXES = new Set(['border-box', 'padding-box', 'content-box', 'text', 'border-area']);

function expandBackground(value: string): [string, string][] | null {
  const layers = splitByComma(value);
  const lists = {
    image: [] as string[],
    position: [] as string[],
    size: [] as string[],
    repeat: [] as string[],
    attachment: [] as string[],
    origin: [] as string[],
    clip: [] as string[],
  };
  let color = 'transparent';
  for (const layer of layers) {
    let image: string | null = null;
    let layerColor: string | null = null;
    const position: string[] = [];
    const size: string[] = [];
    const repeat: string[] = [];
    const boxes: string[] = [];
    let attachment: string | null = null;
    let afterSlash = false;
    for (const part of layer) {
      const written = text(part);
      const word = written.toLowerCase();
      if (part.type === 'Operator') {
        if (part.value !== '/') return null;
        afterSlash = true;
        continue;
      }
      const isSize =
        afterSlash &&
        size.length < 2 &&
        !parseColorNode(part) &&
        (part.type === 'Dimension' ||
          part.type === 'Percentage' ||
          part.type === 'Number' ||
          ['auto', 'cover', 'contain'].includes(word) ||
          (part.type === 'Function' && !isImageFunction(part.name)));
      if (isSize) size.push(written);
      else if (REPEATS.has(word)) repeat.push(word);
      else if (ATTACHMENTS.has(word)) attachment = word;
      else if (BOXES.has(word)) boxes.push(word);
      else if (part.type === 'Url' || word === 'none' || (part.type === 'Function' && isImageFunction(part.name)))
        image = written;
      else if (parseColorNode(part)) layerColor = written;
      else position.push(written);
    }
    if (layerColor !== null) color = layerColor;
    lists.image.push(image ?? 'none');
    lists.position.push(position.join(' ') || '0% 0%');
    lists.size.push(size.join(' ') || 'auto');
    lists.repeat.push(repeat.join(' ') || 'repeat');
    lists.attachment.push(attachment ?? 'scroll');
    lists.origin.push(boxes[0] && boxes[0] !== 'text' ? boxes[0] : 'padding-box');
    lists.clip.push(boxes[1] ?? boxes[0] ?? 'border-box');
  }
  return [
    ['background-color', color],
    ...Object.entries(lists).map(([name, list]): [string, string] => [`background-${name}`, list.join(', ')]),
  ];
}

function isImageFunction(name: string): boolean {
  return /gradient$|^(?:-webkit-)?image-set$|^cross-fade$|^-webkit-cross-fade$|^element$|^paint$|^image$/i.test(name);
}

function expandRadius(value: string): [string, string][] | null {
  const corners = [
    'border-top-left-radius',
    'border-top-right-radius',
    'border-bottom-right-radius',
    'border-bottom-left-radius',
  ];
  const [horizontal, vertical] = splitBy(componentsWithOperators(value), '/').map((group) => group.map(text));
  const fill = ([a, b = a, c = a, d = b]: string[]): string[] => [a, b, c, d];
  if (horizontal.length === 0) return null;
  const across = fill(horizontal);
  const down = vertical ? fill(vertical) : across;
  return corners.map((corner, i) => [corner, across[i] === down[i] ? across[i] : `${across[i]} ${down[i]}`]);
}

const SYSTEM_FONTS = new Set(['caption', 'icon', 'menu', 'message-box', 'small-caption', 'status-bar']);

function isSlash(node: CssNode | undefined): boolean {
  return node?.type === 'Operator' && node.value === '/';
}

function expandFont(value: string): [string, string][] | null {
  if (SYSTEM_FONTS.has(value.trim().toLowerCase())) {
    return [
      ['font-style', 'normal'],
      ['font-variant', 'normal'],
      ['font-weight', '400'],
      ['font-stretch', 'normal'],
      ['font-size', '16px'],
      ['line-height', 'normal'],
      ['font-family', 'Arial'],
    ];
  }
  const parts = componentsWithOperators(value);
  let style = 'normal';
  let variant = 'normal';
  let weight = '400';
  let stretch = 'normal';
  let i = 0;
  for (; i < parts.length; i += 1) {
    const part = parts[i];
    const word = text(part).toLowerCase();
    if (word === 'normal') continue;
    if (word === 'italic' || word === 'oblique') {
      style = word;
      if (word === 'oblique' && parts[i + 1]?.type === 'Dimension' && (parts[i + 1] as { unit: string }).unit === 'deg')
        style += ` ${text(parts[(i += 1)])}`;
    } else if (word === 'small-caps') variant = word;
    // Weights run from 1 (CSS Fonts 4 §2.2.1); a bare zero is a size, as are numbers before a line height.
    else if (
      /^(?:bold|bolder|lighter)$/.test(word) ||
      (part.type === 'Number' && Number(part.value) >= 1 && !isSlash(parts[i + 1]))
    )
      weight = word;
    else if (/(?:condensed|expanded)$/.test(word)) stretch = word;
    else break;
  }
  const size = parts[i];
  if (!size) return null;
  let lineHeight = 'normal';
  let next = i + 1;
  const slash = parts[next];
  if (isSlash(slash)) {
    if (!parts[next + 1]) return null;
    lineHeight = text(parts[next + 1]);
    next += 2;
  }
  const family = parts
    .slice(next)
    .map((part) => (part.type === 'Operator' ? part.value : text(part)))
    .join(' ')
    .replace(/ , /g, ', ');
  if (family === '') return null;
  return [
    ['font-style', style],
    ['font-variant', variant],
    ['font-weight', weight],
    ['font-stretch', stretch],
    ['font-size', text(size)],
    ['line-height', lineHeight],
    ['font-family', family],
  ];
}

const DECORATION_LINES = new Set([
  'none',
  'underline',
  'overline',
  'line-through',
  'blink',
  'spelling-error',
  'grammar-error',
]);
const DECORATION_STYLES = new Set(['solid', 'double', 'dotted', 'dashed', 'wavy']);

function expandTextDecoration(value: string): [string, string][] | null {
  const lines: string[] = [];
  let style = 'solid';
  let color = 'currentcolor';
  let thickness = 'auto';
  for (const part of components(value)) {
    const written = text(part);
    const word = written.toLowerCase();
    if (DECORATION_LINES.has(word)) lines.push(word);
    else if (DECORATION_STYLES.has(word)) style = word;
    else if (parseColorNode(part)) color = written;
    else thickness = written;
  }
  return [
    ['text-decoration-line', lines.join(' ') || 'none'],
    ['text-decoration-style', style],
    ['text-decoration-color', color],
    ['text-decoration-thickness', thickness],
  ];
}

function expandListStyle(value: string): [string, string][] | null {
  let position: string | null = null;
  let image: string | null = null;
  let type: string | null = null;
  let nones = 0;
  for (const part of components(value)) {
    const written = text(part);
    const word = written.toLowerCase();
    if (word === 'none') nones += 1;
    else if (word === 'inside' || word === 'outside') position = word;
    else if (part.type === 'Url' || (part.type === 'Function' && isImageFunction(part.name))) image = written;
    else type = written;
  }
  // A lone `none` sets both the type and the image (Lists 3 §4.4).
  const hasNone = nones > 0;
  return [
    ['list-style-position', position ?? 'outside'],
    ['list-style-image', image ?? 'none'],
    ['list-style-type', type ?? (hasNone ? 'none' : 'disc')],
  ];
}

function expandColumns(value: string): [string, string][] | null {
  const parts = components(value);
  const count = parts.find((part) => part.type === 'Number');
  const width = parts.find((part) => part.type === 'Dimension' || part.type === 'Function');
  return [
    ['column-width', width ? text(width) : 'auto'],
    ['column-count', count ? text(count) : 'auto'],
  ];
}

function componentsWithOperators(value: string): CssNode[] {
  return valueNodes(value).filter((child) => child.type !== 'WhiteSpace');
}

function components(value: string): CssNode[] {
  return componentsWithOperators(value).filter((part) => part.type !== 'Operator');
}

function splitBy(parts: readonly CssNode[], operator: string): CssNode[][] {
  const groups: CssNode[][] = [[]];
  for (const part of parts) {
    if (part.type === 'Operator' && part.value === operator) groups.push([]);
    else groups[groups.length - 1].push(part);
  }
  return groups;
}

function splitByComma(value: string): CssNode[][] {
  return splitBy(componentsWithOperators(value), ',');
}

function text(node: CssNode): string {
  return generate(node);
}
