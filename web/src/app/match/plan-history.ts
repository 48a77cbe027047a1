import { Injectable, signal } from '@angular/core';
import type { MatchChoices } from '@upper-veneer/core';

const NOTHING: MatchChoices = { strategy: 'blend', locked: {}, equal: [], mains: null };
/** Steps that can be taken back, at most. */
const MOST_STEPS = 200;

/** What was settled for each scope, kept while the window is open, with the way back. */
@Injectable({ providedIn: 'root' })
export class PlanHistory {
  readonly #plans = signal<ReadonlyMap<string, MatchChoices>>(new Map());
  readonly #back: { readonly key: string; readonly before: MatchChoices }[] = [];
  readonly #steps = signal(0);

  of(key: string): MatchChoices {
    return this.#plans().get(key) ?? NOTHING;
  }

  change(key: string, choices: MatchChoices): void {
    this.#back.push({ key, before: this.of(key) });
    if (this.#back.length > MOST_STEPS) this.#back.shift();
    this.#steps.set(this.#back.length);
    this.#plans.update((plans) => new Map(plans).set(key, choices));
  }

  /** Whether a choice of this scope can be taken back. */
  canTakeBack(key: string): boolean {
    return this.#steps() > 0 && this.#back.at(-1)?.key === key;
  }

  takeBack(key: string): void {
    if (!this.canTakeBack(key)) return;
    const last = this.#back.pop();
    this.#steps.set(this.#back.length);
    if (last) this.#plans.update((plans) => new Map(plans).set(last.key, last.before));
  }
}
