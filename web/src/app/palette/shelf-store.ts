import { Injectable, computed, effect, inject, signal, untracked } from '@angular/core';
import { SiteStore } from '../shared/site/site-store';

/** A colour picked along the way. */
export interface ShelfColor {
  readonly css: string;
  /** Where it was picked. */
  readonly from: string;
}

const MOST = 60;
const KEY = 'uv-shelf-';

/** The shelf for colours picked along the way, one a site, kept in this browser only. */
@Injectable({ providedIn: 'root' })
export class ShelfStore {
  readonly #site = inject(SiteStore);
  readonly #siteId = computed(() => this.#site.site()?.id ?? null);
  readonly colors = signal<readonly ShelfColor[]>([]);

  constructor() {
    effect(() => {
      const siteId = this.#siteId();
      untracked(() => this.colors.set(siteId === null ? [] : read(siteId)));
    });
  }

  /** Lays a colour on the shelf; one that is there already comes to the front. */
  put(css: string, from: string): void {
    this.#keep([{ css, from }, ...this.colors().filter((color) => color.css !== css)].slice(0, MOST));
  }

  take(css: string): void {
    this.#keep(this.colors().filter((color) => color.css !== css));
  }

  clear(): void {
    this.#keep([]);
  }

  #keep(colors: readonly ShelfColor[]): void {
    this.colors.set(colors);
    const siteId = this.#siteId();
    if (siteId === null) return;
    try {
      localStorage.setItem(KEY + siteId, JSON.stringify(colors));
    } catch {
      // Storage may be full or forbidden; the shelf then lasts as long as the tab.
    }
  }
}

function read(siteId: number): readonly ShelfColor[] {
  try {
    const value: unknown = JSON.parse(localStorage.getItem(KEY + siteId) ?? '[]');
    return Array.isArray(value)
      ? value.filter(
          (entry): entry is ShelfColor =>
            typeof (entry as ShelfColor | null)?.css === 'string' && typeof (entry as ShelfColor).from === 'string',
        )
      : [];
  } catch {
    return [];
  }
}
