import type { PageColors } from '../../shared/engine/engine-api';
import type { FrameDocument } from '../../shared/frame/frame-document';

/** A colour on which the core and the frame's engine differ. */
export interface ColorDifference {
  readonly element: number;
  readonly property: string;
  readonly core: string;
  readonly frame: string;
}

const SLICE_MS = 8;

/** Compares the core's colours with the frame's for every element, in slices that leave the interface free. */
export async function compareColors(
  page: FrameDocument,
  colors: PageColors,
  isStale: () => boolean,
): Promise<ColorDifference[]> {
  const differences: ColorDifference[] = [];
  let sliceEnd = performance.now() + SLICE_MS;
  for (let number = 0; number < colors.values.length; number += 1) {
    if (performance.now() > sliceEnd) {
      await new Promise((next) => setTimeout(next));
      if (isStale()) return [];
      sliceEnd = performance.now() + SLICE_MS;
    }
    const frame = page.colorsOf(number, colors.properties);
    if (!frame) continue;
    colors.properties.forEach((property, i) => {
      if (!sameColor(colors.values[number][i], frame[i]))
        differences.push({ element: number, property, core: colors.values[number][i], frame: frame[i] });
    });
  }
  return differences;
}

/** Equal texts, or equal but for the last digits of their numbers. */
export function sameColor(a: string, b: string): boolean {
  if (a === b) return true;
  const number = /-?(?:\d+(?:\.\d+)?|\.\d+)(?:e[+-]?\d+)?/g;
  if (a.replace(number, '#') !== b.replace(number, '#')) return false;
  const right = (b.match(number) ?? []).map(Number);
  return (a.match(number) ?? []).every((text, i) => Math.abs(Number(text) - right[i]) <= 0.002);
}
