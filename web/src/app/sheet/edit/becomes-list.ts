import { type Spoken, wordsOf } from '@upper-veneer/words';
import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import type { SheetProblem } from '@upper-veneer/core';
import type { EditReading } from '../../shared/engine/sheet-api';

interface Row {
  readonly mark: string;
  readonly words: string;
  readonly why: string;
  readonly start: number;
  readonly end: number;
}

/** Rows that are drawn. */
const MOST_ROWS = 60;

const MARKS: Readonly<Record<Spoken<SheetProblem>['level'], string>> = { stops: '✕', fails: '◆', look: '◇' };

/** What is wrong with an edited sheet, what of it is kept as it is written and why, and what changes nothing; each leads to its line. */
@Component({
  selector: 'uv-becomes-list',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @for (row of shown(); track $index) {
      <li>
        <button type="button" (click)="chosen.emit(row)">
          <span aria-hidden="true">{{ row.mark }}</span>
          <span class="uv-mono line">{{ lineOf(row) }}</span>
          <span class="words">{{ row.words }}@if (row.why !== '') { <span class="uv-soft"> {{ row.why }}</span> }</span>
        </button>
      </li>
    }
    @if (more() > 0) { <li class="more uv-soft" i18n>{{ more() }} more further down</li> }
  `,
  styles: `
    :host { display: block; }
    .more { padding: 4px 12px; font-size: 12.5px; }
    li { list-style: none; }
    button { display: grid; grid-template-columns: 14px 38px minmax(0, 1fr); gap: 6px; width: 100%; min-height: 24px; padding: 3px 12px; border: 0; border-bottom: 1px solid var(--uv-line); background: none; color: inherit; font: inherit; font-size: 12.5px; text-align: left; cursor: pointer; }
    button:hover { background: var(--uv-bar); }
    .line { color: var(--uv-soft); font-size: 12px; }
    .words { overflow-wrap: anywhere; }
  `,
  host: { role: 'list', '[attr.aria-label]': 'name' },
})
export class BecomesList {
  protected readonly name = wordsOf('sheet.what-becomes');
  readonly text = input.required<string>();
  readonly problems = input.required<readonly Spoken<SheetProblem>[]>();
  readonly reading = input.required<Spoken<EditReading> | null>();
  readonly chosen = output<{ readonly start: number; readonly end: number }>();
  protected readonly rows = computed((): Row[] => {
    const reading = this.reading();
    return [
      ...this.problems().map(({ level, words, mend, start, end }) => ({
        mark: MARKS[level],
        words: `${words}.`,
        why: mend === '' ? '' : `${mend}.`,
        start,
        end,
      })),
      ...(reading?.kept ?? []).map(({ selector, reason, start, end }) => ({
        mark: '◧',
        words: wordsOf('sheet.comment-stays-as-own', { case: selector === '' ? 'yes' : 'no', selector }),
        why: selector === '' ? '' : wordsOf('sheet.it-reason', { reason }),
        start,
        end,
      })),
      ...(reading?.idle ?? []).map(({ selector, reason, start, end }) => ({
        mark: '◇',
        words: `${selector} ${reason}.`,
        why: '',
        start,
        end,
      })),
    ].sort((a, b) => a.start - b.start);
  });
  protected readonly shown = computed(() => this.rows().slice(0, MOST_ROWS));
  protected readonly more = computed(() => this.rows().length - this.shown().length);
  /** Where each line begins. */
  readonly #lines = computed(() => {
    const starts = [0];
    for (let at = this.text().indexOf('\n'); at !== -1; at = this.text().indexOf('\n', at + 1)) starts.push(at + 1);
    return starts;
  });

  protected lineOf({ start }: Row): number {
    const lines = this.#lines();
    let [low, high] = [0, lines.length];
    while (high - low > 1) {
      const middle = (low + high) >> 1;
      if (lines[middle] <= start) low = middle;
      else high = middle;
    }
    return low + 1;
  }
}
