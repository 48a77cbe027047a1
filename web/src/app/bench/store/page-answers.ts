import type { Spoken } from '@upper-veneer/words';
import { Injectable, computed, inject } from '@angular/core';
import { toObservable, toSignal } from '@angular/core/rxjs-interop';
import type { NamedValue, PartProgress, SiteWideTarget } from '@upper-veneer/core';
import { combineLatest } from 'rxjs';
import { askEngine } from '../../shared/engine/ask-engine';
import { Engine } from '../../shared/engine/engine';
import { OpenedParts } from '../../shared/site/opened-parts';
import { SiteStore } from '../../shared/site/site-store';
import { BenchSelection } from './bench-selection';

/** What is known of the page shown and of the site, whatever is chosen there: asked of the worker when they change. */
@Injectable()
export class PageAnswers {
  readonly #site = inject(SiteStore);
  readonly #engine = inject(Engine);
  readonly #selection = inject(BenchSelection);
  readonly #opened = inject(OpenedParts).ids;
  readonly #structure = computed(() => this.#site.site()?.draft.structure ?? 0);

  /** Font families of the site's own fonts. */
  readonly families = toSignal<readonly string[], readonly string[]>(
    toObservable(this.#site.site).pipe(
      askEngine(
        this.#engine,
        (site, engine): Promise<readonly string[]> | null => (site ? engine.families() : null),
        [],
      ),
    ),
    { initialValue: [] },
  );
  /** Our values in words, by the CSS they compile to. */
  readonly valueNames = toSignal<ReadonlyMap<string, Spoken<NamedValue>>, ReadonlyMap<string, Spoken<NamedValue>>>(
    toObservable(this.#site.veneer).pipe(
      askEngine(
        this.#engine,
        ({ css }, engine): Promise<ReadonlyMap<string, Spoken<NamedValue>>> | null =>
          css === '' ? null : engine.named().then(({ values }) => values),
        new Map(),
      ),
    ),
    { initialValue: new Map() },
  );

  readonly progress = toSignal<readonly PartProgress[], readonly PartProgress[]>(
    combineLatest([
      toObservable(this.#selection.pageId),
      toObservable(this.#selection.width),
      toObservable(this.#site.veneer),
      toObservable(this.#opened),
    ]).pipe(
      askEngine(
        this.#engine,
        ([pageId, width], engine): Promise<readonly PartProgress[]> => engine.progress(pageId, width),
        [],
      ),
    ),
    { initialValue: [] },
  );

  readonly siteWide = toSignal<readonly Spoken<SiteWideTarget>[], readonly Spoken<SiteWideTarget>[]>(
    combineLatest([toObservable(this.#selection.pageId), toObservable(this.#structure)]).pipe(
      askEngine(
        this.#engine,
        ([pageId], engine): Promise<readonly Spoken<SiteWideTarget>[]> => engine.siteWide(pageId),
        [],
      ),
    ),
    { initialValue: [] },
  );
}
