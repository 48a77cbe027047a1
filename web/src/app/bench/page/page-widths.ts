import { wordsOf } from '@upper-veneer/words';
import type { WidthRange } from '@upper-veneer/core';

/** Viewport widths offered, in CSS px, with what each is when the device is turned. */
export const WIDTHS = [1280, 820, 390] as const;
const TURNED: ReadonlyMap<number, number> = new Map([
  [1280, 800],
  [820, 1180],
  [390, 844],
  [800, 1280],
  [1180, 820],
  [844, 390],
]);
export const LEAST_WIDTH = 240;
export const MOST_WIDTH = 2560;

/** Width of the same device turned; a width nobody makes stays as it is. */
export function turnedWidth(width: number): number {
  return TURNED.get(width) ?? width;
}

/** A typed width kept within what can be shown; `null` for what is no number. */
export function readWidth(text: string): number | null {
  const width = Number.parseInt(text, 10);
  return Number.isNaN(width) ? null : Math.min(MOST_WIDTH, Math.max(LEAST_WIDTH, width));
}

/** Ranges an override may be kept to, by the breakpoints of the page, with their words. */
export function rangesFor(
  breakpoints: readonly number[],
): { readonly label: string; readonly range: WidthRange | null }[] {
  return [
    { label: wordsOf('bench.every-width'), range: null },
    ...breakpoints.flatMap((start) => [
      { label: wordsOf('bench.from-px', { start }), range: { min: start, max: null } },
      { label: wordsOf('bench.up-px', { start: start - 1 }), range: { min: null, max: start - 1 } },
    ]),
  ];
}
