import { sumOf, type DayCount } from './counts.js';
import { twoSided } from './distributions.js';
import { rateOf, type Counted } from './intervals.js';

/** A day of the week on which the difference is another than on the rest. */
export interface DifferingDay {
  /** 0 Monday to 6 Sunday. */
  readonly weekday: number;
  readonly difference: number;
  readonly rest: number;
  /** Adjusted for asking of seven days. */
  readonly p: number;
}

/** Visitors of a variation that a day of the week must have had to be judged (common practice). */
const LEAST_SEEN = 100;
const ALPHA = 0.05;

/**
 * Days of the week on which the difference of two variations is another than on the rest: a normal score of the difference of
 * differences, the p-values multiplied by the days asked of. The day that differs most is set aside before the others are asked, so
 * that it does not make them differ. Source: the Bonferroni inequality.
 */
export function differingDays(counts: readonly DayCount[], a: string, b: string): readonly DifferingDay[] {
  const found: DifferingDay[] = [];
  for (;;) {
    const left = counts.filter(({ day }) => found.every(({ weekday }) => weekday !== weekdayOf(day)));
    const [most] = daysAsked(left, a, b).sort((x, y) => x.p - y.p);
    if (!most || most.p >= ALPHA) return found.sort((x, y) => x.weekday - y.weekday);
    found.push(most);
  }
}

function daysAsked(counts: readonly DayCount[], a: string, b: string): DifferingDay[] {
  const asked = Array.from({ length: 7 }, (_, weekday) => weekday).flatMap((weekday) => {
    const [on, off] = [true, false].map((isOn) =>
      [a, b].map((name) =>
        sumOf(counts.filter((own) => own.variation === name && (weekdayOf(own.day) === weekday) === isOn)),
      ),
    );
    if ([...on, ...off].some(({ seen }) => seen < LEAST_SEEN)) return [];
    const [difference, rest] = [on, off].map(([first, second]) => rateOf(second) - rateOf(first));
    const variance = [...on, ...off].reduce((sum, own) => sum + errorOf(own), 0);
    return [{ weekday, difference, rest, p: twoSided((difference - rest) / Math.sqrt(variance)) }];
  });
  return asked.map((own) => ({ ...own, p: Math.min(1, own.p * asked.length) }));
}

function weekdayOf(day: string): number {
  return (new Date(`${day}T00:00:00Z`).getUTCDay() + 6) % 7;
}

/** Variance of a rate, kept from 0. */
function errorOf({ seen, pressed }: Counted): number {
  const rate = (pressed + 0.5) / (seen + 1);
  return (rate * (1 - rate)) / seen;
}
