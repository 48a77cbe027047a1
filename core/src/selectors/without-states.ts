import type { ComplexSelector, CompoundSelector, PseudoClass, SelectorList } from './selector.js';

/** Pseudo-classes that hold in some state or other of an element. */
const STATES: ReadonlySet<string> = new Set([
  'hover',
  'focus',
  'focus-visible',
  'focus-within',
  'active',
  'visited',
  'link',
  'any-link',
  'disabled',
  'enabled',
  'checked',
  'indeterminate',
  'user-invalid',
  'user-valid',
  'invalid',
  'valid',
  'in-range',
  'out-of-range',
  'placeholder-shown',
  'read-only',
  'read-write',
  'autofill',
  '-webkit-autofill',
  'open',
  'popover-open',
]);

/** Selectors that match whatever some selectors may match in any state: what asks for a state, or for its absence, is left out. */
export function withoutStates(list: SelectorList): SelectorList {
  return list.map((selector) => ({ ...selector, compounds: selector.compounds.map(relaxCompound) }));
}

function relaxCompound(compound: CompoundSelector): CompoundSelector {
  return { ...compound, pseudoClasses: compound.pseudoClasses.flatMap(relaxPseudoClass) };
}

function relaxPseudoClass(test: PseudoClass): PseudoClass[] {
  switch (test.kind) {
    case 'named':
      return STATES.has(test.name) ? [] : [test];
    case 'is':
    case 'has':
      return [{ ...test, list: withoutStates(test.list) }];
    case 'not': {
      // What is kept out in one state only may be let in in another.
      const list = test.list.filter((selector) => !asksForState(selector));
      return list.length > 0 ? [{ ...test, list }] : [];
    }
    case 'nth':
      return test.nth.of?.some(asksForState) ? [] : [test];
    case 'host':
      return [test.argument ? { ...test, argument: withoutStates(test.argument) } : test];
    default:
      return [test];
  }
}

/** Whether what a selector matches can hang on a state. */
function asksForState({ compounds }: ComplexSelector): boolean {
  return compounds.some(({ pseudoClasses }) =>
    pseudoClasses.some((test) => {
      switch (test.kind) {
        case 'named':
          return STATES.has(test.name);
        case 'is':
        case 'not':
        case 'has':
          return test.list.some(asksForState);
        case 'nth':
          return test.nth.of?.some(asksForState) ?? false;
        case 'host':
          return test.argument?.some(asksForState) ?? false;
        default:
          return false;
      }
    }),
  );
}
