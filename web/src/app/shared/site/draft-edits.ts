import { Injectable, inject } from '@angular/core';
import type {
  ArrangementRequest,
  BroughtBackDocument,
  ChangeRequest,
  ClientRequestsRequest,
  DraftDocument,
  ExceptionsRequest,
  HandedRequest,
  LookedRequest,
  PaletteRequest,
  PartsRequest,
  PlanRequest,
  SettingsRequest,
  SheetOptionsRequest,
} from '@upper-veneer/contract';
import { type Observable, EMPTY, catchError, concatMap, from, map, of, tap } from 'rxjs';
import { ApiProblem } from '../api/api-problem';
import { SiteApi } from '../api/site-api';
import { Messages } from '../spoken/messages';
import { ItemWorkedOn } from './item-worked-on';
import { SiteList } from './site-list';
import { SiteStore } from './site-store';

/** What changes the open site. Each emits the draft once it is stored and compiled, and nothing when it was refused, which is told. */
@Injectable({ providedIn: 'root' })
export class DraftEdits {
  readonly #api = inject(SiteApi);
  readonly #store = inject(SiteStore);
  readonly #list = inject(SiteList);
  readonly #messages = inject(Messages);
  readonly #worked = inject(ItemWorkedOn);

  /** What is put while an item of the client's list is worked on is kept as made for it. */
  change(request: ChangeRequest): Observable<DraftDocument> {
    const forItem = this.#worked.id();
    const made = forItem !== null && request.put.length > 0 ? { ...request, forItem } : request;
    return this.#stored((siteId) => this.#api.change(siteId, made));
  }

  /** Stores the palette as it is to be; every override bound to it follows. */
  putPalette(request: PaletteRequest): Observable<DraftDocument> {
    return this.#stored((siteId) => this.#api.putPalette(siteId, request));
  }

  putParts(request: PartsRequest): Observable<DraftDocument> {
    return this.#stored((siteId) => this.#api.putParts(siteId, request));
  }

  /** Stores where the veneer stands and in which order pages load their stylesheets. */
  putArrangement(request: ArrangementRequest): Observable<DraftDocument> {
    return this.#stored((siteId) => this.#api.putArrangement(siteId, request));
  }

  /** Stores how the sheet names its colours. */
  putSheetOptions(request: SheetOptionsRequest): Observable<DraftDocument> {
    return this.#stored((siteId) => this.#api.putSheetOptions(siteId, request));
  }

  putRequests(request: ClientRequestsRequest): Observable<DraftDocument> {
    return this.#stored((siteId) => this.#api.putRequests(siteId, request));
  }

  putExceptions(request: ExceptionsRequest): Observable<DraftDocument> {
    return this.#stored((siteId) => this.#api.putExceptions(siteId, request));
  }

  /** Stores what is settled of matching a scope. */
  putPlan(request: PlanRequest): Observable<DraftDocument> {
    return this.#stored((siteId) => this.#api.putPlan(siteId, request));
  }

  /** Stores a part's settings sheet, or takes it away. */
  putSettings(partId: number, request: SettingsRequest): Observable<DraftDocument> {
    return this.#stored((siteId) => this.#api.putSettings(siteId, partId, request));
  }

  /** Notes which values stand over there by now; no undo takes that back. */
  putHanded(partId: number, request: HandedRequest): Observable<DraftDocument> {
    return this.#stored((siteId) => this.#api.putHanded(siteId, partId, request), true);
  }

  sendSettings(partId: number, request: HandedRequest): Observable<DraftDocument> {
    return this.#stored((siteId) => this.#api.sendSettings(siteId, partId, request), true);
  }

  /** Keeps what a revision's proof came to. */
  keepProof(revision: number, proof: { readonly fails: number; readonly toLookAt: number }): Observable<DraftDocument> {
    return this.#stored((siteId) => this.#api.putRevisionProof(siteId, revision, proof), true);
  }

  /** Keeps that parts on pages were looked at by eye, or are to be looked at again. */
  putLooked(request: LookedRequest): Observable<DraftDocument> {
    return this.#stored((siteId) => this.#api.putLooked(siteId, request), true);
  }

  /** What overrides came to on pages captured again is right as it is. */
  settleDrift(overrides: readonly string[] | null): Observable<DraftDocument> {
    return this.#stored((siteId) => this.#api.settleDrift(siteId, overrides), true);
  }

  renameSite(name: string): Observable<DraftDocument> {
    return this.#stored((siteId) => this.#api.renameSite(siteId, name)).pipe(tap(() => this.#list.refresh()));
  }

  renamePage(pageId: number, name: string): Observable<DraftDocument> {
    return this.#stored((siteId) => this.#api.renamePage(siteId, pageId, name));
  }

  makeSpecimen(): Observable<DraftDocument> {
    return this.#stored((siteId) => this.#api.makeSpecimen(siteId));
  }

  dropPage(pageId: number): Observable<DraftDocument> {
    return this.#stored((siteId) => this.#api.dropPage(siteId, pageId)).pipe(tap(() => this.#list.refresh()));
  }

  /** Removes the open site for good, and opens another. */
  dropSite(): void {
    const site = this.#store.site();
    if (!site) return;
    this.#api.dropSite(site.id).subscribe({
      next: () => this.#store.open(),
      error: (error: unknown) => this.#messages.report(ApiProblem.from(error)),
    });
  }

  undo(): Observable<DraftDocument> {
    return this.#store.draft()?.undo ? this.#stored((siteId) => this.#api.undo(siteId)) : EMPTY;
  }

  redo(): Observable<DraftDocument> {
    return this.#store.draft()?.redo ? this.#stored((siteId) => this.#api.redo(siteId)) : EMPTY;
  }

  saveRevision(note: string): Observable<DraftDocument> {
    return this.#stored((siteId) => this.#api.saveRevision(siteId, note), true);
  }

  /** Publishes the draft; it is saved as a revision first where it equals none. */
  publish(note: string): Observable<DraftDocument> {
    const saved = this.#store.draft()?.equalsRevision ?? null;
    const revision =
      saved !== null ? of(saved) : this.saveRevision(note).pipe(map((draft) => draft.revisions[0].number));
    return revision.pipe(concatMap((number) => this.#stored((siteId) => this.#api.publish(siteId, number), true)));
  }

  /** Brings a revision back, or one part of it; `told` hears what stayed away. */
  bringBack(
    number: number,
    part: number | null | 'all',
    told: (brought: Omit<BroughtBackDocument, 'draft'>) => void,
  ): Observable<DraftDocument> {
    return this.#stored((siteId) =>
      this.#api.bringBack(siteId, number, part).pipe(
        map(({ draft, ...brought }) => {
          told(brought);
          return draft;
        }),
      ),
    );
  }

  /** Brings a draft back that was left behind. */
  bringLeftBack(id: number): Observable<DraftDocument> {
    return this.#stored((siteId) => this.#api.bringLeftBack(siteId, id).pipe(map(({ draft }) => draft)));
  }

  /** Opens the draft's stylesheet to pages elsewhere under a new address, or ends that. */
  putLive(isOn: boolean): Observable<DraftDocument> {
    return this.#stored((siteId) => this.#api.putLive(siteId, isOn), true);
  }

  /** Publishes a revision as it is. */
  publishRevision(number: number): Observable<DraftDocument> {
    return this.#stored((siteId) => this.#api.publish(siteId, number), true);
  }

  /** @param isBeside whether work on the draft goes on meanwhile. */
  #stored(request: (siteId: number) => Observable<DraftDocument>, isBeside = false): Observable<DraftDocument> {
    const site = this.#store.site();
    if (!site) return EMPTY;
    if (!isBeside) this.#store.isSaving.set(true);
    return request(site.id).pipe(
      concatMap((draft) => from(this.#store.adopt(draft)).pipe(map(() => draft))),
      tap({ finalize: () => isBeside || this.#store.isSaving.set(false) }),
      catchError((error: unknown) => {
        this.#messages.report(ApiProblem.from(error));
        return EMPTY;
      }),
    );
  }
}
