import type { Spoken } from '@upper-veneer/words';
import { Injectable, inject, signal } from '@angular/core';
import { toObservable, toSignal } from '@angular/core/rxjs-interop';
import type { Override, VerdictProgress } from '@upper-veneer/core';
import { combineLatest, debounceTime } from 'rxjs';
import { askEngine } from '../../shared/engine/ask-engine';
import type { Judgement } from '../../shared/engine/engine-api';
import { Engine } from '../../shared/engine/engine';
import { SiteStore } from '../../shared/site/site-store';
import { PageLayouts } from '../page/page-layouts';
import { BenchAnswers } from './bench-answers';
import { BenchSelection } from './bench-selection';
import { withProgress } from '../../shared/engine/with-progress';

/** What the override of the chosen cell does over the whole site. */
@Injectable()
export class BenchVerdict {
  readonly #engine = inject(Engine);
  readonly #selection = inject(BenchSelection);

  /** How far it is, where it takes its time; `null` when none is being made. */
  readonly judging = signal<VerdictProgress | null>(null);
  readonly judgement = toSignal<Spoken<Judgement> | null, null>(
    combineLatest([
      toObservable(inject(BenchAnswers).cellOverrides),
      toObservable(inject(SiteStore).veneer),
      toObservable(inject(PageLayouts).taken),
    ]).pipe(
      // They change one after the other when something is stored.
      debounceTime(0),
      askEngine(
        this.#engine,
        ([overrides]): Promise<Spoken<Judgement> | null> | null =>
          overrides.length > 0 ? this.#judge(overrides[overrides.length - 1]) : null,
        null,
      ),
    ),
    { initialValue: null },
  );

  stopJudging(): void {
    this.#engine.remote.stopJudging().catch((error: unknown) => this.#engine.tell(error));
  }

  async #judge(override: Override): Promise<Spoken<Judgement> | null> {
    try {
      return await withProgress(
        (progress: VerdictProgress) => this.judging.set(progress),
        (listener) => this.#engine.remote.judge(override, this.#selection.width(), listener),
      );
    } finally {
      this.judging.set(null);
    }
  }
}
