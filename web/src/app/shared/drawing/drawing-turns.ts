import { DestroyRef, Injectable, Injector, afterNextRender, computed, inject, signal } from '@angular/core';

/** Work after which a task is left, ms: style and layout of what was drawn come on top, and 50 ms is where a task is long (Long Tasks API). */
const SLICE = 12;

/**
 * Draws what a view is made of piece by piece, in the order in which it stands there: a few small ones or a large one in a task,
 * so that pointer and keys are answered in between.
 */
@Injectable({ providedIn: 'root' })
export class DrawingTurns {
  readonly #injector = inject(Injector);
  readonly #waiting = new Set<() => void>();
  readonly #count = signal(0);
  #turn: ReturnType<typeof setTimeout> | null = null;
  /** Whether anything still waits for its turn. */
  readonly isDrawing = computed(() => this.#count() > 0);

  constructor() {
    inject(DestroyRef).onDestroy(() => this.#turn !== null && clearTimeout(this.#turn));
  }

  /**
   * Takes a place at the end of the row.
   * @param draw what makes the piece; it is called once, at its turn.
   * @returns gives the place up, if the turn has not come.
   */
  wait(draw: () => void): () => void {
    this.#waiting.add(draw);
    this.#told();
    this.#soon();
    return () => {
      if (this.#waiting.delete(draw)) this.#told();
    };
  }

  #soon(): void {
    if (this.#turn !== null || this.#waiting.size === 0) return;
    this.#turn = setTimeout(() => {
      this.#turn = null;
      // What comes next waits until this one stands on the screen.
      afterNextRender({ read: () => this.#soon() }, { injector: this.#injector });
      const begun = performance.now();
      for (const draw of this.#waiting) {
        this.#draw(draw);
        // Where nobody looks there is nothing to answer in between, and browsers let such a page wait for each task.
        if (!document.hidden && performance.now() - begun > SLICE) break;
      }
    });
  }

  #draw(draw: () => void): void {
    try {
      draw();
    } finally {
      this.#waiting.delete(draw);
      this.#told();
    }
  }

  /** Told apart from the pass over a view that asks for it, which may not change what was shown already. */
  #told(): void {
    queueMicrotask(() => this.#count.set(this.#waiting.size));
  }
}
