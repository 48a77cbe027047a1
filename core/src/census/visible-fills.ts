import type { PageLayout, Rect } from '../resolve/page-layout.js';
import { common, paintingOrderOf } from '../ground/painting-order.js';
import type { StyleView } from '../resolve/style-view.js';

/** Least distance between points, CSS px: closer ones tell no more of areas. */
const LEAST_STEP = 4;
/** What is covered as good as wholly. */
const COVERED = 0.004;

/**
 * Area each element's fill shows, px², by running number: at every point of a grid the topmost fill takes what it covers, and
 * leaves the rest to the next one below. Corners are taken as square, and what is fixed stands where it is at the page's top.
 * @param opacityOf how much of what lies under it an element's own fill covers, 0–1.
 * @param points points of the grid; the more, the nearer to the true area.
 */
export function visibleFills(
  view: StyleView,
  layout: PageLayout,
  opacityOf: (number: number) => number,
  points: number,
): Map<number, number> {
  const { painters } = paintingOrderOf(view, layout);
  let height = 0;
  for (let i = 0; i + 3 < layout.boxes.length; i += 4)
    height = Math.max(height, layout.boxes[i + 1] + layout.boxes[i + 3]);
  const step = Math.max(LEAST_STEP, Math.sqrt((layout.width * height) / points));
  const columns = Math.ceil(layout.width / step);
  const rows = Math.ceil(height / step);
  const left = new Float32Array(columns * rows).fill(1);
  const areas = new Map<number, number>();
  for (let i = painters.length - 1; i >= 0; i -= 1) {
    const { element, pseudo, boxes, clip } = painters[i];
    const opacity = pseudo === '' ? opacityOf(element.number) : 0;
    if (opacity === 0 || view.style(element).resolved('visibility') !== 'visible') continue;
    let seen = 0;
    for (const box of boxes) {
      const { from, to, top, end } = pointsIn(clip ? common(box, clip) : box, step, columns, rows);
      for (let y = top; y < end; y += 1) {
        for (let at = y * columns + from; at < y * columns + to; at += 1) {
          if (left[at] < COVERED) continue;
          const covered = left[at] * opacity;
          seen += covered;
          left[at] -= covered;
        }
      }
    }
    if (seen > 0) areas.set(element.number, (areas.get(element.number) ?? 0) + seen * step * step);
  }
  return areas;
}

/** Columns and rows of a grid; the ends are exclusive. */
interface Span {
  readonly from: number;
  readonly to: number;
  readonly top: number;
  readonly end: number;
}

/** Columns and rows of the grid whose points, the middles of its cells, lie in a rectangle. */
function pointsIn({ left, top, width, height }: Rect, step: number, columns: number, rows: number): Span {
  const first = (start: number): number => Math.max(0, Math.ceil(start / step - 0.5));
  return {
    from: first(left),
    to: Math.min(columns, first(left + width)),
    top: first(top),
    end: Math.min(rows, first(top + height)),
  };
}
