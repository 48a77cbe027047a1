import { measureLayout } from './measure-layout';
import type { MeasuredLayout } from './measured-layout';

/** Elements measured between two pauses. */
const SLICE = 100;

/** Measures a page as `measureLayout` does, a few elements at a time, so that nothing else has to wait for it; `null` when its frame is gone before it is done. */
export async function layoutInSlices(
  document: Document,
  elements: ReadonlyMap<number, Element>,
  pause: () => Promise<void>,
): Promise<MeasuredLayout | null> {
  if (!document.defaultView) return null;
  const all = [...elements];
  const { width, height } = measureLayout(document, new Map());
  let count = 0;
  for (const [number] of all) count = Math.max(count, number + 1);
  const boxes = new Array<number>(count * 4).fill(0);
  const [fragments, lines, pseudoBoxes]: [
    MeasuredLayout['fragments'][number][],
    MeasuredLayout['lines'][number][],
    MeasuredLayout['pseudoBoxes'][number][],
  ] = [[], [], []];
  for (let from = 0; from < all.length; from += SLICE) {
    // Numbered from 0 here, so that a slice makes no room for all that comes before it.
    const slice = all.slice(from, from + SLICE);
    const part = measureLayout(document, new Map(slice.map(([, element], i) => [i, element])));
    slice.forEach(([number], i) => {
      for (let side = 0; side < 4; side += 1) boxes[number * 4 + side] = part.boxes[i * 4 + side];
    });
    for (const [i, list] of part.fragments) fragments.push([slice[i][0], list]);
    for (const [i, list] of part.lines) lines.push([slice[i][0], list]);
    for (const [key, list] of part.pseudoBoxes) {
      const [i, name] = key.split(':');
      pseudoBoxes.push([`${slice[Number(i)][0]}:${name}`, list]);
    }
    await pause();
    if (!document.defaultView) return null;
  }
  return { width, height, boxes, fragments, lines, pseudoBoxes };
}
