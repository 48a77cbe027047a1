import { keyOf, message, type Message } from '../message/message.js';
import type { Lighting } from '../veneer/lighting.js';
import type { Found, Noted, Use } from './causes.js';
import { cellsWith, type CountedLooks } from './cells.js';
import { PROOF_KINDS, type ProofCell, type ProofFinding } from './proof-finding.js';
import type { ProofState } from './proof-state.js';

/** What was found on a site, taken page by page: every cause once, with all its places. */
export class FindingGathering {
  readonly #byId = new Map<string, Gathered>();
  readonly #looks = new Map<number | null, number[]>();
  readonly #uses = new Map<string, Use>();

  take(found: Found): void {
    for (const { partId, noted, looks, uses } of found.values()) {
      for (const one of noted) {
        const id = `${one.kind}|${one.cause}`;
        const gathered = this.#byId.get(id);
        if (gathered) gathered.take(one);
        else this.#byId.set(id, new Gathered(id, one));
      }
      const own = this.#looks.get(partId);
      if (own) looks.forEach((count, i) => (own[i] += count));
      else this.#looks.set(partId, [...looks]);
      for (const [id, use] of uses ?? []) this.#use(id, use);
    }
  }

  /** What became of each declaration of the veneer on all elements, by `ruleKey|property`. */
  get uses(): ReadonlyMap<string, Use> {
    return this.#uses;
  }

  #use(id: string, { matched, won, changed, beatenBy }: Use): void {
    let all = this.#uses.get(id);
    if (!all) this.#uses.set(id, (all = { matched: 0, won: 0, changed: 0, beatenBy: new Map() }));
    all.matched += matched;
    all.won += won;
    all.changed += changed;
    for (const [selector, isOurs] of beatenBy) all.beatenBy.set(selector, isOurs);
  }

  /** Those that fail first, then those with more places. */
  findings(): ProofFinding[] {
    return inOrder([...this.#byId.values()].map((gathered) => gathered.finding()));
  }

  /** How many looks each part got in each group, and what came of them. */
  cells(findings: readonly ProofFinding[]): ProofCell[] {
    const looked = [...this.#looks].flatMap(([partId, looks]) =>
      looks.flatMap((count, i): CountedLooks[] => (count > 0 ? [{ partId, kind: PROOF_KINDS[i], count }] : [])),
    );
    return cellsWith([], looked, findings);
  }
}

/** Findings with those that fail first, the gravest of a group before others, then those with more places. */
export function inOrder(findings: readonly ProofFinding[]): ProofFinding[] {
  return [...findings].sort(
    (a, b) =>
      rankOf(a) - rankOf(b) || shareOf(a) - shareOf(b) || b.places.length - a.places.length || (a.id < b.id ? -1 : 1),
  );
}

/** One cause while its places come in. */
class Gathered {
  readonly #places = new Map<string, Noted>();
  readonly #names = new Map<string, Message>();
  readonly #called = new Set<Message>();
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
    const key = `${pageId}:${element}:${pseudo}:${property}:${index}:${state}:${lighting}`;
    const known = this.#places.get(key);
    if (!known || isWorse(one, known)) this.#places.set(key, one);
    if (isWorse(one, this.#worst)) this.#worst = one;
    this.#call(one.name);
    this.#states.add(state);
    for (const width of [setting.width, ...(one.alsoAt ?? [])]) this.#widths.add(width);
    this.#lightings.add(lighting);
    if (one.mend?.kind === 'recolour') one.mend.grounds.forEach((ground) => this.#grounds.add(ground));
    if (one.mend?.kind === 'drop' || one.mend?.kind === 'rewrite')
      one.mend.overrides.forEach((id) => this.#overrides.add(id));
  }

  #call(name: Message | null): void {
    if (name === null || this.#called.has(name)) return;
    this.#called.add(name);
    this.#names.set(keyOf(name), name);
  }

  finding(): ProofFinding {
    const { kind, level, what, basis, figure, needed, unit, mend } = this.#worst;
    const places = [...this.#places.values()].sort(byGravity);
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

/** The worse first. */
function byGravity(a: Noted, b: Noted): number {
  if (a.level !== b.level) return a.level === 'fails' ? -1 : 1;
  return shareOf(a) - shareOf(b);
}

function isWorse(a: Noted, b: Noted): boolean {
  return byGravity(a, b) < 0;
}

/** Things a finding is about: an element or pseudo-element once, whatever its states and lightings. */
export function thingsOf({ places }: Pick<ProofFinding, 'places'>): number {
  return new Set(places.map(({ pageId, element, pseudo }) => `${pageId}:${element}:${pseudo}`)).size;
}
