import type { Spoken } from '@upper-veneer/words';
import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import type { UnreadPage } from '@upper-veneer/core';
import { StandingMark } from './standing-mark';

/** Says beside a figure what of the site it leaves out; nothing where all was read. */
@Component({
  selector: 'uv-unread',
  imports: [StandingMark],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `@if (words(); as text) { <span class="mark" role="status" [title]="basis()"><uv-standing [standing]="elements() > 0 ? 'fails' : 'look'" /> {{ text }}</span> }`,
  styles: `
    .mark { padding: 2px 8px; border: 1px solid var(--uv-look); font-size: 12px; white-space: nowrap; }
    uv-standing { margin-right: 3px; }
  `,
})
export class UnreadMark {
  readonly pages = input<readonly Spoken<UnreadPage>[]>([]);

  protected readonly elements = computed(() => this.pages().reduce((sum, { elements }) => sum + elements, 0));
  readonly #reasons = computed(() => [...new Set(this.pages().flatMap(({ reasons }) => reasons))]);
  protected readonly words = computed(() => {
    const parts: string[] = [];
    if (this.elements() > 0)
      parts.push(`${this.elements().toLocaleString('en')} ${this.elements() === 1 ? 'element' : 'elements'}`);
    if (this.#reasons().length > 0)
      parts.push(`${this.#reasons().length} ${this.#reasons().length === 1 ? 'sheet or rule' : 'sheets or rules'}`);
    return parts.length === 0 ? '' : `${parts.join(' and ')} not read`;
  });
  protected readonly basis = computed(() => {
    const short = this.pages()
      .filter(({ elements }) => elements > 0)
      .map(
        ({ name, elements }) =>
          `${name}: matching the selectors of ${elements} took more steps than the bound, they got no rules`,
      );
    return `${[...short, ...this.#reasons().slice(0, 6)].join('. ')}. The figures leave this out.`;
  });
}
