import type { ElementNode } from '../dom/tree.js';
import { subjectOf, type ComplexSelector } from './selector.js';
import { subjectKeys } from './subject-keys.js';

/** Things found by the selector that leads to them, bucketed by what its subject must have. */
export interface SelectorIndex<T> {
  /** Entries whose subject may match the element; a superset, to be matched. */
  candidates(element: ElementNode, given?: ReadonlySet<string>): readonly T[];
}

/**
 * Builds an index over selectors.
 * @param foldCase whether class and id names fold ASCII case (quirks mode).
 */
export function createSelectorIndex<T>(entries: Iterable<{ readonly selector: ComplexSelector; readonly entry: T }>, foldCase: boolean): SelectorIndex<T> {
  const buckets = new Map<string, T[]>();
  const fold = (name: string): string => (foldCase ? name.toLowerCase() : name);
  for (const { selector, entry } of entries) {
    for (const key of new Set(subjectKeys(subjectOf(selector)))) {
      const folded = key.startsWith('#') || key.startsWith('.') ? fold(key) : key;
      const bucket = buckets.get(folded);
      if (bucket) bucket.push(entry);
      else buckets.set(folded, [entry]);
    }
  }
  return {
    candidates(element, given) {
      const found: T[] = [];
      const add = (key: string): void => {
        const bucket = buckets.get(key);
        if (bucket) for (const entry of bucket) found.push(entry);
      };
      if (element.id !== null) add(`#${fold(element.id)}`);
      for (const name of element.classes) add(`.${fold(name)}`);
      for (const name of element.attributes.keys()) add(`[${name}`);
      if (given) {
        for (const state of given) {
          if (state.startsWith('.')) add(fold(state));
          else if (state.startsWith('[')) add(state.slice(0, state.indexOf('=')));
        }
      }
      add(`<${element.localName.toLowerCase()}`);
      add('*');
      return found;
    },
  };
}
