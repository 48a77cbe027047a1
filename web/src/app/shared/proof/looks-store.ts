import { Injectable, computed, effect, inject, signal, untracked } from '@angular/core';
import type { PartLook } from '@upper-veneer/core';
import { Engine } from '../engine/engine';
import { DraftEdits } from '../site/draft-edits';
import { SiteStore } from '../site/site-store';

/** Whether a part on a page was looked at by eye since it last looked otherwise. */
export type LookStanding = 'looked' | 'changed' | 'never';

/** A part on a page, and whether it was looked at. */
export interface LookRow extends PartLook {
  readonly key: string;
  readonly standing: LookStanding;
}

/** What was looked at by eye: every part on every page, held against how it looked when somebody looked. */
@Injectable({ providedIn: 'root' })
export class LooksStore {
  readonly #site = inject(SiteStore);
  readonly #engine = inject(Engine);
  readonly #edits = inject(DraftEdits);
  readonly #isWatched = signal(false);
  readonly #looks = signal<{ readonly site: number; readonly looks: readonly PartLook[] } | null>(null);

  /** `null` where nobody has asked yet. */
  readonly rows = computed<readonly LookRow[] | null>(() => {
    const found = this.#looks();
    if (!found || found.site !== this.#site.site()?.id) return null;
    const known = new Map((this.#site.draft()?.looked ?? []).map((own) => [keyOf(own), own.look]));
    return found.looks.map((look) => {
      const key = keyOf({ ...look, partId: look.partId ?? 0 });
      const before = known.get(key);
      return { ...look, key, standing: before === undefined ? 'never' : before === look.look ? 'looked' : 'changed' };
    });
  });
  readonly left = computed(() => this.rows()?.filter(({ standing }) => standing !== 'looked').length ?? null);

  constructor() {
    effect(() => {
      this.#site.painted();
      const site = this.#site.site();
      if (this.#isWatched() && site) untracked(() => void this.#look(site.id));
    });
  }

  watch(): void {
    this.#isWatched.set(true);
  }

  unwatch(): void {
    this.#isWatched.set(false);
  }

  /** Marks places as looked at as they are now, or as to be looked at again. */
  mark(rows: readonly LookRow[], isLooked: boolean): void {
    this.#edits
      .putLooked({
        rows: rows.map(({ partId, pageId, step, look }) => ({ partId: partId ?? 0, pageId, step, look })),
        isLooked,
      })
      .subscribe();
  }

  async #look(site: number): Promise<void> {
    try {
      const looks = await this.#engine.remote.partLooks();
      if (looks) this.#looks.set({ site, looks });
    } catch (error) {
      this.#engine.tell(error);
    }
  }
}

function keyOf({
  partId,
  pageId,
  step,
}: {
  readonly partId: number;
  readonly pageId: number;
  readonly step: string;
}): string {
  return `${partId}:${pageId}:${step}`;
}
