import type { ElementNode } from '../dom/tree.js';
import { NAMED_COLORS_HINT, parseLegacyColor } from './legacy-color.js';

/**
 * Declarations that presentational attributes stand for, weaker than any author rule.
 * Source: HTML §15 Rendering, "presentational hints", and SVG 2 §6.6 presentation attributes.
 * @returns pairs of property and value, in the order they are found.
 */
export function presentationalHints(element: ElementNode): readonly (readonly [property: string, value: string])[] {
  const hints: [string, string][] = [];
  const { localName, attributes, namespace } = element;
  if (attributes.size === 0 && localName !== 'td' && localName !== 'th') return hints;
  if (namespace === 'svg') {
    for (const name of SVG_PRESENTATION) {
      const value = attributes.get(name);
      if (value !== undefined) hints.push([name, value]);
    }
    return hints;
  }
  if (namespace !== 'html') return hints;
  const legacy = (attribute: string, property: string): void => {
    const value = attributes.get(attribute);
    const color = value === undefined ? null : parseLegacyColor(value, NAMED_COLORS_HINT);
    if (color) hints.push([property, color]);
  };
  const dimension = (attribute: string, property: string): void => {
    const length = parseDimension(attributes.get(attribute) ?? '');
    if (length) hints.push([property, length]);
  };
  if (BGCOLOR.has(localName)) legacy('bgcolor', 'background-color');
  if (localName === 'body') legacy('text', 'color');
  if (localName === 'a' || localName === 'area') {
    const body = bodyOf(element);
    const link = body?.attributes.get('link');
    const color = link !== undefined && attributes.has('href') ? parseLegacyColor(link, NAMED_COLORS_HINT) : null;
    if (color) hints.push(['color', color]);
  }
  if (localName === 'font') {
    legacy('color', 'color');
    const face = attributes.get('face');
    if (face) hints.push(['font-family', face]);
    const size = fontSizeKeyword(attributes.get('size') ?? '');
    if (size) hints.push(['font-size', size]);
  }
  if (localName === 'hr') {
    legacy('color', 'border-color');
    legacy('color', 'background-color');
    if (attributes.has('color') || attributes.has('noshade')) hints.push(['border-style', 'solid']);
    dimension('width', 'width');
  }
  if (DIMENSIONED.has(localName)) {
    dimension('width', 'width');
    dimension('height', 'height');
  }
  const border = localName === 'table' ? attributes.get('border') : undefined;
  if (border !== undefined) {
    const width = border === '' ? 1 : Number.parseInt(border, 10);
    const px = Number.isFinite(width) ? Math.max(0, width) : 1;
    hints.push(['border-width', `${px}px`], ['border-style', attributes.has('bordercolor') ? 'solid' : 'outset']);
  }
  if (localName === 'td' || localName === 'th') {
    const table = tableOf(element);
    const tableBorder = table?.attributes.get('border');
    if (tableBorder !== undefined && tableBorder.trim() !== '0')
      hints.push(
        ['border-width', '1px'],
        ...(table?.attributes.has('bordercolor')
          ? [['border-style', 'solid'] as [string, string], ['border-color', 'inherit'] as [string, string]]
          : [['border-style', 'inset'] as [string, string]]),
      );
    const padding = parseDimension(table?.attributes.get('cellpadding') ?? '');
    if (padding) hints.push(['padding', padding]);
    if (attributes.has('nowrap')) hints.push(['white-space', 'nowrap']);
  }
  if (localName === 'table') {
    const spacing = parseDimension(attributes.get('cellspacing') ?? '');
    if (spacing) hints.push(['border-spacing', spacing]);
    legacy('bordercolor', 'border-color');
  }
  const align = attributes.get('align')?.toLowerCase();
  if (align && ALIGNED.has(localName)) {
    if (['left', 'right', 'center', 'justify'].includes(align))
      hints.push(['text-align', align === 'justify' ? align : `-webkit-${align}`]);
    else if (align === 'middle') hints.push(['text-align', '-webkit-center']);
  }
  const valign = attributes.get('valign')?.toLowerCase();
  if (valign && ['top', 'middle', 'bottom', 'baseline'].includes(valign) && VALIGNED.has(localName))
    hints.push(['vertical-align', valign]);
  if (localName === 'ul' || localName === 'ol' || localName === 'li') {
    const type = LIST_TYPES.get(attributes.get('type') ?? '');
    if (type) hints.push(['list-style-type', type]);
  }
  if (localName === 'img' || localName === 'iframe' || localName === 'object') {
    const width = localName === 'iframe' ? null : parseDimension(attributes.get('border') ?? '');
    if (width) hints.push(['border-width', width], ['border-style', 'solid']);
    if (localName === 'iframe' && /^0|^no$/i.test(attributes.get('frameborder') ?? ''))
      hints.push(['border-width', '0px']);
  }
  const dir = attributes.get('dir')?.toLowerCase();
  if (dir === 'rtl' || dir === 'ltr') hints.push(['direction', dir]);
  return hints;
}

const BGCOLOR = new Set(['body', 'table', 'thead', 'tbody', 'tfoot', 'tr', 'td', 'th', 'marquee']);
const DIMENSIONED = new Set([
  'table',
  'td',
  'th',
  'col',
  'colgroup',
  'img',
  'iframe',
  'video',
  'canvas',
  'object',
  'embed',
  'input',
]);
const ALIGNED = new Set([
  'div',
  'p',
  'h1',
  'h2',
  'h3',
  'h4',
  'h5',
  'h6',
  'thead',
  'tbody',
  'tfoot',
  'tr',
  'td',
  'th',
  'caption',
  'legend',
]);
const VALIGNED = new Set(['thead', 'tbody', 'tfoot', 'tr', 'td', 'th', 'col', 'colgroup']);
const LIST_TYPES: ReadonlyMap<string, string> = new Map([
  ['1', 'decimal'],
  ['a', 'lower-alpha'],
  ['A', 'upper-alpha'],
  ['i', 'lower-roman'],
  ['I', 'upper-roman'],
  ['disc', 'disc'],
  ['circle', 'circle'],
  ['square', 'square'],
  ['none', 'none'],
]);
const SVG_PRESENTATION = [
  'fill',
  'stroke',
  'color',
  'opacity',
  'fill-opacity',
  'stroke-opacity',
  'stroke-width',
  'stop-color',
  'flood-color',
  'lighting-color',
  'font-family',
  'font-size',
  'font-weight',
  'font-style',
  'visibility',
  'display',
  'letter-spacing',
  'text-decoration',
  'cursor',
] as const;

function fontSizeKeyword(size: string): string | null {
  const parsed = /^\s*([+-]?)(\d+)/.exec(size);
  if (!parsed) return null;
  const step =
    parsed[1] === '+' ? 3 + Number(parsed[2]) : parsed[1] === '-' ? 3 - Number(parsed[2]) : Number(parsed[2]);
  return ['x-small', 'small', 'medium', 'large', 'x-large', 'xx-large', 'xxx-large'][
    Math.min(7, Math.max(1, step)) - 1
  ];
}

/** HTML §2.3.4.4 Rules for parsing dimension values, zero left out where it would say nothing. */
function parseDimension(text: string): string | null {
  const parsed = /^\s*\+?(\d+(?:\.\d+)?)(%?)/.exec(text);
  return parsed ? `${Number(parsed[1])}${parsed[2] || 'px'}` : null;
}

function tableOf(cell: ElementNode): ElementNode | null {
  for (let node = cell.parent; node; node = node.parent) if (node.localName === 'table') return node;
  return null;
}

function bodyOf(element: ElementNode): ElementNode | null {
  for (let node = element.parent; node; node = node.parent) if (node.localName === 'body') return node;
  return null;
}
