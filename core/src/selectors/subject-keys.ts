import { subjectOf, type CompoundSelector } from './selector.js';

export type SubjectKey = `#${string}` | `.${string}` | `[${string}` | `<${string}` | '*';

/** The rarest thing a compound asks for; several when it is a list of alternatives. */
export function subjectKeys(compound: CompoundSelector): SubjectKey[] {
  if (compound.ids.length > 0) return [`#${compound.ids[0]}`];
  if (compound.classes.length > 0) return [`.${compound.classes[0]}`];
  for (const test of compound.pseudoClasses) {
    if (test.kind !== 'is' || test.list.length === 0) continue;
    const keys = test.list.flatMap((selector) => subjectKeys(subjectOf(selector)));
    if (!keys.includes('*')) return keys;
  }
  if (compound.type !== null) return [`<${compound.type.toLowerCase()}`];
  if (compound.attributes.length > 0) return [`[${compound.attributes[0].name.toLowerCase()}`];
  return ['*'];
}
