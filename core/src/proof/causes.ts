import { keyOf, message, type Message } from '../message/message.js';
import type { Setting } from '../conditions/environment.js';
import type { Lighting } from '../veneer/lighting.js';
import {
  PROOF_KINDS,
  type MendIdea,
  type ProofCell,
  type ProofFinding,
  type ProofKind,
  type ProofLevel,
  type ProofPlace,
  type FigureUnit,
} from './proof-finding.js';
import type { ProofState } from './proof-state.js';

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

/** What was found of elements, by running number. */
export type Found = ReadonlyMap<number, ElementFound>;

/** Collects what is found on one page. */
export class Causes {
  readonly #found = new Map<number, Collected>();

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
    found.noted.push({ ...noted, alsoAt: setting === this.first ? this.alsoAt(element) : [] });
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

/** Every cause once, with all its places: those that fail first, then those with more of them. */
export function findingsOf(all: readonly Found[]): ProofFinding[] {
  const byId = new Map<string, Gathered>();
  for (const { noted } of all.flatMap((found) => [...found.values()]))
    for (const one of noted) {
      const id = `${one.kind}|${one.cause}`;
      const gathered = byId.get(id);
      if (gathered) gathered.take(one);
      else byId.set(id, new Gathered(id, one));
    }
  return inOrder([...byId.values()].map((gathered) => gathered.finding()));
}

/** Findings with those that fail first, the gravest of a group before others, then those with more places. */
export function inOrder(findings: readonly ProofFinding[]): ProofFinding[] {
  return [...findings].sort(
    (a, b) =>
      rankOf(a) - rankOf(b) || shareOf(a) - shareOf(b) || b.places.length - a.places.length || (a.id < b.id ? -1 : 1),
  );
}

/** How many looks each part got in each group, and what came of them. */
export function cellsOf(all: readonly Found[], findings: readonly ProofFinding[]): ProofCell[] {
  const looked = all.flatMap((found) =>
    [...found.values()].flatMap(({ partId, looks }) =>
      looks.flatMap((count, i) => (count > 0 ? [{ partId, kind: PROOF_KINDS[i], count }] : [])),
    ),
  );
  return cellsWith([], looked, findings);
}

/** Looks at things of one part in one group. */
export interface CountedLooks {
  readonly partId: number | null;
  readonly kind: ProofKind;
  readonly count: number;
}

/** Cells with more looks, and what all findings there are come to in each. */
export function cellsWith(
  before: readonly ProofCell[],
  looked: readonly CountedLooks[],
  findings: readonly ProofFinding[],
): ProofCell[] {
  const cells = new Map<
    string,
    { partId: number | null; kind: ProofKind; looks: number; fails: number; toLookAt: number }
  >();
  const cellOf = (partId: number | null, kind: ProofKind): { looks: number; fails: number; toLookAt: number } => {
    const key = `${partId ?? ''}|${kind}`;
    let cell = cells.get(key);
    if (!cell) cells.set(key, (cell = { partId, kind, looks: 0, fails: 0, toLookAt: 0 }));
    return cell;
  };
  for (const { partId, kind, looks } of before) cellOf(partId, kind).looks += looks;
  for (const { partId, kind, count } of looked) cellOf(partId, kind).looks += count;
  for (const { kind, level, places } of findings)
    for (const partId of new Set(places.map((place) => place.partId))) {
      const cell = cellOf(partId, kind);
      if (level === 'fails') cell.fails += 1;
      else cell.toLookAt += 1;
    }
  return [...cells.values()];
}

/** One cause while its places come in. */
class Gathered {
  readonly #places = new Map<string, Noted>();
  readonly #names = new Map<string, Message>();
  readonly #states = new Set<ProofState>();
  readonly #widths = new Set<number>();
  readonly #lightings = new Set<Lighting>();
  readonly #grounds = new Set<string>();
  readonly #overrides = new Set<string>();
  #worst: Noted;

  constructor(
    readonly id: string,
    first: Noted,
  ) {
    this.#worst = first;
    this.take(first);
  }

  take(one: Noted): void {
    const { pageId, element, pseudo, property, index, state, setting, lighting } = one.place;
    const key = [pageId, element, pseudo, property, index, state, lighting].join(':');
    const known = this.#places.get(key);
    if (!known || isWorse(one, known)) this.#places.set(key, one);
    if (isWorse(one, this.#worst)) this.#worst = one;
    if (one.name !== null) this.#names.set(keyOf(one.name), one.name);
    this.#states.add(state);
    for (const width of [setting.width, ...(one.alsoAt ?? [])]) this.#widths.add(width);
    this.#lightings.add(lighting);
    if (one.mend?.kind === 'recolour') one.mend.grounds.forEach((ground) => this.#grounds.add(ground));
    if (one.mend?.kind === 'drop' || one.mend?.kind === 'rewrite')
      one.mend.overrides.forEach((id) => this.#overrides.add(id));
  }

  finding(): ProofFinding {
    const { kind, level, what, basis, figure, needed, unit, mend } = this.#worst;
    const places = [...this.#places.values()].sort((a, b) => Number(isWorse(b, a)) - Number(isWorse(a, b)));
    const shown = [...this.#names.values()].slice(0, 2);
    const more = this.#names.size - 2;
    return {
      id: this.id,
      kind,
      level: places.some((place) => place.level === 'fails') ? 'fails' : level,
      title: shown.length === 0 ? what : message('proof.title', { what, shown, more: Math.max(0, more) }),
      basis,
      figure,
      needed,
      unit,
      places: places.map(({ place }) => place),
      states: [...this.#states],
      widths: [...this.#widths].sort((a, b) => b - a),
      lightings: [...this.#lightings],
      mend:
        mend?.kind === 'recolour'
          ? { ...mend, grounds: [...this.#grounds] }
          : mend?.kind === 'drop' || mend?.kind === 'rewrite'
            ? { ...mend, overrides: [...this.#overrides] }
            : mend,
    };
  }
}

function rankOf({ level, kind }: ProofFinding): number {
  return (level === 'fails' ? 0 : PROOF_KINDS.length) + PROOF_KINDS.indexOf(kind);
}

/** How far a finding is from what is asked, 1 for just there. */
function shareOf({ figure, needed }: Pick<ProofFinding, 'figure' | 'needed'>): number {
  return figure === null || needed === null || needed === 0 ? 1 : figure / needed;
}

function isWorse(a: Noted, b: Noted): boolean {
  if (a.level !== b.level) return a.level === 'fails';
  return shareOf(a) < shareOf(b);
}

/** Things a finding is about: an element or pseudo-element once, whatever its states and lightings. */
export function thingsOf({ places }: Pick<ProofFinding, 'places'>): number {
  return new Set(places.map(({ pageId, element, pseudo }) => `${pageId}:${element}:${pseudo}`)).size;
}
