import type { ElementNode, TreeRoot } from '../dom/tree.js';
import type { MatchedBlock } from '../cascade/block.js';
import { consult, type Consulted, type StateMap } from '../selectors/match-context.js';
import { idsAskedBy, isPlain, plainPartOf, valuesAskedBy } from '../selectors/plain-selector.js';
import type { ComplexSelector } from '../selectors/selector.js';
import { rulesIn, type RuleEntry, type RuleIndex, type RuleIndexes } from './index-rules.js';
import type { Page } from './page.js';

/** What some entries came to for elements that are alike. */
export interface AlikeMatch {
  /** Blocks of the plain ones. */
  readonly blocks: readonly MatchedBlock[];
  /** Those of the others that may match, by what can be told of them alike. */
  readonly rest: readonly RuleEntry[];
  /** Names of states asked about, by how many generations above the element. */
  readonly asked: readonly { readonly above: number; readonly names: ReadonlySet<string> }[];
}

/** Entries of an index, told apart by whether elements that are alike match them alike. */
interface SplitEntries {
  readonly plain: readonly RuleEntry[];
  readonly rest: readonly { readonly entry: RuleEntry; readonly part: ComplexSelector | null }[];
}

/** How entries are matched on one element. */
export interface Matching {
  /** Blocks of plain entries, noting whose states they ask about. */
  blocks(entries: readonly RuleEntry[], asked: Consulted): readonly MatchedBlock[];
  mayMatch(part: ComplexSelector): boolean;
}

const splits = new WeakMap<readonly RuleEntry[], SplitEntries>();

/** A rule whose selectors are not all plain stands with the rest as a whole: the most specific of them counts. */
function splitEntries(entries: readonly RuleEntry[]): SplitEntries {
  let split = splits.get(entries);
  if (!split) {
    const unlike = new Set(
      entries.filter(({ rule, selector }) => rule.scopes.length > 0 || !isPlain(selector)).map(({ rule }) => rule),
    );
    split = {
      plain: entries.filter(({ rule }) => !unlike.has(rule)),
      rest: entries
        .filter(({ rule }) => unlike.has(rule))
        .map((entry) => ({ entry, part: entry.rule.scopes.length > 0 ? null : plainPartOf(entry.selector) })),
    };
    splits.set(entries, split);
  }
  return split;
}

/** Names that the selectors of a page's rules tell elements apart by, in lower case. */
interface AskedNames {
  /** Attributes whose values are asked for. */
  readonly values: ReadonlySet<string>;
  readonly ids: ReadonlySet<string>;
}

const askedByIndex = new WeakMap<RuleIndex, AskedNames>();
const askedByIndexes = new WeakMap<RuleIndexes, AskedNames>();

function askedBy(index: RuleIndex): AskedNames {
  let asked = askedByIndex.get(index);
  if (!asked) {
    const values = new Set<string>();
    const ids = new Set<string>();
    for (const { selectors } of rulesIn(index)) {
      valuesAskedBy(selectors, values);
      idsAskedBy(selectors, ids);
    }
    askedByIndex.set(index, (asked = { values, ids }));
  }
  return asked;
}

/** What the rules of a page ask for; the same object as long as no other veneer asks for more. */
function askedOn({ indexes }: Page): AskedNames {
  let asked: AskedNames = { values: new Set(['class']), ids: new Set() };
  for (const byTree of indexes) {
    const known = askedByIndexes.get(byTree);
    if (known && isWithin(asked, known)) {
      asked = known;
      continue;
    }
    const own = [...byTree.values()].map(askedBy);
    if (own.every((each) => isWithin(each, asked))) continue;
    asked = {
      values: new Set([asked, ...own].flatMap(({ values }) => [...values])),
      ids: new Set([asked, ...own].flatMap(({ ids }) => [...ids])),
    };
    askedByIndexes.set(byTree, asked);
  }
  return asked;
}

function isWithin(a: AskedNames, b: AskedNames): boolean {
  return [...a.values].every((name) => b.values.has(name)) && [...a.ids].every((id) => b.ids.has(id));
}

const kinds = new WeakMap<ElementNode, { readonly asked: AskedNames; readonly kind: string }>();

/** What of an element a plain selector can ask for. No name of HTML or CSS holds a NUL (HTML §13.2.5, CSS Syntax 3 §3.3). */
function kindOf(element: ElementNode, asked: AskedNames): string {
  const known = kinds.get(element);
  if (known?.asked === asked) return known.kind;
  let kind = `${element.namespace}\0${element.localName}`;
  if (element.id !== null && asked.ids.has(element.id.toLowerCase())) kind += `\0#${element.id}`;
  for (const [name, value] of element.attributes)
    kind += asked.values.has(name.toLowerCase()) ? `\0${name}\0=${value}` : `\0${name}`;
  kinds.set(element, { asked, kind });
  return kind;
}

/**
 * Elements of a page in one set of states, told apart by what plain selectors can ask of them and of what they stand in; browsers
 * share matches between such elements too.
 */
export class AlikeElements {
  readonly #asked: AskedNames;
  readonly #numbers = new Map<string, number>();
  readonly #byElement = new Map<ElementNode, number>();
  readonly #roots = new Map<TreeRoot, number>();
  readonly #matches = new Map<readonly RuleEntry[], Map<number, AlikeMatch>>();

  constructor(
    page: Page,
    private readonly states: StateMap,
  ) {
    this.#asked = askedOn(page);
  }

  /**
   * What entries come to for an element as far as it is told for all that are alike; found for the first of them.
   * @param matching on this element.
   */
  match(
    entries: readonly RuleEntry[],
    element: ElementNode,
    consulted: Consulted | null,
    matching: Matching,
  ): AlikeMatch {
    let byNumber = this.#matches.get(entries);
    if (!byNumber) this.#matches.set(entries, (byNumber = new Map()));
    const number = this.#numberOf(element);
    let match = byNumber.get(number);
    if (!match) {
      const { plain, rest } = splitEntries(entries);
      const asked: Consulted = { names: null, isOpaque: false };
      match = {
        blocks: matching.blocks(plain, asked),
        rest: rest.filter(({ part }) => part === null || matching.mayMatch(part)).map(({ entry }) => entry),
        asked: askedFrom(element, asked),
      };
      byNumber.set(number, match);
    }
    if (consulted) noteAsked(match, element, consulted);
    return match;
  }

  #numberOf(element: ElementNode): number {
    let number = this.#byElement.get(element);
    if (number === undefined) {
      const above = element.parent ? this.#numberOf(element.parent) : this.#rootNumber(element.root);
      const given = this.states.get(element);
      const key = `${above}\0${kindOf(element, this.#asked)}${given ? `\0\0${[...given].sort().join('\0')}` : ''}`;
      number = this.#numbers.get(key);
      if (number === undefined) this.#numbers.set(key, (number = this.#numbers.size));
      this.#byElement.set(element, number);
    }
    return number;
  }

  /** Roots are numbered below zero. */
  #rootNumber(root: TreeRoot): number {
    let number = this.#roots.get(root);
    if (number === undefined) this.#roots.set(root, (number = -1 - this.#roots.size));
    return number;
  }
}

function askedFrom(element: ElementNode, { names }: Consulted): AlikeMatch['asked'] {
  const asked: { above: number; names: ReadonlySet<string> }[] = [];
  if (names === null) return asked;
  let above = 0;
  for (let node: ElementNode | null = element; node; node = node.parent, above += 1) {
    const own = names.get(node);
    if (own) asked.push({ above, names: own });
  }
  return asked;
}

function noteAsked({ asked }: AlikeMatch, element: ElementNode, consulted: Consulted): void {
  let at = 0;
  let node: ElementNode | null = element;
  for (const { above, names } of asked) {
    for (; at < above && node; at += 1) node = node.parent;
    if (node) for (const name of names) consult(consulted, node, name);
  }
}
