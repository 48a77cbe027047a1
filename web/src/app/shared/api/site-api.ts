import { HttpClient } from '@angular/common/http';
import { Injectable, inject } from '@angular/core';
import type { ChangeRequest, DraftDocument, PaletteRequest, SiteDocument, SiteSummary } from '@upper-veneer/contract';
import { Observable, catchError, throwError } from 'rxjs';
import { ApiProblem } from './api-problem';

/** The server, by what can be asked of it. Every stream fails with an `ApiProblem`. */
@Injectable({ providedIn: 'root' })
export class SiteApi {
  readonly #http = inject(HttpClient);

  sites(): Observable<readonly SiteSummary[]> {
    return this.#get<readonly SiteSummary[]>('/api/sites');
  }

  site(id: number): Observable<SiteDocument> {
    return this.#get<SiteDocument>(`/api/sites/${id}`);
  }

  draft(siteId: number): Observable<DraftDocument> {
    return this.#get<DraftDocument>(`/api/sites/${siteId}/draft`);
  }

  change(siteId: number, request: ChangeRequest): Observable<DraftDocument> {
    return this.#post(`/api/sites/${siteId}/changes`, request);
  }

  putPalette(siteId: number, request: PaletteRequest): Observable<DraftDocument> {
    return this.#http.put<DraftDocument>(`/api/sites/${siteId}/palette`, request).pipe(catchError((error: unknown) => throwError(() => ApiProblem.from(error))));
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

  /** Emits the draft's version whenever any tab changes it; goes on trying when the server is away. */
  draftVersions(siteId: number): Observable<number> {
    return new Observable((subscriber) => {
      const source = new EventSource(`/api/sites/${siteId}/draft/events`);
      source.addEventListener('draft', (event: MessageEvent<string>) => subscriber.next(Number(event.data)));
      return () => source.close();
    });
  }

  #get<T>(url: string): Observable<T> {
    return this.#http.get<T>(url).pipe(catchError((error: unknown) => throwError(() => ApiProblem.from(error))));
  }

  #post(url: string, body: object): Observable<DraftDocument> {
    return this.#http.post<DraftDocument>(url, body).pipe(catchError((error: unknown) => throwError(() => ApiProblem.from(error))));
  }
}
