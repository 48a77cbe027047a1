import type { ElementNode } from '../dom/tree.js';
import type { StyleView } from '../resolve/style-view.js';
import type { Color } from '../values/color.js';
import { hasFill } from './job.js';

/** The fill that a proposal lays under a place: of the nearest that paints one; `null` where it leaves that alone. */
export function fillOver(
  from: ElementNode | null,
  paintedOn: (node: ElementNode, property: string) => Color | null,
  view: StyleView,
): Color | null {
  for (let node = from; node; node = node.flatParent) {
    const instead = paintedOn(node, 'background-color') ?? paintedOn(node, 'background-image');
    if (instead && (instead.alpha ?? 1) > 0.5) return { ...instead, alpha: 1 };
    if (hasFill(view, node)) return null;
  }
  return null;
}
