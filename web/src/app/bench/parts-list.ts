import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import type { PartProgress } from '@upper-veneer/core';

export interface PartEntry {
  readonly id: number;
  readonly name: string;
  readonly kind: string;
}

/** Parts of the page shown, each with how much of it is matched to the brand. */
@Component({
  selector: 'uv-parts-list',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <h2>On this page</h2>
    <ul>
      @for (row of rows(); track row.id) {
        <li>
          <button type="button" [class.current]="row.id === current()" [attr.aria-current]="row.id === current()" (click)="chosen.emit(row.first)">
            <span class="head"><span class="name">{{ row.name }}</span><span class="count" [title]="row.matched + ' of ' + row.places + ' painted places in brand colours or overridden, at rest'">{{ row.matched }}/{{ row.places }}</span></span>
            <span class="kind uv-soft">{{ row.kind }}</span>
            <span class="track"><span class="uv-grain" [style.width.%]="row.places ? (100 * row.matched) / row.places : 0"></span></span>
          </button>
        </li>
      } @empty {
        <li class="empty uv-soft">No part was found on this page.</li>
      }
    </ul>
  `,
  styles: `
    :host { display: block; padding: 12px 0; background: var(--uv-panel); border-right: 1px solid var(--uv-line-strong); }
    h2 { padding: 2px 14px 8px; font-size: 12px; font-weight: 700; color: var(--uv-soft); }
    ul { margin: 0; padding: 0; list-style: none; }
    button { display: grid; grid-template-columns: minmax(0, 1fr); gap: 3px; width: 100%; padding: 8px 14px 9px; border: 0; border-left: 4px solid transparent; background: none; text-align: left; cursor: pointer; }
    button:hover { background: var(--uv-bar); }
    button.current { background: var(--uv-paper); border-left-color: var(--uv-ink); }
    button.current .name { font-weight: 700; }
    button:focus-visible { position: relative; z-index: 1; }
    .head { display: flex; justify-content: space-between; gap: 8px; }
    .name { overflow: hidden; text-overflow: ellipsis; white-space: nowrap; }
    .count { font-size: 12px; }
    .kind { font-size: 12px; }
    .track { height: 5px; background: var(--uv-line); }
    .track span { display: block; height: 100%; }
    .empty { padding: 0 14px; }
  `,
})
export class PartsList {
  readonly parts = input.required<readonly PartEntry[]>();
  readonly progress = input.required<readonly PartProgress[]>();
  /** Id of the part the target is in. */
  readonly current = input<number | null>(null);
  /** Emits the running number of a part's outermost element. */
  readonly chosen = output<number>();

  protected readonly rows = computed(() => this.parts().flatMap((part) => {
    const progress = this.progress().find(({ partId }) => partId === part.id);
    return progress && progress.elements.length > 0 ? [{ ...part, places: progress.places, matched: progress.matched, first: progress.elements[0] }] : [];
  }));
}
