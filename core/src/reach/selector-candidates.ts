import { ancestorsOf, siblingsOf, type ElementNode } from '../dom/tree.js';
import { escapeIdentifier, quoteString } from '../selectors/parse-selector.js';
import { compareSpecificity, type Specificity } from '../selectors/selector.js';
import { addSpecificity } from '../selectors/specificity.js';
import { isLastingId, lastingClasses } from '../selectors/class-names.js';

/** A selector text with its specificity and how much it leans on what may not last (0 is best). */
export interface Candidate {
  readonly text: string;
  readonly specificity: Specificity;
  readonly frailty: number;
  /** How far up the names it leans on are, summed; names the page's own rules use for this count as near. */
  readonly distance: number;
  /** What follows where the state goes: for a parent's state the rest of the selector, for a shadow part its pseudo-element. */
  readonly tail?: string;
}

const TELLING_ATTRIBUTES = ['type', 'role', 'aria-current', 'name'] as const;
/** A child combinator breaks when something comes between; a descendant of the parent is steadier, and reads as well. */
const NEXT_TO = 1.5;
const MAX_CLASSES = 3;
const MAX_CONTEXTS = 14;

/**
 * Selectors that match an element, from its own names and those of its ancestors, the least specific first.
 * @param subjects selector texts to start from instead of the element's own, for "everywhere".
 * @param hooks selector of the rule to beat: names in it are those its maker gave for the purpose.
 */
export function selectorCandidates(element: ElementNode, subjects: readonly Candidate[] = [], hooks = ''): Candidate[] {
  const own = subjects.length > 0 ? subjects : [...subjectCandidates(element), ...nameless(element)];
  // What is meant for everything of a kind must not lean on where today's happen to stand.
  const contexts =
    subjects.length > 0
      ? contextCandidates(element, hooks).filter(({ text }) => text === 'body')
      : contextCandidates(element, hooks);
  const all: Candidate[] = [...own];
  for (const subject of own) {
    for (const context of contexts) {
      all.push(join(context, ' ', subject));
    }
  }
  if (subjects.length === 0) {
    const place = placeCandidates(element);
    for (const subject of place) {
      all.push(subject);
      for (const context of contexts) all.push(join(context, ' ', subject));
    }
    const parent = element.parent;
    if (parent) {
      for (const outer of subjectCandidates(parent).slice(0, 4))
        for (const subject of own.slice(0, 4)) all.push({ ...join(outer, ' > ', subject), distance: NEXT_TO });
    }
    for (let i = 0; i < Math.min(contexts.length, 6); i += 1) {
      for (let j = i + 1; j < Math.min(contexts.length, 8); j += 1) {
        for (const subject of own.slice(0, 5))
          if (contexts[j].depth > contexts[i].depth) all.push(join(contexts[j], ' ', join(contexts[i], ' ', subject)));
      }
    }
  }
  // Where an element has a name of its own, tags alone around it say less that lasts.
  const isNamed = subjects.length === 0 && lastingClasses(element.classes).length > 0;
  return all
    .map((candidate) =>
      isNamed && TAGS_ALONE.test(candidate.text) ? { ...candidate, frailty: candidate.frailty + 0.5 } : candidate,
    )
    .sort(compareCandidates);
}

/** What has no class among others that have one: plainer than a place, though a class may come. */
function nameless(element: ElementNode): Candidate[] {
  return element.attributes.has('class')
    ? []
    : [{ text: `${cssName(element.localName)}:not([class])`, specificity: [0, 1, 1], frailty: 0.5, distance: 0 }];
}

/** Two tags or more and no name. */
const TAGS_ALONE = /^[\w-]+(?:(?: > | )[\w-]+)+$/;

function compareCandidates(a: Candidate, b: Candidate): number {
  return (
    a.frailty - b.frailty ||
    compareSpecificity(a.specificity, b.specificity) ||
    a.distance - b.distance ||
    lengthOf(a) - lengthOf(b) ||
    (a.text < b.text ? -1 : 1)
  );
}

function lengthOf({ text, tail = '' }: Candidate): number {
  return text.length + tail.length;
}

/**
 * Selectors that match an element inside an ancestor whose state is meant, the state to go after `text`.
 * @param parent the ancestor.
 * @param subjects selector texts to end in instead of the element's own, for "everywhere".
 */
export function selectorsUnder(
  element: ElementNode,
  parent: ElementNode,
  subjects: readonly Candidate[] = [],
): Candidate[] {
  const outer = subjectCandidates(parent);
  const contexts = contextCandidates(parent, '').slice(0, 6);
  const places = placeCandidates(parent);
  const heads = [
    ...outer,
    ...[...outer.slice(0, 4), ...places].flatMap((subject) => contexts.map((context) => join(context, ' ', subject))),
    ...places,
  ];
  const own = subjects.length > 0 ? subjects : [...subjectCandidates(element), ...placeCandidates(element).slice(0, 1)];
  const tails = [
    ...own.map((tail) => ({ ...tail, text: ` ${tail.text}` })),
    ...(subjects.length > 0 ? [] : [wayDown(element, parent)]),
  ];
  return heads
    .flatMap((head) =>
      tails.map((tail): Candidate => ({
        text: head.text,
        tail: tail.text,
        specificity: addSpecificity(head.specificity, tail.specificity),
        frailty: head.frailty + tail.frailty,
        distance: head.distance,
      })),
    )
    .sort(compareCandidates);
}

/**
 * Selectors that match an element beside, or inside what is beside, a sibling whose state is meant, the state to go after `text`.
 * @param sibling the one that is switched. @param at the element itself or its ancestor that comes after the sibling.
 */
export function selectorsBeside(
  element: ElementNode,
  sibling: ElementNode,
  at: ElementNode,
  subjects: readonly Candidate[] = [],
): Candidate[] {
  const combinators = sibling.position === at.position - 1 ? [' + ', ' ~ '] : [' ~ '];
  const contexts = contextCandidates(sibling, '').slice(0, 6);
  const outer = subjectCandidates(sibling);
  const heads = [
    ...outer,
    ...[...outer.slice(0, 4), ...placeCandidates(sibling)].flatMap((subject) =>
      contexts.map((context) => join(context, ' ', subject)),
    ),
  ];
  const own = subjects.length > 0 ? subjects : [...subjectCandidates(element), ...placeCandidates(element).slice(0, 1)];
  const next =
    at === element
      ? own
      : subjectCandidates(at)
          .slice(0, 4)
          .flatMap((outside) => own.slice(0, 6).map((inside) => join(outside, ' ', inside)));
  return combinators
    .flatMap((combinator, i) =>
      heads.flatMap((head) =>
        next.map((tail): Candidate => ({
          text: head.text,
          tail: `${combinator}${tail.text}`,
          specificity: addSpecificity(head.specificity, tail.specificity),
          frailty: head.frailty + tail.frailty,
          distance: head.distance + i,
        })),
      ),
    )
    .sort(compareCandidates);
}

/** By position from an ancestor down, the last resort: it exists always, and says one element alone. */
function wayDown(element: ElementNode, from: ElementNode): Candidate {
  const steps: string[] = [];
  for (let node: ElementNode | null = element; node && node !== from; node = node.parent)
    steps.unshift(placeAmongSiblings(node));
  return {
    text: steps.map((step) => ` > ${step}`).join(''),
    specificity: [0, steps.filter((step) => step.includes(':')).length, steps.length],
    frailty: steps.length + 1,
    distance: 0,
  };
}

/** Selectors of a part that a shadow tree gives out, the least specific first. Source: CSS Shadow Parts 1 §3. */
export function partSelectors(element: ElementNode, host: ElementNode): Candidate[] {
  const names = (element.attributes.get('part') ?? '').split(/\s+/).filter(Boolean);
  return names
    .flatMap((name) =>
      selectorCandidates(host).map((candidate): Candidate => ({
        ...candidate,
        tail: `::part(${escapeIdentifier(name)})`,
        specificity: addSpecificity(candidate.specificity, [0, 0, 1]),
      })),
    )
    .sort(compareCandidates);
}

interface Context extends Candidate {
  readonly depth: number;
}

function join(left: Candidate, combinator: string, right: Candidate): Candidate {
  return {
    text: `${left.text}${combinator}${right.text}`,
    specificity: addSpecificity(left.specificity, right.specificity),
    frailty: left.frailty + right.frailty,
    distance: left.distance + right.distance,
  };
}

/** Ways to name an element by itself. */
export function subjectCandidates(element: ElementNode): Candidate[] {
  const tag: Candidate = { text: cssName(element.localName), specificity: [0, 0, 1], frailty: 0, distance: 0 };
  const found: Candidate[] = [tag];
  // The root has a name of its own, by which themes set what all pages follow.
  if (element.localName === 'html' && element.parent === null)
    found.push({ text: ':root', specificity: [0, 1, 0], frailty: 0, distance: 0 });
  const classes = lastingClasses(element.classes).slice(0, MAX_CLASSES);
  const classText = (names: readonly string[]): string => names.map((name) => `.${escapeIdentifier(name)}`).join('');
  for (const name of classes) {
    found.push(
      { text: classText([name]), specificity: [0, 1, 0], frailty: 0, distance: 0 },
      { text: `${tag.text}${classText([name])}`, specificity: [0, 1, 1], frailty: 0, distance: 0 },
    );
  }
  for (let i = 0; i < classes.length; i += 1) {
    for (let j = i + 1; j < classes.length; j += 1) {
      const both = classText([classes[i], classes[j]]);
      found.push(
        { text: both, specificity: [0, 2, 0], frailty: 0, distance: 0 },
        { text: `${tag.text}${both}`, specificity: [0, 2, 1], frailty: 0, distance: 0 },
      );
    }
  }
  for (const name of TELLING_ATTRIBUTES) {
    const value = element.attributes.get(name);
    if (value === undefined || value.length > 40) continue;
    const test = `[${name}=${quoteString(value)}]`;
    found.push({ text: `${tag.text}${test}`, specificity: [0, 1, 1], frailty: 0, distance: 0 });
    if (classes.length > 0)
      found.push({ text: `${classText([classes[0]])}${test}`, specificity: [0, 2, 0], frailty: 0, distance: 0 });
  }
  const stateClasses = element.classes.filter(
    (name) => !lastingClasses([name]).length && /^(?:is|has)-|^(?:active|current|selected)$/i.test(name),
  );
  for (const name of stateClasses)
    found.push({
      text: `${classText([...classes.slice(0, 1), name])}`,
      specificity: [0, Math.min(classes.length, 1) + 1, 0],
      frailty: 0,
      distance: 0,
    });
  if (element.id && isLastingId(element.id))
    found.push({ text: `#${escapeIdentifier(element.id)}`, specificity: [1, 0, 0], frailty: 0, distance: 0 });
  return found;
}

/** Ancestors by name, nearest first. */
function contextCandidates(element: ElementNode, hooks: string): Context[] {
  const found: Context[] = [];
  let depth = 0;
  for (const node of ancestorsOf(element)) {
    depth += 1;
    const at = depth;
    const context = (text: string, specificity: Specificity): Context => ({
      text,
      specificity,
      frailty: 0,
      depth: at,
      distance: hooks.includes(text) ? 0 : at,
    });
    for (const name of lastingClasses(node.classes).slice(0, 2))
      found.push(context(`.${escapeIdentifier(name)}`, [0, 1, 0]));
    if (node.id && isLastingId(node.id)) found.push(context(`#${escapeIdentifier(node.id)}`, [1, 0, 0]));
    if (
      [
        'main',
        'header',
        'footer',
        'nav',
        'aside',
        'form',
        'section',
        'article',
        'ul',
        'ol',
        'table',
        'p',
        'li',
        'body',
      ].includes(node.localName)
    )
      found.push(context(node.localName, [0, 0, 1]));
    const state = node.classes.find((name) => /^(?:is|has)-/.test(name));
    if (state) found.push(context(`.${escapeIdentifier(state)}`, [0, 1, 0]));
    if (found.length >= MAX_CONTEXTS) break;
  }
  return found;
}

/** An element by its tag, and by its place among siblings of that tag where it is not the only one. */
function placeAmongSiblings(node: ElementNode): string {
  const same = siblingsOf(node).filter((other) => other.localName === node.localName);
  return same.length === 1
    ? cssName(node.localName)
    : `${cssName(node.localName)}:nth-of-type(${same.indexOf(node) + 1})`;
}

/** By position, the last resort: it breaks when a neighbour comes or goes. */
function placeCandidates(element: ElementNode): Candidate[] {
  const own = placeAmongSiblings(element);
  const found: Candidate[] = [];
  if (own.includes(':')) found.push({ text: own, specificity: [0, 1, 1], frailty: 1, distance: 0 });
  // A path of positions down from the nearest named ancestor always exists.
  let path = own;
  let types = 1;
  let classes = own.includes(':') ? 1 : 0;
  let frailty = 2;
  for (const node of ancestorsOf(element)) {
    const isNamed = node.id !== null && node.id !== '' && isLastingId(node.id);
    if (isNamed)
      found.push({
        text: `#${escapeIdentifier(node.id ?? '')} > ${path}`,
        specificity: [1, classes, types],
        frailty,
        distance: 0,
      });
    // A page may be told from others by its second class only.
    else
      for (const name of lastingClasses(node.classes).slice(0, MAX_CLASSES))
        found.push({
          text: `.${escapeIdentifier(name)} > ${path}`,
          specificity: [0, classes + 1, types],
          frailty,
          distance: 0,
        });
    if (isNamed) break;
    const step = placeAmongSiblings(node);
    path = `${step} > ${path}`;
    classes += step.includes(':') ? 1 : 0;
    types += 1;
    frailty += 1;
    if (!node.parent) found.push({ text: path, specificity: [0, classes, types], frailty, distance: 0 });
  }
  return found;
}

function cssName(localName: string): string {
  return escapeIdentifier(localName);
}
