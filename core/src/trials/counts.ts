import type { Counted } from './intervals.js';

/** What was counted of one variation on one day. */
export interface DayCount extends Counted {
  /** ISO 8601 date, UTC. */
  readonly day: string;
  readonly variation: string;
}

/** Sums of each variation, in the order given. */
export function totals(counts: readonly DayCount[], variations: readonly string[]): readonly Counted[] {
  return variations.map((name) => sumOf(counts.filter(({ variation }) => variation === name)));
}

export function sumOf(counts: readonly Counted[]): Counted {
  return counts.reduce((sum, own) => ({ seen: sum.seen + own.seen, pressed: sum.pressed + own.pressed }), {
    seen: 0,
    pressed: 0,
  });
}

/** Days that anything was counted on, the first first. */
export function daysIn(counts: readonly DayCount[]): readonly string[] {
  return [...new Set(counts.map(({ day }) => day))].sort();
}
