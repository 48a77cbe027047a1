import type { PageLayout } from '../resolve/page-layout.js';

/** What a frame measured of a page laid out at one width; lengths in CSS px, by running number. */
export interface PageMeasure {
  readonly pageId: number;
  readonly layout: PageLayout;
  /** Area that each element's own text inks, px². */
  readonly ink: Float32Array;
  /** Sizes of `::before` and `::after`, by `number:name`. */
  readonly pseudoSizes: Readonly<Record<string, readonly [width: number, height: number]>>;
}

export interface Box {
  readonly width: number;
  readonly height: number;
  readonly ink: number;
}

/** Box of an element; `null` when it has none. */
export function boxIn({ layout: { boxes }, ink }: PageMeasure, number: number): Box | null {
  const width = boxes[number * 4 + 2] ?? 0;
  const height = boxes[number * 4 + 3] ?? 0;
  return width > 0 || height > 0 ? { width, height, ink: ink[number] ?? 0 } : null;
}
