import { wordsOf } from '@upper-veneer/words';
import { Injectable, computed, inject, signal } from '@angular/core';
import type { DraftDocument, SiteDocument } from '@upper-veneer/contract';
import { isSpecimen, sheetOptionsOf, type Lighting, type Override, type Palette } from '@upper-veneer/core';
import {
  type Subscription,
  EMPTY,
  catchError,
  concatMap,
  filter,
  firstValueFrom,
  from,
  map,
  of,
  switchMap,
} from 'rxjs';
import { ApiProblem } from '../api/api-problem';
import { SiteApi } from '../api/site-api';
import type { CompiledVeneer, PagesRead } from '../engine/engine-api';
import { Engine } from '../engine/engine';
import { OpenedParts } from './opened-parts';
import { rememberSite, rememberedSites } from './remembered-site';
import { SiteList } from './site-list';

/** How far the site is opened. */
export type SiteState =
  | { readonly status: 'opening' }
  | { readonly status: 'none' }
  | { readonly status: 'failed'; readonly problem: ApiProblem }
  | { readonly status: 'open'; readonly site: SiteDocument };

/** The open site, its draft and its compiled veneer. What a signal shows is stored already. */
@Injectable({ providedIn: 'root' })
export class SiteStore {
  readonly #api = inject(SiteApi);
  readonly #engine = inject(Engine);
  readonly #list = inject(SiteList);
  readonly #openedParts = inject(OpenedParts);
  /** What other tabs do. */
  #others: Subscription | null = null;

  readonly state = signal<SiteState>({ status: 'opening' });
  readonly draft = signal<DraftDocument | null>(null);
  readonly veneer = signal<CompiledVeneer>({ css: '', frameCss: '' });
  /** Whether a change made here is on its way to the database; what others did meanwhile is read with its answer. */
  readonly isSaving = signal(false);

  /** How many of the site's pages are read, where that takes its time. */
  readonly reading = signal<(PagesRead & { readonly siteId: number }) | null>(null);

  readonly site = computed(() => {
    const state = this.state();
    return state.status === 'open' ? state.site : null;
  });
  readonly second = computed(() => this.draft()?.second ?? null);
  readonly #lighting = signal<Lighting>('light');
  /** The palette in the lighting that is looked at. */
  readonly palette = computed<Palette>(
    () => {
      const draft = this.draft();
      if (!draft) return { swatches: [], roles: [] };
      const { swatches, roles, second, shape, former } = draft;
      return { swatches, roles, second, shape, former, lighting: second ? this.#lighting() : 'light' };
    },
    {
      equal: (a, b) =>
        a.swatches === b.swatches &&
        a.roles === b.roles &&
        a.second === b.second &&
        a.shape === b.shape &&
        a.former === b.former &&
        a.lighting === b.lighting,
    },
  );
  readonly overrides = computed<readonly Override[]>(() => this.draft()?.overrides ?? []);
  readonly ownCss = computed(() => this.draft()?.ownCss ?? []);
  /** Whether anything is in the draft. */
  readonly isEmpty = computed(() => this.overrides().length + this.ownCss().length === 0);
  readonly exceptions = computed(() => this.draft()?.exceptions ?? []);
  /** What all that is painted hangs on: the same as long as only records beside it change, such as revisions and what was looked at. */
  readonly painted = computed(() => {
    const draft = this.draft();
    if (!draft) return '';
    const { structure, overrides, ownCss, exceptions, swatches, roles, second, shape, former } = draft;
    return JSON.stringify([structure, overrides, ownCss, exceptions, swatches, roles, second, shape, former]);
  });
  /** Pages that were captured, without the specimen. */
  readonly captured = computed(() => (this.site()?.pages ?? []).filter((page) => !isSpecimen(page)));
  readonly standing = computed(() => {
    const draft = this.draft();
    if (!draft) return '';
    if (draft.equalsRevision !== null)
      return draft.publishedRevision === draft.equalsRevision
        ? wordsOf('screen.revision-published', { equalsRevision: draft.equalsRevision })
        : wordsOf('screen.draft-revision', { equalsRevision: draft.equalsRevision });
    const newest = draft.revisions[0];
    return newest
      ? wordsOf('screen.draft-differs-from-revision', { number: newest.number })
      : draft.overrides.length + draft.ownCss.length > 0
        ? wordsOf('screen.draft-not-saved-as')
        : wordsOf('screen.nothing-overridden-yet');
  });

  /** Opens a site: the one named, else the one this tab had open last, else the first. */
  open(siteId?: number): void {
    this.state.set({ status: 'opening' });
    this.#others?.unsubscribe();
    this.#list
      .read()
      .pipe(
        map(
          (sites) =>
            [siteId, ...rememberedSites()]
              .map((id) => sites.find((site) => site.id === id))
              .find((site) => site !== undefined) ?? sites.at(0),
        ),
        switchMap((site) => (site ? this.#api.site(site.id) : of(null))),
        concatMap((site) => (site ? from(this.#load(site)).pipe(map(() => site)) : of(null))),
      )
      .subscribe({
        next: (site) => {
          this.state.set(site ? { status: 'open', site } : { status: 'none' });
          if (site) {
            rememberSite(site.id);
            this.#follow(site.id);
          }
        },
        error: (error: unknown) => this.state.set({ status: 'failed', problem: ApiProblem.from(error) }),
      });
  }

  /** Takes a newer draft; the pages are read again where they changed. */
  async adopt(draft: DraftDocument): Promise<void> {
    const site = this.site();
    if (site && draft.structure !== this.draft()?.structure) {
      const reread = await firstValueFrom(this.#api.site(site.id));
      await this.#load(reread);
      this.state.set({ status: 'open', site: reread });
      return;
    }
    const compiled = await this.#dress(draft);
    if (draft.version < (this.draft()?.version ?? 0)) return;
    this.veneer.set(compiled);
    this.draft.set(draft);
  }

  /** Takes in that the site is looked at in another lighting: everything asked about it is asked again. */
  lit(lighting: Lighting): void {
    this.#lighting.set(lighting);
    this.veneer.update((veneer) => ({ ...veneer }));
  }

  async #load(site: SiteDocument): Promise<void> {
    await this.#engine.remote.open({
      pages: site.pages,
      stylesheets: site.stylesheets,
      parts: site.parts,
      veneerPlace: site.veneerPlace,
      ...sheetOptionsOf(site),
    });
    await this.#openedParts.keep(site.parts.map(({ id }) => id));
    this.veneer.set(await this.#dress(site.draft));
    this.draft.set(site.draft);
    void this.#read(site.id);
  }

  /** The page on the screen is read first, when it is asked about; the others follow. */
  async #read(siteId: number): Promise<void> {
    await this.#engine.read((progress) => this.reading.set({ siteId, ...progress }));
    if (this.reading()?.siteId === siteId) this.reading.set(null);
  }

  #dress({ overrides, ownCss, exceptions, ...palette }: DraftDocument): Promise<CompiledVeneer> {
    return this.#engine.remote.dress({ overrides, ownCss, exceptions, palette: paletteOf(palette) });
  }

  /** Other tabs change the draft too. One that could not be read is passed over; the next is tried all the same. */
  #follow(siteId: number): void {
    this.#others?.unsubscribe();
    this.#others = this.#api
      .draftVersions(siteId)
      .pipe(
        filter((version) => version > (this.draft()?.version ?? 0) && !this.isSaving()),
        switchMap(() => this.#api.draft(siteId).pipe(catchError(() => EMPTY))),
        concatMap((draft) =>
          from(this.adopt(draft)).pipe(
            catchError((error: unknown) => {
              if (!(error instanceof ApiProblem)) this.#engine.tell(error);
              return EMPTY;
            }),
          ),
        ),
      )
      .subscribe();
  }
}

function paletteOf({
  swatches,
  roles,
  second,
  shape,
  former,
}: Omit<DraftDocument, 'overrides' | 'ownCss' | 'exceptions'>): Palette {
  return { swatches, roles, second, shape, former };
}
