import { figure, wordsOf } from '@upper-veneer/words';
import { ChangeDetectionStrategy, Component, computed, inject, input, output } from '@angular/core';
import type { FeedingProperty } from '@upper-veneer/core';
import { SiteStore } from '../shared/site/site-store';
import { ColorChip } from '../shared/ui/color-chip';

/** Custom properties that hold colours, with how many places follow each. */
@Component({
  selector: 'uv-feeding-table',
  imports: [ColorChip],
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: { role: 'region', '[attr.aria-label]': 'name', tabindex: '0' },
  template: `
    <table>
      <thead><tr><th scope="col" class="name" i18n>Custom property</th><th scope="col" class="value" i18n>Value</th><th scope="col" i18n>Set by</th><th scope="col" class="what" i18n>Change this one and</th></tr></thead>
      <tbody>
        @for (property of properties(); track $index) {
          <tr [class.current]="property === chosen()">
            <td>
              <button
                type="button" class="uv-mono" [attr.aria-pressed]="property === chosen()"
                (click)="picked.emit(property)">{{ property.name }}</button>
              @if (ours().has(property.name)) {
                <span class="ours" title="Overridden" i18n-title i18n>ours</span>
              }
            </td>
            <td class="uv-mono cut" [title]="property.value"><uv-color-chip [color]="property.hex" />{{ property.value }}</td>
            <td class="cut" [title]="wordsOf('survey.selector-in-sheet', { selector: property.selector, sheet: property.sheet })"><span class="uv-mono">{{ property.selector }}</span>&ngsp;<span class="uv-soft">{{ property.sheet }} {{ property.line || '' }}</span></td>
            <td class="what" i18n>{{ figure(property.places) }} {property.places, plural, =1 {place follows} other {places follow}} <span class="uv-soft">on {{ property.pageIds.length }} {property.pageIds.length, plural, =1 {page} other {pages}}</span></td>
          </tr>
        } @empty {
          <tr><td colspan="4" class="empty">{{ isCounted() ? wordsOf('survey.no-custom-property-this') : wordsOf('survey.which-custom-properties-hold') }}</td></tr>
        }
      </tbody>
    </table>
  `,
  styleUrl: './facts-table.scss',
  styles:
    'td .uv-soft { margin-left: 6px; } td button { padding: 0; border: 0; background: none; color: inherit; font: inherit; text-align: left; text-decoration: underline; cursor: pointer; } tr.current { background: var(--uv-paper); font-weight: 600; } .ours { margin-left: 6px; padding: 0 5px; border: 1px solid var(--uv-ink); border-radius: 3px; font-size: 11px; } .what { width: 190px; white-space: nowrap; } .name { width: 180px; } .value { width: 120px; }',
})
export class FeedingTable {
  protected readonly name = wordsOf('survey.custom-properties');
  protected readonly wordsOf = wordsOf;
  protected readonly figure = figure;

  readonly #site = inject(SiteStore);
  readonly properties = input.required<readonly FeedingProperty[]>();
  /** Whether the colours have been counted, without which nothing is known of what feeds them. */
  readonly isCounted = input(true);
  readonly chosen = input<FeedingProperty | null>(null);
  readonly picked = output<FeedingProperty>();

  /** Properties that overrides set. */
  protected readonly ours = computed(
    () =>
      new Set(
        this.#site
          .overrides()
          .filter(({ through }) => !through)
          .map(({ property }) => property),
      ),
  );
}
