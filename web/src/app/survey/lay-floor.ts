/** A board of a floor: a piece of one thing, in one row. */
export interface Board {
  readonly of: string;
  readonly row: number;
  readonly left: number;
  readonly width: number;
  /** Whether it is the first board of its thing. */
  readonly isFirst: boolean;
}

/** Narrower than this nothing can be pointed at, px. */
const NARROWEST = 4;

/**
 * Lays things in rows one after the other, cut where a row ends; lengths go by size, but none is under `NARROWEST`.
 * @param width of a row, px.
 */
export function layFloor(things: readonly { readonly key: string; readonly size: number }[], width: number, rows: number): Board[] {
  const lengths = fitLengths(things.map(({ size }) => size), width * rows);
  const boards: Board[] = [];
  let at = 0;
  things.forEach(({ key }, i) => {
    let left = lengths[i];
    let isFirst = true;
    while (left > 0.01) {
      const row = Math.min(rows - 1, Math.floor((at + 0.005) / width));
      const start = at - row * width;
      const room = Math.max(0, width - start);
      if (room <= 0.01) break;
      // A sliver at the end of a row would be lost; the board goes on whole in the next.
      const length = left <= NARROWEST + 0.01 && room < left && row < rows - 1 ? 0 : Math.min(left, room);
      if (length > 0) {
        boards.push({ of: key, row, left: start, width: length, isFirst });
        isFirst = false;
        left -= length;
        at += length;
      } else at += room;
    }
  });
  return boards;
}

/** Lengths that add up to `total`, in proportion but for those raised to the least one. */
function fitLengths(sizes: readonly number[], total: number): number[] {
  const least = Math.min(NARROWEST, total / Math.max(1, sizes.length));
  const raised = new Set<number>();
  for (;;) {
    const free = total - raised.size * least;
    const sum = sizes.reduce((all, size, i) => (raised.has(i) ? all : all + size), 0);
    const scale = sum > 0 ? free / sum : 0;
    const small = sizes.findIndex((size, i) => !raised.has(i) && size * scale < least);
    if (small === -1) return sizes.map((size, i) => (raised.has(i) ? least : size * scale));
    sizes.forEach((size, i) => {
      if (size * scale < least) raised.add(i);
    });
  }
}
