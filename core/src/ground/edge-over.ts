import { compositeOver } from '../color/contrast.js';
import type { ElementStyle } from '../resolve/element-style.js';
import type { Color } from '../values/color.js';

/**
 * An edge's colour over what lies around its box: the box's own fill reaches under it, unless that is clipped to the padding.
 * Source: CSS Backgrounds 3 §2.5 `background-clip`, CSS Compositing 1 §5.
 * @param outside opaque.
 */
export function edgeOver(style: ElementStyle, edge: Color, outside: Color): Color {
  const fill = reachesUnderEdge(style) ? style.color('background-color') : null;
  return compositeOver(edge, fill ? compositeOver(fill, outside) : outside);
}

/** Whether a fill is painted under the edge too. */
export function reachesUnderEdge(style: ElementStyle): boolean {
  return style.resolved('background-clip') === 'border-box';
}
