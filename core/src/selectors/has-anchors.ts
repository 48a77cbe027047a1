import { siblingsOf, type ElementNode, type TreeRoot } from '../dom/tree.js';
import { spendSteps, type MatchContext } from './match-context.js';
import type { Combinator, ComplexSelector, CompoundSelector } from './selector.js';
import { subjectKeys } from './subject-keys.js';

/**
 * All elements of a tree that a relative selector of `:has()` finds something from. The compounds are read from the right:
 * which elements may stand for the last, from these which for the one before, and so on, each relation walked once for all
 * elements. The cost is that of one look at each element a compound, however deep the page is.
 * Source: Selectors 4 §4.5, https://drafts.csswg.org/selectors-4/#relational
 * @param test whether a compound matches an element.
 * @throws {MatchBudgetError} `too-large`, when the context's budget is used up.
 */
export function anchorsIn(
  tree: TreeRoot,
  selector: ComplexSelector,
  context: MatchContext,
  test: (compound: CompoundSelector, element: ElementNode) => boolean,
): ReadonlySet<ElementNode> {
  const last = selector.compounds.length - 1;
  let standing: Iterable<ElementNode> = candidatesIn(tree, selector.compounds[last], context);
  for (let at = last; ; at -= 1) {
    const matching: ElementNode[] = [];
    for (const element of standing) {
      spendSteps(context, 1);
      if (test(selector.compounds[at], element)) matching.push(element);
    }
    standing = relatedTo(
      matching,
      at === 0 && selector.combinators[0] === '' ? ' ' : selector.combinators[at],
      context,
    );
    if (at === 0) return standing as Set<ElementNode>;
  }
}

/** Elements that have some of the given ones in the place a combinator names. */
function relatedTo(elements: readonly ElementNode[], combinator: Combinator, context: MatchContext): Set<ElementNode> {
  const related = new Set<ElementNode>();
  const isNew = (element: ElementNode): boolean => {
    spendSteps(context, 1);
    if (related.has(element)) return false;
    related.add(element);
    return true;
  };
  for (const element of elements) {
    switch (combinator) {
      case '>':
        if (element.parent) related.add(element.parent);
        break;
      case '+':
        if (element.position > 0) related.add(siblingsOf(element)[element.position - 1]);
        break;
      case '~': {
        const siblings = siblingsOf(element);
        for (let i = element.position - 1; i >= 0 && isNew(siblings[i]); i -= 1);
        break;
      }
      default:
        for (let node = element.parent; node && isNew(node); node = node.parent);
    }
  }
  return related;
}

/** Elements that a compound may match: those that have a name it asks for, or all. */
function candidatesIn(tree: TreeRoot, compound: CompoundSelector, context: MatchContext): Iterable<ElementNode> {
  const { all, byKey } = namesOf(tree);
  const keys = subjectKeys(compound);
  if (keys.includes('*')) return all;
  const found = new Set<ElementNode>();
  for (const key of keys) for (const element of byKey.get(key.toLowerCase()) ?? []) found.add(element);
  // A state may give an element a name that it does not have at rest.
  for (const [element] of context.states) if (element.root === tree) found.add(element);
  return found;
}

interface Names {
  readonly all: readonly ElementNode[];
  /** Elements by their names, case folded: `#id`, `.class`, `[attribute`, `<type`. */
  readonly byKey: ReadonlyMap<string, readonly ElementNode[]>;
}

const namesByTree = new WeakMap<TreeRoot, Names>();

function namesOf(tree: TreeRoot): Names {
  const known = namesByTree.get(tree);
  if (known) return known;
  const all: ElementNode[] = [];
  const byKey = new Map<string, ElementNode[]>();
  const add = (key: string, element: ElementNode): void => {
    const list = byKey.get(key);
    if (!list) byKey.set(key, [element]);
    else if (list[list.length - 1] !== element) list.push(element);
  };
  const waiting = [...tree.children].reverse();
  for (let element = waiting.pop(); element; element = waiting.pop()) {
    all.push(element);
    if (element.id !== null) add(`#${element.id.toLowerCase()}`, element);
    for (const name of element.classes) add(`.${name.toLowerCase()}`, element);
    for (const name of element.attributes.keys()) add(`[${name.toLowerCase()}`, element);
    add(`<${element.localName.toLowerCase()}`, element);
    for (let i = element.children.length - 1; i >= 0; i -= 1) waiting.push(element.children[i]);
  }
  const names = { all, byKey };
  namesByTree.set(tree, names);
  return names;
}
