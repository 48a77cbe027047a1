/** A board of a floor: a piece of one thing, in one row. */
export interface Board {
  readonly of: string;
  readonly row: number;
  readonly left: number;
  readonly width: number;
  /** Whether it is the first board of its thing. */
  readonly isFirst: boolean;
}

/** Narrower than this a board is no target (WCAG 2.2, 2.5.8), px. */
const NARROWEST = 24;

/** Key of the board that stands for all that would be narrower. */
export const THE_REST = '';

/**
 * Lays things in rows one after the other, cut where a row ends; lengths go by size. What would be narrower than can be pressed
 * shares the last board.
 * @param width of a row, px.
 */
export function layFloor(
  things: readonly { readonly key: string; readonly size: number }[],
  width: number,
  rows: number,
): Board[] {
  const total = things.reduce((sum, { size }) => sum + size, 0);
  if (total <= 0 || width < NARROWEST) return [];
  // The end of a row may stay bare by less than a board, and the rest takes one.
  const room = width * rows - (rows - 1) * NARROWEST;
  const sorted = things.map(({ key, size }) => ({ key, length: (size / total) * room }));
  const wide = sorted.filter(({ length }) => length >= NARROWEST);
  const narrow = sorted.filter(({ length }) => length < NARROWEST).reduce((sum, { length }) => sum + length, 0);
  const rest = narrow > 0 ? [{ key: THE_REST, length: Math.max(NARROWEST, narrow) }] : [];
  const scale =
    (room - rest.reduce((sum, { length }) => sum + length, 0)) / wide.reduce((sum, { length }) => sum + length, 0);
  const boards: Board[] = [];
  let at = 0;
  for (const { key, length } of [...wide.map((board) => ({ ...board, length: board.length * scale })), ...rest]) {
    let left = length;
    let isFirst = true;
    while (left > 0.01) {
      const row = Math.min(rows - 1, Math.floor((at + 0.005) / width));
      const end = (row + 1) * width - at;
      // Neither a piece nor what it leaves over may be too narrow to press.
      const piece = left <= end ? left : end < NARROWEST ? 0 : left - end < NARROWEST ? left - NARROWEST : end;
      if (piece >= NARROWEST || (piece > 0 && left <= end)) {
        boards.push({ of: key, row, left: at - row * width, width: Math.min(piece, end), isFirst });
        isFirst = false;
        left -= piece;
        at += piece;
      } else if (row === rows - 1) break;
      if (left > 0.01) at = (row + 1) * width;
    }
  }
  // The last board goes on to the end of its row.
  const last = boards.at(-1);
  return last ? [...boards.slice(0, -1), { ...last, width: width - last.left }] : boards;
}
