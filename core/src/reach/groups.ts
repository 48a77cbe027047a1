import { message, type Message } from '../message/message.js';
import { ancestorsOf, type ElementNode } from '../dom/tree.js';
import type { Page } from '../resolve/page.js';
import { matchingElements } from '../selectors/matching-elements.js';
import { escapeIdentifier, parseSelectorList, quoteString } from '../selectors/parse-selector.js';
import { kindOf, type Kind } from '../selectors/alike.js';
import { isLastingId, lastingClasses } from '../selectors/class-names.js';

/** A natural group that an element belongs to, by what people would say of it. */
export interface Group {
  /** Selector that gathers it, and others that gather the same, shortest first. */
  readonly selectors: readonly string[];
  /** `the buttons in form.search`, `.secondary in the header`. */
  readonly words: Message;
  readonly elements: readonly ElementNode[];
  readonly pages: number;
  /** Whether all of it looks the same at rest. */
  readonly isOneLook: boolean;
}

/** What tells how an element looks at rest; equal for equal looks. */
export type LookOf = (element: ElementNode) => string;

const MOST_SELECTORS = 3;
const KIND_SELECTORS: Readonly<Record<Kind, string>> = {
  button: ':is(button, [type="submit"], [type="button"], [type="reset"])',
  link: 'a[href]',
  field: ':is(input, select, textarea)',
  heading: ':is(h1, h2, h3, h4, h5, h6)',
  other: '',
};
/** Elements that hold things people speak of as one. */
const PLACES: ReadonlySet<string> = new Set([
  'header',
  'footer',
  'nav',
  'main',
  'aside',
  'form',
  'section',
  'article',
  'dialog',
  'table',
  'fieldset',
  'ul',
  'ol',
]);

/**
 * The natural groups an element is in, from narrow to wide: by the names it shares, its kind, its look and its place, over all
 * pages. Each is gathered by one selector that leans on names that last.
 * @param taken sets of elements that are offered already, by their numbers.
 */
export function groupsOf(
  pages: readonly Page[],
  element: ElementNode,
  lookOf: LookOf,
  taken: readonly (readonly ElementNode[])[] = [],
): Group[] {
  const subjects = subjectsOf(pages, element, lookOf);
  const places: readonly (Named | null)[] = [...placesAround(element), null];
  const found = new Map<string, { selectors: string[]; words: Message; elements: ElementNode[] }>();
  const keyOf = (elements: readonly ElementNode[]): string =>
    elements
      .map((own) => `${pages.findIndex((page) => page.document.elements[own.number] === own)}/${own.number}`)
      .join();
  const known = new Set(taken.map(keyOf));
  const matched = new Map(
    subjects.map((subject) => [
      subject,
      pages.flatMap((page) => matchingElements(page, parseSelectorList(subject.selector))),
    ]),
  );
  for (const place of places) {
    const holds =
      place === null
        ? null
        : new Set(pages.flatMap((page) => matchingElements(page, parseSelectorList(place.selector))));
    for (const subject of subjects) {
      const selector = place === null ? subject.selector : `${place.selector} ${subject.selector}`;
      const elements = (matched.get(subject) ?? []).filter(
        (own) => holds === null || [...ancestorsOf(own)].some((node) => holds.has(node)),
      );
      if (elements.length < 2 || !elements.includes(element)) continue;
      const key = keyOf(elements);
      if (known.has(key)) continue;
      const words = message(place === null ? 'reach.group-anywhere' : 'reach.group', {
        what: subject.words,
        place: place?.words ?? '',
      });
      const before = found.get(key);
      if (before) before.selectors.push(selector);
      else found.set(key, { selectors: [selector], words, elements });
    }
  }
  return [...found.values()]
    .map(({ selectors, words, elements }): Group => ({
      selectors: [...selectors].sort((a, b) => a.length - b.length).slice(0, MOST_SELECTORS),
      words,
      elements,
      pages: new Set(elements.map((own) => pages.findIndex((page) => page.document.elements[own.number] === own))).size,
      isOneLook: elements.every((own) => lookOf(own) === lookOf(element)),
    }))
    .sort((a, b) => a.elements.length - b.elements.length || Number(b.isOneLook) - Number(a.isOneLook));
}

/** The groups that are offered where there are more: those of one look first, the narrower first; from narrow to wide again. */
export function offeredOf(groups: readonly Group[], most: number): Group[] {
  return [...groups]
    .sort((a, b) => Number(b.isOneLook) - Number(a.isOneLook))
    .slice(0, most)
    .sort((a, b) => a.elements.length - b.elements.length);
}

/** Elements of the same kind and look that a reach does not take. */
export function lookAlikes(
  pages: readonly Page[],
  element: ElementNode,
  lookOf: LookOf,
  reached: ReadonlySet<ElementNode>,
): ElementNode[] {
  const kind = kindOf(element);
  return pages.flatMap((page) =>
    page.document.elements.filter(
      (other) =>
        !reached.has(other) &&
        kindOf(other) === kind &&
        (kind !== 'other' || other.localName === element.localName) &&
        lookOf(other) === lookOf(element),
    ),
  );
}

interface Named {
  readonly selector: string;
  readonly words: Message;
}

/** What is called by its CSS. */
function named(selector: string, css: string): Named {
  return { selector, words: message('plain', { text: css }) };
}

/** What the element itself can be called, without its place. */
function subjectsOf(pages: readonly Page[], element: ElementNode, lookOf: LookOf): Named[] {
  const kind = kindOf(element);
  const classes = lastingClasses(element.classes).slice(0, 5);
  const tag = element.localName;
  const single = classes.map((name) => named(`.${escapeIdentifier(name)}`, `.${name}`));
  const pairs = classes.flatMap((a, i) =>
    classes.slice(i + 1).map((b) => named(`.${escapeIdentifier(a)}.${escapeIdentifier(b)}`, `.${a}.${b}`)),
  );
  const tags = classes.map((name) => named(`${tag}.${escapeIdentifier(name)}`, `${tag}.${name}`));
  const type = element.attributes.get('type');
  const typed =
    type && tag === 'input'
      ? [{ selector: `input[type=${quoteString(type)}]`, words: message('reach.typed-fields', { type }) }]
      : [];
  const kinds: Named[] =
    kind === 'other' ? [named(tag, tag)] : [{ selector: KIND_SELECTORS[kind], words: message('reach.kind', { kind }) }];
  const plain = [...single, ...pairs, ...tags, ...typed, ...kinds];
  return [...plain, ...plain.flatMap((subject) => withoutVariants(pages, element, subject, lookOf))];
}

/** The same less those that a name of their own makes look otherwise: every `.btn` that is not `.primary`. */
function withoutVariants(pages: readonly Page[], element: ElementNode, subject: Named, lookOf: LookOf): Named[] {
  const others = pages
    .flatMap((page) => matchingElements(page, parseSelectorList(subject.selector)))
    .filter((other) => lookOf(other) !== lookOf(element));
  if (others.length === 0 || others.length > 400) return [];
  const own = new Set(element.classes);
  const alike = pages
    .flatMap((page) => matchingElements(page, parseSelectorList(subject.selector)))
    .filter((other) => lookOf(other) === lookOf(element));
  const usedByAlike = new Set(alike.flatMap(({ classes }) => classes));
  const counts = new Map<string, number>();
  for (const other of others)
    for (const name of lastingClasses(other.classes))
      if (!own.has(name) && !usedByAlike.has(name)) counts.set(name, (counts.get(name) ?? 0) + 1);
  const variants: string[] = [];
  let left = others;
  for (const [name] of [...counts].sort((a, b) => b[1] - a[1] || (a[0] < b[0] ? -1 : 1))) {
    if (left.length === 0 || variants.length === 4) break;
    if (!left.some(({ classes }) => classes.includes(name))) continue;
    variants.push(name);
    left = left.filter(({ classes }) => !classes.includes(name));
  }
  if (variants.length === 0) return [];
  return [
    {
      selector: `${subject.selector}:not(${variants.map((name) => `.${escapeIdentifier(name)}`).join(', ')})`,
      words: message('reach.but', { what: subject.words, variants: variants.map((name) => `.${name}`) }),
    },
  ];
}

const MOST_PLACES = 9;

/** Places an element stands in, the nearest first. */
function placesAround(element: ElementNode): Named[] {
  const places: Named[] = [];
  for (const node of ancestorsOf(element)) {
    if (places.length >= MOST_PLACES || node.localName === 'body' || node.localName === 'html') break;
    if (node.id && isLastingId(node.id)) places.push(named(`#${escapeIdentifier(node.id)}`, `#${node.id}`));
    // The last of several names is the most particular (common practice).
    for (const name of lastingClasses(node.classes).slice(0, 3).reverse())
      places.push(named(`.${escapeIdentifier(name)}`, `${PLACES.has(node.localName) ? node.localName : ''}.${name}`));
    if (PLACES.has(node.localName))
      places.push({ selector: node.localName, words: message('reach.every', { name: node.localName }) });
  }
  return places;
}
