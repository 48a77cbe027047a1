import { type Spoken, wordsOf } from '@upper-veneer/words';
import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import type { ShapeBecomes } from '@upper-veneer/core';
import type { ShapeRow } from '../shared/engine/match-api';
import { inSlices } from '../shared/ui/in-slices';
import { ShapeSample } from '../shared/ui/shape-sample';

const WORDS: Readonly<Record<ShapeBecomes, string>> = {
  house: wordsOf('match.house-title'),
  page: wordsOf('match.as-around'),
  leave: wordsOf('match.left-alone-title'),
};

/** Rows drawn in one turn. */
const SLICE = 12;

/** Corners, edges, shadows and type of the scope beside what each becomes: rows of their own under the colours. */
@Component({
  selector: 'uv-shape-rows',
  imports: [ShapeSample],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (rows().length > 0) {
      <table aria-label="Found shapes and what they become" i18n-aria-label>
        <thead><tr><th scope="col" i18n>Shape</th><th scope="col" i18n>Of</th><th scope="col" i18n>Becomes</th><th scope="col" i18n>Why</th></tr></thead>
        <tbody>
          @for (row of drawn(); track row.id) {
            <tr
              (pointerenter)="lit.emit(row.elements)" (pointerleave)="lit.emit([])" (focusin)="lit.emit(row.elements)"
              (focusout)="lit.emit([])"
            >
              <td>
                <span class="shape">
                  <uv-shape-sample [part]="row.part" [css]="row.value" />
                  <span class="value uv-mono" [title]="row.value">{{ row.value }}</span>
                </span>
              </td>
              <td class="paints" [title]="row.paints"><span>{{ row.paints }}</span><span class="uv-soft">{{ row.places }}</span></td>
              <td>
                <span class="shape">
                  <uv-shape-sample [part]="row.part" [css]="row.css" />
                  <select [attr.aria-label]="wordsOf('match.what-become', { paints: row.paints })" (change)="choose(row.id, $event)">
                    @for (option of row.options; track option.becomes) {
                      <option [value]="option.becomes" [selected]="option.becomes === row.becomes">{{ option.label }}</option>
                    }
                  </select>
                </span>
              </td>
              <td class="why uv-soft" [title]="row.reason">{{ row.reason }}</td>
            </tr>
          }
        </tbody>
      </table>
      @if (hasType()) { <p class="uv-soft" i18n>Another family sets lines of other lengths: look at the page at the three widths.</p> }
    }
  `,
  styles: `
    :host { display: block; }
    table { width: 100%; border-collapse: collapse; table-layout: fixed; background: var(--uv-paper); }
    thead th { height: 28px; padding: 0 10px; background: var(--uv-panel); border-block: 1px solid var(--uv-line-strong); text-align: left; font-size: 12px; font-weight: 600; color: var(--uv-soft); }
    th:nth-child(1) { width: 182px; } th:nth-child(3) { width: 230px; } th:nth-child(4) { width: 20%; }
    td { height: 44px; padding: 2px 10px; border-bottom: 1px solid var(--uv-line); overflow: hidden; text-overflow: ellipsis; white-space: nowrap; }
    tbody tr:hover { background: var(--uv-panel); }
    .shape { display: flex; align-items: center; gap: 9px; min-width: 0; }
    .value { overflow: hidden; text-overflow: ellipsis; font-size: 12.5px; }
    select { width: 170px; height: 30px; padding: 0 6px; border: 1px solid var(--uv-line-strong); border-radius: 3px; background: var(--uv-paper); color: inherit; font: inherit; font-size: 13px; }
    .paints span { display: block; overflow: hidden; text-overflow: ellipsis; }
    .paints .uv-soft, .why, p { font-size: 12px; }
    p { margin: 0; padding: 6px 12px; background: var(--uv-paper); }
    @media (max-width: 900px) { table, thead, tbody { display: block; } thead { display: none; } tr { display: grid; padding: 6px 0; border-bottom: 1px solid var(--uv-line); } td { height: auto; border: 0; white-space: normal; } }
  `,
})
export class ShapeRows {
  protected readonly wordsOf = wordsOf;

  readonly rows = input.required<readonly Spoken<ShapeRow>[]>();
  readonly set = output<{ readonly id: string; readonly becomes: ShapeBecomes }>();
  /** Emits elements of the page drawn that are to be lit. */
  readonly lit = output<readonly number[]>();

  protected readonly shown = computed(() =>
    this.rows().map(({ found, becomes, css, reason, options, shown }) => ({
      id: found.id,
      part: found.part,
      value: found.value,
      paints: found.paints,
      places: wordsOf('match.element-elements', { elements: found.elements }),
      becomes,
      css,
      reason,
      elements: shown,
      options: options.map((option) => ({
        becomes: option.becomes,
        label: option.becomes === 'leave' ? WORDS.leave : `${WORDS[option.becomes]}: ${option.css}`,
      })),
    })),
  );
  /** Rows that are drawn by now. */
  protected readonly drawn = inSlices(() => this.shown(), SLICE);
  protected choose(id: string, { target }: Event): void {
    this.set.emit({ id, becomes: (target as HTMLSelectElement).value as ShapeBecomes });
  }

  protected readonly hasType = computed(() =>
    this.rows().some(({ found, value }) => value !== null && found.part.endsWith('family')),
  );
}
