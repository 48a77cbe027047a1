import { say, type Spoken, wordsOf } from '@upper-veneer/words';
import { ChangeDetectionStrategy, Component, computed, inject, input, linkedSignal } from '@angular/core';
import { rowTold, type Inspection, type RowProposal } from '@upper-veneer/core';
import { Engine } from '../../shared/engine/engine';
import { BenchActs } from '../store/bench-acts';
import { BenchSelection } from '../store/bench-selection';

/** The chosen row in every state, from what it is at rest: says what each would become before anything is written. */
@Component({
  selector: 'uv-every-state',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <button type="button" [attr.aria-expanded]="found() !== null" (click)="toggle()" [title]="wordsOf('bench.what-would-be-each', { row: row() })" i18n>Every state…</button>
    @if (found(); as proposals) {
      <div class="list" role="group" [attr.aria-label]="wordsOf('bench.every-state', { row: row() })">
        @for (proposal of proposals; track proposal.state) {
          <label>
            <input type="checkbox" [checked]="!left().includes(proposal.state)" (change)="flip(proposal)" />
            {{ proposal.words }}@if (proposal.wishes.length > 1) { <span class="uv-soft" i18n>, and its text kept readable</span> }
          </label>
        } @empty { <p class="uv-soft" i18n>Every state follows from rest already.</p> }
        @if (proposals.length > 0) {
          <p>
            <button
              type="button" class="do" [disabled]="chosen().length === 0" (click)="make()"
              i18n>Do {{ chosenWords() }}</button>
            <button type="button" (click)="found.set(null)" i18n>Not now</button>
          </p>
        }
      </div>
    }
  `,
  styles: `
    :host { display: contents; }
    button { padding: 2px 8px; border: 1px solid var(--uv-line-strong); border-radius: 3px; background: var(--uv-paper); color: var(--uv-ink); font-size: 12px; cursor: pointer; }
    button:hover:not(:disabled) { background: var(--uv-bar); }
    .do { background: var(--uv-black); border-color: var(--uv-black); color: var(--uv-on-black); }
    .do:hover:not(:disabled) { background: var(--uv-ink); }
    .do:disabled { opacity: .5; cursor: default; }
    .list { order: 9; flex-basis: 100%; display: grid; gap: 3px; padding: 7px 10px; border: 1px solid var(--uv-line-strong); border-radius: 3px; background: var(--uv-paper); font-size: 12.5px; }
    label { display: block; }
    input { margin: 0 5px 0 0; vertical-align: -2px; accent-color: var(--uv-black); }
    p { display: flex; gap: 6px; margin-top: 4px; }
  `,
})
export class EveryState {
  protected readonly wordsOf = wordsOf;

  readonly #selection = inject(BenchSelection);
  readonly #acts = inject(BenchActs);
  readonly #engine = inject(Engine);
  readonly inspection = input.required<Spoken<Inspection>>();

  /** Counts questions, so that an older answer is passed over. */
  #asked = 0;
  readonly #cell = computed(
    () =>
      `${this.inspection().pageId}/${this.inspection().element}/${this.inspection().pseudo}/${this.#selection.cell().row}`,
  );
  /** What is proposed; `null` while nothing is asked. Another cell is another question. */
  protected readonly found = linkedSignal<string, readonly Spoken<RowProposal>[] | null>({
    source: this.#cell,
    computation: () => null,
  });
  protected readonly left = linkedSignal<string, readonly string[]>({ source: this.#cell, computation: () => [] });
  protected readonly row = computed(() => say(rowTold(this.#selection.cell().row)));
  protected readonly chosen = computed(() => (this.found() ?? []).filter(({ state }) => !this.left().includes(state)));
  protected readonly chosenWords = computed(() => {
    const [chosen, all] = [this.chosen().length, this.found()?.length ?? 0];
    return chosen === all ? wordsOf('bench.all', { proposals: all }) : String(chosen);
  });

  protected async toggle(): Promise<void> {
    const target = this.#selection.target();
    if (this.found() !== null || !target) {
      this.found.set(null);
      return;
    }
    const cell = this.#cell();
    const round = (this.#asked += 1);
    const found = await this.#engine.remote.proposeRow(
      { ...target, ...this.#acts.scope(), width: this.#selection.width() },
      this.#selection.cell().row,
    );
    if (round !== this.#asked || cell !== this.#cell()) return;
    this.left.set([]);
    this.found.set(found);
  }

  protected flip({ state }: Spoken<RowProposal>): void {
    this.left.update((left) => (left.includes(state) ? left.filter((other) => other !== state) : [...left, state]));
  }

  protected make(): void {
    this.#acts.repair({
      label: wordsOf('bench.every-state', { row: this.row() }),
      wishes: this.chosen().flatMap(({ wishes }) => wishes),
    });
    this.found.set(null);
  }
}
