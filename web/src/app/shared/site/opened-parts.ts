import { Injectable, inject, signal } from '@angular/core';
import { Engine } from '../engine/engine';

/** Hidden parts that are shown opened. */
@Injectable({ providedIn: 'root' })
export class OpenedParts {
  readonly #engine = inject(Engine);
  readonly #ids = signal<readonly number[]>([]);
  readonly ids = this.#ids.asReadonly();

  /** Shows a part opened, or closed again. */
  toggle(partId: number): void {
    const before = this.ids();
    this.#show(before.includes(partId) ? before.filter((id) => id !== partId) : [...before, partId]).catch(
      (error: unknown) => this.#engine.tell(error),
    );
  }

  /** Opens them again in a site read anew; those that it has no longer are forgotten. */
  async keep(partIds: readonly number[]): Promise<void> {
    const kept = this.ids().filter((id) => partIds.includes(id));
    if (kept.length > 0) await this.#show(kept);
    else this.#ids.set([]);
  }

  async #show(ids: readonly number[]): Promise<void> {
    await this.#engine.remote.openParts(ids);
    this.#ids.set(ids);
  }
}
