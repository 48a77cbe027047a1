import { Injectable, signal } from '@angular/core';

/** What is said aloud to those who hear the interface, in a live region that stands before it is filled. */
@Injectable({ providedIn: 'root' })
export class Announcer {
  readonly #text = signal('');
  readonly text = this.#text.asReadonly();

  /** Says a text once nothing more is said for a moment; what is said again is said anew. */
  say(text: string): void {
    clearTimeout(this.#timer);
    this.#timer = setTimeout(() => this.#text.set(this.#text() === text ? `${text}\u00a0` : text), SETTLES_MS);
  }

  #timer: ReturnType<typeof setTimeout> | undefined;
}

/** Time after which what is to be said has settled, ms. */
const SETTLES_MS = 350;
