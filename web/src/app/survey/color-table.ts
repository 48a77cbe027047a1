import { figure, wordsOf } from '@upper-veneer/words';
import { ChangeDetectionStrategy, Component, input, output } from '@angular/core';
import { TableModule } from 'primeng/table';
import { ColorChip } from '../shared/ui/color-chip';
import { stateWords } from '../shared/ui/state-words';
import type { ColorRow } from './color-rows';

const SIGNS = { brand: '●', near: '◆', stray: '▲' } as const;

interface Mark {
  readonly kind: keyof typeof SIGNS | 'none';
  readonly sign: string;
}

/** The colours one by one, to sort and choose from. */
@Component({
  selector: 'uv-color-table',
  imports: [ColorChip, TableModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <p-table
      [value]="$any(rows())" dataKey="hex" selectionMode="single" [selection]="selected()"
      (selectionChange)="$event && chosen.emit($event.hex)" [scrollable]="true" scrollHeight="flex"
      [virtualScroll]="true" [virtualScrollItemSize]="30" size="small" [sortOrder]="-1" [pt]="scrolling" [tableStyle]="layout"
    >
      <ng-template #header>
        <tr>
          <th scope="col" class="color" pSortableColumn="hex" i18n>Colour</th>
          <th scope="col" pSortableColumn="useWords" i18n>Used for</th>
          <th scope="col" class="number" pSortableColumn="elements" title="Elements and pseudo-elements that paint it in any state" i18n-title i18n>Elements</th>
          <th scope="col" class="number" pSortableColumn="area" title="Of all area measured at rest" i18n-title i18n>Area</th>
          <th scope="col" class="standing" pSortableColumn="standingRank" i18n>Standing</th>
        </tr>
      </ng-template>
      <ng-template #body let-row>
        <tr [pSelectableRow]="row" [attr.aria-label]="row.hex">
          <td class="color uv-mono">
            <uv-color-chip [color]="row.hex" />{{ row.hex }}
            @if (row.members.length > 0) {
              <span class="near" [title]="wordsOf('survey.near-duplicates-within-e', { names: names(row) })">
                @for (member of row.members.slice(0, 3); track member.hex) {
                  <uv-color-chip [color]="member.hex" />
                }
                +{{ row.members.length }}
              </span>
            }
          </td>
          <td [title]="row.useWords">
            {{ row.useWords }}
            @if (row.states.length > 0 && row.states[0] !== 'rest') {
              <span class="uv-soft" i18n>· only {{ statesOf(row) }}</span>
            }
          </td>
          <td class="number">{{ figure(row.elements) }}</td>
          <td class="number">{{ percent(row) }}</td>
          <td class="standing" [title]="row.standingWords"><span class="mark" [class]="markOf(row).kind" aria-hidden="true">{{ markOf(row).sign }}</span>{{ row.standingWords }}</td>
        </tr>
      </ng-template>
      <ng-template #emptymessage><tr><td colspan="5" class="uv-soft" i18n>No colour fits.</td></tr></ng-template>
    </p-table>
  `,
  styles: `
    :host { display: block; min-height: 0; border: 1px solid var(--uv-line-strong); background: var(--uv-paper); }
    tr { cursor: pointer; }
    th, td { height: 30px; white-space: nowrap; overflow: hidden; text-overflow: ellipsis; }
    .color { width: 168px; }
    .color uv-color-chip { margin-right: 7px; vertical-align: -2px; }
    .near { margin-left: 8px; font-size: 11.5px; color: var(--uv-soft); }
    .near uv-color-chip { width: 9px; height: 9px; margin-right: 2px; vertical-align: -1px; }
    .number { width: 78px; text-align: right; }
    .standing { width: 172px; }
    .mark { display: inline-block; width: 17px; }
    .brand { color: var(--uv-holds); }
    .near.mark, .mark.near { margin: 0; font-size: inherit; color: var(--uv-look); }
    .stray { color: var(--uv-fails); }
    @media (max-width: 1120px) { .color { width: 152px; } .number { width: 80px; } .standing { width: 138px; } }
    :host ::ng-deep .p-datatable-row-selected .mark, :host ::ng-deep .p-datatable-row-selected .near { color: inherit; }
  `,
})
export class ColorTable {
  protected readonly wordsOf = wordsOf;
  protected readonly figure = figure;

  readonly rows = input.required<readonly ColorRow[]>();
  readonly chosenHex = input<string | null>(null);
  readonly chosen = output<string>();

  /** The list scrolls, so it takes the focus. */
  protected readonly scrolling = {
    virtualScroller: { root: { role: 'region', 'aria-label': wordsOf('survey.colours') } },
  };

  /** Columns as wide as they say, so that long uses are shortened and a standing is not cut; below it scrolls sideways. */
  protected readonly layout = { 'table-layout': 'fixed', width: '100%', 'min-width': '31rem' };

  protected selected(): ColorRow | null {
    const hex = this.chosenHex();
    return this.rows().find((row) => row.hex === hex || row.members.some((member) => member.hex === hex)) ?? null;
  }

  protected names({ members }: ColorRow): string {
    return members.map(({ hex }) => hex).join(', ');
  }

  protected statesOf({ states }: ColorRow): string {
    return states.map(stateWords).join(', ');
  }

  protected markOf({ exception, standing: { nearest, kind } }: ColorRow): Mark {
    if (exception) return { kind: 'none', sign: '○' };
    // Without a palette nothing is near or far.
    return nearest === '' ? { kind: 'none', sign: '' } : { kind, sign: SIGNS[kind] };
  }

  protected percent({ share }: ColorRow): string {
    return share === 0 ? '–' : share < 0.001 ? '<0.1 %' : `${(100 * share).toFixed(1)} %`;
  }
}
