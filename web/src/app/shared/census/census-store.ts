import { errorText, spoken, type Spoken, wordsOf } from '@upper-veneer/words';
import { Injectable, computed, effect, inject, signal, untracked } from '@angular/core';
import {
  brandStandingOf,
  isSpecimen,
  paletteIn,
  colorOfCss,
  type BrandStanding,
  type CensusPlace,
  type CensusProgress,
  type PageMeasure,
} from '@upper-veneer/core';
import { ApiProblem } from '../api/api-problem';
import type { CensusColorView, CensusView } from '../engine/engine-api';
import { Engine } from '../engine/engine';
import { Messages } from '../spoken/messages';
import { SiteStore } from '../site/site-store';
import { measureInFrame } from './measuring-frame';
import { withProgress } from '../engine/with-progress';

/** Viewport width the census is taken at, CSS px. */
export const CENSUS_WIDTH = 1280;

export type CensusState =
  | { readonly status: 'none' }
  | { readonly status: 'counting'; readonly doing: string; readonly share: number }
  | { readonly status: 'stopped' }
  | { readonly status: 'counted'; readonly census: Spoken<CensusView>; readonly unmeasured: readonly string[] };

/** A counted colour with how it stands to the palette as it is now. */
export interface JudgedColor extends CensusColorView {
  readonly standing: Spoken<BrandStanding>;
  /** Reason it is an exception; empty when it is none. */
  readonly exception: string;
}

class Stopped extends Error {}

/** The colours of the open site, counted once for pages and veneer as they stand. */
@Injectable({ providedIn: 'root' })
export class CensusStore {
  readonly #site = inject(SiteStore);
  readonly #messages = inject(Messages);
  readonly #engine = inject(Engine);
  /** Counts censuses begun and stopped, so that an older one ends. */
  #run = 0;
  /** What the last census was begun of. */
  readonly #countedOf = signal<{ readonly siteId: number; readonly structure: number; readonly css: string } | null>(
    null,
  );

  readonly state = signal<CensusState>({ status: 'none' });
  readonly census = computed(() => {
    const state = this.state();
    return state.status === 'counted' ? state.census : null;
  });
  readonly colors = computed<readonly JudgedColor[]>(() => {
    // The site is counted in the light.
    const palette = paletteIn(this.#site.palette(), 'light');
    const exceptions = new Map(
      this.#site
        .exceptions()
        .filter(({ kind }) => kind === 'color')
        .map(({ target, reason }) => [target, reason]),
    );
    return (this.census()?.colors ?? []).map((color) => {
      const value = colorOfCss(color.hex);
      return {
        ...color,
        standing: value
          ? spoken(brandStandingOf(value, palette))
          : { kind: 'stray', nearest: '', deltaE: Number.POSITIVE_INFINITY },
        exception: exceptions.get(color.hex) ?? '',
      };
    });
  });
  /** Strays beside a palette; none before there is one. */
  readonly strays = computed(
    () =>
      this.colors().filter(
        ({ standing, exception }) => standing.kind === 'stray' && standing.nearest !== '' && exception === '',
      ).length,
  );
  /** Whether pages or veneer have changed since. */
  readonly isStale = computed(() => {
    const of = this.#countedOf();
    const site = this.#site.site();
    return (
      of !== null &&
      site !== null &&
      (of.siteId !== site.id || of.structure !== site.draft.structure || of.css !== this.#site.veneer().css)
    );
  });

  constructor() {
    // Another site has another census.
    effect(() => {
      const siteId = this.#site.site()?.id ?? null;
      untracked(() => {
        const of = this.#countedOf();
        if (of === null || siteId === null || of.siteId === siteId) return;
        this.stop();
        this.#countedOf.set(null);
        this.state.set({ status: 'none' });
      });
    });
  }

  /** Takes the census when there is none of the site as it stands. */
  ensure(): void {
    const { status } = this.state();
    if (status === 'none' || (status !== 'stopped' && this.isStale())) void this.count();
  }

  stop(): void {
    this.#run += 1;
    this.state.set({ status: 'stopped' });
    void this.#engine.remote.stopCensus();
  }

  async count(): Promise<void> {
    const site = this.#site.site();
    if (!site) return;
    const run = (this.#run += 1);
    const { css, frameCss } = this.#site.veneer();
    this.#countedOf.set({ siteId: site.id, structure: site.draft.structure, css });
    const check = (): void => {
      if (run !== this.#run) throw new Stopped();
    };
    const tell = (doing: string, share: number): void => {
      if (run === this.#run) this.state.set({ status: 'counting', doing, share });
    };
    try {
      tell(wordsOf('screen.reading-pages'), 0);
      const measures: PageMeasure[] = [];
      const unmeasured: string[] = [];
      const pages = site.pages.filter((own) => !isSpecimen(own));
      for (const [i, page] of pages.entries()) {
        tell(wordsOf('screen.measuring', { name: page.name }), (0.5 * i) / pages.length);
        const measure = await measureInFrame(
          page.id,
          {
            url: `/frame/sites/${site.id}/pages/${page.id}/?v=${site.draft.structure}`,
            veneerPlace: site.veneerPlace,
            frameCss,
            amendments: new Map(),
            scheme: 'light',
          },
          CENSUS_WIDTH,
          check,
        );
        check();
        if (measure) measures.push(measure);
        else unmeasured.push(page.name);
      }
      tell(wordsOf('screen.counting-colours'), 0.5);
      const census = await withProgress(
        ({ page, share }: CensusProgress) => tell(wordsOf('screen.counting', { page }), 0.5 + share / 2),
        (listener) => this.#engine.remote.takeCensus(measures, CENSUS_WIDTH, listener),
      );
      check();
      if (census) this.state.set({ status: 'counted', census, unmeasured });
    } catch (error) {
      if (error instanceof Stopped || run !== this.#run) return;
      this.state.set({ status: 'stopped' });
      this.#messages.report(new ApiProblem(wordsOf('screen.colours-could-not-be'), errorText(error)));
    }
  }

  places(hex: string): Promise<readonly CensusPlace[]> {
    return this.#engine.remote.censusPlaces(hex);
  }
}
