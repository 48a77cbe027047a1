import { ChangeDetectionStrategy, Component, ElementRef, inject, input, linkedSignal, output } from '@angular/core';
import type { GridCell, Inspection } from '@upper-veneer/core';
import type { CellChoice } from './bench-store';
import { ROW_WORDS, STATE_WORDS } from './change-label';

/** What each state paints. A full swatch is the state's own, a thin one falls through from rest, dashes paint nothing; a black corner is ours. */
@Component({
  selector: 'uv-states-grid',
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: { '(keydown)': 'onKey($event)' },
  template: `
    <table>
      <caption class="uv-hidden">What each state paints</caption>
      <thead><tr><td></td>@for (state of inspection().states; track state) { <th scope="col">{{ stateWords[state] }}</th> }</tr></thead>
      <tbody>
        @for (line of inspection().grid; track line.row) {
          <tr>
            <th scope="row">{{ rowWords[line.row] }}</th>
            @for (cell of line.cells; track cell.state) {
              <td>
                <button type="button" [class.own]="cell.isOwn" [class.none]="cell.css === null" [class.chosen]="isChosen(line.row, cell)" [class.ours]="cell.isOverride" [class.covered]="cell.isCovered"
                  [style.--cell]="cell.hex ?? 'transparent'" [attr.aria-pressed]="isChosen(line.row, cell)" [attr.aria-label]="describe(line.row, cell)" [title]="describe(line.row, cell)"
                  [tabindex]="isChosen(line.row, cell) ? 0 : -1" (click)="chosen.emit({ row: line.row, state: cell.state })"><span></span></button>
              </td>
            }
          </tr>
        }
      </tbody>
    </table>
  `,
  styles: `
    :host { display: block; padding: 6px 16px 8px; border-top: 1px solid var(--uv-line); }
    table { width: 100%; border-collapse: collapse; table-layout: fixed; }
    th, td { padding: 3px 0; text-align: left; font-weight: 400; }
    thead th { font-size: 12px; color: var(--uv-soft); }
    th[scope='row'] { font-weight: 700; }
    thead td, th[scope='row'] { width: 58px; }
    button { position: relative; display: flex; align-items: center; width: 48px; height: 30px; padding: 2px; border: 0; background: none; cursor: pointer; }
    button span { position: relative; display: block; width: 100%; height: 9px; border: 1px solid color-mix(in srgb, var(--uv-ink) 40%, transparent); background: linear-gradient(var(--cell), var(--cell)), repeating-conic-gradient(#bbb 0 25%, #fff 0 50%) 0 0 / 8px 8px; }
    button.own span { height: 100%; }
    button.none span { height: 100%; border: 1px dashed var(--uv-line-strong); background: none; }
    button.covered span { background: linear-gradient(135deg, var(--cell) 0 49%, var(--uv-line-strong) 49% 51%, var(--uv-mat) 51%); }
    button.ours span::after { content: ''; position: absolute; right: 0; top: 0; border: 6px solid; border-color: #000 #000 transparent transparent; filter: drop-shadow(-1px 1px 0 #fff); }
    button.chosen { outline: 2px solid var(--uv-ink); outline-offset: 0; border-radius: 0; }
    button.chosen:focus-visible { box-shadow: 0 0 0 2px var(--uv-paper), 0 0 0 6px var(--uv-ink); }
  `,
})
export class StatesGrid {
  readonly #host = inject<ElementRef<HTMLElement>>(ElementRef);
  readonly inspection = input.required<Inspection>();
  readonly choice = input.required<CellChoice>();
  readonly chosen = output<CellChoice>();
  /** Where the keyboard is: ahead of the input while keys come faster than the view. */
  readonly #at = linkedSignal(() => this.choice());

  protected readonly stateWords = STATE_WORDS;
  protected readonly rowWords = ROW_WORDS;

  protected isChosen(row: CellChoice['row'], cell: GridCell): boolean {
    return this.choice().row === row && this.choice().state === cell.state;
  }

  protected describe(row: CellChoice['row'], cell: GridCell): string {
    const what = cell.css === null ? 'paints nothing' : cell.isCovered ? `${cell.css}, under a gradient or picture` : cell.css;
    const how = cell.css === null ? '' : cell.isOverride ? ', our override' : cell.isOwn ? '' : ', as at rest';
    return `${ROW_WORDS[row]}, ${STATE_WORDS[cell.state].toLowerCase()}: ${what}${how}`;
  }

  protected onKey(event: KeyboardEvent): void {
    const step = ({ ArrowLeft: [0, -1], ArrowRight: [0, 1], ArrowUp: [-1, 0], ArrowDown: [1, 0] } as const)[event.key as 'ArrowLeft'];
    if (!step) return;
    event.preventDefault();
    const rows = this.inspection().grid;
    const { states } = this.inspection();
    const row = rows[Math.min(rows.length - 1, Math.max(0, rows.findIndex((line) => line.row === this.#at().row) + step[0]))];
    const state = states[Math.min(states.length - 1, Math.max(0, states.indexOf(this.#at().state) + step[1]))];
    this.#at.set({ row: row.row, state });
    this.chosen.emit({ row: row.row, state });
    setTimeout(() => this.#host.nativeElement.querySelector<HTMLElement>('button.chosen')?.focus());
  }
}
