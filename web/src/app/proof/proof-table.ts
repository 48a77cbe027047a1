import { figure } from '@upper-veneer/words';
import { ChangeDetectionStrategy, Component, ElementRef, computed, inject, input, output, signal } from '@angular/core';
import { PROOF_KINDS, type ProofKind } from '@upper-veneer/core';
import { StandingMark } from '../shared/ui/standing-mark';
import { KIND_WORDS } from './proof-words';
import { arrowStep, within } from '../shared/keys/arrow-step';

/** What one part came to in one group. */
export interface TableCell {
  readonly kind: ProofKind;
  readonly looks: number;
  readonly fails: number;
  readonly toLookAt: number;
}

/** One part with its cells, in the order of the groups. */
export interface TableRow {
  /** `null` for what stands in no part. */
  readonly partId: number | null;
  readonly name: string;
  readonly of: string;
  readonly cells: readonly TableCell[];
}

/** What the findings are narrowed to; `undefined` leaves a side open. */
export interface CellChoice {
  readonly partId?: number | null;
  readonly kind?: ProofKind;
}

/** Every part in every group: how much was looked at, what fails, what is to be looked at. */
@Component({
  selector: 'uv-proof-table',
  imports: [StandingMark],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <table role="grid" tabindex="-1" aria-label="Parts by what is asked of them" i18n-aria-label (keydown)="onKey($event)">
      <thead>
        <tr>
          <th scope="col" i18n>Part</th>
          @for (kind of kinds; track kind.kind) {
            <th scope="col" [class.chosen]="choice().kind === kind.kind">
              <span>{{ kind.name }}</span><span class="asks">{{ kind.asks }}</span>
            </th>
          }
        </tr>
      </thead>
      <tbody>
        @for (row of rows(); track row.partId; let r = $index) {
          <tr>
            <th scope="row" [title]="row.name"><span>{{ row.name }}</span><span class="asks">{{ row.of }}</span></th>
            @for (cell of row.cells; track cell.kind; let c = $index) {
              <td>
                <button
                  type="button" [class.chosen]="isChosen(row, cell)" [attr.aria-pressed]="isChosen(row, cell)"
                  [attr.tabindex]="r === at().row && c === at().column ? 0 : -1"
                  [attr.data-cell]="r + ' ' + c" (click)="choose(r, c)"
                >
                  <span class="uv-hidden">{{ row.name }}, {{ kinds[c].name.toLowerCase() }}: </span>
                  @if (cell.fails > 0) { <span><uv-standing standing="fails" /> {{ cell.fails }}</span> }
                  @if (cell.toLookAt > 0) { <span><uv-standing standing="look" /> {{ cell.toLookAt }}</span> }
                  @if (cell.fails + cell.toLookAt === 0) {
                    @if (cell.looks > 0) { <span><uv-standing standing="holds" /> {{ figure(cell.looks) }}</span> }
                    @else { <span class="uv-soft" aria-hidden="true">–</span><span class="uv-hidden" i18n>nothing to look at</span> }
                  }
                </button>
              </td>
            }
          </tr>
        }
      </tbody>
    </table>
  `,
  styles: `
    :host { display: block; border: 1px solid var(--uv-line-strong); border-bottom-width: 4px; background: var(--uv-paper); }
    table { width: 100%; border-collapse: separate; border-spacing: 0; table-layout: fixed; }
    thead th { position: sticky; top: 0; z-index: 1; padding: 6px 8px; background: var(--uv-paper); border-bottom: 1px solid var(--uv-line-strong); }
    th { text-align: left; font-weight: 700; font-size: 12.5px; line-height: 1.16; }
    th span { display: block; overflow: hidden; text-overflow: ellipsis; white-space: nowrap; }
    .asks { font-weight: 400; font-size: 11.5px; color: var(--uv-soft); }
    thead th:first-child { width: 18%; vertical-align: bottom; }
    tbody th { padding: 1px 8px; border-bottom: 1px solid var(--uv-line); }
    td { padding: 0; border-bottom: 1px solid var(--uv-line); border-left: 1px solid var(--uv-line); }
    tr:last-child > * { border-bottom: 0; }
    button { position: relative; display: flex; gap: 9px; align-items: center; width: 100%; height: 31px; padding: 0 8px; border: 0; border-radius: 0; background: none; font-family: var(--uv-mono); font-size: 12.5px; text-align: left; cursor: pointer; white-space: nowrap; }
    button:hover { background: var(--uv-panel); }
    button.chosen { background: var(--uv-black); color: var(--uv-on-black); }
    button.chosen uv-standing, button.chosen .uv-soft { color: inherit; }
    button:focus-visible { z-index: 1; }
    uv-standing { display: inline-block; width: 12px; font-family: var(--uv-font); }
  `,
})
export class ProofTable {
  readonly rows = input.required<readonly TableRow[]>();
  readonly choice = input.required<CellChoice>();
  readonly chosen = output<CellChoice>();

  readonly #host = inject<ElementRef<HTMLElement>>(ElementRef);
  protected readonly figure = figure;
  protected readonly kinds = PROOF_KINDS.map((kind) => ({ kind, ...KIND_WORDS[kind] }));
  readonly #asked = signal({ row: 0, column: 0 });
  /** Cell that the keyboard is on. */
  protected readonly at = computed(() => {
    const { row, column } = this.#asked();
    return { row: Math.min(row, Math.max(0, this.rows().length - 1)), column };
  });

  protected isChosen({ partId }: TableRow, { kind }: TableCell): boolean {
    const choice = this.choice();
    return choice.kind === kind && choice.partId === partId;
  }

  /** A second press shows everything again. */
  protected choose(r: number, c: number): void {
    this.#asked.set({ row: r, column: c });
    const row = this.rows()[r];
    const cell = row.cells[c];
    this.chosen.emit(this.isChosen(row, cell) ? {} : { partId: row.partId, kind: cell.kind });
  }

  protected onKey(event: KeyboardEvent): void {
    const step = arrowStep(event);
    if (!step) return;
    const { row, column } = this.at();
    const next = {
      row: within(this.rows().length, row + step.rows),
      column: within(this.kinds.length, column + step.columns),
    };
    this.#asked.set(next);
    const cell = `[data-cell="${next.row} ${next.column}"]`;
    this.#host.nativeElement.querySelector<HTMLElement>(cell)?.focus();
  }
}
