import type { ElementNode } from '../dom/tree.js';
import { matchesType, sameName } from './match-names.js';
import { subjectOf, type ComplexSelector, type CompoundSelector } from './selector.js';
import { subjectKeys } from './subject-keys.js';

/** Things found by the selector that leads to them, bucketed by what its subject must have. */
export interface SelectorIndex<T> {
  /** Entries whose subject may match the element; a superset, to be matched. */
  candidates(element: ElementNode, given?: ReadonlySet<string>): readonly T[];
}

interface Item<T> {
  readonly subject: CompoundSelector;
  readonly entry: T;
}

/** Kinds of elements whose candidates are kept, an index. */
const MOST_KINDS = 4000;

/**
 * Builds an index over selectors. Elements of one kind (name, id, classes, names of attributes) have the same candidates,
 * which are looked up once.
 * @param foldCase whether class and id names fold ASCII case (quirks mode).
 */
export function createSelectorIndex<T>(
  entries: Iterable<{ readonly selector: ComplexSelector; readonly entry: T }>,
  foldCase: boolean,
): SelectorIndex<T> {
  const buckets = new Map<string, Item<T>[]>();
  const byKind = new Map<string, readonly T[]>();
  const fold = (name: string): string => (foldCase ? name.toLowerCase() : name);
  for (const { selector, entry } of entries) {
    const subject = subjectOf(selector);
    for (const key of new Set(subjectKeys(subject))) {
      const folded = key.startsWith('#') || key.startsWith('.') ? fold(key) : key;
      const bucket = buckets.get(folded);
      if (bucket) bucket.push({ subject, entry });
      else buckets.set(folded, [{ subject, entry }]);
    }
  }
  const look = (element: ElementNode, given?: ReadonlySet<string>): T[] => {
    const found: T[] = [];
    const add = (key: string): void => {
      // What a state takes away or gives is left to matching.
      for (const { subject, entry } of buckets.get(key) ?? [])
        if (given || mayBe(subject, element, foldCase)) found.push(entry);
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
  };
  return {
    candidates(element, given) {
      if (buckets.size === 0) return NONE;
      if (given && changesNames(given)) return look(element, given);
      const kind = kindOf(element);
      let found = byKind.get(kind);
      if (!found) {
        if (byKind.size >= MOST_KINDS) byKind.clear();
        byKind.set(kind, (found = look(element)));
      }
      return found;
    },
  };
}

const NONE: readonly never[] = [];

/** Whether a state gives or takes away classes or attributes. */
function changesNames(given: ReadonlySet<string>): boolean {
  for (const name of given) if (/^!?[.[]/.test(name)) return true;
  return false;
}

/** Whether a compound's name, ids and classes are the element's; the rest of it is left to matching. */
function mayBe({ type, ids, classes }: CompoundSelector, element: ElementNode, foldCase: boolean): boolean {
  if (type !== null && !matchesType(type, element)) return false;
  for (const id of ids) if (element.id === null || !sameName(id, element.id, foldCase)) return false;
  for (const name of classes)
    if (!element.classes.includes(name) && !(foldCase && element.classes.some((own) => sameName(name, own, true))))
      return false;
  return true;
}

const kinds = new WeakMap<ElementNode, string>();

/** What tells elements apart for an index; no name of HTML or CSS holds a NUL. Source: HTML §13.2.5, CSS Syntax 3 §3.3. */
function kindOf(element: ElementNode): string {
  let kind = kinds.get(element);
  if (kind === undefined)
    kinds.set(
      element,
      (kind = [element.localName, element.id ?? '', ...element.classes, '', ...element.attributes.keys()].join('\0')),
    );
  return kind;
}
