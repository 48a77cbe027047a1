import { create, type Delta } from 'jsondiffpatch';

/** What leads from one state of a subject to another; JSON. */
export type Difference = Delta;

/** Rows are told by what names them, so that one moved or changed does not count as another. */
const differ = create({
  objectHash: (row, place) => {
    const { id, role, scope, kind, target } = row as Readonly<Record<string, unknown>>;
    return JSON.stringify([id ?? role ?? scope ?? (target === undefined ? place : [kind, target])]);
  },
});

/** What leads from one state to another and back; both `undefined` where they are the same. */
export function differencesOf(
  before: unknown,
  after: unknown,
): { readonly there: Difference; readonly back: Difference } {
  // Both are taken: jsondiffpatch's `reverse` is wrong of a row that moved and changed.
  return { there: differ.diff(before, after), back: differ.diff(after, before) };
}

/** The state that a difference leads to from the one it was taken of. */
export function applied(state: unknown, difference: Difference): unknown {
  return differ.patch(structuredClone(state), difference);
}
