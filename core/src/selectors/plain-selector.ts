import type { ComplexSelector, CompoundSelector, PseudoClass, SelectorList } from './selector.js';

/** Pseudo-classes that the names and attributes of an element decide, and the states given to it; as long as no link counts as visited. */
const BY_ATTRIBUTES: ReadonlySet<string> = new Set([
  'link',
  'visited',
  'any-link',
  '-webkit-any-link',
  'root',
  'defined',
  'open',
  'hover',
  'active',
  'focus',
  'focus-visible',
  'focus-within',
  'target',
]);

/**
 * Whether names, attributes and states of an element and of its ancestors decide a selector: elements alike in all of them match
 * it alike, wherever they stand among their siblings and whatever is in them.
 */
export function isPlain(selector: ComplexSelector): boolean {
  return (
    selector.combinators.every((combinator) => combinator === '' || combinator === ' ' || combinator === '>') &&
    selector.compounds.every(isPlainCompound) &&
    selector.pseudoElements.every(
      ({ list, parts, states }) => list === null && parts.length === 0 && states.length === 0,
    )
  );
}

/**
 * A plain selector that matches whatever a selector matches, and more: what stands before siblings, and pseudo-classes, are left out.
 * `null` where nothing would be left to ask.
 */
export function plainPartOf({ compounds, combinators, ...rest }: ComplexSelector): ComplexSelector | null {
  let from = compounds.length - 1;
  while (from > 0 && (combinators[from] === ' ' || combinators[from] === '>')) from -= 1;
  // A shadow tree's host is reached by pseudo-classes alone.
  if (compounds.some(({ pseudoClasses }) => pseudoClasses.some(({ kind }) => kind === 'host' || kind === 'is')))
    return null;
  if (from === compounds.length - 1) return null;
  return {
    ...rest,
    compounds: compounds.slice(from).map((compound) => ({ ...compound, pseudoClasses: [] })),
    combinators: ['', ...combinators.slice(from + 1)],
    pseudoElements: [],
  };
}

function isPlainCompound({ pseudoClasses }: CompoundSelector): boolean {
  return pseudoClasses.every(isPlainTest);
}

function isPlainTest(test: PseudoClass): boolean {
  if (test.kind === 'named') return BY_ATTRIBUTES.has(test.name);
  return (test.kind === 'is' || test.kind === 'not') && test.list.every(isPlain);
}

/** Notes the attributes whose values the selectors of a list ask for. */
export function valuesAskedBy(list: SelectorList, into: Set<string>): void {
  for (const { compounds, pseudoElements } of list) {
    for (const { attributes, pseudoClasses } of compounds) {
      for (const { name, operator } of attributes) if (operator !== '') into.add(name.toLowerCase());
      for (const test of pseudoClasses) if ('list' in test) valuesAskedBy(test.list, into);
    }
    for (const { list: inner } of pseudoElements) if (inner) valuesAskedBy(inner, into);
  }
}

/** Notes the ids that the selectors of a list ask for. */
export function idsAskedBy(list: SelectorList, into: Set<string>): void {
  for (const { compounds } of list)
    for (const { ids, pseudoClasses } of compounds) {
      for (const id of ids) into.add(id.toLowerCase());
      for (const test of pseudoClasses) if ('list' in test) idsAskedBy(test.list, into);
    }
}
