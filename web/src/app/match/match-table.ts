import { stateWords } from '../shared/ui/state-words';
import { type Spoken, wordsOf } from '@upper-veneer/words';
import {
  ChangeDetectionStrategy,
  Component,
  ElementRef,
  computed,
  inject,
  input,
  output,
  viewChildren,
} from '@angular/core';
import type { Palette } from '@upper-veneer/core';
import type { MatchRow } from '../shared/engine/match-api';
import { ColorChip } from '../shared/ui/color-chip';
import { inSlices } from '../shared/ui/in-slices';
import { StandingMark } from '../shared/ui/standing-mark';
import { becomesWords, standingOf } from './match-words';
import { within } from '../shared/keys/arrow-step';

/** Rows drawn in one turn. */
const SLICE = 16;

/** Found colours beside what each becomes. Arrow keys walk, Shift and Ctrl gather several. */
@Component({
  selector: 'uv-match-table',
  imports: [ColorChip, StandingMark],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <table role="grid" aria-label="Found colours and what they become" i18n-aria-label aria-multiselectable="true">
      <thead><tr><th scope="col" i18n>Found</th><th scope="col" i18n>Paints</th><th scope="col" i18n>Becomes</th><th scope="col" title="Worst contrast over all places and states, and what is asked" i18n-title i18n>On its ground</th><th scope="col" i18n>Why</th></tr></thead>
      <tbody>
        @for (row of drawn(); track row.id; let i = $index) {
          <tr #line [attr.aria-selected]="chosen().includes(row.id)" [class.state]="row.isState" [class.left]="row.isLeft" [tabindex]="i === focusAt() ? 0 : -1" (click)="pick(row.id, i, $event)" (keydown)="onKey($event, i)">
            <td><span class="color"><uv-color-chip [color]="row.hex" /><code class="uv-mono">{{ row.hex }}</code></span></td>
            <td class="paints" [title]="row.paints"><span>{{ row.paints }}</span><span class="uv-soft">{{ row.where }}</span></td>
            <td><span class="color"><uv-color-chip [color]="row.css" /><span class="value">{{ row.becomes }}</span></span></td>
            <td class="figure">
              @if (row.standing; as standing) {
                <uv-standing [standing]="standing" />{{ row.ratio }}<span class="uv-soft"> / {{ row.wanted }}</span>
              }
            </td>
            <td class="why uv-soft" [title]="row.reason">{{ row.reason }}</td>
          </tr>
        }
      </tbody>
    </table>
  `,
  styles: `
    :host { display: block; }
    table { width: 100%; border-collapse: collapse; table-layout: fixed; background: var(--uv-paper); }
    thead th { position: sticky; top: 0; z-index: 1; height: 28px; padding: 0 10px; background: var(--uv-panel); border-bottom: 1px solid var(--uv-line-strong); text-align: left; font-size: 12px; font-weight: 600; color: var(--uv-soft); }
    th:nth-child(1) { width: 122px; } th:nth-child(3) { width: 170px; } th:nth-child(4) { width: 100px; } th:nth-child(5) { width: 23%; }
    td { height: 40px; padding: 2px 10px; border-bottom: 1px solid var(--uv-line); overflow: hidden; text-overflow: ellipsis; white-space: nowrap; }
    tr { cursor: pointer; }
    tbody tr:hover { background: var(--uv-panel); }
    tr[aria-selected='true'] { background: var(--uv-bar); box-shadow: inset 4px 0 0 var(--uv-ink); }
    tbody tr:focus-visible { outline: 2px solid var(--uv-paper); outline-offset: -2px; box-shadow: inset 0 0 0 4px var(--uv-ink); }
    .color { display: flex; align-items: center; gap: 9px; min-width: 0; }
    uv-color-chip { width: 30px; height: 22px; }
    .state td:first-child { padding-left: 24px; }
    .value { overflow: hidden; text-overflow: ellipsis; font-weight: 600; }
    .left .value { font-weight: 400; color: var(--uv-soft); }
    .paints span { display: block; overflow: hidden; text-overflow: ellipsis; }
    .paints .uv-soft, .why { font-size: 12px; }
    .figure { font-variant-numeric: tabular-nums; }
    .figure uv-standing { margin-right: 5px; }
    @media (max-width: 900px) { table, thead, tbody { display: block; } thead { display: none; } tr { display: grid; grid-template-columns: auto minmax(0, 1fr) auto; align-items: center; padding: 6px 0; border-bottom: 1px solid var(--uv-line); } td { height: auto; border: 0; } .paints, .why { grid-column: 1 / -1; white-space: normal; } }
  `,
})
export class MatchTable {
  readonly rows = input.required<readonly Spoken<MatchRow>[]>();
  readonly palette = input.required<Palette>();
  readonly chosen = input.required<readonly string[]>();
  readonly picked = output<readonly string[]>();
  /** Emits the rows on which a key that changes them was pressed. */
  readonly acted = output<'leave' | 'lock'>();

  /** Rows that are drawn by now. */
  protected readonly drawn = inSlices(() => this.shown(), SLICE);

  private readonly lines = viewChildren<ElementRef<HTMLElement>>('line');
  protected readonly host = inject<ElementRef<HTMLElement>>(ElementRef);

  protected readonly shown = computed(() =>
    this.rows().map((row) => {
      const { found, worst } = row;
      const states = found.states.filter((state) => state !== 'rest');
      return {
        id: found.id,
        hex: found.hex,
        css: row.css,
        paints: found.paints,
        where: wordsOf('match.place-places', {
          placeCount: found.placeCount,
          states: states.length,
          states2: found.states.map(stateWords),
        }),
        becomes: becomesWords(row, this.palette()),
        isState: found.atRest !== null,
        isLeft: row.becomes.kind === 'leave',
        standing: standingOf(row),
        // Rounded down: 4.49 must not read as 4.5.
        ratio: worst ? (Math.floor(worst.ratio * 10) / 10).toFixed(1) : '',
        wanted: worst?.wanted ?? 0,
        reason: row.isLocked ? `▪ ${row.reason}` : row.reason,
      };
    }),
  );
  protected readonly focusAt = computed(() =>
    Math.max(
      0,
      this.rows().findIndex(({ found }) => found.id === this.chosen().at(-1)),
    ),
  );

  protected pick(id: string, at: number, event: MouseEvent | KeyboardEvent): void {
    const before = this.chosen();
    if (event.shiftKey && before.length > 0) {
      const from = this.rows().findIndex(({ found }) => found.id === before[0]);
      const [low, high] = [Math.min(from, at), Math.max(from, at)];
      const between = this.rows()
        .slice(low, high + 1)
        .map(({ found }) => found.id);
      this.picked.emit(from <= at ? between : between.reverse());
    } else if (event.ctrlKey || event.metaKey)
      this.picked.emit(before.includes(id) ? before.filter((other) => other !== id) : [...before, id]);
    else this.picked.emit([id]);
  }

  protected onKey(event: KeyboardEvent, at: number): void {
    const step = { ArrowDown: 1, ArrowUp: -1, Home: -Infinity, End: Infinity, PageDown: 8, PageUp: -8 }[event.key];
    if (step !== undefined) {
      event.preventDefault();
      const next = within(this.rows().length, at + step);
      this.pick(this.rows()[next].found.id, next, event.shiftKey ? event : new KeyboardEvent('keydown'));
      this.lines()[next]?.nativeElement.focus();
    } else if (event.key === 'Delete' || event.key === 'Backspace') {
      event.preventDefault();
      this.acted.emit('leave');
    } else if (event.key === ' ' || event.key === 'Enter') {
      event.preventDefault();
      this.acted.emit('lock');
    }
  }
}
