import { Injectable, computed, inject, signal } from '@angular/core';
import type { ChangeRequest, DraftDocument, PaletteRequest, SiteDocument } from '@upper-veneer/contract';
import type { Override, Palette } from '@upper-veneer/core';
import { MessageService } from 'primeng/api';
import { type Observable, EMPTY, type Subscription, catchError, concatMap, filter, from, map, of, switchMap, tap } from 'rxjs';
import { ApiProblem } from '../api/api-problem';
import { SiteApi } from '../api/site-api';
import type { CompiledVeneer } from '../engine/engine-api';
import { Engine } from '../engine/engine';

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
  readonly #messages = inject(MessageService);
  #versions: Subscription | null = null;

  readonly state = signal<SiteState>({ status: 'opening' });
  readonly draft = signal<DraftDocument | null>(null);
  readonly veneer = signal<CompiledVeneer>({ css: '', frameCss: '' });
  /** Whether a change is on its way to the database. */
  readonly isSaving = signal(false);

  readonly site = computed(() => {
    const state = this.state();
    return state.status === 'open' ? state.site : null;
  });
  readonly palette = computed<Palette>(() => {
    const draft = this.draft();
    return draft ? { swatches: draft.swatches, roles: draft.roles } : { swatches: [], roles: [] };
  }, { equal: (a, b) => a.swatches === b.swatches && a.roles === b.roles });
  readonly overrides = computed(() => (this.draft()?.overrides ?? []) as readonly Override[]);
  readonly standing = computed(() => {
    const draft = this.draft();
    if (!draft) return '';
    if (draft.equalsRevision !== null) return draft.publishedRevision === draft.equalsRevision ? `Revision ${draft.equalsRevision} is published` : `Draft is revision ${draft.equalsRevision}`;
    const newest = draft.revisions[0];
    return newest ? `Draft differs from revision ${newest.number}` : draft.overrides.length > 0 ? 'Draft not saved as a revision' : 'Nothing overridden yet';
  });

  /** Opens the first site. */
  open(): void {
    this.state.set({ status: 'opening' });
    this.#api.sites().pipe(
      switchMap((sites) => (sites.length > 0 ? this.#api.site(sites[0].id) : of(null))),
      concatMap((site) => (site ? from(this.#load(site)).pipe(map(() => site)) : of(null))),
    ).subscribe({
      next: (site) => {
        this.state.set(site ? { status: 'open', site } : { status: 'none' });
        if (site) this.#follow(site.id);
      },
      error: (error: unknown) => this.state.set({ status: 'failed', problem: ApiProblem.from(error) }),
    });
  }

  /** Stores a change; emits the draft once it is stored and compiled, and nothing when it was refused. */
  change(request: ChangeRequest): Observable<DraftDocument> {
    return this.#store((siteId) => this.#api.change(siteId, request));
  }

  /** Stores the palette as it is to be; every override bound to it follows. */
  putPalette(request: PaletteRequest): Observable<DraftDocument> {
    return this.#store((siteId) => this.#api.putPalette(siteId, request));
  }

  undo(): Observable<DraftDocument> {
    return this.draft()?.undo ? this.#store((siteId) => this.#api.undo(siteId)) : EMPTY;
  }

  redo(): Observable<DraftDocument> {
    return this.draft()?.redo ? this.#store((siteId) => this.#api.redo(siteId)) : EMPTY;
  }

  saveRevision(note: string): Observable<DraftDocument> {
    return this.#store((siteId) => this.#api.saveRevision(siteId, note));
  }

  /** Publishes the draft; it is saved as a revision first where it equals none. */
  publish(note: string): Observable<DraftDocument> {
    const saved = this.draft()?.equalsRevision ?? null;
    const revision = saved !== null ? of(saved) : this.saveRevision(note).pipe(map((draft) => draft.revisions[0].number));
    return revision.pipe(concatMap((number) => this.#store((siteId) => this.#api.publish(siteId, number))));
  }

  /** Shows a problem where no field belongs to it. */
  report(problem: ApiProblem): void {
    this.#messages.add({ severity: 'contrast', summary: problem.title, detail: problem.message, life: problem.isLost ? 8000 : 6000 });
  }

  #store(request: (siteId: number) => Observable<DraftDocument>): Observable<DraftDocument> {
    const site = this.site();
    if (!site) return EMPTY;
    this.isSaving.set(true);
    return request(site.id).pipe(
      concatMap((draft) => from(this.#adopt(draft)).pipe(map(() => draft))),
      tap({ finalize: () => this.isSaving.set(false) }),
      catchError((error: unknown) => {
        this.report(ApiProblem.from(error));
        return EMPTY;
      }),
    );
  }

  async #load(site: SiteDocument): Promise<void> {
    await this.#engine.remote.open({ pages: site.pages, stylesheets: site.stylesheets, parts: site.parts, veneerPlace: site.veneerPlace, prefix: site.prefix });
    this.veneer.set(await this.#engine.remote.dress(site.draft.overrides as readonly Override[], paletteOf(site.draft)));
    this.draft.set(site.draft);
  }

  async #adopt(draft: DraftDocument): Promise<void> {
    const compiled = await this.#engine.remote.dress(draft.overrides as readonly Override[], paletteOf(draft));
    if (draft.version < (this.draft()?.version ?? 0)) return;
    this.veneer.set(compiled);
    this.draft.set(draft);
  }

  /** Other tabs change the draft too. */
  #follow(siteId: number): void {
    this.#versions?.unsubscribe();
    this.#versions = this.#api.draftVersions(siteId).pipe(
      filter((version) => version > (this.draft()?.version ?? 0) && !this.isSaving()),
      switchMap(() => this.#api.draft(siteId).pipe(catchError(() => EMPTY))),
      concatMap((draft) => this.#adopt(draft)),
    ).subscribe();
  }
}

function paletteOf({ swatches, roles }: DraftDocument): Palette {
  return { swatches, roles };
}
