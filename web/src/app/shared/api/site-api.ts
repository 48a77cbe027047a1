import { HttpClient } from '@angular/common/http';
import { Injectable, inject } from '@angular/core';
import type {
  ArrangementRequest,
  ChangeRequest,
  ClientRequestsRequest,
  CountsRequest,
  DecisionRequest,
  BroughtBackDocument,
  DraftDocument,
  RevisionDocument,
  ExceptionsRequest,
  FormerCaptureDocument,
  HandedRequest,
  HostingRequest,
  KitDocument,
  LookedRequest,
  PageFileDocument,
  PlanRequest,
  SheetOptionsRequest,
  PaletteRequest,
  PartsRequest,
  SettingsRequest,
  RevisionProofRequest,
  ServedDocument,
  SiteDocument,
  SiteSummary,
  TrafficRequest,
  TrialRequest,
  TrialStateRequest,
  TrialsDocument,
  VariationRequest,
} from '@upper-veneer/contract';
import type { Kit } from '@upper-veneer/core';
import { type Observable, catchError, map, throwError } from 'rxjs';
import { ApiProblem } from './api-problem';
import { LiveEvents } from './live-events';

/** The server, by what can be asked of it. Every stream fails with an `ApiProblem`. */
@Injectable({ providedIn: 'root' })
export class SiteApi {
  readonly #http = inject(HttpClient);
  readonly #live = inject(LiveEvents);

  sites(): Observable<readonly SiteSummary[]> {
    return this.#get<readonly SiteSummary[]>('/api/sites');
  }

  site(id: number): Observable<SiteDocument> {
    return this.#get<SiteDocument>(`/api/sites/${id}`);
  }

  /** The site with its history, as one file. */
  archive(siteId: number): Observable<Blob> {
    return this.#http
      .get(`/api/sites/${siteId}/archive`, { responseType: 'blob' })
      .pipe(catchError((error: unknown) => throwError(() => ApiProblem.from(error))));
  }

  draft(siteId: number): Observable<DraftDocument> {
    return this.#get<DraftDocument>(`/api/sites/${siteId}/draft`);
  }

  change(siteId: number, request: ChangeRequest): Observable<DraftDocument> {
    return this.#post(`/api/sites/${siteId}/changes`, request);
  }

  putPalette(siteId: number, request: PaletteRequest): Observable<DraftDocument> {
    return this.#put(`/api/sites/${siteId}/palette`, request);
  }

  putParts(siteId: number, request: PartsRequest): Observable<DraftDocument> {
    return this.#put(`/api/sites/${siteId}/parts`, request);
  }

  putArrangement(siteId: number, request: ArrangementRequest): Observable<DraftDocument> {
    return this.#put(`/api/sites/${siteId}/arrangement`, request);
  }

  putSheetOptions(siteId: number, request: SheetOptionsRequest): Observable<DraftDocument> {
    return this.#put(`/api/sites/${siteId}/sheet-options`, request);
  }

  putRequests(siteId: number, request: ClientRequestsRequest): Observable<DraftDocument> {
    return this.#put(`/api/sites/${siteId}/requests`, request);
  }

  putExceptions(siteId: number, request: ExceptionsRequest): Observable<DraftDocument> {
    return this.#put(`/api/sites/${siteId}/exceptions`, request);
  }

  putPlan(siteId: number, request: PlanRequest): Observable<DraftDocument> {
    return this.#put(`/api/sites/${siteId}/plan`, request);
  }

  /** Stores a part's settings sheet, or takes it away where the request has none. */
  putSettings(siteId: number, partId: number, request: SettingsRequest): Observable<DraftDocument> {
    return this.#put(`/api/sites/${siteId}/parts/${partId}/settings`, request);
  }

  /** Notes which values stand over there by now. */
  putHanded(siteId: number, partId: number, request: HandedRequest): Observable<DraftDocument> {
    return this.#put(`/api/sites/${siteId}/parts/${partId}/handed`, request);
  }

  /** Has values sent to the maker's address. */
  sendSettings(siteId: number, partId: number, request: HandedRequest): Observable<DraftDocument> {
    return this.#post(`/api/sites/${siteId}/parts/${partId}/sends`, request);
  }

  /** What a maker offers at an address, as it answers. */
  settingsOffered(siteId: number, partId: number, address: string): Observable<{ readonly text: string }> {
    return this.#told(
      this.#http.post<{ readonly text: string }>(`/api/sites/${siteId}/parts/${partId}/offers`, { address }),
    );
  }

  /** What makes one file of a page open in a browser of one's own. */
  pageFile(): Observable<PageFileDocument> {
    return this.#get<PageFileDocument>('/api/page-file');
  }

  trials(siteId: number): Observable<TrialsDocument> {
    return this.#get<TrialsDocument>(`/api/sites/${siteId}/trials`);
  }

  keepVariation(siteId: number, request: VariationRequest): Observable<TrialsDocument> {
    return this.#told(this.#http.post<TrialsDocument>(`/api/sites/${siteId}/variations`, request));
  }

  dropVariation(siteId: number, id: number): Observable<TrialsDocument> {
    return this.#told(this.#http.delete<TrialsDocument>(`/api/sites/${siteId}/variations/${id}`));
  }

  planTrial(siteId: number, request: TrialRequest): Observable<TrialsDocument> {
    return this.#told(this.#http.post<TrialsDocument>(`/api/sites/${siteId}/trials`, request));
  }

  dropTrial(siteId: number, id: number): Observable<TrialsDocument> {
    return this.#told(this.#http.delete<TrialsDocument>(`/api/sites/${siteId}/trials/${id}`));
  }

  /** Starts, pauses or goes on with a trial. */
  putTrialState(siteId: number, id: number, request: TrialStateRequest): Observable<TrialsDocument> {
    return this.#told(this.#http.put<TrialsDocument>(`/api/sites/${siteId}/trials/${id}/state`, request));
  }

  makeTraffic(siteId: number, id: number, request: TrafficRequest): Observable<TrialsDocument> {
    return this.#told(this.#http.post<TrialsDocument>(`/api/sites/${siteId}/trials/${id}/traffic`, request));
  }

  dropTraffic(siteId: number, id: number): Observable<TrialsDocument> {
    return this.#told(this.#http.delete<TrialsDocument>(`/api/sites/${siteId}/trials/${id}/traffic`));
  }

  putCounts(siteId: number, id: number, request: CountsRequest): Observable<TrialsDocument> {
    return this.#told(this.#http.put<TrialsDocument>(`/api/sites/${siteId}/trials/${id}/counts`, request));
  }

  decideTrial(siteId: number, id: number, request: DecisionRequest): Observable<TrialsDocument> {
    return this.#told(this.#http.post<TrialsDocument>(`/api/sites/${siteId}/trials/${id}/decision`, request));
  }

  revision(siteId: number, number: number): Observable<RevisionDocument> {
    return this.#get<RevisionDocument>(`/api/sites/${siteId}/revisions/${number}`);
  }

  /** @param part id of a part, `null` for what is site-wide, `all` for the whole. */
  bringBack(siteId: number, number: number, part: number | null | 'all'): Observable<BroughtBackDocument> {
    return this.#told(this.#http.post<BroughtBackDocument>(`/api/sites/${siteId}/revisions/${number}/back`, { part }));
  }

  /** Brings a draft back that was left behind. */
  bringLeftBack(siteId: number, id: number): Observable<BroughtBackDocument> {
    return this.#http
      .post<BroughtBackDocument>(`/api/sites/${siteId}/left-drafts/${id}/back`, {})
      .pipe(catchError((error: unknown) => throwError(() => ApiProblem.from(error))));
  }

  /** What visitors are really served. */
  served(siteId: number): Observable<ServedDocument> {
    return this.#get<ServedDocument>(`/api/sites/${siteId}/served`);
  }

  /** Opens the draft's stylesheet to pages elsewhere, or ends that. */
  putLive(siteId: number, isOn: boolean): Observable<DraftDocument> {
    return this.#put(`/api/sites/${siteId}/live`, { isOn });
  }

  renameSite(siteId: number, name: string): Observable<DraftDocument> {
    return this.#put(`/api/sites/${siteId}/name`, { name });
  }

  dropSite(siteId: number): Observable<void> {
    return this.#told(this.#http.delete<void>(`/api/sites/${siteId}`));
  }

  renamePage(siteId: number, pageId: number, name: string): Observable<DraftDocument> {
    return this.#put(`/api/sites/${siteId}/pages/${pageId}/name`, { name });
  }

  dropPage(siteId: number, pageId: number): Observable<DraftDocument> {
    return this.#told(this.#http.delete<DraftDocument>(`/api/sites/${siteId}/pages/${pageId}`));
  }

  /** Makes the page that shows what no captured page does, or makes it anew. */
  makeSpecimen(siteId: number): Observable<DraftDocument> {
    return this.#post(`/api/sites/${siteId}/specimen`, {});
  }

  undo(siteId: number): Observable<DraftDocument> {
    return this.#post(`/api/sites/${siteId}/undo`, {});
  }

  redo(siteId: number): Observable<DraftDocument> {
    return this.#post(`/api/sites/${siteId}/redo`, {});
  }

  saveRevision(siteId: number, note: string): Observable<DraftDocument> {
    return this.#post(`/api/sites/${siteId}/revisions`, { note });
  }

  publish(siteId: number, revision: number): Observable<DraftDocument> {
    return this.#post(`/api/sites/${siteId}/publications`, { revision });
  }

  putRevisionProof(siteId: number, revision: number, request: RevisionProofRequest): Observable<DraftDocument> {
    return this.#put(`/api/sites/${siteId}/revisions/${revision}/proof`, request);
  }

  putLooked(siteId: number, request: LookedRequest): Observable<DraftDocument> {
    return this.#put(`/api/sites/${siteId}/looked`, request);
  }

  /** Pages as they were before they were captured again. */
  formerCaptures(siteId: number): Observable<readonly FormerCaptureDocument[]> {
    return this.#get(`/api/sites/${siteId}/former-captures`);
  }

  /** @param overrides whose drift is settled; all where it is `null`. */
  settleDrift(siteId: number, overrides: readonly string[] | null): Observable<DraftDocument> {
    return this.#post(`/api/sites/${siteId}/former-captures/settled`, { overrides });
  }

  /** Emits the draft's version whenever any tab changes it; goes on trying when the server is away. */
  draftVersions(siteId: number): Observable<number> {
    return this.#live.of('draft', siteId).pipe(map(({ version }) => version));
  }

  /** How far the sheet that is being saved is tidied. */
  tidied(siteId: number): Observable<{ readonly done: number; readonly total: number }> {
    return this.#live.of('tidied', siteId);
  }

  /** Kits of all sites, the newest first. */
  kits(): Observable<readonly KitDocument[]> {
    return this.#get<readonly KitDocument[]>('/api/kits');
  }

  keepKit(kit: Kit): Observable<readonly KitDocument[]> {
    return this.#http
      .post<readonly KitDocument[]>('/api/kits', kit)
      .pipe(catchError((error: unknown) => throwError(() => ApiProblem.from(error))));
  }

  dropKit(id: number): Observable<readonly KitDocument[]> {
    return this.#http
      .delete<readonly KitDocument[]>(`/api/kits/${id}`)
      .pipe(catchError((error: unknown) => throwError(() => ApiProblem.from(error))));
  }

  /** How the stand-in host hands the site's files on. */
  putHosting(siteId: number, hosting: HostingRequest): Observable<null> {
    return this.#http
      .put<null>(`/api/sites/${siteId}/hosting`, hosting)
      .pipe(catchError((error: unknown) => throwError(() => ApiProblem.from(error))));
  }

  /** Has the cache in front of the stand-in host forget the site. */
  purge(siteId: number): Observable<{ readonly purged: number }> {
    return this.#http
      .post<{ readonly purged: number }>(`/api/sites/${siteId}/purge`, {})
      .pipe(catchError((error: unknown) => throwError(() => ApiProblem.from(error))));
  }

  #get<T>(url: string): Observable<T> {
    return this.#told(this.#http.get<T>(url));
  }

  #post(url: string, body: object): Observable<DraftDocument> {
    return this.#told(this.#http.post<DraftDocument>(url, body));
  }

  #put(url: string, body: object): Observable<DraftDocument> {
    return this.#told(this.#http.put<DraftDocument>(url, body));
  }

  /** Failures as problems fit to show. */
  #told<T>(answer: Observable<T>): Observable<T> {
    return answer.pipe(catchError((error: unknown) => throwError(() => ApiProblem.from(error))));
  }
}
