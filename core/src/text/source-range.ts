/** A place in a text. `offset` counts UTF-16 units from 0, `line` and `column` from 1. */
export interface SourcePoint {
  readonly offset: number;
  readonly line: number;
  readonly column: number;
}

/** A stretch of a named text; `end` is exclusive. */
export interface SourceRange {
  readonly source: string;
  readonly start: SourcePoint;
  readonly end: SourcePoint;
}

/** Turns offsets of one text into lines and columns on demand. */
export type Locator = (offset: number) => SourcePoint;

/**
 * Locator of a text; lines end as CSS Syntax 3 §3.3 preprocesses them (LF, CR, CRLF, FF).
 * The line table is built on the first question.
 */
export function createLocator(text: string): Locator {
  let lineStarts: number[] | null = null;
  return (offset) => {
    lineStarts ??= findLineStarts(text);
    let low = 0;
    let high = lineStarts.length - 1;
    while (low < high) {
      const middle = (low + high + 1) >> 1;
      if (lineStarts[middle] <= offset) low = middle;
      else high = middle - 1;
    }
    return { offset, line: low + 1, column: offset - lineStarts[low] + 1 };
  };
}

function findLineStarts(text: string): number[] {
  const starts = [0];
  const newline = /\r\n|[\n\r\f]/g;
  while (newline.exec(text) !== null) starts.push(newline.lastIndex);
  return starts;
}
