import type { ElementNode, PageDocument } from '../dom/tree.js';
import { isFocusable, isLink } from '../selectors/element-states.js';
import type { StateMap } from '../selectors/match-context.js';

/** States the census looks at, rest first. */
export const CENSUS_STATES = ['rest', 'visited', 'hover', 'focus', 'active', 'checked', 'invalid', 'disabled'] as const;
export type CensusState = (typeof CENSUS_STATES)[number];

/** Pseudo-classes that hold in a state. Pressed is hovered too, focus by the keyboard shows its ring. */
const NAMES: Readonly<Record<CensusState, readonly string[]>> = {
  rest: [],
  visited: ['visited'],
  hover: ['hover'],
  focus: ['focus', 'focus-visible'],
  active: ['hover', 'active'],
  checked: ['checked'],
  invalid: ['invalid', 'user-invalid'],
  disabled: ['disabled'],
};

const CONTROLS = new Set(['input', 'select', 'textarea', 'button', 'fieldset', 'option']);

/**
 * A page with every element in a state at once, as if the pointer could be everywhere. Each element comes out as it does
 * when it is in the state itself; what a rule says of elements *not* in it, such as `:hover > :not(:hover)`, does not show.
 */
export function allInState(document: PageDocument, state: CensusState): StateMap {
  const names = new Set(NAMES[state]);
  if (names.size === 0) return new Map();
  const states = new Map<ElementNode, ReadonlySet<string>>(
    document.elements.filter((element) => canBe(element, state)).map((element) => [element, names]),
  );
  if (state === 'focus') {
    for (const focused of [...states.keys()])
      for (let node: ElementNode | null = focused; node; node = node.flatParent)
        states.set(node, new Set([...(states.get(node) ?? []), 'focus-within']));
  }
  return states;
}

function canBe(element: ElementNode, state: CensusState): boolean {
  if (state === 'visited') return isLink(element);
  if (state === 'focus') return isFocusable(element);
  if (state === 'checked')
    return (
      element.localName === 'option' ||
      (element.localName === 'input' && /^(?:checkbox|radio)$/i.test(element.attributes.get('type') ?? ''))
    );
  if (state === 'invalid')
    return element.localName !== 'button' && (CONTROLS.has(element.localName) || element.localName === 'form');
  if (state === 'disabled') return CONTROLS.has(element.localName);
  return true;
}
