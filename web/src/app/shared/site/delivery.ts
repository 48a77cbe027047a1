import { wordsOf } from '@upper-veneer/words';
import { Injectable, computed, inject, signal } from '@angular/core';
import { MessageService } from 'primeng/api';
import type { Subscription } from 'rxjs';
import { SiteApi } from '../api/site-api';
import { DraftEdits } from './draft-edits';
import { SiteStore } from './site-store';

export type DeliveryAct = 'save' | 'publish';

/** Saving and publishing: it goes on behind whatever is done meanwhile, says how far it is, and can be called off. */
@Injectable({ providedIn: 'root' })
export class Delivery {
  readonly #api = inject(SiteApi);
  readonly #store = inject(SiteStore);
  readonly #edits = inject(DraftEdits);
  readonly #messages = inject(MessageService);
  #running: Subscription | null = null;

  /** What is under way; `null` for nothing. */
  readonly act = signal<DeliveryAct | null>(null);
  /** How far the sheet is tidied; `null` before that has begun. */
  readonly tidied = signal<{ readonly done: number; readonly total: number } | null>(null);
  readonly words = computed(() => {
    const act = this.act();
    if (act === null) return '';
    const tidied = this.tidied();
    const lead = act === 'publish' ? wordsOf('screen.publishing') : wordsOf('screen.saving-revision');
    return tidied && tidied.total > 0
      ? wordsOf('screen.tidying-sheet', { lead, done: Math.min(tidied.done + 1, tidied.total), total: tidied.total })
      : `${lead}…`;
  });
  /** Share that is done, 0–1; `null` while it is not known. */
  readonly share = computed(() => {
    const tidied = this.tidied();
    return tidied && tidied.total > 0 ? tidied.done / tidied.total : null;
  });

  /** Begins; `true` once it is done, `false` where it was refused or called off. Does nothing while another is under way. */
  begin(act: DeliveryAct, note: string): Promise<boolean> {
    if (this.#running) return Promise.resolve(false);
    this.act.set(act);
    this.tidied.set(null);
    return new Promise((done) => {
      let isDone = false;
      const running = (act === 'publish' ? this.#edits.publish(note) : this.#edits.saveRevision(note)).subscribe({
        next: () => (isDone = true),
      });
      this.#running = running;
      const siteId = this.#store.site()?.id;
      if (siteId !== undefined) running.add(this.#api.tidied(siteId).subscribe((tidied) => this.tidied.set(tidied)));
      running.add(() => {
        this.#running = null;
        this.act.set(null);
        done(isDone);
      });
    });
  }

  /** Gives it up: nothing is saved, nothing goes out. */
  cancel(): void {
    this.#running?.unsubscribe();
  }

  /** Says that it is done, to someone who has turned to other things. */
  announce(act: DeliveryAct): void {
    const draft = this.#store.draft();
    this.#messages.add({
      severity: 'contrast',
      summary: act === 'publish' ? wordsOf('screen.published') : wordsOf('screen.saved'),
      detail:
        act === 'publish'
          ? wordsOf('screen.revision-what-visitors-now', {
              publishedRevision: draft?.publishedRevision ?? '',
              hostUrl: this.#store.site()?.hostUrl ?? '',
            })
          : wordsOf('screen.revision-saved', { number: draft?.revisions[0]?.number ?? '' }),
      life: 8000,
    });
  }
}
