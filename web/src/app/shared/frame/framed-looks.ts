import { Injectable, signal } from '@angular/core';

/** How framed parts are to look in every picture of a page: CSS of each captured document, by its path. */
@Injectable({ providedIn: 'root' })
export class FramedLooks {
  readonly css = signal<ReadonlyMap<string, string>>(new Map());
}
