import { compareBlocks } from '../cascade/compare.js';
import { readBlock, type MatchedBlock } from '../cascade/block.js';
import { evaluateMedia } from '../conditions/evaluate-media.js';
import type { MediaEnvironment } from '../conditions/environment.js';
import { partNamesFor } from '../dom/part-names.js';
import type { ElementNode, TreeRoot } from '../dom/tree.js';
import { readAsQuirk } from '../rules/quirks.js';
import type { Condition, StyleRule } from '../rules/style-rule.js';
import { filterAbove, mayStandUnder } from '../selectors/ancestor-filter.js';
import type { Consulted, MatchContext, StateMap } from '../selectors/match-context.js';
import { matchesAny, matchesSelector } from '../selectors/match-selector.js';
import { NO_SPECIFICITY, compareSpecificity, type ComplexSelector, type PseudoClass } from '../selectors/selector.js';
import type { DeclarationNode } from '../syntax/nodes.js';
import { parseDeclarationList } from '../syntax/parse-stylesheet.js';
import { presentationalHints } from '../user-agent/presentational-hints.js';
import type { AlikeElements } from './alike.js';
import { indexKeys, type ReachKind, type RuleEntry } from './index-rules.js';
import type { Page } from './page.js';

/** What is shared by all matching in one view of a page. */
export interface MatchSession {
  readonly page: Page;
  readonly environment: MediaEnvironment;
  readonly states: StateMap;
  /** Whether the states give elements classes they lack, so that no names above can be relied on. */
  readonly givesNames: boolean;
  /** States of the pseudo-element itself, such as `hover` of a scrollbar thumb. */
  readonly pseudoStates: ReadonlySet<string>;
  readonly budget: { steps: number };
  readonly hasAnswers: MatchContext['hasAnswers'];
  /** Whether conditions hold, by the identity of a rule's list. */
  readonly conditionAnswers: WeakMap<readonly Condition[], boolean>;
  readonly alike: AlikeElements;
}

/**
 * The blocks of declarations that apply to an element or one of its pseudo-elements, the weakest first
 * (as normal declarations rank).
 * @param pseudo name without colons; `''` for the element.
 * @param visitedLink link that counts as visited.
 * @param consulted where the elements whose states are asked about are noted.
 */
export function matchBlocks(
  session: MatchSession,
  element: ElementNode,
  pseudo: string,
  visitedLink: ElementNode | null,
  consulted: Consulted | null = null,
): MatchedBlock[] {
  const blocks: MatchedBlock[] = [];
  const { page } = session;
  const keys = indexKeys(pseudo);
  const collect = (tree: TreeRoot | null, kind: ReachKind, subject: ElementNode, depth: number): void => {
    const given = session.states.get(subject);
    for (const indexes of page.indexes) {
      const entries = indexes.get(tree)?.get(keys[kind])?.candidates(subject, given) ?? NO_ENTRIES;
      if (entries.length === 0) continue;
      const search: Search = { session, element, subject, tree, depth, visitedLink };
      // What is matched through a slot, as a part or for a visited link hangs on more than names.
      if (subject !== element || kind !== 'plain' || visitedLink || given)
        blocks.push(...matchCandidates(search, entries, consulted));
      else {
        const { blocks: plain, rest } = session.alike.match(entries, element, consulted, {
          blocks: (some, asked) => matchCandidates(search, some, asked),
          mayMatch: (part) => matchesSelector(part, element, contextOf(search, null)),
        });
        blocks.push(...plain);
        if (rest.length > 0) blocks.push(...matchCandidates(search, rest, consulted));
      }
    }
  };
  const depth = depthOf(element.root);
  collect(null, 'plain', element, depth);
  collect(element.root, 'plain', element, depth);
  if (element.shadowRoot) collect(element.shadowRoot, 'plain', element, depth + 1);
  for (let slot = slotOf(element); slot; slot = slotOf(slot)) collect(slot.root, 'slotted', slot, depthOf(slot.root));
  if (element.root.host && element.attributes.has('part'))
    collectParts(element, (tree, host) => collect(tree, 'part', host, depthOf(tree)));
  if (pseudo === '') addAttached(element, depth, page.layerRanks.size, page.document.quirks, blocks);
  return blocks.length > 1 ? blocks.sort(compareBlocks) : blocks;
}

/** A part shows to the tree around its host, and further out where `exportparts` passes it on. */
function collectParts(element: ElementNode, visit: (tree: TreeRoot, host: ElementNode) => void): void {
  let host = element.root.host;
  let names = (element.attributes.get('part') ?? '').split(/\s+/);
  while (host && names.length > 0) {
    visit(host.root, host);
    const exported = (host.attributes.get('exportparts') ?? '')
      .split(',')
      .map((pair) => pair.split(':').map((name) => name.trim()));
    names = exported.filter(([inner]) => names.includes(inner)).map(([inner, outer = inner]) => outer);
    host = host.root.host;
  }
}

function slotOf(element: ElementNode): ElementNode | null {
  const parent = element.flatParent;
  return parent?.localName === 'slot' &&
    parent.root !== element.root &&
    parent.root.kind === 'shadow' &&
    element.parent?.shadowRoot === parent.root
    ? parent
    : null;
}

function depthOf(root: TreeRoot): number {
  let depth = 0;
  for (let host = root.host; host; host = host.root.host) depth += 1;
  return depth;
}

/** What is matched: an element by way of a subject, which is another where it is slotted or a part. */
interface Search {
  readonly session: MatchSession;
  readonly element: ElementNode;
  readonly subject: ElementNode;
  readonly tree: TreeRoot | null;
  readonly depth: number;
  readonly visitedLink: ElementNode | null;
}

function contextOf({ session, subject, tree, visitedLink }: Search, consulted: Consulted | null): MatchContext {
  return {
    document: session.page.document,
    states: session.states,
    tree: tree ?? subject.root,
    scope: null,
    visitedLink,
    hasAnswers: session.hasAnswers,
    consulted,
    budget: session.budget,
  };
}

function matchCandidates(
  search: Search,
  entries: readonly RuleEntry[],
  consulted: Consulted | null,
): readonly MatchedBlock[] {
  if (entries.length === 0) return NO_BLOCKS;
  const { session, element, subject, depth } = search;
  // Most calls find nothing: what a match needs is made when it is needed.
  let context: MatchContext | null = null;
  let best: Map<StyleRule, { selector: ComplexSelector; proximity: number }> | null = null;
  const filter = filterAbove(subject);
  for (const { rule, selector, above } of entries) {
    if (above.length > 0 && !session.givesNames && !mayStandUnder(above, filter)) continue;
    const known = best?.get(rule);
    if (
      known &&
      (known.selector === selector || compareSpecificity(known.selector.specificity, selector.specificity) >= 0)
    )
      continue;
    if (rule.sheet.namespace !== undefined && rule.sheet.namespace !== subject.namespace) continue;
    if (rule.conditions.length > 0 && !conditionsHold(session, rule.conditions)) continue;
    context ??= contextOf(search, consulted);
    if (selector.pseudoElements.length > 0 && !matchesPseudoPart(selector, element, subject, context, session))
      continue;
    const proximity =
      rule.scopes.length > 0
        ? scopedProximity(rule, selector, subject, context)
        : matchesSelector(selector, subject, context)
          ? Infinity
          : null;
    if (proximity !== null) (best ??= new Map()).set(rule, { selector, proximity });
  }
  if (!best) return NO_BLOCKS;
  const { layerRanks } = session.page;
  const blocks: MatchedBlock[] = [];
  for (const [rule, { selector, proximity }] of best) {
    blocks.push({
      origin: rule.sheet.origin,
      rule,
      selector,
      specificity: selector.specificity,
      treeDepth: rule.sheet.origin === 'user-agent' ? 0 : depth,
      attached: false,
      layerRank: rule.layer === null ? layerRanks.size : (layerRanks.get(rule.layer) ?? layerRanks.size),
      proximity,
      order: rule.order,
      declarations: readBlock(rule.declarations),
    });
  }
  return blocks;
}

const NO_ENTRIES: readonly RuleEntry[] = [];
const NO_BLOCKS: readonly MatchedBlock[] = [];

function matchesPseudoPart(
  selector: ComplexSelector,
  element: ElementNode,
  subject: ElementNode,
  context: MatchContext,
  session: MatchSession,
): boolean {
  return selector.pseudoElements.every(({ name, list, parts, states }) => {
    if (name === 'slotted') return list !== null && matchesAny(list, element, { ...context, tree: element.root });
    if (name === 'part') {
      const own = partNamesFor(element, subject);
      if (!parts.every((part) => own.includes(part))) return false;
      return states.every((state) => matchesSelectorState(state, element, context));
    }
    return states.every((state) => holdsOnPseudo(state, session.pseudoStates));
  });
}

/** Whether a pseudo-class after a pseudo-element holds, by the states given to that. */
function holdsOnPseudo(test: PseudoClass, states: ReadonlySet<string>): boolean {
  switch (test.kind) {
    case 'named':
      return states.has(test.name);
    case 'is':
      return test.list.some(({ compounds: [compound] }) =>
        compound.pseudoClasses.every((inner) => holdsOnPseudo(inner, states)),
      );
    case 'not':
      return !test.list.some(({ compounds: [compound] }) =>
        compound.pseudoClasses.every((inner) => holdsOnPseudo(inner, states)),
      );
    default:
      return false;
  }
}

function matchesSelectorState(
  state: ComplexSelector['compounds'][number]['pseudoClasses'][number],
  element: ElementNode,
  context: MatchContext,
): boolean {
  const compound = { type: null, ids: [], classes: [], attributes: [], pseudoClasses: [state] };
  return matchesSelector(
    { text: '', compounds: [compound], combinators: [''], pseudoElements: [], specificity: NO_SPECIFICITY },
    element,
    { ...context, tree: element.root },
  );
}

/** Whether a rule inside `@scope` matches, and from how near a scoping root. Source: CSS Cascading 6 §2.5. */
function scopedProximity(
  rule: StyleRule,
  selector: ComplexSelector,
  element: ElementNode,
  context: MatchContext,
): number | null {
  const innermost = rule.scopes[rule.scopes.length - 1];
  const outer = rule.scopes.slice(0, -1);
  let hops = 0;
  for (let root: ElementNode | null = element; root; root = root.parent, hops += 1) {
    const owner = rule.sheet.owner;
    const isRoot = innermost.start
      ? matchesAny(innermost.start, root, context)
      : owner && rule.sheet.name.includes(' <style> ')
        ? root === owner.parent || (owner.parent?.localName === 'head' && root.parent === null)
        : root.parent === null;
    if (!isRoot) continue;
    const scoped = { ...context, scope: root };
    if (innermost.end && isBeyond(innermost.end, element, root, scoped)) continue;
    if (
      outer.length > 0 &&
      scopedProximity(
        { ...rule, scopes: outer },
        {
          ...selector,
          compounds: [{ type: null, ids: [], classes: [], attributes: [], pseudoClasses: [] }],
          combinators: [''],
        },
        root,
        context,
      ) === null
    )
      continue;
    if (matchesSelector(selector, element, scoped)) return hops;
  }
  return null;
}

function isBeyond(
  limit: NonNullable<StyleRule['scopes'][number]['end']>,
  element: ElementNode,
  root: ElementNode,
  context: MatchContext,
): boolean {
  for (let node: ElementNode | null = element; node; node = node.parent) {
    if (matchesAny(limit, node, context)) return true;
    if (node === root) return false;
  }
  return false;
}

function conditionsHold(session: MatchSession, conditions: readonly Condition[]): boolean {
  if (conditions.length === 0) return true;
  const known = session.conditionAnswers.get(conditions);
  if (known !== undefined) return known;
  const holds = conditions.every((condition) => {
    if (condition.kind === 'media') return evaluateMedia(condition.text, session.environment);
    return condition.kind === 'supports' && condition.holds;
  });
  session.conditionAnswers.set(conditions, holds);
  return holds;
}

const attachedCache = new WeakMap<
  ElementNode,
  { style: readonly DeclarationNode[]; hints: readonly DeclarationNode[] }
>();

function addAttached(
  element: ElementNode,
  depth: number,
  layerRank: number,
  quirks: boolean,
  into: MatchedBlock[],
): void {
  let attached = attachedCache.get(element);
  if (!attached) {
    const style = element.attributes.get('style');
    const hints = presentationalHints(element).map(([name, value]): DeclarationNode => ({
      kind: 'declaration',
      name,
      value,
      important: false,
      start: 0,
      end: 0,
    }));
    attached = {
      style:
        style === undefined
          ? []
          : parseDeclarationList(style).declarations.map((declaration) =>
              quirks ? readAsQuirk(declaration) : declaration,
            ),
      hints,
    };
    attachedCache.set(element, attached);
  }
  const shared = {
    rule: null,
    selector: null,
    specificity: NO_SPECIFICITY,
    treeDepth: depth,
    layerRank,
    proximity: Infinity,
    order: 0,
  };
  if (attached.hints.length > 0)
    into.push({ ...shared, origin: 'hint', attached: false, declarations: readBlock(attached.hints) });
  if (attached.style.length > 0)
    into.push({ ...shared, origin: 'author', attached: true, declarations: readBlock(attached.style) });
}
