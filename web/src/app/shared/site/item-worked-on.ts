import { Injectable, signal } from '@angular/core';

/** The item of the client's list that is worked on: what is changed meanwhile is made for it. */
@Injectable({ providedIn: 'root' })
export class ItemWorkedOn {
  /** Its id; `null` for none. */
  readonly id = signal<string | null>(null);
}
