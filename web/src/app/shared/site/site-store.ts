import { Injectable, computed, inject, signal } from '@angular/core';
import type { ArrangementRequest, ChangeRequest, DraftDocument, ExceptionsRequest, SheetOptionsRequest, PaletteRequest, PartsRequest, SiteDocument, SiteSummary } from '@upper-veneer/contract';
import { sheetOptionsOf, type Override, type Palette } from '@upper-veneer/core';
import { MessageService } from 'primeng/api';
import { type Observable, EMPTY, type Subscription, catchError, concatMap, filter, firstValueFrom, from, map, of, switchMap, tap } from 'rxjs';
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

  readonly sites = signal<readonly SiteSummary[]>([]);
  readonly state = signal<SiteState>({ status: 'opening' });
  readonly draft = signal<DraftDocument | null>(null);
  readonly veneer = signal<CompiledVeneer>({ css: '', frameCss: '' });
  /** Hidden parts that are shown opened. */
  readonly opened = signal<readonly number[]>([]);
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
  readonly exceptions = computed(() => this.draft()?.exceptions ?? []);
  readonly standing = computed(() => {
    const draft = this.draft();
    if (!draft) return '';
    if (draft.equalsRevision !== null) return draft.publishedRevision === draft.equalsRevision ? `Revision ${draft.equalsRevision} is published` : `Draft is revision ${draft.equalsRevision}`;
    const newest = draft.revisions[0];
    return newest ? `Draft differs from revision ${newest.number}` : draft.overrides.length > 0 ? 'Draft not saved as a revision' : 'Nothing overridden yet';
  });

  /** Opens a site: the one named, else the one this tab had open last, else the first. */
  open(siteId?: number): void {
    this.state.set({ status: 'opening' });
    this.#versions?.unsubscribe();
    this.#api.sites().pipe(
      tap((sites) => this.sites.set(sites)),
      map((sites) => [siteId, ...rememberedSites()].map((id) => sites.find((site) => site.id === id)).find((site) => site !== undefined) ?? sites.at(0)),
      switchMap((site) => (site ? this.#api.site(site.id) : of(null))),
      concatMap((site) => (site ? from(this.#load(site)).pipe(map(() => site)) : of(null))),
    ).subscribe({
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

  /** Reads the list of sites again. */
  listSites(): void {
    this.#api.sites().subscribe({ next: (sites) => this.sites.set(sites), error: () => undefined });
  }

  /** Shows a hidden part opened, or closed again. */
  toggleOpen(partId: number): void {
    const opened = this.opened().includes(partId) ? this.opened().filter((id) => id !== partId) : [...this.opened(), partId];
    void this.#engine.remote.openParts(opened).then(() => this.opened.set(opened));
  }

  /** Stores a change; emits the draft once it is stored and compiled, and nothing when it was refused. */
  change(request: ChangeRequest): Observable<DraftDocument> {
    return this.#store((siteId) => this.#api.change(siteId, request));
  }

  /** Stores the palette as it is to be; every override bound to it follows. */
  putPalette(request: PaletteRequest): Observable<DraftDocument> {
    return this.#store((siteId) => this.#api.putPalette(siteId, request));
  }

  putParts(request: PartsRequest): Observable<DraftDocument> {
    return this.#store((siteId) => this.#api.putParts(siteId, request));
  }

  /** Stores where the veneer stands and in which order pages load their stylesheets. */
  putArrangement(request: ArrangementRequest): Observable<DraftDocument> {
    return this.#store((siteId) => this.#api.putArrangement(siteId, request));
  }

  /** Stores how the sheet names its colours. */
  putSheetOptions(request: SheetOptionsRequest): Observable<DraftDocument> {
    return this.#store((siteId) => this.#api.putSheetOptions(siteId, request));
  }

  putExceptions(request: ExceptionsRequest): Observable<DraftDocument> {
    return this.#store((siteId) => this.#api.putExceptions(siteId, request));
  }

  renameSite(name: string): Observable<DraftDocument> {
    return this.#store((siteId) => this.#api.renameSite(siteId, name)).pipe(tap(() => this.listSites()));
  }

  renamePage(pageId: number, name: string): Observable<DraftDocument> {
    return this.#store((siteId) => this.#api.renamePage(siteId, pageId, name));
  }

  dropPage(pageId: number): Observable<DraftDocument> {
    return this.#store((siteId) => this.#api.dropPage(siteId, pageId)).pipe(tap(() => this.listSites()));
  }

  /** Removes the open site for good, and opens another. */
  dropSite(): void {
    const site = this.site();
    if (!site) return;
    this.#api.dropSite(site.id).subscribe({ next: () => this.open(), error: (error: unknown) => this.report(ApiProblem.from(error)) });
  }

  undo(): Observable<DraftDocument> {
    return this.draft()?.undo ? this.#store((siteId) => this.#api.undo(siteId)) : EMPTY;
  }

  redo(): Observable<DraftDocument> {
    return this.draft()?.redo ? this.#store((siteId) => this.#api.redo(siteId)) : EMPTY;
  }

  saveRevision(note: string): Observable<DraftDocument> {
    return this.#store((siteId) => this.#api.saveRevision(siteId, note), true);
  }

  /** Publishes the draft; it is saved as a revision first where it equals none. */
  publish(note: string): Observable<DraftDocument> {
    const saved = this.draft()?.equalsRevision ?? null;
    const revision = saved !== null ? of(saved) : this.saveRevision(note).pipe(map((draft) => draft.revisions[0].number));
    return revision.pipe(concatMap((number) => this.#store((siteId) => this.#api.publish(siteId, number), true)));
  }

  /** Shows a problem where no field belongs to it. */
  report(problem: Pick<ApiProblem, 'title' | 'message' | 'isLost'>): void {
    this.#messages.add({ severity: 'contrast', summary: problem.title, detail: problem.message, life: problem.isLost ? 8000 : 6000 });
  }

  /** @param isBeside whether work on the draft goes on meanwhile. */
  #store(request: (siteId: number) => Observable<DraftDocument>, isBeside = false): Observable<DraftDocument> {
    const site = this.site();
    if (!site) return EMPTY;
    if (!isBeside) this.isSaving.set(true);
    return request(site.id).pipe(
      concatMap((draft) => from(this.#adopt(draft)).pipe(map(() => draft))),
      tap({ finalize: () => isBeside || this.isSaving.set(false) }),
      catchError((error: unknown) => {
        this.report(ApiProblem.from(error));
        return EMPTY;
      }),
    );
  }

  async #load(site: SiteDocument): Promise<void> {
    await this.#engine.remote.open({ pages: site.pages, stylesheets: site.stylesheets, parts: site.parts, veneerPlace: site.veneerPlace, ...sheetOptionsOf(site) });
    const opened = this.opened().filter((id) => site.parts.some((part) => part.id === id));
    if (opened.length > 0) await this.#engine.remote.openParts(opened);
    this.opened.set(opened);
    this.veneer.set(await this.#engine.remote.dress(site.draft.overrides as readonly Override[], paletteOf(site.draft), site.draft.exceptions));
    this.draft.set(site.draft);
  }

  /** Takes a newer draft; the pages are read again where they changed. */
  async #adopt(draft: DraftDocument): Promise<void> {
    const site = this.site();
    if (site && draft.structure !== this.draft()?.structure) {
      const reread = await firstValueFrom(this.#api.site(site.id));
      await this.#load(reread);
      this.state.set({ status: 'open', site: reread });
      return;
    }
    const compiled = await this.#engine.remote.dress(draft.overrides as readonly Override[], paletteOf(draft), draft.exceptions);
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

const LAST_SITE = 'uv-site';

/** The site this tab had open, then the one any tab opened last. */
function rememberedSites(): number[] {
  return [sessionStorage, localStorage].map((storage) => Number(storage.getItem(LAST_SITE)));
}

function rememberSite(id: number): void {
  for (const storage of [sessionStorage, localStorage]) storage.setItem(LAST_SITE, String(id));
}
