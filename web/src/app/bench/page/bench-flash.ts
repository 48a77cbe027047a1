import { Injectable, inject, signal } from '@angular/core';
import type { Flash } from '@upper-veneer/core';
import type { FlashQuestion } from '../../shared/engine/engine-api';
import { Engine } from '../../shared/engine/engine';

/** A candidate shown in a loud test colour while a button is held; never part of the veneer. */
@Injectable()
export class BenchFlash {
  readonly #engine = inject(Engine);
  /** Counts presses, so that an answer that comes after the release is dropped. */
  #press = 0;
  /** What is laid on the frame now; `null` when nothing is held. */
  readonly shown = signal<Flash | null>(null);

  async hold(question: FlashQuestion): Promise<void> {
    const press = (this.#press += 1);
    const flash = await this.#engine.remote.flash(question);
    if (press === this.#press) this.shown.set(flash);
  }

  release(): void {
    this.#press += 1;
    this.shown.set(null);
  }
}
