import { siblingsOf, type ElementNode } from '../dom/tree.js';
import { matchesNamedPseudoClass } from './element-states.js';
import { anchorsIn } from './has-anchors.js';
import { matchesType, sameName } from './match-names.js';
import { spendSteps, type MatchContext } from './match-context.js';
import type {
  AttributeTest,
  ComplexSelector,
  CompoundSelector,
  NthTest,
  PseudoClass,
  SelectorList,
} from './selector.js';

/**
 * Whether the compounds of a selector match an element; its pseudo-elements are the caller's to ask about.
 * Source: Selectors 4 §4.1 and §18, https://drafts.csswg.org/selectors-4/
 * @throws {MatchBudgetError} `too-large`, when the context's budget is used up.
 */
export function matchesSelector(selector: ComplexSelector, element: ElementNode, context: MatchContext): boolean {
  return matchFrom(selector, selector.compounds.length - 1, element, context) === Outcome.Matches;
}

/** Whether any selector of a list matches; selectors with a pseudo-element match no element. */
export function matchesAny(list: SelectorList, element: ElementNode, context: MatchContext): boolean {
  return list.some((selector) => selector.pseudoElements.length === 0 && matchesSelector(selector, element, context));
}

/** How far a failure reaches: what failed for want of siblings or ancestors fails for those further out too, and is not tried again. */
enum Outcome {
  Matches,
  FailsHere,
  FailsForSiblings,
  FailsForAll,
}

/** Matches compounds `at` down to 0, from the right, on an element and what stands before and above it. */
function matchFrom(selector: ComplexSelector, at: number, element: ElementNode, context: MatchContext): Outcome {
  spendSteps(context, 1);
  if (!matchesCompound(selector.compounds[at], element, context)) return Outcome.FailsHere;
  if (at === 0) return Outcome.Matches;
  switch (selector.combinators[at]) {
    case '>': {
      const parent = parentWithin(element, selector, at, context);
      return parent === null ? Outcome.FailsForAll : matchFrom(selector, at - 1, parent, context);
    }
    case '+':
      return element.position === 0
        ? Outcome.FailsForSiblings
        : matchFrom(selector, at - 1, siblingsOf(element)[element.position - 1], context);
    case '~': {
      const siblings = siblingsOf(element);
      for (let i = element.position - 1; i >= 0; i -= 1) {
        const outcome = matchFrom(selector, at - 1, siblings[i], context);
        if (outcome !== Outcome.FailsHere) return outcome;
      }
      return Outcome.FailsForSiblings;
    }
    default:
      for (
        let node = parentWithin(element, selector, at, context);
        node;
        node = parentWithin(node, selector, at, context)
      ) {
        const outcome = matchFrom(selector, at - 1, node, context);
        if (outcome === Outcome.Matches || outcome === Outcome.FailsForAll) return outcome;
      }
      return Outcome.FailsForAll;
  }
}

/** The host stands above a shadow tree for `:host`, and only for it (CSS Scoping 1 §3.2.1). */
function parentWithin(
  element: ElementNode,
  selector: ComplexSelector,
  at: number,
  context: MatchContext,
): ElementNode | null {
  if (element.parent) return element.parent;
  const { host } = element.root;
  if (!host || element.root !== context.tree || at === 0) return null;
  return selector.compounds[at - 1].pseudoClasses.some(namesHost) ? host : null;
}

function namesHost(test: PseudoClass): boolean {
  return (
    test.kind === 'host' ||
    (test.kind === 'is' &&
      test.list.some((selector) => selector.compounds.some((compound) => compound.pseudoClasses.some(namesHost))))
  );
}

/** Whether one compound selector matches an element. */
export function matchesCompound(compound: CompoundSelector, element: ElementNode, context: MatchContext): boolean {
  const { type, ids, classes, attributes, pseudoClasses } = compound;
  const insideTree = element.root === context.tree;
  if (!insideTree) {
    // From inside a shadow tree the host answers to `:host` alone.
    if (
      context.tree.host !== element ||
      !pseudoClasses.some(namesHost) ||
      type !== null ||
      ids.length + classes.length + attributes.length > 0
    )
      return false;
  }
  if (type !== null && !matchesType(type, element)) return false;
  const { quirks } = context.document;
  for (const id of ids) if (element.id === null || !sameName(id, element.id, quirks)) return false;
  const given = context.states.get(element);
  for (const name of classes)
    if (
      given?.has(`!.${name}`) ||
      !(
        element.classes.includes(name) ||
        given?.has(`.${name}`) ||
        (quirks && element.classes.some((own) => sameName(name, own, true)))
      )
    )
      return false;
  for (const test of attributes) if (!matchesAttribute(test, element, given)) return false;
  for (const test of pseudoClasses) if (!matchesPseudoClass(test, element, context)) return false;
  return true;
}

/** Attributes whose values fold case in HTML. Source: HTML §4.16.2 "Case-sensitivity of selectors". */
const CASE_FOLDING_ATTRIBUTES: ReadonlySet<string> = new Set(
  (
    'accept accept-charset align alink axis bgcolor charset checked clear codetype color compact declare defer dir direction disabled enctype face frame ' +
    'hreflang http-equiv lang language link media method multiple nohref noresize noshade nowrap readonly rel rev rules scope scrolling selected shape ' +
    'target text type valign valuetype vlink'
  ).split(' '),
);

function matchesAttribute(test: AttributeTest, element: ElementNode, given: ReadonlySet<string> | undefined): boolean {
  const isHtml = element.namespace === 'html';
  const name = isHtml ? test.name.toLowerCase() : test.name;
  const own = given?.has(`![${name}`) ? undefined : (givenAttribute(given, name) ?? element.attributes.get(name));
  if (own === undefined) return false;
  if (test.operator === '') return true;
  const fold = test.ignoreCase ?? (isHtml && CASE_FOLDING_ATTRIBUTES.has(name));
  const value = fold ? test.value.toLowerCase() : test.value;
  const actual = fold ? own.toLowerCase() : own;
  switch (test.operator) {
    case '=':
      return actual === value;
    case '~=':
      return value !== '' && !/\s/.test(value) && actual.split(/[\t\n\f\r ]+/).includes(value);
    case '|=':
      return actual === value || actual.startsWith(`${value}-`);
    case '^=':
      return value !== '' && actual.startsWith(value);
    case '$=':
      return value !== '' && actual.endsWith(value);
    case '*=':
      return value !== '' && actual.includes(value);
  }
}

/** Value of an attribute that a state puts on an element, written `[name=value` among the states. */
function givenAttribute(given: ReadonlySet<string> | undefined, name: string): string | undefined {
  if (!given) return undefined;
  for (const state of given) if (state.startsWith(`[${name}=`)) return state.slice(name.length + 2);
  return undefined;
}

function matchesPseudoClass(test: PseudoClass, element: ElementNode, context: MatchContext): boolean {
  switch (test.kind) {
    case 'named':
      return matchesNamedPseudoClass(test.name, element, context);
    case 'is':
      return matchesAny(test.list, element, context);
    case 'not':
      return !matchesAny(test.list, element, context);
    case 'has':
      if (context.consulted && asksStates(test.list)) context.consulted.isOpaque = true;
      return test.list.some((selector) => has(selector, element, context));
    case 'nth':
      return matchesNth(test.nth, test.from, test.ofType, element, context);
    case 'scope':
      return context.scope
        ? element === context.scope
        : element.root.kind === 'document'
          ? element.parent === null
          : false;
    case 'lang':
      return matchesLang(test.ranges, element);
    case 'dir':
      return directionOf(element) === test.direction;
    case 'host': {
      if (context.tree.host === null) return false;
      if (!test.context)
        return (
          element === context.tree.host &&
          (test.argument === null || matchesAny(test.argument, element, { ...context, tree: element.root }))
        );
      if (element !== context.tree.host) return false;
      for (let node: ElementNode | null = element; node; node = node.flatParent) {
        if (test.argument && matchesAny(test.argument, node, { ...context, tree: node.root })) return true;
      }
      return false;
    }
  }
}

/** Whether a list asks for anything that a state may bring about. */
function asksStates(list: SelectorList): boolean {
  return list.some(({ compounds }) =>
    compounds.some(({ pseudoClasses }) =>
      pseudoClasses.some(
        (test) =>
          test.kind === 'named' ||
          ('list' in test && asksStates(test.list)) ||
          (test.kind === 'nth' && test.nth.of !== null && asksStates(test.nth.of)) ||
          (test.kind === 'host' && test.argument !== null && asksStates(test.argument)),
      ),
    ),
  );
}

/** `:has()`: some element stands in the relation the relative selector names. Visited links never count (privacy). */
function has(selector: ComplexSelector, anchor: ElementNode, context: MatchContext): boolean {
  const { tree, scope } = context;
  let answer = context.hasAnswers.get(selector);
  if (answer?.tree !== tree || answer.scope !== scope) {
    const plain = context.visitedLink ? { ...context, visitedLink: null } : context;
    answer = {
      tree,
      scope,
      anchors: anchorsIn(tree, selector, plain, (compound, element) => matchesCompound(compound, element, plain)),
    };
    context.hasAnswers.set(selector, answer);
  }
  return answer.anchors.has(anchor);
}

function matchesNth(
  nth: NthTest,
  from: 'start' | 'end',
  ofType: boolean,
  element: ElementNode,
  context: MatchContext,
): boolean {
  const counts = (node: ElementNode): boolean => {
    if (ofType) return node.localName === element.localName && node.namespace === element.namespace;
    return nth.of === null || matchesAny(nth.of, node, context);
  };
  if (nth.of !== null && !counts(element)) return false;
  const siblings = siblingsOf(element);
  let index = 1;
  if (!ofType && nth.of === null) {
    index = from === 'start' ? element.position + 1 : siblings.length - element.position;
  } else {
    const step = from === 'start' ? -1 : 1;
    for (let i = element.position + step; i >= 0 && i < siblings.length; i += step) if (counts(siblings[i])) index += 1;
  }
  if (nth.step === 0) return index === nth.offset;
  const turns = (index - nth.offset) / nth.step;
  return Number.isInteger(turns) && turns >= 0;
}

/** Extended filtering of RFC 4647 §3.3.2, as Selectors 4 §7.2 asks. */
function matchesLang(ranges: readonly string[], element: ElementNode): boolean {
  let language: string | undefined;
  for (let node: ElementNode | null = element; node && language === undefined; node = node.flatParent)
    language = node.attributes.get('lang') ?? node.attributes.get('xml:lang');
  if (language === undefined) return false;
  const own = language.toLowerCase().split('-');
  return ranges.some((range) => {
    if (range === '') return language === '';
    const wanted = range.toLowerCase().split('-');
    if (wanted[0] !== '*' && wanted[0] !== own[0]) return false;
    let at = 1;
    for (const sub of wanted.slice(1)) {
      if (sub === '*') continue;
      while (at < own.length && own[at] !== sub && own[at].length > 1) at += 1;
      if (own[at] !== sub) return false;
      at += 1;
    }
    return true;
  });
}

function directionOf(element: ElementNode): string {
  for (let node: ElementNode | null = element; node; node = node.flatParent) {
    const dir = node.attributes.get('dir')?.toLowerCase();
    if (dir === 'ltr' || dir === 'rtl') return dir;
  }
  return 'ltr';
}
