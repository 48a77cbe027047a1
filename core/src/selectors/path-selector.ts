import { siblingsOf, type ElementNode } from '../dom/tree.js';
import { escapeIdentifier } from './parse-selector.js';

/** A selector that finds one element of its tree, of a shadow tree within that: the way down to it from the nearest id, or from the root. */
export function pathSelector(element: ElementNode): string {
  const steps: string[] = [];
  for (let node: ElementNode | null = element; node; node = node.parent) {
    if (node.id) {
      steps.unshift(`#${escapeIdentifier(node.id)}`);
      break;
    }
    const alike = siblingsOf(node).filter(({ localName }) => localName === node.localName);
    const place = alike.length > 1 ? `:nth-of-type(${alike.indexOf(node) + 1})` : '';
    steps.unshift(escapeIdentifier(node.localName) + place);
  }
  return steps.join(' > ');
}
