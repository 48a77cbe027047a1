import type { PageDocument, TreeRoot } from '../dom/tree.js';
import type { StyleRule } from '../rules/style-rule.js';
import { ancestorBits } from '../selectors/ancestor-filter.js';
import { createSelectorIndex, type SelectorIndex } from '../selectors/rule-index.js';
import type { ComplexSelector } from '../selectors/selector.js';

/** An entry of the index: one selector of one rule. */
export interface RuleEntry {
  readonly rule: StyleRule;
  readonly selector: ComplexSelector;
  /** Bits of the names its ancestors must have. */
  readonly above: readonly number[];
}

/** How a selector reaches its element: directly, through a slot, or as a part. */
export type ReachKind = 'plain' | 'slotted' | 'part';

/** Index of the rules of one tree by way of reaching and pseudo-element. */
export type RuleIndex = ReadonlyMap<string, SelectorIndex<RuleEntry>>;

/** Indexes of one set of rules by tree; `null` is the tree of user-agent rules. */
export type RuleIndexes = ReadonlyMap<TreeRoot | null, RuleIndex>;

/** Indexes rules by the tree whose elements they style. */
export function indexRules(rules: readonly StyleRule[], document: PageDocument): RuleIndexes {
  const byTree = new Map<TreeRoot | null, StyleRule[]>();
  for (const rule of rules) {
    const tree = rule.sheet.origin === 'user-agent' ? null : rule.sheet.tree;
    const list = byTree.get(tree);
    if (list) list.push(rule);
    else byTree.set(tree, [rule]);
  }
  return new Map([...byTree].map(([tree, list]) => [tree, indexByKey(list, document.quirks)]));
}

/** Indexes rules of one tree. @param foldCase whether class and id names fold ASCII case. */
export function indexByKey(rules: readonly StyleRule[], foldCase: boolean): RuleIndex {
  const byKey = new Map<string, { selector: ComplexSelector; entry: RuleEntry }[]>();
  for (const rule of rules) {
    for (const selector of rule.selectors) {
      const key = indexKey(selector);
      const list = byKey.get(key);
      const item = { selector, entry: { rule, selector, above: ancestorBits(selector) } };
      if (list) list.push(item);
      else byKey.set(key, [item]);
    }
  }
  const index = new Map([...byKey].map(([key, entries]) => [key, createSelectorIndex(entries, foldCase)]));
  indexed.set(index, rules);
  return index;
}

const indexed = new WeakMap<RuleIndex, readonly StyleRule[]>();

/** The rules an index was made of. */
export function rulesIn(index: RuleIndex): readonly StyleRule[] {
  return indexed.get(index) ?? [];
}

/** Key of a selector: how it reaches, then its pseudo-element. */
export function indexKey(selector: ComplexSelector): string {
  const names = selector.pseudoElements.map(({ name }) => name);
  const kind: ReachKind = names[0] === 'slotted' ? 'slotted' : names[0] === 'part' ? 'part' : 'plain';
  return indexKeys((kind === 'plain' ? names : names.slice(1)).join('::'))[kind];
}

/** Keys of what reaches a pseudo-element; `''` is the element itself. */
export function indexKeys(pseudo: string): Readonly<Record<ReachKind, string>> {
  let keys = keysOf.get(pseudo);
  if (!keys)
    keysOf.set(pseudo, (keys = { plain: `plain:${pseudo}`, slotted: `slotted:${pseudo}`, part: `part:${pseudo}` }));
  return keys;
}

const keysOf = new Map<string, Readonly<Record<ReachKind, string>>>();
