import type { Message } from '../message/message.js';
import { isSame } from '../is-same.js';
import type { Setting } from '../conditions/environment.js';
import {
  PROOF_KINDS,
  type FigureUnit,
  type MendIdea,
  type ProofKind,
  type ProofLevel,
  type ProofPlace,
} from './proof-finding.js';

/** A cause as it shows at one place. */
export interface Noted {
  readonly kind: ProofKind;
  readonly level: ProofLevel;
  /** What makes it one cause with others. */
  readonly cause: string;
  /** What is wrong, before the names of its places: `Text of`. */
  readonly what: Message;
  /** What the place is called; empty where the words before say all. */
  readonly name: Message | null;
  readonly basis: Message;
  readonly figure: number | null;
  readonly needed: number | null;
  readonly unit: FigureUnit;
  readonly place: ProofPlace;
  /** Other widths at which it comes out the same, CSS px. */
  readonly alsoAt?: readonly number[];
  readonly mend: MendIdea | null;
}

/** What became of one declaration of the veneer on one element. */
export interface Use {
  matched: number;
  won: number;
  changed: number;
  /** Selector of what wins over it where it does not, and whether that is ours. */
  readonly beatenBy: Map<string, boolean>;
}

/** What was found of one element. */
export interface ElementFound {
  readonly partId: number | null;
  readonly noted: readonly Noted[];
  /** By group, in the order of `PROOF_KINDS`. */
  readonly looks: readonly number[];
  /** By `ruleKey|property`; `null` where no rule of the veneer matches. */
  readonly uses: ReadonlyMap<string, Use> | null;
  /** Whether it has a text that shows in no state that was looked at. */
  readonly isUnseen: boolean;
}

/** The same while it is collected: there is one for each element of a site. */
interface Collected {
  readonly partId: number | null;
  noted: Noted[];
  readonly looks: number[];
  uses: Map<string, Use> | null;
  isUnseen: boolean;
}

const NO_NOTES: Noted[] = [];
const NO_WIDTHS: readonly number[] = [];

/** What was found of elements, by running number. */
export type Found = ReadonlyMap<number, ElementFound>;

/** Collects what is found on one page. */
export class Causes {
  readonly #found = new Map<number, Collected>();
  /** What was noted last of each cause. */
  readonly #last = new Map<string, Noted>();

  /**
   * @param partIdOf part of an element by running number.
   * @param alsoAt other widths at which an element is painted as it is at the first, CSS px.
   */
  constructor(
    readonly first: Setting,
    readonly partIdOf: (element: number) => number | null,
    readonly alsoAt: (element: number) => readonly number[],
  ) {}

  /** Counts a thing that was held against what is asked of it. */
  look(kind: ProofKind, element: number): void {
    this.#of(element).looks[PROOF_KINDS.indexOf(kind)] += 1;
  }

  note(noted: Noted): void {
    const { element, setting } = noted.place;
    const found = this.#of(element);
    if (found.noted === NO_NOTES) found.noted = [];
    const before = this.#last.get(noted.cause) ?? noted;
    // What is told of thousands of places word for word stands in memory once.
    const own: Noted = {
      kind: noted.kind,
      level: noted.level,
      cause: before.cause,
      what: again(before.what, noted.what),
      name: noted.name,
      basis: again(before.basis, noted.basis),
      figure: noted.figure,
      needed: noted.needed,
      unit: noted.unit,
      place: noted.place,
      alsoAt: again(before.alsoAt, setting === this.first ? this.alsoAt(element) : NO_WIDTHS),
      mend: again(before.mend, noted.mend),
    };
    this.#last.set(own.cause, own);
    found.noted.push(own);
  }

  /** Notes whether a text shows: one that does in some state is seen. */
  show(element: number, isShown: boolean, isFirst: boolean): void {
    const found = this.#of(element);
    found.isUnseen = isFirst ? !isShown : found.isUnseen && !isShown;
  }

  /** What became of a declaration on an element, to be counted on. */
  use(element: number, id: string): Use {
    const found = this.#of(element);
    found.uses ??= new Map();
    let use = found.uses.get(id);
    if (!use) found.uses.set(id, (use = { matched: 0, won: 0, changed: 0, beatenBy: new Map() }));
    return use;
  }

  /** Another for the same page, to be looked through before anything of it is noted. */
  apart(): Causes {
    return new Causes(this.first, this.partIdOf, this.alsoAt);
  }

  get found(): Found {
    return this.#found;
  }

  #of(element: number): Collected {
    let found = this.#found.get(element);
    if (!found) {
      found = {
        partId: this.partIdOf(element),
        noted: NO_NOTES,
        looks: PROOF_KINDS.map(() => 0),
        uses: null,
        isUnseen: false,
      };
      this.#found.set(element, found);
    }
    return found;
  }
}

/** The first of two that say the same, else the second. */
function again<T>(before: T | undefined, now: T): T {
  return before !== undefined && isSame(before, now) ? before : now;
}
