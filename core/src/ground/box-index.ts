import Flatbush from 'flatbush';
import type { Rect } from '../resolve/page-layout.js';
import type { PaintingOrder } from './painting-order.js';

/** Finds painters by where their boxes lie, in painting order. */
export interface BoxIndex {
  /** Places in the painting order of those that have a box touching a rectangle, and of the canvas, which is everywhere. */
  touching(rect: Rect): readonly number[];
}

const indexes = new WeakMap<PaintingOrder, BoxIndex>();

/** Index over the boxes of a painting order, made once. */
export function boxIndexOf(order: PaintingOrder): BoxIndex {
  let index = indexes.get(order);
  if (!index) indexes.set(order, (index = createIndex(order)));
  return index;
}

function createIndex({ painters }: PaintingOrder): BoxIndex {
  const owners: number[] = [];
  const everywhere: number[] = [];
  painters.forEach(({ element, pseudo, boxes }, at) => {
    if (element.flatParent === null && pseudo === '') everywhere.push(at);
    else owners.push(...boxes.map(() => at));
  });
  if (owners.length === 0) return { touching: () => everywhere };
  const tree = new Flatbush(owners.length);
  for (const [at, { boxes }] of painters.entries())
    if (!everywhere.includes(at))
      for (const { left, top, width, height } of boxes) tree.add(left, top, left + width, top + height);
  tree.finish();
  return {
    touching({ left, top, width, height }) {
      const found = new Set(everywhere);
      for (const i of tree.search(left, top, left + width, top + height)) found.add(owners[i]);
      return [...found].sort((a, b) => a - b);
    },
  };
}
