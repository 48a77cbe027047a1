import { say, type Spoken, wordsOf } from '@upper-veneer/words';
import {
  ChangeDetectionStrategy,
  Component,
  ElementRef,
  computed,
  inject,
  input,
  linkedSignal,
  output,
  signal,
} from '@angular/core';
import {
  ROW_PROPERTIES,
  rowTold,
  stateTold,
  type GridCell,
  type GridRowName,
  type Inspection,
  type OverrideState,
} from '@upper-veneer/core';
import type { CellChoice } from '../store/bench-selection';
import { arrowStep, within } from '../../shared/keys/arrow-step';

/** What each state paints. A full swatch is the state's own, a thin one falls through from rest, dashes paint nothing; a black corner is ours. */
/** States from which the heads of columns stand upright, since words no longer fit across. */
const MANY_STATES = 8;

@Component({
  selector: 'uv-states-grid',
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: { '(keydown)': 'onKey($event)' },
  template: `
    <div class="uv-scroll rows">
      <table>
        <caption class="uv-hidden" i18n>What each state paints</caption>
        <thead [class.upright]="inspection().states.length >= manyStates">
          <tr>
            <td></td>
            @for (state of inspection().states; track state) {
              <th scope="col" [title]="hint(state)"><span>{{ head(state) }}</span></th>
            }
          </tr>
        </thead>
        <tbody>
          @for (line of lines(); track line.row) {
            <tr>
              <th scope="row">{{ rowWords(line.row) }}</th>
              @for (cell of line.cells; track cell.state) {
                <td>
                  <button type="button" [class.own]="cell.isOwn" [class.none]="cell.css === null" [class.chosen]="isChosen(line.row, cell)" [class.ours]="cell.isOverride" [class.covered]="cell.isCovered" [class.closed]="cell.closed !== ''"
                    [style.--cell]="paint(cell)" [attr.aria-pressed]="isChosen(line.row, cell)" [attr.aria-label]="describe(line.row, cell)" [title]="describe(line.row, cell)"
                    [tabindex]="isChosen(line.row, cell) ? 0 : -1" (click)="chosen.emit({ row: line.row, state: cell.state })"><span [class.worded]="isWorded(line.row, cell)">{{ isWorded(line.row, cell) ? short(cell) : '' }}</span></button>
                </td>
              }
            </tr>
          }
        </tbody>
      </table>
    </div>
    <p class="mores">
      <button type="button" class="more" [attr.aria-expanded]="isWhole()" (click)="isWhole.set(!isWhole())">{{ isWhole() ? wordsOf('bench.only-what-shows') : wordsOf('bench.all-rows', { grid: inspection().grid.length }) }}</button>
      @if (inspection().quietStates.length > 0) {
        <button
          type="button" class="more" (click)="wider.emit()" [title]="quietWords()"
          i18n>{{ inspection().quietStates.length }} more {inspection().quietStates.length, plural, =1 {state} other {states}}</button>
      }
      @if (inspection().carrier === null) {
        <span
          class="uv-soft"
          title="No tick, attribute or class among its six nearest neighbours, four steps up, changes it by the page's rules at this width"
          i18n-title i18n>follows nothing near</span>
      }
      @if (inspection().carrier; as carrier) {
        <span class="uv-soft" [title]="carrierWords()" i18n>follows <span class="uv-mono">{{ carrier.name }}</span></span>
        @for (other of inspection().otherCarriers.slice(0, 3); track other.element) {
          <button
            type="button" class="more" (click)="followed.emit(other.element)"
            [title]="wordsOf('bench.shows-states-this-instead', { words: other.words })"
            i18n>or where {{ other.words }}</button>
        }
      }
    </p>
  `,
  styles: `
    :host { display: block; position: relative; padding: 4px 0 6px 16px; border-top: 1px solid var(--uv-line); }
    .rows { max-height: 212px; overflow-y: auto; padding-right: 12px; }
    table { width: 100%; border-collapse: collapse; table-layout: fixed; }
    th, td { padding: 2px 0; text-align: left; font-weight: 400; }
    thead th { position: sticky; top: 0; z-index: 2; padding-right: 1px; background: var(--uv-panel); font-size: 10.5px; line-height: 1.15; color: var(--uv-soft); overflow: hidden; text-overflow: ellipsis; vertical-align: bottom; }
    thead.upright th { padding-bottom: 2px; }
    thead.upright span { display: block; max-height: 74px; overflow: hidden; white-space: nowrap; writing-mode: vertical-rl; transform: rotate(180deg); }
    thead td { position: sticky; top: 0; z-index: 2; background: var(--uv-panel); }
    th[scope='row'] { font-weight: 700; font-size: 12.5px; white-space: nowrap; overflow: hidden; text-overflow: ellipsis; }
    thead td, th[scope='row'] { width: 76px; }
    td button { position: relative; display: flex; align-items: center; width: calc(100% - 4px); max-width: 48px; height: 24px; padding: 2px; border: 0; background: none; cursor: pointer; }
    td button span { position: relative; display: block; width: 100%; height: 8px; border: 1px solid color-mix(in srgb, var(--uv-ink) 40%, transparent); background: var(--cell, none), repeating-conic-gradient(#bbb 0 25%, #fff 0 50%) 0 0 / 8px 8px; }
    td button.own span { height: 100%; }
    td button.none span { height: 100%; border: 1px dashed var(--uv-line-strong); background: none; }
    td button.covered span { background: linear-gradient(135deg, transparent 0 49%, var(--uv-line-strong) 49% 51%, var(--uv-mat) 51%), var(--cell, none); }
    td button span.worded { height: 100%; border-color: var(--uv-line); background: none; color: var(--uv-soft); font-size: 11px; line-height: 17px; text-align: center; white-space: nowrap; overflow: hidden; }
    td button.own span.worded { color: var(--uv-ink); border-color: var(--uv-line-strong); }
    td button.ours span::after { content: ''; position: absolute; right: 0; top: 0; border: 5px solid; border-color: #000 #000 transparent transparent; filter: drop-shadow(-1px 1px 0 #fff); }
    td button.closed span { border: 0; background: linear-gradient(var(--uv-line-strong), var(--uv-line-strong)) center / 40% 1px no-repeat; }
    td button.chosen { outline: 2px solid var(--uv-ink); outline-offset: 0; border-radius: 0; }
    td button.chosen:focus-visible { box-shadow: 0 0 0 2px var(--uv-paper), 0 0 0 6px var(--uv-ink); z-index: 1; }
    .mores { display: flex; gap: 4px 12px; margin: 0; padding: 2px 0 0; font-size: 12px; white-space: nowrap; overflow: hidden; }
    .mores span { overflow: hidden; text-overflow: ellipsis; }
    .more { flex: none; padding: 0; border: 0; background: none; color: var(--uv-soft); font-size: 12px; text-decoration: underline; cursor: pointer; }
  `,
})
export class StatesGrid {
  protected readonly wordsOf = wordsOf;

  readonly #host = inject<ElementRef<HTMLElement>>(ElementRef);
  readonly inspection = input.required<Spoken<Inspection>>();
  readonly choice = input.required<CellChoice>();
  readonly chosen = output<CellChoice>();
  /** Asks for the states that nothing tells from rest, too. */
  readonly wider = output();
  /** Asks for the states of another element that tells on the target. */
  readonly followed = output<number>();
  /** Where the keyboard is: ahead of the input while keys come faster than the view. */
  readonly #at = linkedSignal(() => this.choice());

  protected readonly rowWords = (row: GridRowName): string => say(rowTold(row));
  protected readonly manyStates = MANY_STATES;

  /** Whether rows in which nothing shows are listed too. */
  protected readonly isWhole = signal(false);
  protected readonly lines = computed(() =>
    this.inspection().grid.filter(
      ({ row, cells }) =>
        this.isWhole() ||
        (ALWAYS.has(row) && !SCROLLBAR.has(this.choice().row)) ||
        row === this.choice().row ||
        (SCROLLBAR.has(row) && SCROLLBAR.has(this.choice().row)) ||
        cells.some(
          ({ css, isOverride, isOwn, state }) =>
            isOverride || (!QUIET.has(row) && css !== null && (state === 'rest' || isOwn)),
        ),
    ),
  );

  protected readonly quietWords = computed(() =>
    wordsOf('bench.can-also-be-nothing', {
      quietStates: this.inspection().quietStates.map((state) => say(stateTold(state)).toLowerCase()),
    }),
  );
  protected readonly carrierWords = computed(() =>
    Object.values(this.inspection().carrier?.words ?? {})
      .map((words) => wordsOf('bench.looks-otherwise-where', { words }))
      .join('\n'),
  );

  /** The head of a column: for what another element brings about, how that stands then. */
  protected head(state: OverrideState): string {
    const words = this.inspection().carrier?.heads[state];
    return words ? words.charAt(0).toUpperCase() + words.slice(1) : say(stateTold(state));
  }

  protected hint(state: OverrideState): string {
    const words = this.inspection().carrier?.words[state];
    return words ? wordsOf('bench.where', { words }) : say(stateTold(state));
  }

  /** The colours of a cell, side by side. */
  protected paint({ colors }: Spoken<GridCell>): string {
    if (colors.length === 0) return 'linear-gradient(transparent, transparent)';
    const stops = colors.map(
      (color, i) => `${color} ${(100 * i) / colors.length}% ${(100 * (i + 1)) / colors.length}%`,
    );
    return `linear-gradient(90deg, ${stops.join(', ')})`;
  }

  /** Whether a cell says a measure instead of showing a colour. */
  protected isWorded(row: CellChoice['row'], { css, hex }: Spoken<GridCell>): boolean {
    return css !== null && hex === null && ROW_PROPERTIES[row][0].kind !== 'color';
  }

  /** A measure in the width of a cell. */
  protected short({ css }: Spoken<GridCell>): string {
    return (css ?? '')
      .replace(/^"?([\w-]+)"?,.*/, '$1')
      .replace(/(\.\d)\d+/, '$1')
      .slice(0, 8);
  }

  protected isChosen(row: CellChoice['row'], cell: Spoken<GridCell>): boolean {
    return this.choice().row === row && this.choice().state === cell.state;
  }

  protected describe(row: CellChoice['row'], cell: Spoken<GridCell>): string {
    if (cell.closed !== '') return `${say(rowTold(row))}, ${this.head(cell.state).toLowerCase()}: ${cell.closed}`;
    const what =
      cell.css === null
        ? wordsOf('bench.paints-nothing')
        : cell.isCovered
          ? wordsOf('bench.under-gradient-or-picture', { css: cell.css })
          : cell.css;
    const how =
      cell.css === null
        ? ''
        : cell.isOverride
          ? wordsOf('bench.our-override')
          : cell.isOwn
            ? ''
            : wordsOf('bench.as-rest');
    return `${say(rowTold(row))}, ${this.head(cell.state).toLowerCase()}: ${what}${how}`;
  }

  protected onKey(event: KeyboardEvent): void {
    const step = arrowStep(event);
    if (!step) return;
    const rows = this.lines();
    const { states } = this.inspection();
    const row = rows[within(rows.length, rows.findIndex((line) => line.row === this.#at().row) + step.rows)];
    const state = states[within(states.length, states.indexOf(this.#at().state) + step.columns)];
    this.#at.set({ row: row.row, state });
    this.chosen.emit({ row: row.row, state });
    setTimeout(() => this.#host.nativeElement.querySelector<HTMLElement>('button.chosen')?.focus());
  }
}

/** Rows that are always shown. */
const ALWAYS: ReadonlySet<string> = new Set(['text', 'fill', 'edge']);
/** Rows that say something of everything, and so are shown where ours, or asked for. */
const QUIET: ReadonlySet<string> = new Set(['type', 'box', 'shown', 'caret', 'scrollbar']);
/** Rows that stand together: one of them chosen shows all. */
const SCROLLBAR: ReadonlySet<string> = new Set(['thumb', 'thumb-over', 'track', 'bar']);
