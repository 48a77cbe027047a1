import { NEVER_SEEN } from '../../census/paintings.js';
import type { ElementNode } from '../../dom/tree.js';
import type { EdgeSide } from '../../properties/edges.js';
import { drawnEdges } from '../../resolve/drawn-edges.js';
import type { ElementStyle } from '../../resolve/element-style.js';
import type { StyleView } from '../../resolve/style-view.js';
import { hasFill } from '../job.js';

export function isSeen(element: ElementNode): boolean {
  return !NEVER_SEEN.has(element.localName);
}

/** Sides of an edge that are drawn in a colour that can be seen. */
export function seenEdges(style: ElementStyle): readonly EdgeSide[] {
  return drawnEdges(style).filter(({ color }) => (style.color(color)?.alpha ?? 0) > 0.02);
}

/** Whether an element's corners can be seen: by its fill, edge, shadow or picture. */
export function hasPaintedBox(view: StyleView, element: ElementNode): boolean {
  const style = view.style(element);
  return (
    hasFill(view, element) ||
    element.localName === 'img' ||
    style.resolved('background-image') !== 'none' ||
    style.resolved('box-shadow') !== 'none' ||
    seenEdges(style).length > 0
  );
}
