import { Injectable } from '@angular/core';
import type { PreloadingStrategy, Route } from '@angular/router';
import { type Observable, catchError, defer, of, switchMap } from 'rxjs';
import { idle } from './shared/drawing/idle';

/** What is wanted at once comes first, ms. */
const FIRST_MS = 5000;

/** Loads the views that were not opened yet one by one while nothing is done, so that each opens without its code being read then. */
@Injectable({ providedIn: 'root' })
export class PreloadViews implements PreloadingStrategy {
  #last = new Promise<unknown>((done) => setTimeout(done, FIRST_MS));

  preload(_route: Route, load: () => Observable<unknown>): Observable<unknown> {
    this.#last = this.#last.then(idle);
    const turn = this.#last;
    return defer(() => turn).pipe(
      switchMap(load),
      // It is loaded when it is opened, and what hinders that is told then.
      catchError(() => of(null)),
    );
  }
}
