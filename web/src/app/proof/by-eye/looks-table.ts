import { wordsOf } from '@upper-veneer/words';
import { ChangeDetectionStrategy, Component, ElementRef, computed, inject, input, output, signal } from '@angular/core';
import { LooksStore, type LookRow, type LookStanding } from '../../shared/proof/looks-store';
import { SiteStore } from '../../shared/site/site-store';
import { StandingMark } from '../../shared/ui/standing-mark';
import { arrowStep } from '../../shared/keys/arrow-step';

const WORDS: Readonly<Record<LookStanding, string>> = {
  looked: wordsOf('proof.looked'),
  changed: wordsOf('proof.changed-since'),
  never: wordsOf('proof.not-yet'),
};

/** Parts by pages: what was looked at by eye since it last looked otherwise. */
@Component({
  selector: 'uv-looks-table',
  imports: [StandingMark],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (store.rows()) {
      <table
        role="grid" tabindex="-1" aria-label="Parts by pages, looked at or not" i18n-aria-label [style.min-width.px]="150 + 92 * pages().length"
        (keydown)="onKey($event)"
      >
        <thead>
          <tr>
            <th scope="col" i18n>Part</th>
            @for (page of pages(); track page.id) { <th scope="col" [title]="page.name"><span>{{ page.name }}</span></th> }
          </tr>
        </thead>
        <tbody>
          @for (row of table(); track row.partId; let r = $index) {
            <tr>
              <th scope="row" [title]="row.name">
                <span>{{ row.name }}</span>
                @if (row.isOpened) { <span class="asks" i18n>opened</span> }
              </th>
              @for (cell of row.cells; track $index; let c = $index) {
                <td>
                  @if (cell) {
                    <button
                      type="button" [class.chosen]="cell.key === chosenKey()" [attr.aria-pressed]="cell.key === chosenKey()"
                      [attr.tabindex]="r === at().row && c === at().column ? 0 : -1" [attr.data-cell]="r + ' ' + c" (click)="choose(r, c, cell)"
                    >
                      <span class="uv-hidden">{{ row.name }}, {{ pages()[c].name }}: </span>
                      <uv-standing [standing]="cell.standing === 'looked' ? 'holds' : 'look'" />
                      <span>{{ words[cell.standing] }}</span>
                    </button>
                  } @else {
                    <span class="none uv-soft"><span aria-hidden="true">–</span><span class="uv-hidden" i18n>not on this page</span></span>
                  }
                </td>
              }
            </tr>
          }
        </tbody>
      </table>
    } @else {
      <p class="empty uv-soft" role="status" i18n>Looking where each part stands…</p>
    }
  `,
  styles: `
    :host { display: block; overflow-x: auto; }
    table { width: 100%; border: 1px solid var(--uv-line-strong); border-bottom-width: 4px; border-collapse: separate; border-spacing: 0; background: var(--uv-paper); table-layout: fixed; }
    th { padding: 1px 8px; text-align: left; font-size: 12.5px; }
    thead th { padding-block: 7px; border-bottom: 1px solid var(--uv-line-strong); }
    th:first-child { width: 150px; }
    .asks { font-weight: 400; font-size: 11.5px; color: var(--uv-soft); }
    th span { display: block; overflow: hidden; text-overflow: ellipsis; white-space: nowrap; }
    tbody th, td { border-bottom: 1px solid var(--uv-line); }
    td { padding: 0; border-left: 1px solid var(--uv-line); }
    tr:last-child > * { border-bottom: 0; }
    button, .none { position: relative; display: flex; gap: 6px; align-items: center; width: 100%; height: 31px; padding: 0 8px; border: 0; border-radius: 0; background: none; font-size: 12.5px; white-space: nowrap; overflow: hidden; }
    button { cursor: pointer; }
    button:hover { background: var(--uv-panel); }
    button.chosen { background: var(--uv-black); color: var(--uv-on-black); }
    button.chosen uv-standing { color: inherit; }
    button:focus-visible { z-index: 1; }
    .empty { padding: 14px; }
  `,
})
export class LooksTable {
  readonly chosenKey = input.required<string>();
  readonly chosen = output<string>();

  protected readonly store = inject(LooksStore);
  protected readonly words = WORDS;
  readonly #site = inject(SiteStore);
  readonly #host = inject<ElementRef<HTMLElement>>(ElementRef);

  protected readonly pages = this.#site.captured;
  protected readonly table = computed(() => {
    const rows = this.store.rows() ?? [];
    const parts = [
      ...(this.#site.site()?.parts ?? []).map(({ id, name }) => ({ partId: id as number | null, name })),
      { partId: null, name: wordsOf('proof.everything-else') },
    ];
    return parts
      .map((part) => ({
        ...part,
        cells: this.pages().map(
          ({ id }) => rows.find((row) => row.partId === part.partId && row.pageId === id) ?? null,
        ),
      }))
      .filter(({ cells }) => cells.some((cell) => cell !== null))
      .map((row) => ({ ...row, isOpened: row.cells.some((cell) => cell?.step === 'opened') }));
  });
  readonly #asked = signal({ row: 0, column: 0 });
  /** Cell that the keyboard is on: one that is there. */
  protected readonly at = computed(() => {
    const { row, column } = this.#asked();
    const table = this.table();
    if (table[row]?.cells[column]) return { row, column };
    const first = table.findIndex(({ cells }) => cells.some((cell) => cell !== null));
    return { row: Math.max(0, first), column: table[first]?.cells.findIndex((cell) => cell !== null) ?? 0 };
  });

  protected choose(row: number, column: number, { key }: LookRow): void {
    this.#asked.set({ row, column });
    this.chosen.emit(key);
  }

  /** The next cell that is there, in the direction of an arrow. */
  protected onKey(event: KeyboardEvent): void {
    const step = arrowStep(event);
    if (!step) return;
    const table = this.table();
    let { row, column } = this.at();
    do {
      row += step.rows;
      column += step.columns;
    } while (table[row] && column >= 0 && column < this.pages().length && !table[row].cells[column]);
    if (!table[row]?.cells[column]) return;
    this.#asked.set({ row, column });
    this.#host.nativeElement.querySelector<HTMLElement>(`[data-cell="${row} ${column}"]`)?.focus();
  }
}
