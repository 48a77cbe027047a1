import { wordsOf } from '@upper-veneer/words';
import { Injectable, computed, effect, inject, signal, untracked } from '@angular/core';
import type { FormerCaptureDocument } from '@upper-veneer/contract';
import { firstValueFrom } from 'rxjs';
import { ApiProblem } from '../api/api-problem';
import { SiteApi } from '../api/site-api';
import type { DriftProposalView, DriftView } from '../engine/drift-api';
import { Engine } from '../engine/engine';
import { withProgress } from '../engine/with-progress';
import type { FramedPage } from '../frame/framed-page';
import { DraftEdits } from '../site/draft-edits';
import { LightingSwitch } from '../site/lighting-switch';
import { SiteStore } from '../site/site-store';

/** What drifted since pages were captured again, kept up with the draft while somebody looks. */
@Injectable({ providedIn: 'root' })
export class DriftStore {
  readonly #site = inject(SiteStore);
  readonly #engine = inject(Engine);
  readonly #api = inject(SiteApi);
  readonly #edits = inject(DraftEdits);
  readonly #lighting = inject(LightingSwitch);
  #run = 0;
  /** Counts what was settled, after which less is held against the pages as they were. */
  readonly #settled = signal(0);
  readonly #isWatched = signal(false);
  readonly #found = signal<{ readonly site: number; readonly drifts: readonly DriftView[] } | null>(null);
  readonly formers = signal<readonly FormerCaptureDocument[]>([]);
  /** How far a look is, 0 to 1; `null` while none goes on. */
  readonly share = signal<number | null>(null);
  /** How many pages are kept as they were. */
  readonly kept = computed(() => this.#site.draft()?.formerCaptures ?? 0);
  /** What drifted; `null` where nobody has looked yet. */
  readonly drifts = computed(() => {
    if (this.kept() === 0) return [];
    const found = this.#found();
    return found && found.site === this.#site.site()?.id ? found.drifts : null;
  });

  constructor() {
    effect(() => {
      this.#site.painted();
      this.#settled();
      const kept = this.kept();
      if (this.#isWatched() && kept > 0) untracked(() => void this.#look());
    });
  }

  watch(): void {
    this.#isWatched.set(true);
  }

  unwatch(): void {
    this.#isWatched.set(false);
  }

  /** Puts one right, as one step of undo. */
  take(drift: DriftView, { put, drop }: Extract<DriftProposalView, { ok: true }>): void {
    const label = put.length === 0 ? wordsOf('screen.take-out') : wordsOf('screen.lead-its-targets-again');
    this.#edits
      .change({ label: `${label}: ${drift.override.selector}`.slice(0, 200), put: [...put], drop: [...drop] })
      .subscribe();
  }

  /** Puts all right that can be, as one step of undo. */
  async takeAll(): Promise<void> {
    try {
      const all = await this.#engine.remote.proposeAllDrift();
      if (!all || all.right === 0) return;
      const label = wordsOf('screen.lead-override-overrides-their', { right: all.right });
      this.#edits.change({ label, put: [...all.put], drop: [...all.drop] }).subscribe();
    } catch (error) {
      this.#engine.tell(error);
    }
  }

  /** Drops the selectors of a list that match nothing any more. */
  async dropIdle({ override }: DriftView): Promise<void> {
    const next = await this.#engine.remote.withoutIdleSelectors(override.id);
    if (next) this.#edits.change({ label: wordsOf('screen.drop-idle-selector'), put: [next], drop: [] }).subscribe();
  }

  /** What these came to is right as it is; all of them, and the former captures with them, where none are named. */
  settle(drifts: readonly DriftView[] | null): void {
    this.#edits
      .settleDrift(drifts && drifts.map(({ override }) => override.id))
      .subscribe(() => this.#settled.update((count) => count + 1));
  }

  /** A page as it was before it was captured again. */
  framedBefore(formerId: number, frameCss: string): FramedPage {
    const site = this.#site.site();
    return {
      url: `/frame/sites/${site?.id}/former/${formerId}/`,
      veneerPlace: site?.veneerPlace ?? 'head-end',
      frameCss,
      amendments: new Map(),
      scheme: this.#lighting.schemeIn('light'),
    };
  }

  async #look(): Promise<void> {
    const site = this.#site.site();
    if (!site) return;
    const run = (this.#run += 1);
    const isWanted = (): boolean => run === this.#run;
    try {
      this.share.set(0);
      const formers = await firstValueFrom(this.#api.formerCaptures(site.id));
      const drifts = await withProgress(
        ({ done, of }: { readonly done: number; readonly of: number }) => {
          if (isWanted()) this.share.set(done / of);
        },
        (listener) => this.#engine.remote.drift(formers, listener),
      );
      if (!drifts || !isWanted()) return;
      this.formers.set(formers);
      this.#found.set({ site: site.id, drifts });
    } catch (error) {
      // A server that does not answer is told by what follows the draft.
      if (isWanted() && !(error instanceof ApiProblem)) this.#engine.tell(error);
    } finally {
      if (isWanted()) this.share.set(null);
    }
  }
}
