import { isShape } from '../dom/svg-shapes.js';
import type { ElementNode } from '../dom/tree.js';
import { drawnEdges } from '../resolve/drawn-edges.js';
import type { ElementStyle, RankedDeclaration } from '../resolve/element-style.js';
import type { StyleView } from '../resolve/style-view.js';
import { showsText } from '../resolve/text-figures.js';
import { LONGHANDS } from '../properties/longhands.js';
import { colorsInImages, readShadows, type PaintContext } from '../values/serialize-paint.js';
import type { Color } from '../values/color.js';

/** What a colour is used for. */
export const USES = ['text', 'fill', 'gradient', 'edge', 'ring', 'shadow', 'icon'] as const;
export type Use = (typeof USES)[number];

/** One colour an element or pseudo-element paints. */
export interface Painting {
  readonly pseudo: string;
  readonly use: Use;
  readonly property: string;
  readonly color: Color;
  /** Which of several in one value, from 0: gradient stops, shadows. */
  readonly index: number;
  /** Style whose declaration decides it: its own, or that of an ancestor it inherits from. */
  readonly style: ElementStyle;
  /** `null` where no declaration does: the initial value. */
  readonly decided: RankedDeclaration | null;
}

/** Pseudo-elements that paint colours of their own. */
const PSEUDOS = ['before', 'after', 'marker', 'placeholder'] as const;
/** Elements that paint nothing of their own. */
export const NEVER_SEEN: ReadonlySet<string> = new Set([
  'head',
  'title',
  'meta',
  'link',
  'style',
  'script',
  'base',
  'template',
  'noscript',
  'param',
  'source',
  'track',
  'option',
  'optgroup',
  'datalist',
  'br',
  'wbr',
  'defs',
  'clipPath',
  'mask',
  'symbol',
  'linearGradient',
  'radialGradient',
  'stop',
  'filter',
]);

/** All colours an element paints, its pseudo-elements included. */
export function paintingsOf(view: StyleView, element: ElementNode): Painting[] {
  if (NEVER_SEEN.has(element.localName)) return [];
  const found = paintingsIn(view.style(element));
  for (const pseudo of pseudosOf(view, element)) found.push(...paintingsIn(view.style(element, pseudo)));
  return found;
}

/** Whether an element and its pseudo-elements come to the same values in two views that share. */
export function looksAlike(a: StyleView, b: StyleView, element: ElementNode): boolean {
  if (NEVER_SEEN.has(element.localName)) return true;
  if (a.style(element).identity !== b.style(element).identity) return false;
  return PSEUDOS.every(
    (pseudo) => !mayHave(a, element, pseudo) || a.style(element, pseudo).identity === b.style(element, pseudo).identity,
  );
}

function pseudosOf(view: StyleView, element: ElementNode): string[] {
  return PSEUDOS.filter((pseudo) => {
    if (!mayHave(view, element, pseudo)) return false;
    if (pseudo === 'marker') return view.style(element).resolved('list-style-type') !== 'none';
    return pseudo === 'placeholder' || view.generates(element, pseudo);
  });
}

function mayHave(view: StyleView, element: ElementNode, pseudo: (typeof PSEUDOS)[number]): boolean {
  if (pseudo === 'placeholder')
    return element.attributes.has('placeholder') && (element.localName === 'input' || element.localName === 'textarea');
  return pseudo !== 'marker' || view.style(element).resolved('display') === 'list-item';
}

function paintingsIn(style: ElementStyle): Painting[] {
  const { element, pseudo } = style;
  const found: Painting[] = [];
  const add = (use: Use, property: string, color: Color | null, index = 0): void => {
    if (!color || (color.alpha ?? 0) === 0) return;
    const { style: deciding, decided } = decidingDeclaration(style, property);
    found.push({ pseudo, use, property, color, index, style: deciding, decided });
  };
  const context: PaintContext = {
    scheme: style.colorScheme(),
    currentColor: style.currentColor(),
    lengths: { em: () => style.fontSize(), rem: () => 16, viewport: style.environment },
  };
  if (isShape(element) && pseudo === '') {
    add('icon', 'fill', style.color('fill'));
    if (style.resolved('stroke-width') !== '0px') add('icon', 'stroke', style.color('stroke'));
    return found;
  }
  const isIcon = pseudo === 'before' || pseudo === 'after' || pseudo === 'marker';
  const hasText = isIcon ? hasContent(style) : showsText(style);
  if (hasText) {
    add(isIcon ? 'icon' : 'text', 'color', style.color('-webkit-text-fill-color') ?? style.color('color'));
    if (style.resolved('text-decoration-line') !== 'none')
      add('text', 'text-decoration-color', style.color('text-decoration-color'));
    readShadows(textOf(style, 'text-shadow'), context, 'text').forEach(({ color }, i) =>
      add('shadow', 'text-shadow', color, i),
    );
  }
  add('fill', 'background-color', style.color('background-color'));
  colorsInImages(textOf(style, 'background-image'), context).forEach((color, i) =>
    add('gradient', 'background-image', color, i),
  );
  for (const { color } of drawnEdges(style)) add('edge', color, style.color(color));
  if (!/^(?:none|hidden)$/.test(style.resolved('outline-style')) && style.resolved('outline-width') !== '0px')
    add('ring', 'outline-color', style.color('outline-color') ?? style.color('color'));
  readShadows(textOf(style, 'box-shadow'), context, 'box').forEach(({ color }, i) =>
    add('shadow', 'box-shadow', color, i),
  );
  return found;
}

function textOf(style: ElementStyle, property: string): string {
  const value = style.computed(property);
  return value.kind === 'text' && value.text !== '' ? value.text : 'none';
}

/** Whether generated content draws anything in the text colour. */
function hasContent(style: ElementStyle): boolean {
  if (style.pseudo === 'marker') return true;
  const content = textOf(style, 'content');
  return !/^(?:none|normal)$/.test(content) && /"(?:[^"\\]|\\.)+"|counter|attr\(/.test(content);
}

/** The declaration a property's value comes from: followed up where it is inherited, and to `color` where it is the current colour. */
export function decidingDeclaration(
  style: ElementStyle,
  property: string,
): { readonly style: ElementStyle; readonly decided: RankedDeclaration | null } {
  let origin = style.seen(property);
  let [decided] = origin.ranked(property);
  const inherits = LONGHANDS.get(property)?.inherited ?? false;
  while (origin.parent && (decided ? isWide(decided, 'inherit') || (inherits && isWide(decided, 'unset')) : inherits)) {
    origin = origin.parent;
    [decided] = origin.ranked(property);
  }
  const isCurrent =
    decided === undefined
      ? LONGHANDS.get(property)?.initial === 'currentcolor'
      : decided.entry.value.kind === 'value' && /^currentcolor$/i.test(decided.entry.value.text);
  if (isCurrent && property !== 'color') return decidingDeclaration(origin, 'color');
  return { style: origin, decided: decided ?? null };
}

function isWide({ entry }: RankedDeclaration, keyword: string): boolean {
  return entry.value.kind === 'wide' && entry.value.keyword === keyword;
}
