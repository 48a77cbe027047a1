import { alikeKey } from '../selectors/alike.js';
import { siblingsOf, type ElementNode } from '../dom/tree.js';

/** An element whose state may tell on another, and how it stands to it. */
export interface Carrier {
  readonly element: ElementNode;
  /** `self`; an ancestor; a sibling before the element or before an ancestor; a child of an ancestor, or of the element, by `:has()`. */
  readonly relation: 'self' | 'ancestor' | 'before' | 'inside';
  /** Generations from the element up to where the relation holds. */
  readonly steps: number;
  /** The element itself or the ancestor of it that the relation is to. */
  readonly at: ElementNode;
}

/** Steps up the lineage whose neighbours are tried, and neighbours of one step. */
export const MOST_STEPS = 4;
export const MOST_NEIGHBOURS = 6;

/** Elements whose states selectors can ask about on the way to an element, the nearest first. Source: Selectors 4 §15 for the combinators, §4.5 for `:has()`. */
export function carriersOf(element: ElementNode): Carrier[] {
  const found: Carrier[] = [];
  for (
    let node: ElementNode | null = element, steps = 0;
    node && steps < MOST_STEPS;
    node = node.flatParent, steps += 1
  ) {
    const at = node;
    if (at.localName === 'body' || at.localName === 'html') break;
    found.push({ element: at, relation: at === element ? 'self' : 'ancestor', steps, at });
    for (const sibling of siblingsOf(at).slice(0, at.position).reverse().slice(0, MOST_NEIGHBOURS))
      found.push({ element: sibling, relation: 'before', steps, at });
    for (const child of at.children.slice(0, MOST_NEIGHBOURS))
      if (!found.some((carrier) => carrier.element === child))
        found.push({ element: child, relation: 'inside', steps, at });
  }
  return found;
}

/** How an element stands to one whose state tells on it; `null` where it does in no way that a selector of ours says. */
export function relationOf(element: ElementNode, other: ElementNode): Carrier | null {
  return carriersOf(element).find((carrier) => carrier.element === other) ?? null;
}

/** The element that stands to one as another does to its like; `null` where none does. */
export function carrierAlike(element: ElementNode, lead: ElementNode, other: ElementNode): ElementNode | null {
  const wanted = relationOf(lead, other);
  if (!wanted) return null;
  const type = (node: ElementNode): string => node.attributes.get('type')?.toLowerCase() ?? '';
  const likely = carriersOf(element)
    .filter(({ relation, steps }) => relation === wanted.relation && steps === wanted.steps)
    .map((carrier) => carrier.element)
    .filter((own) => own.localName === other.localName && type(own) === type(other));
  // Of several beside one another the one with the same names is meant.
  return likely.find((own) => alikeKey(own) === alikeKey(other)) ?? likely.at(0) ?? null;
}
