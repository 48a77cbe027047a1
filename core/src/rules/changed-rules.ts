import type { StyleRule } from './style-rule.js';

/** Rules that are in one veneer and not in the other; those of a sheet read anew are told by what they say. */
export function changedRules(
  before: readonly StyleRule[],
  after: readonly StyleRule[],
): { readonly gone: readonly StyleRule[]; readonly come: readonly StyleRule[] } {
  const [old, now] = [new Set(before.map(textOf)), new Set(after.map(textOf))];
  return {
    gone: before.filter((rule) => !now.has(textOf(rule))),
    come: after.filter((rule) => !old.has(textOf(rule))),
  };
}

function textOf({ selectorText, declarations, conditions }: StyleRule): string {
  return JSON.stringify([
    selectorText,
    declarations.map(({ name, value, important }) => [name, value, important]),
    conditions.map(({ text }) => text),
  ]);
}
