import type { Spoken } from '@upper-veneer/words';
import { Injectable, signal } from '@angular/core';
import type { Look } from '@upper-veneer/core';

/** What outlives a change of view: where one was on the Bench, and the look copied there. */
@Injectable({ providedIn: 'root' })
export class Whereabouts {
  /** The Bench's part of the address: page, target, cell and width. */
  readonly bench = signal<Readonly<Record<string, string | number>>>({});
  /** The look copied last. */
  readonly look = signal<Spoken<Look> | null>(null);
}
