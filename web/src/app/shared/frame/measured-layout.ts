import type { PageLayout } from '@upper-veneer/core';

/** What a frame measured of a page's layout, in a form that travels; the rectangles are flat lists: left, top, width, height. */
export interface MeasuredLayout {
  readonly width: number;
  readonly height: number;
  readonly boxes: readonly number[];
  readonly fragments: readonly (readonly [number, readonly number[]])[];
  readonly lines: readonly (readonly [number, readonly number[]])[];
  readonly pseudoBoxes: readonly (readonly [string, readonly number[]])[];
}

/** The layout in the form the core works with. */
export function toPageLayout({ boxes, fragments, lines, pseudoBoxes, ...view }: MeasuredLayout): PageLayout {
  return {
    ...view,
    boxes: Float32Array.from(boxes),
    fragments: new Map(fragments),
    lines: new Map(lines),
    pseudoBoxes: new Map(pseudoBoxes),
  };
}
