import { compositeOver } from '../color/contrast.js';
import { hexOf } from '../color/read-notation.js';
import { lineageOf, type ElementNode } from '../dom/tree.js';
import { surroundingsOf } from '../ground/surroundings.js';
import type { StyleView } from '../resolve/style-view.js';

/** A colour as it reaches the eye: alpha and opacity worked in over what lies behind. */
export interface AsPainted {
  readonly hex: string;
  /** Opaque colour it was laid over; that of the worst point under a text. */
  readonly on: string;
  /** What makes it uncertain; empty when nothing does. */
  readonly doubts: readonly string[];
}

/**
 * One colour of an element as painted: text over its ground, edge, ring and all else over what lies around it.
 * Source: CSS Compositing 1 §5, CSS Color 4 §3.2.
 * @returns `null` for what is no colour, or wholly clear.
 */
export function asPainted(view: StyleView, element: ElementNode, pseudo: string, property: string): AsPainted | null {
  const style = view.style(element, pseudo);
  const color = style.color(property);
  if (!color || (color.alpha ?? 0) === 0) return null;
  const { text, ground, outside, doubts, outsideDoubts } = surroundingsOf(view, element, pseudo);
  if (property === 'color') return { hex: hexOf(text), on: hexOf(ground), doubts };
  const opacity = lineageOf(element).reduce(
    (product, node) => product * Number(view.style(node).resolved('opacity')),
    1,
  );
  const shown = compositeOver({ ...color, alpha: (color.alpha ?? 1) * opacity }, outside);
  return { hex: hexOf(shown), on: hexOf(outside), doubts: outsideDoubts };
}
