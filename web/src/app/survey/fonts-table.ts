import { figure, wordsOf } from '@upper-veneer/words';
import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import type { FontUse } from '@upper-veneer/core';

/** Families, sizes and weights of all text. */
@Component({
  selector: 'uv-fonts-table',
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: { role: 'region', '[attr.aria-label]': 'name', tabindex: '0' },
  template: `
    <table>
      <thead><tr><th scope="col" i18n>Family, first choice first</th><th scope="col" class="number" i18n>Size, px</th><th scope="col" class="number" i18n>Weight</th><th scope="col" class="number" i18n>Elements</th><th scope="col" class="number" title="Of all inked text" i18n-title i18n>Ink</th></tr></thead>
      <tbody>
        @for (font of rows(); track $index) {
          <tr>
            <td class="cut">
              <span translate="no" [title]="font.family">{{ font.family }}</span>
              @if (font.isItalic) {
                <em i18n> italic</em>
              }
            </td>
            <td class="number">{{ font.size }}</td>
            <td class="number">{{ font.weight }}</td>
            <td class="number">{{ figure(font.elements) }}</td>
            <td class="number">{{ font.share }}</td>
          </tr>
        } @empty { <tr><td colspan="5" class="empty" i18n>The pages hold no text.</td></tr> }
      </tbody>
    </table>
  `,
  styleUrl: './facts-table.scss',
})
export class FontsTable {
  protected readonly figure = figure;

  protected readonly name = wordsOf('survey.fonts');
  readonly fonts = input.required<readonly FontUse[]>();

  protected readonly rows = computed(() => {
    const total = this.fonts().reduce((sum, { area }) => sum + area, 0);
    return this.fonts().map((font) => ({
      ...font,
      share: total > 0 ? `${((100 * font.area) / total).toFixed(1)} %` : '–',
    }));
  });
}
