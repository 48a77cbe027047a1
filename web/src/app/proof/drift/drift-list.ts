import { say } from '@upper-veneer/words';
import { ChangeDetectionStrategy, Component, computed, inject, input, output } from '@angular/core';
import { stateTold, propertyTold } from '@upper-veneer/core';
import type { DriftView } from '../../shared/engine/drift-api';
import { DriftStore } from '../../shared/proof/drift-store';
import { SiteStore } from '../../shared/site/site-store';
import { StandingMark } from '../../shared/ui/standing-mark';

/** Overrides that came to something else when their pages were captured again. */
@Component({
  selector: 'uv-drift-list',
  imports: [StandingMark],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (store.kept() === 0) {
      <div class="empty">
        <p i18n>No page was captured again since the draft was last led to its targets.</p>
        <p class="uv-soft" i18n>When a theme or a widget is updated, capture its pages again in the Survey: what the update does to each override is listed here, with what it became.</p>
      </div>
    } @else if (store.drifts(); as drifts) {
      <table aria-label="Overrides that drifted" i18n-aria-label>
        <thead><tr><th scope="col" i18n>Override</th><th scope="col" i18n>For</th><th scope="col" i18n>What became of it</th></tr></thead>
        <tbody>
          @for (drift of drifts; track drift.override.id) {
            <tr [class.chosen]="drift.override.id === chosenId()">
              <td>
                <button type="button" [attr.aria-pressed]="drift.override.id === chosenId()" (click)="chosen.emit(drift.override.id)">
                  <uv-standing [standing]="drift.isMissing ? 'fails' : 'look'" />
                  <span class="uv-mono selector">{{ drift.override.selector }}</span>
                </button>
              </td>
              <td>{{ forWords(drift) }}</td>
              <td>{{ drift.words }}</td>
            </tr>
          } @empty {
            <tr><td colspan="3" i18n><uv-standing standing="holds" /> Every override reaches what it did and wins there, on {{ again() }}.</td></tr>
          }
        </tbody>
      </table>
    } @else {
      <p class="empty uv-soft" role="status" i18n>Holding every override against the pages as they were…</p>
    }
  `,
  styles: `
    :host { display: block; }
    table { width: 100%; border: 1px solid var(--uv-line-strong); border-bottom-width: 4px; border-collapse: separate; border-spacing: 0; background: var(--uv-paper); table-layout: fixed; }
    th { padding: 7px 10px; border-bottom: 1px solid var(--uv-line-strong); text-align: left; font-size: 12.5px; }
    th:first-child { width: 46%; }
    th:nth-child(2) { width: 17%; }
    td { padding: 6px 10px; border-bottom: 1px solid var(--uv-line); vertical-align: top; font-size: 13px; overflow-wrap: anywhere; }
    tr:last-child td { border-bottom: 0; }
    button { display: flex; gap: 6px; width: 100%; min-height: 24px; padding: 0; border: 0; background: none; text-align: left; cursor: pointer; }
    button:hover .selector { text-decoration: underline; }
    .selector { min-width: 0; overflow-wrap: anywhere; font-size: 12.5px; }
    tr.chosen td { background: var(--uv-panel); }
    tr.chosen .selector { font-weight: 700; }
    .empty { max-width: 560px; padding: 14px; }
    .empty p + p { margin-top: 6px; }
  `,
})
export class DriftList {
  readonly chosenId = input.required<string>();
  readonly chosen = output<string>();

  protected readonly store = inject(DriftStore);
  readonly #site = inject(SiteStore);
  protected readonly again = computed(() => {
    const ids = new Set(this.store.formers().map(({ pageId }) => pageId));
    return (this.#site.site()?.pages ?? [])
      .filter(({ id }) => ids.has(id))
      .map(({ name }) => name)
      .join(', ');
  });

  protected forWords({ override }: DriftView): string {
    const { property, state } = override;
    return `${say(propertyTold(property))}, ${say(stateTold(state)).toLowerCase()}`;
  }
}
