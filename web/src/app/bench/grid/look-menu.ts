import { type Spoken, wordsOf } from '@upper-veneer/words';
import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import type { Inspection } from '@upper-veneer/core';
import type { MenuItem } from 'primeng/api';
import { Menu } from 'primeng/menu';
import { BenchActs } from '../store/bench-acts';
import { BenchSelection } from '../store/bench-selection';

/** What can be done with the target as a whole: its look copied and pasted, its states filled, its part reset, a parent's hover looked at. */
@Component({
  selector: 'uv-look-menu',
  imports: [Menu],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `<button type="button" aria-haspopup="menu" aria-label="More about this element" i18n-aria-label (click)="menu.toggle($event)" i18n>More</button><p-menu #menu [model]="items()" [popup]="true" />`,
  styles: `
    button { padding: 2px 9px; border: 1px solid var(--uv-line-strong); border-radius: 3px; background: var(--uv-paper); color: var(--uv-ink); font-size: 12px; cursor: pointer; }
  `,
})
export class LookMenu {
  readonly #selection = inject(BenchSelection);
  readonly #acts = inject(BenchActs);
  readonly inspection = input.required<Spoken<Inspection>>();

  protected readonly items = computed<MenuItem[]>(() => {
    const look = this.#acts.look();
    const above = this.inspection()
      .lineage.slice(0, -1)
      .filter(({ label, pseudo }) => pseudo === '' && !/^(?:html|body|main)(?:\.|$)/.test(label))
      .slice(-4)
      .reverse();
    return [
      { label: wordsOf('bench.copy-look'), command: () => void this.#acts.copyLook() },
      {
        label: look ? wordsOf('bench.paste-look', { name: look.name.slice(0, 28) }) : wordsOf('bench.paste-look-act'),
        disabled: look === null,
        command: () => void this.#acts.pasteLook(),
      },
      { separator: true },
      { label: wordsOf('bench.all-states-from-rest'), command: () => void this.#acts.fillStates() },
      ...above.map(({ label, element }): MenuItem => ({
        label: wordsOf('bench.when-hovered', { label }),
        command: () => {
          this.#selection.parent.set(element);
          this.#selection.chooseCell({ ...this.#selection.cell(), state: 'parent-hover' });
        },
      })),
      { separator: true },
      {
        label: wordsOf('bench.reset-this-part'),
        disabled: this.inspection().partId === null,
        command: () => this.#acts.clearPart(),
      },
    ];
  });
}
