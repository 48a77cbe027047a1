import { EDGE_SIDES, type EdgeSide } from '../properties/edges.js';
import type { ElementStyle } from './element-style.js';

/** Sides of an edge that are drawn, in whatever colour. Source: CSS Backgrounds 3 §3.2 and §3.3. */
export function drawnEdges(style: ElementStyle): EdgeSide[] {
  return EDGE_SIDES.filter((edge) => isDrawn(style, edge));
}

/** Whether a side has a width and a line. */
export function isDrawn(style: ElementStyle, edge: EdgeSide): boolean {
  if (style.resolved(edge.width) === '0px') return false;
  const line = style.resolved(edge.style);
  return line !== 'none' && line !== 'hidden';
}
