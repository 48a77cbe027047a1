import { ChangeDetectionStrategy, Component, input } from '@angular/core';
import type { FeedingProperty } from '@upper-veneer/core';
import { ColorChip } from '../shared/ui/color-chip';

/** Custom properties that hold colours, with how many places follow each. */
@Component({
  selector: 'uv-feeding-table',
  imports: [ColorChip],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <table>
      <thead><tr><th scope="col" class="name">Custom property</th><th scope="col" class="value">Value</th><th scope="col">Set by</th><th scope="col" class="what">Change this one and</th></tr></thead>
      <tbody>
        @for (property of properties(); track $index) {
          <tr>
            <td class="uv-mono">{{ property.name }}</td>
            <td class="uv-mono cut" [title]="property.value"><uv-color-chip [color]="property.hex" />{{ property.value }}</td>
            <td class="cut" [title]="property.selector + ' in ' + property.sheet"><span class="uv-mono">{{ property.selector }}</span> <span class="uv-soft">{{ property.sheet }} {{ property.line || '' }}</span></td>
            <td class="what">{{ property.places }} {{ property.places === 1 ? 'place follows' : 'places follow' }} <span class="uv-soft">on {{ property.pageIds.length }} {{ property.pageIds.length === 1 ? 'page' : 'pages' }}</span></td>
          </tr>
        } @empty {
          <tr><td colspan="4" class="empty">No custom property of this site holds a colour that is painted.</td></tr>
        }
      </tbody>
    </table>
  `,
  styleUrl: './facts-table.scss',
  styles: '.what { width: 190px; white-space: nowrap; } .name { width: 180px; } .value { width: 120px; }',
})
export class FeedingTable {
  readonly properties = input.required<readonly FeedingProperty[]>();
}
