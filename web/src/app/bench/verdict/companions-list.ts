import { type Spoken, wordsOf } from '@upper-veneer/words';
import { ChangeDetectionStrategy, Component, computed, input, linkedSignal, output } from '@angular/core';
import type { Companion } from '@upper-veneer/core';

/** What a new ground obliges: text, links, headings, icons, edges and shadows on it that now fail, each with a role proposed. */
@Component({
  selector: 'uv-companions-list',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <header><h2 i18n>Companions of this ground</h2><button type="button" [disabled]="chosen().size === 0" (click)="take()">{{ chosen().size === companions().length ? wordsOf('bench.take-all') : wordsOf('bench.take', { chosen: chosen().size }) }}</button></header>
    <ul>
      @for (row of rows(); track row.key) {
        <li><label>
          <input type="checkbox" [checked]="chosen().has(row.key)" (change)="toggle(row.key)" />
          <span class="name" [title]="row.name">{{ row.kind }} · {{ row.name }}</span>
          <span class="uv-soft">{{ row.from }}</span>
          <span>{{ row.to }}</span>
        </label></li>
      }
    </ul>
  `,
  styles: `
    :host { display: block; padding: 8px 16px; border-top: 1px solid var(--uv-line); background: var(--uv-bar); }
    header { display: flex; justify-content: space-between; align-items: center; gap: 8px; }
    h2 { font-weight: 700; }
    header button { padding: 2px 10px; border: 1px solid var(--uv-black); border-radius: 3px; background: var(--uv-black); color: var(--uv-on-black); font-size: 12px; cursor: pointer; }
    header button:disabled { background: none; color: var(--uv-soft); border-color: var(--uv-line-strong); cursor: default; }
    ul { margin: 4px 0 0; padding: 0; list-style: none; }
    label { display: grid; grid-template-columns: 16px minmax(0, 1fr) auto auto; gap: 8px; align-items: center; min-height: 24px; font-size: 12px; cursor: pointer; }
    input { margin: 0; accent-color: var(--uv-black); }
    .name { overflow: hidden; text-overflow: ellipsis; white-space: nowrap; }
  `,
})
export class CompanionsList {
  protected readonly wordsOf = wordsOf;

  readonly companions = input.required<readonly Spoken<Companion>[]>();
  readonly taken = output<readonly Spoken<Companion>[]>();

  protected readonly rows = computed(() =>
    this.companions().map((companion) => ({
      key: keyOf(companion),
      kind: wordsOf(`companion.${companion.kind}`),
      name:
        companion.count > 1
          ? wordsOf('bench.alike', { name: companion.name, count: companion.count - 1 })
          : companion.name,
      from:
        companion.kind === 'shadow'
          ? wordsOf('bench.has-shadow')
          : wordsOf('bench.ratio-needs', {
              state: companion.state,
              stateWords: companion.stateWords.toLowerCase(),
              ratio: short(companion.ratio),
              wanted: companion.wanted,
            }),
      to: `→ ${companion.proposedWords}${companion.proposedRatio === null ? '' : ` ${short(companion.proposedRatio)} : 1`}`,
    })),
  );
  /** All that fail are taken unless the designer says otherwise; a shadow is left to taste. */
  protected readonly chosen = linkedSignal<ReadonlySet<string>>(
    () =>
      new Set(
        this.companions()
          .filter(({ kind }) => kind !== 'shadow')
          .map(keyOf),
      ),
  );

  protected toggle(key: string): void {
    this.chosen.update((chosen) =>
      chosen.has(key) ? new Set([...chosen].filter((own) => own !== key)) : new Set([...chosen, key]),
    );
  }

  protected take(): void {
    this.taken.emit(this.companions().filter((companion) => this.chosen().has(keyOf(companion))));
  }
}

function keyOf({ kind, state, wish }: Spoken<Companion>): string {
  return `${kind} ${state} ${wish.element} ${wish.pseudo} ${wish.property}`;
}

// Rounded down: 4.49 must not read as 4.5.
function short(ratio: number): string {
  return (Math.floor(ratio * 10) / 10).toFixed(1);
}
