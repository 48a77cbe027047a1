import { textOf, type ElementNode } from '../dom/tree.js';
import { isGeneratedClass } from '../selectors/class-names.js';

/** Elements of two captures that were found to be the same, both ways. */
export interface Pairs {
  readonly after: ReadonlyMap<ElementNode, ElementNode>;
  readonly before: ReadonlyMap<ElementNode, ElementNode>;
}

/** What tells an element besides its name, its classes and its text. */
export const TELLING_ATTRIBUTES = [
  'href',
  'name',
  'type',
  'for',
  'aria-label',
  'alt',
  'src',
  'placeholder',
  'value',
  'role',
  'title',
] as const;

/** Tags that stand in for one another when a theme is written anew (common practice). */
const KIN: readonly ReadonlySet<string>[] = [
  new Set(['div', 'section', 'article', 'aside', 'main', 'header', 'footer', 'nav', 'form', 'fieldset', 'figure']),
  new Set(['a', 'button', 'input', 'summary']),
  new Set(['span', 'strong', 'em', 'b', 'i', 'small', 'label', 'p', 'div']),
  new Set(['h1', 'h2', 'h3', 'h4', 'h5', 'h6', 'p', 'legend', 'strong']),
  new Set(['ul', 'ol', 'div', 'nav']),
  new Set(['li', 'div', 'article']),
];

/** Levels up to which what was wrapped is still found in its place. */
const MOST_WRAPPED = 3;

/**
 * How alike two elements of two captures are, 0 to 1: tag, id, the stems of their names, text, attributes, and whether what is
 * around and inside them is the same. What neither has says nothing.
 */
export function likeness(a: ElementNode, b: ElementNode, pairs: Pairs): number {
  let [sum, most] = [0, 0];
  const add = (weight: number, value: number): void => {
    sum += weight * value;
    most += weight;
  };
  if (!namesOrText(a, b, add) && a.children.every((child) => !pairs.after.has(child)))
    // A place alone tells nothing apart but what has nothing else.
    if (most > 0 || a.localName !== b.localName) return 0;
  add(2, a.localName === b.localName ? 1 : areKin(a.localName, b.localName) ? 0.5 : 0);
  const above = aboveOf(a);
  const around = above && pairs.after.get(above);
  if (around) add(3, aroundness(around, b));
  const inside = a.children.flatMap((child) => pairs.after.get(child) ?? []);
  if (inside.length > 0)
    add(Math.min(4, 1 + inside.length), inside.filter((child) => aroundness(b, child) > 0).length / inside.length);
  if (around && around === aboveOf(b)) add(1, 1 - Math.min(1, Math.abs(a.position - b.position) / 4));
  return most === 0 ? 0 : sum / most;
}

/** How alike they are by themselves. @returns whether anything is. */
function namesOrText(a: ElementNode, b: ElementNode, tell: (weight: number, value: number) => void): boolean {
  let isAnything = false;
  const add = (weight: number, value: number): void => {
    tell(weight, value);
    isAnything ||= value > 0;
  };
  if (a.id && b.id) add(4, a.id === b.id ? 1 : 0.7 * namesAlike([a.id], [b.id]));
  else if (a.id || b.id) add(1, 0);
  const classes = [a, b].map((element) => element.classes.filter((name) => !isGeneratedClass(name)));
  if (classes[0].length > 0 && classes[1].length > 0) add(4, namesAlike(classes[0], classes[1]));
  else if (classes[0].length + classes[1].length > 0) add(1, 0);
  const own = [a.ownText, b.ownText].map(collapsed);
  if (own[0] !== '' || own[1] !== '') add(4, wordsAlike(own[0], own[1]));
  else {
    const inside = [textOf(a, 120), textOf(b, 120)];
    if (inside[0] !== '' || inside[1] !== '') add(2, wordsAlike(inside[0], inside[1]));
  }
  for (const name of TELLING_ATTRIBUTES) {
    const values = [a.attributes.get(name), b.attributes.get(name)];
    if (values[0] !== undefined && values[1] !== undefined) add(1.5, values[0] === values[1] ? 1 : 0);
    else if (values[0] !== values[1]) add(0.4, 0);
  }
  return isAnything;
}

function areKin(a: string, b: string): boolean {
  return KIN.some((tags) => tags.has(a) && tags.has(b));
}

/** What an element stands in: its parent, or the host of its shadow tree. */
export function aboveOf(element: ElementNode): ElementNode | null {
  return element.parent ?? element.root.host;
}

/** 1 where an element stands right in another, less where it is wrapped in it, 0 where it is not in it. */
function aroundness(outer: ElementNode, element: ElementNode): number {
  let node = aboveOf(element);
  for (let depth = 0; node && depth <= MOST_WRAPPED; depth += 1, node = aboveOf(node))
    if (node === outer) return 1 - 0.15 * depth;
  return 0;
}

/** Pieces of a name: `rv-btnPrimary--lg` is `rv`, `btn`, `primary`, `lg`. */
export function piecesOf(name: string): string[] {
  return name
    .replace(/([a-z])([A-Z])/g, '$1-$2')
    .toLowerCase()
    .split(/[^a-z0-9]+/)
    .filter((piece) => piece !== '');
}

/** How many of their names, or pieces of names, two lists have in common. */
function namesAlike(a: readonly string[], b: readonly string[]): number {
  const best = (name: string, others: readonly string[]): number =>
    Math.max(...others.map((other) => (name === other ? 1 : 0.85 * overlap(piecesOf(name), piecesOf(other)))));
  const sum = [...a.map((name) => best(name, b)), ...b.map((name) => best(name, a))];
  return sum.reduce((total, value) => total + value, 0) / sum.length;
}

function wordsAlike(a: string, b: string): number {
  if (a === b) return 1;
  return 0.9 * overlap(a.toLowerCase().split(' '), b.toLowerCase().split(' '));
}

/** Share of two lists that is in both. Source: Dice 1945. */
function overlap(a: readonly string[], b: readonly string[]): number {
  const rest = [...b];
  let both = 0;
  for (const piece of a) {
    const at = rest.indexOf(piece);
    if (at < 0) continue;
    rest.splice(at, 1);
    both += 1;
  }
  return (2 * both) / Math.max(1, a.length + b.length);
}

export function collapsed(text: string): string {
  return text.replace(/\s+/g, ' ').trim();
}
