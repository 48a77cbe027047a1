/** Namespaces that selectors and presentational attributes tell apart. */
export type Namespace = 'html' | 'svg' | 'mathml' | 'other';

/** An element of a captured page. */
export interface ElementNode {
  /**
   * Running number from 0: the index in `document.querySelectorAll('*')`; elements of shadow trees
   * are numbered after all of those, tree by tree.
   */
  readonly number: number;
  /** Lower case in HTML, as written in other namespaces. */
  readonly localName: string;
  readonly namespace: Namespace;
  readonly attributes: ReadonlyMap<string, string>;
  readonly id: string | null;
  readonly classes: readonly string[];
  /** Parent element in the same tree; `null` for the root element and the top of a shadow tree. */
  readonly parent: ElementNode | null;
  readonly root: TreeRoot;
  readonly children: readonly ElementNode[];
  /** Index among the element siblings, from 0. */
  readonly position: number;
  /** Text directly inside, in order, not collapsed. */
  readonly ownText: string;
  readonly shadowRoot: TreeRoot | null;
  /** Parent in the flat tree (CSS Scoping 1 §3.1), which inheritance follows; `null` at the root and where not rendered. */
  readonly flatParent: ElementNode | null;
}

/** A document or a shadow tree. */
export interface TreeRoot {
  readonly kind: 'document' | 'shadow';
  readonly host: ElementNode | null;
  /** Top elements of this tree. */
  readonly children: readonly ElementNode[];
}

/** Classes that scripts put on and take off, by a name that an element has beside them: `.class`, `#id` or its tag. */
export type SwitchClasses = ReadonlyMap<string, ReadonlySet<string>>;

/** A parsed page. */
export interface PageDocument {
  readonly root: TreeRoot;
  /** Every element, `elements[n].number === n`. */
  readonly elements: readonly ElementNode[];
  readonly rootElement: ElementNode;
  /** Whether class and id selectors fold ASCII case (HTML §"quirks mode"). */
  readonly quirks: boolean;
  readonly shadowRoots: readonly TreeRoot[];
  /** Classes by which the page's rules tell how its elements stand; absent before they are read. */
  readonly switchClasses?: SwitchClasses;
}

/** Ancestors of an element in its own tree, nearest first. */
export function* ancestorsOf(element: ElementNode): Generator<ElementNode> {
  for (let node = element.parent; node; node = node.parent) yield node;
}

/** Chain from the root of the flat tree down to the element, itself last. */
export function lineageOf(element: ElementNode): ElementNode[] {
  const chain: ElementNode[] = [];
  for (let node: ElementNode | null = element; node; node = node.flatParent) chain.push(node);
  return chain.reverse();
}

/** Siblings of an element, itself among them. */
export function siblingsOf(element: ElementNode): readonly ElementNode[] {
  return element.parent ? element.parent.children : element.root.children;
}

/** Text of an element and all it holds, white space collapsed, at most `limit` UTF-16 units. */
export function textOf(element: ElementNode, limit = 200): string {
  let text = '';
  const walk = (node: ElementNode): void => {
    if (text.length >= limit * 4) return;
    text += ` ${node.ownText}`;
    for (const child of node.children) walk(child);
  };
  walk(element);
  return text.replace(/\s+/g, ' ').trim().slice(0, limit);
}
