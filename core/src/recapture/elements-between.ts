import type { ElementNode, PageDocument } from '../dom/tree.js';
import { TELLING_ATTRIBUTES, aboveOf, collapsed, likeness, piecesOf, type Pairs } from './likeness.js';

/** How alike two elements must be, from the surest round to the last. */
const LEAST_ALIKE = [0.85, 0.7, 0.55, 0.42] as const;
/** Elements that share one trait from which it tells too little to be followed. */
const MOST_SHARING = 60;
/** Levels inside the pair of an ancestor, and of ancestors, in which an element is looked for. */
const MOST_DEPTH = 3;

const known = new WeakMap<PageDocument, WeakMap<PageDocument, Pairs['after']>>();

/**
 * Which element of another capture of a page each element became: first what is the same with all it holds, then what is most alike
 * in its name, text and place, the surest first, since each pair says more of what is around it. No two became one.
 */
export function elementsBetween(before: PageDocument, after: PageDocument): Pairs['after'] {
  let own = known.get(before);
  if (!own) known.set(before, (own = new WeakMap()));
  let pairs = own.get(after);
  if (!pairs) own.set(after, (pairs = new Pairing(before, after).paired()));
  return pairs;
}

class Pairing implements Pairs {
  readonly after = new Map<ElementNode, ElementNode>();
  readonly before = new Map<ElementNode, ElementNode>();

  constructor(
    private readonly documentBefore: PageDocument,
    private readonly documentAfter: PageDocument,
  ) {}

  paired(): Pairs['after'] {
    this.#pair(this.documentBefore.rootElement, this.documentAfter.rootElement);
    this.#pairSameTrees();
    for (const least of LEAST_ALIKE) while (this.#pairAlike(least) > 0);
    return this.after;
  }

  #pair(a: ElementNode, b: ElementNode): void {
    this.after.set(a, b);
    this.before.set(b, a);
  }

  #isFree(a: ElementNode, b: ElementNode): boolean {
    return !this.after.has(a) && !this.before.has(b);
  }

  /** What is the same with all it holds, as often in one capture as in the other, is paired in order. */
  #pairSameTrees(): void {
    const names = new Map<string, number>();
    const [was, is] = [this.documentBefore, this.documentAfter].map((document) => sameTrees(document, names));
    for (const element of this.documentBefore.elements) {
      if (this.after.has(element)) continue;
      const name = was.nameOf.get(element) ?? -1;
      const own = was.byName.get(name) ?? [];
      const others = is.byName.get(name) ?? [];
      if (own.length !== others.length) continue;
      own.forEach((a, i) => this.#pairTrees(a, others[i]));
    }
  }

  #pairTrees(a: ElementNode, b: ElementNode): void {
    if (!this.#isFree(a, b)) return;
    this.#pair(a, b);
    insideOf(a).forEach((child, i) => this.#pairTrees(child, insideOf(b)[i]));
  }

  /** Pairs what is still free and alike enough. @returns how many. */
  #pairAlike(least: number): number {
    const free = this.documentAfter.elements.filter((element) => !this.before.has(element));
    const traits = new Map<string, ElementNode[]>();
    for (const element of free)
      for (const trait of traitsOf(element)) {
        const sharing = traits.get(trait);
        if (sharing) sharing.push(element);
        else traits.set(trait, [element]);
      }
    const found: { readonly a: ElementNode; readonly b: ElementNode; readonly score: number }[] = [];
    for (const a of this.documentBefore.elements) {
      if (this.after.has(a)) continue;
      for (const b of this.#candidatesFor(a, traits)) {
        const score = likeness(a, b, this);
        if (score >= least) found.push({ a, b, score });
      }
    }
    const size = [this.documentBefore, this.documentAfter].map(({ elements }) => elements.length);
    const apart = ({ a, b }: (typeof found)[number]): number => Math.abs(a.number / size[0] - b.number / size[1]);
    found.sort((x, y) => y.score - x.score || apart(x) - apart(y));
    let count = 0;
    for (const { a, b } of found)
      if (this.#isFree(a, b)) {
        this.#pair(a, b);
        count += 1;
      }
    return count;
  }

  #candidatesFor(a: ElementNode, traits: ReadonlyMap<string, readonly ElementNode[]>): ReadonlySet<ElementNode> {
    const candidates = new Set<ElementNode>();
    const add = (b: ElementNode): void => {
      if (!this.before.has(b) && b.namespace === a.namespace) candidates.add(b);
    };
    for (const trait of traitsOf(a)) {
      const sharing = traits.get(trait) ?? [];
      if (sharing.length <= MOST_SHARING) sharing.forEach(add);
    }
    let above = aboveOf(a);
    while (above && !this.after.has(above)) above = aboveOf(above);
    const around = above && this.after.get(above);
    if (around) addInside(around, MOST_DEPTH, add);
    for (const child of insideOf(a)) {
      let node = this.after.get(child) ?? null;
      for (let depth = 0; node && depth < MOST_DEPTH; depth += 1) {
        node = aboveOf(node);
        if (node) add(node);
      }
    }
    return candidates;
  }
}

/** Children in the document, and at the top of a shadow tree. */
function insideOf(element: ElementNode): readonly ElementNode[] {
  return element.shadowRoot ? [...element.children, ...element.shadowRoot.children] : element.children;
}

function addInside(element: ElementNode, depth: number, add: (element: ElementNode) => void): void {
  for (const child of insideOf(element)) {
    add(child);
    if (depth > 1) addInside(child, depth - 1, add);
  }
}

interface SameTrees {
  readonly nameOf: ReadonlyMap<ElementNode, number>;
  readonly byName: ReadonlyMap<number, readonly ElementNode[]>;
}

/** Names trees so that those which are the same have the same name. @param names names given so far, which grow. */
function sameTrees({ elements }: PageDocument, names: Map<string, number>): SameTrees {
  const nameOf = new Map<ElementNode, number>();
  const byName = new Map<number, ElementNode[]>();
  const name = (element: ElementNode): number => {
    const own = nameOf.get(element);
    if (own !== undefined) return own;
    const key = JSON.stringify([
      element.localName,
      [...element.attributes].sort(([a], [b]) => (a < b ? -1 : 1)),
      collapsed(element.ownText),
      insideOf(element).map(name),
    ]);
    let given = names.get(key);
    if (given === undefined) names.set(key, (given = names.size));
    nameOf.set(element, given);
    return given;
  };
  // From the last on, so that what is inside is named first and nothing recurses deep.
  for (const element of [...elements].reverse()) name(element);
  for (const element of elements) {
    const given = nameOf.get(element) ?? -1;
    const same = byName.get(given);
    if (same) same.push(element);
    else byName.set(given, [element]);
  }
  return { nameOf, byName };
}

/** What an element may be found by. */
function traitsOf(element: ElementNode): string[] {
  const text = collapsed(element.ownText);
  return [
    ...(element.id ? [`#${element.id}`] : []),
    ...(text.length > 2 ? [`"${text.slice(0, 120)}`] : []),
    ...element.classes.map((name) => `.${name}`),
    ...[...element.classes, element.id ?? ''].flatMap(piecesOf).map((piece) => `-${piece}`),
    ...TELLING_ATTRIBUTES.flatMap((name) => {
      const value = element.attributes.get(name);
      return value ? [`[${name}=${value.slice(0, 120)}`] : [];
    }),
  ];
}
