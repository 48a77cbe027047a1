import type { WidthRange } from './override.js';

/** Media condition of a range of widths; `null` for every width. */
export function mediaOf(range: WidthRange | null | undefined): string | null {
  const parts = [range?.min == null ? '' : `(min-width: ${range.min}px)`, range?.max == null ? '' : `(max-width: ${range.max}px)`].filter(Boolean);
  return parts.length > 0 ? parts.join(' and ') : null;
}

/** Whether a viewport width lies in a range. */
export function isInRange(width: number, range: WidthRange | null | undefined): boolean {
  return width >= (range?.min ?? -Infinity) && width <= (range?.max ?? Infinity);
}
