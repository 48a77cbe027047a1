import type { ElementNode } from '../dom/tree.js';
import { looksAlike } from '../census/paintings.js';
import { hexOf } from '../color/read-notation.js';
import type { StyleView } from '../resolve/style-view.js';
import type { PageLook } from './looked.js';

/** What forced colours put their own in place of, or take away. Source: CSS Color Adjustment 1 §3.1. */
const FORCED: ReadonlySet<string> = new Set([
  'color',
  'fill',
  'stroke',
  'text-decoration-color',
  'background-color',
  'border-top-color',
  'border-right-color',
  'border-bottom-color',
  'border-left-color',
  'outline-color',
  'box-shadow',
  'text-shadow',
  'background-image',
  'caret-color',
  'accent-color',
  'scrollbar-color',
]);
/** Longhands that say where something stands and how large it is. */
export const LAID_OUT: readonly string[] = [
  'width',
  'height',
  'left',
  'right',
  'top',
  'bottom',
  'margin-left',
  'margin-top',
  'padding-left',
  'padding-top',
];
/** What is seen of an element besides the colours it paints. */
const SEEN = [
  ...LAID_OUT,
  'text-decoration-line',
  'text-decoration-style',
  'text-decoration-thickness',
  'font-weight',
  'font-style',
  'font-size',
  'opacity',
  'filter',
  'transform',
  'translate',
  'scale',
  'rotate',
  'letter-spacing',
  'display',
  'visibility',
  'content',
  'border-top-width',
  'border-right-width',
  'border-bottom-width',
  'border-left-width',
  'border-top-left-radius',
  'outline-offset',
  'outline-width',
  'outline-style',
  'clip-path',
  'background-position-x',
  'background-size',
];

/** How a state looks beside rest: not at all otherwise, otherwise, or only by what forced colours take away. */
export type Difference =
  { readonly kind: 'none' } | { readonly kind: 'seen' } | { readonly kind: 'forced away'; readonly words: string };

/** How an element with all that is in it looks in a view beside the page at rest. */
export function differsIn(on: PageLook, view: StyleView, element: ElementNode): Difference {
  const properties = new Set<string>();
  const walk = (node: ElementNode): void => {
    differing(on, view, node).forEach((property) => properties.add(property));
    node.children.forEach(walk);
  };
  walk(element);
  if (properties.size === 0) return { kind: 'none' };
  if ([...properties].some((property) => !FORCED.has(property))) return { kind: 'seen' };
  return { kind: 'forced away', words: [...properties].join(', ') };
}

/** Longhands in which what is painted of one element differs from rest. */
export function differing(on: PageLook, view: StyleView, element: ElementNode): string[] {
  if (view !== on.rest && looksAlike(view, on.rest, element)) return [];
  return differingOf(on, [view, element], [on.rest, element]);
}

/** The same between any two elements in any two views. */
export function differingOf(
  on: PageLook,
  [view, element]: readonly [StyleView, ElementNode],
  [other, beside]: readonly [StyleView, ElementNode],
): string[] {
  const found = new Set<string>();
  const painted = (own: StyleView, node: ElementNode): ReadonlyMap<string, string> =>
    new Map(
      on
        .paintingsIn(own, node)
        .map(({ pseudo, property, index, color }) => [`${pseudo}|${property}|${index}`, hexOf(color)]),
    );
  const [now, then] = [painted(view, element), painted(other, beside)];
  for (const key of new Set([...now.keys(), ...then.keys()]))
    if (now.get(key) !== then.get(key)) found.add(key.split('|')[1]);
  for (const pseudo of ['', 'before', 'after'] as const) {
    if (pseudo !== '' && !view.generates(element, pseudo) && !other.generates(beside, pseudo)) continue;
    const [a, b] = [view.style(element, pseudo), other.style(beside, pseudo)];
    // An outline that is not drawn has no measure that could be seen.
    const isOutlined = [a, b].some((style) => style.resolved('outline-style') !== 'none');
    for (const longhand of SEEN)
      if (a.resolved(longhand) !== b.resolved(longhand) && (isOutlined || !longhand.startsWith('outline-')))
        found.add(longhand);
  }
  return [...found];
}
