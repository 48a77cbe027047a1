import type { ElementNode, PageDocument } from '../dom/tree.js';
import { isLink } from '../selectors/element-states.js';
import { currentMarkerFor } from '../selectors/current-marker.js';
import { isSwitchState, type OverrideState } from '../veneer/override.js';
import { flipsOf } from './flips.js';
import type { StateMap } from '../selectors/match-context.js';

/** States a designer asks about. `current` is the current page; the states of a parent are those of an ancestor; `switched` and `locked` those of an element around it that tells on it. */
export type StateName = OverrideState;

const LABELABLE = new Set(['button', 'input', 'meter', 'output', 'progress', 'select', 'textarea']);

/**
 * The states all elements have when one element is in a state as the pointer or the keyboard brings it about:
 * hover and active reach the ancestors and, through a label, its control; focus shows focus-visible, and
 * focus-within on the ancestors; a pressed element is hovered too.
 * Source: HTML §4.16.3 and Selectors 4 §9.
 * @param parent the ancestor that a parent's state is of, or the element that is switched.
 */
export function pointerStates(
  document: PageDocument,
  element: ElementNode,
  state: StateName,
  parent: ElementNode | null = null,
): StateMap {
  if (state === 'parent-hover') return parent ? pointerStates(document, parent, 'hover') : new Map();
  if (state === 'parent-invalid') return parent ? new Map([[parent, new Set(['invalid', 'user-invalid'])]]) : new Map();
  if (isSwitchState(state)) {
    const flip = parent && flipsOf(parent, document)[state];
    if (!parent || !flip) return new Map();
    return state === 'focused' ? pointerStates(document, parent, 'focus') : new Map([[parent, new Set(flip.given)]]);
  }
  const states = new Map<ElementNode, Set<string>>();
  const give = (node: ElementNode, ...names: string[]): void => {
    const set = states.get(node);
    if (set) names.forEach((name) => set.add(name));
    else states.set(node, new Set(names));
  };
  switch (state) {
    case 'rest':
      break;
    case 'hover':
    case 'active': {
      const names = state === 'active' ? ['hover', 'active'] : ['hover'];
      for (let node: ElementNode | null = element; node; node = node.flatParent) {
        give(node, ...names);
        if (node.localName === 'label') {
          const control = controlOf(document, node);
          if (control) give(control, ...names);
        }
      }
      break;
    }
    case 'focus':
      give(element, 'focus', 'focus-visible');
      for (let node: ElementNode | null = element; node; node = node.flatParent) give(node, 'focus-within');
      break;
    case 'visited': {
      let link: ElementNode | null = element;
      while (link && !isLink(link)) link = link.flatParent;
      if (link) give(link, 'visited');
      break;
    }
    case 'invalid':
      give(element, 'invalid', 'user-invalid');
      break;
    case 'valid':
      give(element, 'valid', 'user-valid');
      break;
    case 'autofilled':
      give(element, 'autofill', '-webkit-autofill', '!placeholder-shown');
      break;
    case 'read-only':
      give(element, 'read-only', '[readonly=');
      break;
    case 'open':
      give(element, ...(element.attributes.has('popover') ? ['popover-open', 'open'] : ['open', '[open=']));
      break;
    case 'filled':
      give(element, '!placeholder-shown');
      break;
    case 'disabled':
      give(element, 'disabled', '[disabled=');
      break;
    case 'current': {
      const marker = currentMarkerFor(element);
      const marked = marker?.on === 'parent' ? element.parent : element;
      if (marker && marked) give(marked, marker.given);
      if (marker?.also) give(element, marker.also);
      break;
    }
    default:
      give(element, state);
  }
  return states;
}

/** The control a label stands for: by `for`, or the first one inside. */
function controlOf(document: PageDocument, label: ElementNode): ElementNode | null {
  const target = label.attributes.get('for');
  if (target !== undefined)
    return document.elements.find((element) => element.id === target && LABELABLE.has(element.localName)) ?? null;
  const find = (node: ElementNode): ElementNode | null => {
    for (const child of node.children) {
      const found = LABELABLE.has(child.localName) ? child : find(child);
      if (found) return found;
    }
    return null;
  };
  return find(label);
}
