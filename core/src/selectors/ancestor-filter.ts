import type { ElementNode } from '../dom/tree.js';
import type { ComplexSelector } from './selector.js';

const BITS = 256;
const WORDS = BITS / 32;
const EMPTY = new Uint32Array(WORDS);
const bits = new Map<string, number>();
const filters = new WeakMap<ElementNode, Uint32Array>();

/** Bit of a name in the filter; names fold case, so that the filter errs on the side of matching. */
function bitOf(name: string): number {
  let bit = bits.get(name);
  if (bit === undefined) {
    let hash = 2166136261;
    for (const char of name.toLowerCase()) hash = Math.imul(hash ^ (char.codePointAt(0) ?? 0), 16777619);
    bit = (hash >>> 0) % BITS;
    if (bits.size > 100_000) bits.clear();
    bits.set(name, bit);
  }
  return bit;
}

/** Bits of the names that ancestors of a selector's subject must have. */
export function ancestorBits(selector: ComplexSelector): readonly number[] {
  const found: number[] = [];
  for (let i = 0; i < selector.compounds.length - 1; i += 1) {
    // What stands before a sibling combinator is no ancestor, but what stands above a sibling is one of the subject too.
    const combinator = selector.combinators[i + 1];
    if (combinator !== ' ' && combinator !== '>') continue;
    const { type, ids, classes } = selector.compounds[i];
    if (type !== null) found.push(bitOf(`<${type}`));
    for (const id of ids) found.push(bitOf(`#${id}`));
    for (const name of classes) found.push(bitOf(`.${name}`));
  }
  return found;
}

/** Filter of the names on all ancestors of an element: a Bloom filter (Bloom, 1970) with one bit a name. */
export function filterAbove(element: ElementNode): Uint32Array {
  const parent = element.parent ?? element.root.host;
  if (!parent) return EMPTY;
  let filter = filters.get(parent);
  if (!filter) {
    filter = Uint32Array.from(filterAbove(parent));
    const add = (name: string): void => {
      const bit = bitOf(name);
      (filter as Uint32Array)[bit >> 5] |= 1 << (bit & 31);
    };
    add(`<${parent.localName}`);
    if (parent.id !== null) add(`#${parent.id}`);
    for (const name of parent.classes) add(`.${name}`);
    filters.set(parent, filter);
  }
  return filter;
}

/** Whether every required name may stand above; `false` is certain. */
export function mayStandUnder(required: readonly number[], filter: Uint32Array): boolean {
  for (const bit of required) if ((filter[bit >> 5] & (1 << (bit & 31))) === 0) return false;
  return true;
}
