import { HttpClient } from '@angular/common/http';
import { Injectable, inject } from '@angular/core';
import type { BrowserDocument, SightDocument } from '@upper-veneer/contract';
import type { VisitStep } from '@upper-veneer/core';
import { type Observable, catchError, throwError } from 'rxjs';
import { ApiProblem } from '../../../shared/api/api-problem';

/** The browser that the product can start, and pages that are open in it. Every stream fails with an `ApiProblem`; one that is left takes the page with it. */
@Injectable({ providedIn: 'root' })
export class SightApi {
  readonly #http = inject(HttpClient);

  browser(): Observable<BrowserDocument> {
    return this.#orProblem(this.#http.get<BrowserDocument>('/api/browser'));
  }

  look(key: string, address: string, width: number): Observable<SightDocument> {
    return this.#orProblem(this.#http.put<SightDocument>(`/api/sights/${key}`, { address, width }));
  }

  act(key: string, step: VisitStep): Observable<SightDocument> {
    return this.#orProblem(this.#http.post<SightDocument>(`/api/sights/${key}/steps`, step));
  }

  /** Closes a page, also when this one is being left. */
  close(key: string): void {
    void fetch(`/api/sights/${key}`, { method: 'DELETE', keepalive: true }).catch(() => undefined);
  }

  #orProblem<T>(stream: Observable<T>): Observable<T> {
    return stream.pipe(catchError((error: unknown) => throwError(() => ApiProblem.from(error))));
  }
}
