/** A rectangle in CSS px from the top left of the page. */
export interface Rect {
  readonly left: number;
  readonly top: number;
  readonly width: number;
  readonly height: number;
}

/** Where a frame laid a page out at one viewport width: what the core cannot know. Lists of rectangles are flat: left, top, width, height. */
export interface PageLayout {
  /** Viewport, CSS px. */
  readonly width: number;
  readonly height: number;
  /** Four numbers an element, by running number: its border box; all 0 where it has none. */
  readonly boxes: Float32Array;
  /** Boxes of inline elements that are broken over several lines, by running number. */
  readonly fragments: ReadonlyMap<number, readonly number[]>;
  /** Lines of an element's own text, by running number; those that a field shows among them. */
  readonly lines: ReadonlyMap<number, readonly number[]>;
  /** Boxes of positioned pseudo-elements, by `number:name`. */
  readonly pseudoBoxes: ReadonlyMap<string, readonly number[]>;
}

/** Border box of an element; `null` where it has none. */
export function boxOf({ boxes }: PageLayout, number: number): Rect | null {
  const [left = 0, top = 0, width = 0, height = 0] = boxes.subarray(number * 4, number * 4 + 4);
  return width > 0 && height > 0 ? { left, top, width, height } : null;
}

/** Rectangles out of a flat list. */
export function rectsOf(list: readonly number[] | undefined): Rect[] {
  const rects: Rect[] = [];
  for (let i = 0; list && i + 3 < list.length; i += 4)
    rects.push({ left: list[i], top: list[i + 1], width: list[i + 2], height: list[i + 3] });
  return rects;
}

/** Whether a point lies in a rectangle. */
export function holds({ left, top, width, height }: Rect, x: number, y: number): boolean {
  return x >= left && x < left + width && y >= top && y < top + height;
}
