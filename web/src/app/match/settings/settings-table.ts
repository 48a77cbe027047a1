import { say, type Spoken, wordsOf } from '@upper-veneer/words';
import {
  ChangeDetectionStrategy,
  Component,
  type ElementRef,
  computed,
  input,
  output,
  viewChildren,
} from '@angular/core';
import {
  hexOfSetting,
  placeMessage,
  type Palette,
  type PlannedField,
  type SettingsSheet,
  type Standing,
} from '@upper-veneer/core';
import { within } from '../../shared/keys/arrow-step';
import { ColorChip } from '../../shared/ui/color-chip';
import { StandingMark } from '../../shared/ui/standing-mark';
import { NOTATION_WORDS, valueWordsOf } from './setting-words';

/** The maker's fields in the maker's order: what each affects, what stands there, what is to, and whether it was handed over. */
@Component({
  selector: 'uv-settings-table',
  imports: [ColorChip, StandingMark],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <table role="grid" aria-label="Fields of the maker and what they are to hold" i18n-aria-label>
      <thead><tr><th scope="col" i18n>Field</th><th scope="col" i18n>Affects</th><th scope="col" i18n>There now</th><th scope="col" i18n>Becomes</th><th scope="col" title="Worst contrast over all places and states, and what is asked" i18n-title i18n>Contrast</th><th scope="col" i18n>Handed over</th></tr></thead>
      <tbody>
        @for (row of rows(); track row.id; let i = $index) {
          <tr #line [attr.aria-selected]="row.id === chosen()" [tabindex]="i === focusAt() ? 0 : -1" (click)="picked.emit(row.id)" (keydown)="onKey($event, i)">
            <td class="two" [title]="row.name"><strong>{{ row.name }}</strong><span class="uv-soft">{{ row.notation }}</span></td>
            <td class="places" [title]="row.places.join(', ')">
              <span>{{ row.places.at(0) ?? wordsOf('match.nobody-said-yet') }}</span>
              @if (row.places.length > 1) {
                <span class="uv-soft" i18n>and {{ row.places.length - 1 }} more</span>
              }
            </td>
            <td>
              <span class="value">
                @if (!row.isLength) {
                  <uv-color-chip [color]="row.presentHex" />
                }
                <code class="uv-mono" [title]="row.present">{{ row.present || wordsOf('match.not-known') }}</code>
              </span>
            </td>
            <td>
              <span class="value">
                @if (!row.isLength) {
                  <uv-color-chip [color]="row.hex" />
                }
                <span class="two">
                  <code class="uv-mono" [class.same]="row.isLeft" [title]="row.text">{{ row.text || wordsOf('match.as') }}</code>
                  <span class="uv-soft" [title]="row.reason">{{ row.isSettled ? '▪ ' : '' }}{{ row.words }}</span>
                </span>
              </span>
            </td>
            <td class="figure">
              @if (row.standing; as standing) {
                <uv-standing [standing]="standing" />{{ row.ratio }}<span class="uv-soft"> / {{ row.wanted }}</span>
              }
            </td>
            <td class="over">
              @if (row.isLeft) {
                <span class="uv-soft" i18n>left alone</span>
              } @else if (row.planned.handOver === 'same') {
                <span class="uv-soft" i18n>the same there</span>
              } @else {
                <label [title]="row.at">
                  <input
                    type="checkbox" tabindex="-1" [checked]="row.planned.handOver === 'handed'"
                    [attr.aria-label]="wordsOf('match.stands-over-there', { name: row.name })"
                    (click)="$event.stopPropagation()"
                    (change)="handed.emit({ field: row.planned, isThere: row.planned.handOver !== 'handed' })" />
                  @if (row.planned.handOver === 'out-of-date') {
                    <span class="late" i18n><span aria-hidden="true">◆</span> differs there</span>
                  } @else {
                    {{ row.planned.handOver === 'handed' ? wordsOf('match.yes') : wordsOf('match.not-yet') }}
                  }
                </label>
                <button type="button" tabindex="-1" [attr.aria-label]="wordsOf('match.copy-for', { text: row.text, name: row.name })" (click)="copied.emit(row.planned); $event.stopPropagation()" i18n>Copy</button>
              }
            </td>
          </tr>
        }
      </tbody>
    </table>
  `,
  styles: `
    :host { display: block; }
    table { width: 100%; border-collapse: collapse; table-layout: fixed; background: var(--uv-paper); }
    thead th { position: sticky; top: 0; z-index: 1; height: 28px; padding: 0 8px; background: var(--uv-panel); border-bottom: 1px solid var(--uv-line-strong); text-align: left; font-size: 12px; font-weight: 600; color: var(--uv-soft); }
    th:nth-child(1) { width: 19%; } th:nth-child(3) { width: 120px; } th:nth-child(4) { width: 142px; } th:nth-child(5) { width: 98px; } th:nth-child(6) { width: 150px; }
    td { height: 44px; padding: 2px 8px; border-bottom: 1px solid var(--uv-line); overflow: hidden; text-overflow: ellipsis; white-space: nowrap; }
    tr { cursor: pointer; }
    tbody tr:hover { background: var(--uv-panel); }
    tr[aria-selected='true'] { background: var(--uv-bar); box-shadow: inset 4px 0 0 var(--uv-ink); }
    tbody tr:focus-visible { outline: 2px solid var(--uv-paper); outline-offset: -2px; box-shadow: inset 0 0 0 4px var(--uv-ink); }
    .places { white-space: normal; font-size: 12.5px; line-height: 1.3; }
    .places > * { display: block; }
    .two > * { display: block; overflow: hidden; text-overflow: ellipsis; }
    .two .uv-soft { font-size: 12px; }
    .value { display: flex; align-items: center; gap: 8px; min-width: 0; }
    .value > :last-child { min-width: 0; overflow: hidden; text-overflow: ellipsis; }
    uv-color-chip { width: 26px; height: 20px; }
    code { font-weight: 600; }
    td:nth-child(3) code, code.same { font-weight: 400; }
    .figure { font-variant-numeric: tabular-nums; }
    .figure uv-standing { margin-right: 5px; }
    .over { font-size: 12.5px; }
    .over label { display: inline-flex; align-items: center; gap: 5px; min-height: 24px; }
    .over input { width: 15px; height: 15px; margin: 0; accent-color: var(--uv-ink); }
    .over { padding-right: 0; }
    .over button { float: right; min-height: 24px; margin-right: 10px; padding: 0 8px; border: 1px solid var(--uv-line-strong); border-radius: 3px; background: var(--uv-paper); color: var(--uv-ink); font-size: 12px; cursor: pointer; }
    .late { color: var(--uv-look); }
    @media (max-width: 900px) { table, thead, tbody { display: block; } thead { display: none; } tr { display: grid; grid-template-columns: minmax(0, 1fr) minmax(0, 1fr); padding: 6px 0; border-bottom: 1px solid var(--uv-line); } td { height: auto; border: 0; } }
  `,
})
export class SettingsTable {
  protected readonly wordsOf = wordsOf;

  readonly fields = input.required<readonly Spoken<PlannedField>[]>();
  readonly palette = input.required<Palette>();
  /** What was handed over, by field. */
  readonly handedOver = input.required<SettingsSheet['handed']>();
  readonly chosen = input.required<string | null>();
  readonly picked = output<string>();
  readonly handed = output<{ readonly field: Spoken<PlannedField>; readonly isThere: boolean }>();
  readonly copied = output<Spoken<PlannedField>>();
  /** Emits the field on which a key that changes it was pressed. */
  readonly acted = output<{ readonly field: Spoken<PlannedField>; readonly act: 'leave' | 'lock' }>();

  private readonly lines = viewChildren<ElementRef<HTMLElement>>('line');

  protected readonly rows = computed(() =>
    this.fields().map((planned) => {
      const { field, text, hex, worst, becomes, reason, isSettled } = planned;
      return {
        planned,
        id: field.id,
        name: field.name,
        notation: NOTATION_WORDS[field.notation],
        isLength: field.notation === 'px',
        places: field.places.map((place) => say(placeMessage(place))),
        present: field.present,
        presentHex: hexOfSetting(field, field.present),
        text,
        hex,
        words: valueWordsOf(planned, this.palette()),
        reason,
        isSettled,
        isLeft: becomes.kind === 'leave',
        standing: worst && ((worst.ratio >= worst.wanted ? 'holds' : 'fails') as Standing),
        // Rounded down: 4.49 must not read as 4.5.
        ratio: worst ? (Math.floor(worst.ratio * 10) / 10).toFixed(1) : '',
        wanted: worst?.wanted ?? 0,
        at: handedWords(this.handedOver(), field.id),
      };
    }),
  );
  protected readonly focusAt = computed(() =>
    Math.max(
      0,
      this.rows().findIndex(({ id }) => id === this.chosen()),
    ),
  );

  protected onKey(event: KeyboardEvent, at: number): void {
    const step = { ArrowDown: 1, ArrowUp: -1, Home: -Infinity, End: Infinity, PageDown: 8, PageUp: -8 }[event.key];
    const { planned } = this.rows()[at];
    if (step !== undefined) {
      const next = within(this.rows().length, at + step);
      this.picked.emit(this.rows()[next].id);
      this.lines()[next].nativeElement.focus();
    } else if (event.key === 'Delete' || event.key === 'Backspace') this.acted.emit({ field: planned, act: 'leave' });
    else if (event.key === 'Enter') this.acted.emit({ field: planned, act: 'lock' });
    else if (event.key === ' ') this.copied.emit(planned);
    else return;
    event.preventDefault();
  }
}

function handedWords(handed: SettingsSheet['handed'], id: string): string {
  const last = Object.hasOwn(handed, id) ? handed[id] : null;
  return last
    ? wordsOf('match.stands-there-since-utc', { text: last.text, at: last.at.slice(0, 16).replace('T', ' ') })
    : '';
}
