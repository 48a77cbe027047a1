import { message, type Message } from '../message/message.js';
import type { ElementNode, PageDocument, TreeRoot } from '../dom/tree.js';
import type { ComplexSelector } from './selector.js';

/**
 * States given to elements from outside: `hover`, `focus`, `disabled`…; prefixed with `!`, states taken away;
 * `.name` a class and `[name=value` an attribute that the element has in the state, `!.name` and `![name` one that it lacks.
 */
export type StateMap = ReadonlyMap<ElementNode, ReadonlySet<string>>;

export const NO_STATES: StateMap = new Map();

/** What a selector is matched against. */
export interface MatchContext {
  readonly document: PageDocument;
  readonly states: StateMap;
  /** Tree whose sheet the selector comes from; selectors do not cross into others. */
  readonly tree: TreeRoot;
  /** Element that `:scope` stands for; `null` for the root element. */
  readonly scope: ElementNode | null;
  /** The link that counts as visited, when styles are matched as visited (CSS 2.2 §5.11.2, as browsers guard it). */
  readonly visitedLink: ElementNode | null;
  /** Answers of `:has()`, which cost most: the elements of a tree that a relative selector finds something from. */
  readonly hasAnswers: Map<ComplexSelector, HasAnswer>;
  /** Where the elements whose states are asked about are noted; `null` where nobody wants to know. */
  readonly consulted?: Consulted | null;
  /** Steps left before matching gives up; shared by one resolver. */
  readonly budget: { steps: number };
}

/** Where a relative selector finds something, in one tree and seen from one `:scope`. */
export interface HasAnswer {
  readonly tree: TreeRoot;
  readonly scope: ElementNode | null;
  readonly anchors: ReadonlySet<ElementNode>;
}

/** States of elements on which answers depended; `null` for none, as for most: there is one for each element and pseudo-element. */
export interface Consulted {
  names: Map<ElementNode, Set<string>> | null;
  /** Whether an answer was taken over that others may have depended on. */
  isOpaque: boolean;
}

/** Notes that the answer for an element depended on a state. */
export function consult(consulted: Consulted | null | undefined, element: ElementNode, name: string): void {
  if (!consulted) return;
  consulted.names ??= new Map();
  const names = consulted.names.get(element);
  if (names) names.add(name);
  else consulted.names.set(element, new Set([name]));
}

/** Steps one question about the document may take. */
const REST_BUDGET = 50_000_000;

/** Context of a question about the document as it stands, no state given. */
export function restContext(document: PageDocument): MatchContext {
  return {
    document,
    states: NO_STATES,
    tree: document.root,
    scope: null,
    visitedLink: null,
    hasAnswers: new Map(),
    budget: { steps: REST_BUDGET },
  };
}

/** Takes steps from the budget. @throws {MatchBudgetError} when it is used up. */
export function spendSteps({ budget }: MatchContext, steps: number): void {
  if ((budget.steps -= steps) < 0) throw new MatchBudgetError(message('css.matching-this-page-took'));
}

/** Thrown when selectors cost more than the bound. */
export class MatchBudgetError extends Error {
  readonly code = 'too-large';
  override readonly name = 'MatchBudgetError';

  constructor(readonly told: Message) {
    super(told.code);
  }
}
