import { Injectable, computed, effect, inject, signal, untracked } from '@angular/core';
import type { TrialsDocument } from '@upper-veneer/contract';
import { EMPTY, catchError, tap, type Observable } from 'rxjs';
import { ApiProblem } from '../api/api-problem';
import { SiteApi } from '../api/site-api';
import { SiteStore } from '../site/site-store';
import { Messages } from '../spoken/messages';

const NONE: TrialsDocument = { trials: [], variations: [] };

/** Trials and variations of the open site, as they stood when they were asked for last. */
@Injectable({ providedIn: 'root' })
export class TrialsStore {
  readonly #api = inject(SiteApi);
  readonly #site = inject(SiteStore);
  readonly #messages = inject(Messages);
  readonly #read = signal<{ readonly siteId: number; readonly document: TrialsDocument } | null>(null);

  /** Counts what was asked and answered, so that an older answer is passed over. */
  #asked = 0;

  readonly #document = computed(() => {
    const read = this.#read();
    return read && read.siteId === this.#site.site()?.id ? read.document : null;
  });
  readonly isRead = computed(() => this.#document() !== null);
  readonly trials = computed(() => (this.#document() ?? NONE).trials);
  readonly variations = computed(() => (this.#document() ?? NONE).variations);

  constructor() {
    // Another site, or what somebody else did to this one.
    effect(() => {
      const [siteId, version] = [this.#site.site()?.id, this.#site.draft()?.version];
      if (siteId !== undefined && version !== undefined) untracked(() => this.refresh());
    });
  }

  /** Asks again what was counted. One that does not come is passed over. */
  refresh(): void {
    const siteId = this.#site.site()?.id;
    if (siteId === undefined) return;
    const asked = (this.#asked += 1);
    this.#api.trials(siteId).subscribe({
      // An older answer never comes over a newer one.
      next: (document) => asked === this.#asked && this.#read.set({ siteId, document }),
      error: () => undefined,
    });
  }

  /** Does something, and shows what then stands; emits nothing where it was refused, which is told. */
  act(ask: (api: SiteApi, siteId: number) => Observable<TrialsDocument>): Observable<TrialsDocument> {
    const siteId = this.#site.site()?.id;
    if (siteId === undefined) return EMPTY;
    return ask(this.#api, siteId).pipe(
      tap((document) => {
        this.#asked += 1;
        this.#read.set({ siteId, document });
      }),
      catchError((error: unknown) => {
        this.#messages.report(ApiProblem.from(error));
        return EMPTY;
      }),
    );
  }
}
