/** What a frame measured of a page laid out at one width; lengths in CSS px, by running number. */
export interface PageMeasure {
  readonly pageId: number;
  /** Three numbers an element: width and height of its box, and the area its own text inks. All 0 where it has no box. */
  readonly boxes: Float32Array;
  /** Boxes of `::before` and `::after`, by `number:name`. */
  readonly pseudoBoxes: Readonly<Record<string, readonly [width: number, height: number]>>;
  /** Elements under each sampled point, topmost first, each point ended by −1. */
  readonly stacks: Int32Array;
  /** Area one sampled point stands for, px². */
  readonly cell: number;
}

export interface Box {
  readonly width: number;
  readonly height: number;
  readonly ink: number;
}

/** Box of an element; `null` when it has none. */
export function boxIn(measure: PageMeasure, number: number): Box | null {
  const [width = 0, height = 0, ink = 0] = measure.boxes.subarray(number * 3, number * 3 + 3);
  return width > 0 || height > 0 ? { width, height, ink } : null;
}

/**
 * Area each fill shows, px²: at every sampled point the topmost fill takes what it covers, and leaves the rest to the
 * next one below.
 * @param opacityOf how much of what lies under it an element's own fill covers, 0–1.
 */
export function visibleFills(measure: PageMeasure, opacityOf: (number: number) => number): Map<number, number> {
  const areas = new Map<number, number>();
  let left = 1;
  for (const number of measure.stacks) {
    if (number < 0) {
      left = 1;
      continue;
    }
    if (left < 0.004) continue;
    const covered = left * opacityOf(number);
    if (covered === 0) continue;
    areas.set(number, (areas.get(number) ?? 0) + covered * measure.cell);
    left -= covered;
  }
  return areas;
}
