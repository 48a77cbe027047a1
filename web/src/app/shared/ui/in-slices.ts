import { DestroyRef, type Signal, computed, effect, inject, signal } from '@angular/core';

/**
 * A list that is drawn slice by slice, so that no task holds the interface up: its first items at once, more with each turn until all
 * are there. What was drawn once stays drawn when the list changes. Called where injection is possible.
 * @param slice items drawn in one turn.
 */
export function inSlices<Item>(all: () => readonly Item[], slice: number): Signal<readonly Item[]> {
  const drawn = signal(slice);
  let waiting: ReturnType<typeof setTimeout> | undefined;
  effect(() => {
    if (all().length <= drawn()) return;
    clearTimeout(waiting);
    waiting = setTimeout(() => drawn.update((count) => count + slice));
  });
  inject(DestroyRef).onDestroy(() => clearTimeout(waiting));
  return computed(() => all().slice(0, drawn()));
}
