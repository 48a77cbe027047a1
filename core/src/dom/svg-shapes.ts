import type { ElementNode } from './tree.js';

const SHAPES = new Set(['path', 'circle', 'rect', 'ellipse', 'line', 'polyline', 'polygon', 'text', 'tspan', 'use']);

/** Whether an element is painted by its fill and stroke; groups only hand them down. Source: SVG 2 §13.2. */
export function isShape({ namespace, localName }: ElementNode): boolean {
  return namespace === 'svg' && SHAPES.has(localName);
}
