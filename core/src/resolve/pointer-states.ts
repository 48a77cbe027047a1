import type { ElementNode, PageDocument } from '../dom/tree.js';
import { isLink } from '../selectors/element-states.js';
import type { StateMap } from '../selectors/match-context.js';

/** States a designer asks about, by the names CSS has for them. */
export type StateName = 'rest' | 'hover' | 'focus' | 'active' | 'visited' | 'disabled' | 'checked' | 'invalid';

const LABELABLE = new Set(['button', 'input', 'meter', 'output', 'progress', 'select', 'textarea']);

/**
 * The states all elements have when one element is in a state as the pointer or the keyboard brings it about:
 * hover and active reach the ancestors and, through a label, its control; focus shows focus-visible, and
 * focus-within on the ancestors; a pressed element is hovered too.
 * Source: HTML §4.16.3 and Selectors 4 §9.
 */
export function pointerStates(document: PageDocument, element: ElementNode, state: StateName): StateMap {
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
    default:
      give(element, state);
  }
  return states;
}

/** The control a label stands for: by `for`, or the first one inside. */
function controlOf(document: PageDocument, label: ElementNode): ElementNode | null {
  const target = label.attributes.get('for');
  if (target !== undefined) return document.elements.find((element) => element.id === target && LABELABLE.has(element.localName)) ?? null;
  const find = (node: ElementNode): ElementNode | null => {
    for (const child of node.children) {
      const found = LABELABLE.has(child.localName) ? child : find(child);
      if (found) return found;
    }
    return null;
  };
  return find(label);
}
