import { spoken, wordsOf, type Spoken } from '@upper-veneer/words';
import { HttpClient, HttpEventType } from '@angular/common/http';
import { Injectable, inject } from '@angular/core';
import type { ImportProgress, ImportRequest, ImportResult } from '@upper-veneer/contract';
import { Observable, catchError, concat, filter, map, of, switchMap, throwError } from 'rxjs';
import { ApiProblem } from '../../shared/api/api-problem';

/** A file to be sent, under the path it is to have. */
export interface UploadFile {
  readonly path: string;
  readonly file: Blob;
}

export type ImportEvent =
  | { readonly kind: 'sending'; readonly share: number }
  | { readonly kind: 'started'; readonly id: number }
  | { readonly kind: 'progress'; readonly progress: Spoken<ImportProgress> }
  | { readonly kind: 'end'; readonly result: ImportResult };

/** Runs imports on the server and tells how they go. */
@Injectable({ providedIn: 'root' })
export class Importer {
  readonly #http = inject(HttpClient);

  /** Emits until the import has ended; fails with an `ApiProblem`. Unsubscribing while files are sent takes it back. */
  run(wish: ImportRequest, files: readonly UploadFile[]): Observable<ImportEvent> {
    const body = new FormData();
    body.append('wish', JSON.stringify(wish));
    for (const { path, file } of files) body.append('files', file, path);
    return this.#http.post<{ id: number }>('/api/imports', body, { observe: 'events', reportProgress: true }).pipe(
      filter((event) => event.type === HttpEventType.UploadProgress || event.type === HttpEventType.Response),
      switchMap((event): Observable<ImportEvent> => {
        if (event.type === HttpEventType.UploadProgress)
          return of({ kind: 'sending', share: event.total ? event.loaded / event.total : 0 });
        const id = event.body?.id ?? 0;
        return concat(of<ImportEvent>({ kind: 'started', id }), this.#follow(id));
      }),
      catchError((error: unknown) => throwError(() => ApiProblem.from(error))),
    );
  }

  stop(id: number): Observable<void> {
    return this.#http.delete<void>(`/api/imports/${id}`).pipe(
      map(() => undefined),
      catchError(() => of(undefined)),
    );
  }

  #follow(id: number): Observable<ImportEvent> {
    return new Observable((subscriber) => {
      const source = new EventSource(`/api/imports/${id}/events`);
      let lost = 0;
      source.addEventListener('progress', (event: MessageEvent<string>) => {
        lost = 0;
        subscriber.next({ kind: 'progress', progress: spoken(JSON.parse(event.data) as ImportProgress) });
      });
      source.addEventListener('end', (event: MessageEvent<string>) => {
        source.close();
        subscriber.next({ kind: 'end', result: JSON.parse(event.data) as ImportResult });
        subscriber.complete();
      });
      source.onerror = () => {
        lost += 1;
        if (lost < 4 && source.readyState !== EventSource.CLOSED) return;
        source.close();
        subscriber.error(
          new ApiProblem(
            wordsOf('survey.server-does-not-answer'),
            wordsOf('survey.whether-import-was-finished'),
            [],
            true,
          ),
        );
      };
      return () => source.close();
    });
  }
}
