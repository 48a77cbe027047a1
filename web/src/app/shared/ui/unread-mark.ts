import { type Spoken, wordsOf } from '@upper-veneer/words';
import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import type { UnreadPage } from '@upper-veneer/core';
import { StandingMark } from './standing-mark';

/** Says beside a figure what of the site it leaves out; nothing where all was read. */
@Component({
  selector: 'uv-unread',
  imports: [StandingMark],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (words(); as text) {
      <span class="mark" role="status" [title]="basis()"><uv-standing [standing]="elements() > 0 ? 'fails' : 'look'" /> {{ text }}</span>
    }
  `,
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
    if (this.elements() > 0) parts.push(wordsOf('screen.element-count', { elements: this.elements() }));
    if (this.#reasons().length > 0)
      parts.push(
        `${this.#reasons().length} ${wordsOf('screen.sheet-or-rule-sheets', { reasons: this.#reasons().length })}`,
      );
    return parts.length === 0 ? '' : wordsOf('screen.not-read', { parts: parts.join(' and ') });
  });
  protected readonly basis = computed(() => {
    const short = this.pages()
      .filter(({ elements }) => elements > 0)
      .map(({ name, elements }) => wordsOf('screen.matching-selectors-took-more', { name, elements }));
    return wordsOf('screen.figures-leave-this-out', { short: [...short, ...this.#reasons().slice(0, 6)].join('. ') });
  });
}
