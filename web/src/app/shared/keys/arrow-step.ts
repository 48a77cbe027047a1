/** A step through a grid. */
export interface GridStep {
  readonly rows: -1 | 0 | 1;
  readonly columns: -1 | 0 | 1;
}

const STEPS: ReadonlyMap<string, GridStep> = new Map<string, GridStep>([
  ['ArrowLeft', { rows: 0, columns: -1 }],
  ['ArrowRight', { rows: 0, columns: 1 }],
  ['ArrowUp', { rows: -1, columns: 0 }],
  ['ArrowDown', { rows: 1, columns: 0 }],
]);

/**
 * The step an arrow key takes; the event is then used up. `null` for other keys, and where a modifier gives the key another meaning.
 * Source: ARIA Authoring Practices, grid pattern.
 */
export function arrowStep(event: KeyboardEvent): GridStep | null {
  const step = event.altKey || event.ctrlKey || event.metaKey ? undefined : STEPS.get(event.key);
  if (!step) return null;
  event.preventDefault();
  return step;
}

/** The place in a list of so many that is nearest to the one asked for. */
export function within(count: number, asked: number): number {
  return Math.min(count - 1, Math.max(0, asked));
}
