import { Injectable, computed, inject, signal } from '@angular/core';
import type { Lighting } from '@upper-veneer/core';
import { Engine } from '../engine/engine';
import type { Scheme } from '../frame/frame-scheme';
import { SiteStore } from './site-store';

/** The lighting the site is looked at in. */
@Injectable({ providedIn: 'root' })
export class LightingSwitch {
  readonly #engine = inject(Engine);
  readonly #site = inject(SiteStore);
  readonly #asked = signal<Lighting>('light');

  /** Whether there is another one to look at. */
  readonly hasSecond = computed(() => this.#site.second() !== null);
  readonly lighting = computed<Lighting>(() => (this.hasSecond() ? this.#asked() : 'light'));
  /** What a visitor prefers then. */
  readonly scheme = computed<Scheme>(() => this.schemeIn(this.lighting()));

  /** What a visitor prefers to whom the site shows itself in a lighting. */
  schemeIn(lighting: Lighting): Scheme {
    return lighting === 'inverted' && this.#site.second()?.told.kind === 'scheme' ? 'dark' : 'light';
  }

  show(lighting: Lighting): void {
    if (lighting === this.#asked()) return;
    this.#asked.set(lighting);
    this.#engine.remote
      .light(lighting)
      .then(() => this.#site.lit(lighting))
      .catch((error: unknown) => this.#engine.tell(error));
  }
}
