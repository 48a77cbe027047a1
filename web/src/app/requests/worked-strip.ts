import { wordsOf } from '@upper-veneer/words';
import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import type { RequestItem } from '@upper-veneer/core';
import { StandingMark } from '../shared/ui/standing-mark';
import { RequestsStore } from './requests-store';

/** Says for which wish changes are being made, with the way back to the list. */
@Component({
  selector: 'uv-worked-strip',
  imports: [StandingMark],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (store.worked(); as item) {
      <p role="status">
        <span class="uv-soft" i18n>Worked on:</span> <strong [title]="item.words">{{ item.words }}</strong>
        <span class="uv-soft">{{ madeWords() }}</span>
        @if (holds(); as found) {
          <span><uv-standing [standing]="found.misses === 0 ? 'holds' : 'fails'" />
            {{ found.misses === 0 ? wordsOf('requests.holds') : wordsOf('requests.places-miss', { misses: found.misses, places: found.places }) }}</span>
        }
        <button type="button" (click)="finish(item)" i18n>Done</button>
        <button type="button" (click)="store.isOpen.set(true)" i18n>To the list</button>
        <button type="button" (click)="store.workOn(null)" i18n>Leave it</button>
      </p>
    }
  `,
  styles: `
    :host { display: block; }
    p { display: flex; align-items: center; gap: 8px; max-width: none; margin: 0; padding: 4px 14px; border-bottom: 1px solid var(--uv-line-strong); border-left: 4px solid var(--uv-ink); background: var(--uv-bar); font-size: 12.5px; white-space: nowrap; }
    strong { min-width: 0; overflow: hidden; text-overflow: ellipsis; }
    button { flex: none; min-height: 24px; padding: 0 8px; border: 1px solid var(--uv-line-strong); border-radius: 3px; background: var(--uv-paper); color: var(--uv-ink); font-size: 12.5px; cursor: pointer; }
    button:first-of-type { margin-left: auto; }
  `,
})
export class WorkedStrip {
  protected readonly wordsOf = wordsOf;

  protected readonly store = inject(RequestsStore);
  protected readonly holds = computed(() => {
    const item = this.store.worked();
    return item ? this.store.holdsOf(item) : null;
  });
  protected readonly madeWords = computed(() => {
    const count = this.store.worked()?.overrides.length ?? 0;
    return count === 0 ? wordsOf('requests.what-you-change-kept') : wordsOf('requests.made-for', { count });
  });

  protected finish({ id, words }: RequestItem): void {
    const label = wordsOf('requests.wish', { standing: wordsOf('request-standing.done'), words });
    this.store.change(id, label, { standing: 'done' });
    this.store.workOn(null);
  }
}
