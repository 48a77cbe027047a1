import { DOCUMENT, Injectable, computed, effect, inject, signal } from '@angular/core';

/** How the interface is lit: as the system says, or by choice. */
export type ThemeChoice = 'system' | 'light' | 'dark';

const STORAGE_KEY = 'uv-theme';
const ORDER: readonly ThemeChoice[] = ['system', 'light', 'dark'];

/** Keeps the choice of theme and puts it on the page. */
@Injectable({ providedIn: 'root' })
export class ThemeService {
  readonly #document = inject(DOCUMENT);
  readonly #systemIsDark = signal(false);
  readonly choice = signal<ThemeChoice>(this.#stored());
  readonly isDark = computed(() => (this.choice() === 'system' ? this.#systemIsDark() : this.choice() === 'dark'));

  constructor() {
    const query = this.#document.defaultView?.matchMedia('(prefers-color-scheme: dark)');
    this.#systemIsDark.set(query?.matches ?? false);
    query?.addEventListener('change', (event) => this.#systemIsDark.set(event.matches));
    effect(() => this.#document.documentElement.classList.toggle('uv-dark', this.isDark()));
  }

  /** Goes on to the next choice. */
  next(): void {
    const choice = ORDER[(ORDER.indexOf(this.choice()) + 1) % ORDER.length];
    this.choice.set(choice);
    this.#document.defaultView?.localStorage.setItem(STORAGE_KEY, choice);
  }

  #stored(): ThemeChoice {
    const text = this.#document.defaultView?.localStorage.getItem(STORAGE_KEY);
    return ORDER.find((choice) => choice === text) ?? 'system';
  }
}
