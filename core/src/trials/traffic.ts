import type { DayCount } from './counts.js';

/** Made-up traffic, so that a trial can be tried before it meets visitors. */
export interface TrafficWish {
  /** First day, ISO 8601, UTC. */
  readonly from: string;
  readonly days: number;
  /** Visitors a day, all variations together. */
  readonly visitors: number;
  /** Rate of each variation, 0–1, by name. */
  readonly rates: Readonly<Record<string, number>>;
  /** How much more or less comes on each day of the week, Monday first; 1 for as many. */
  readonly weekdays: readonly number[];
}

const DAY_MS = 24 * 3600 * 1000;

/** Counts of made-up visitors, each drawn by itself: a variation by even chance, then whether it is pressed. @param random 0–1, seeded for the same from run to run. */
export function madeUpTraffic(
  { from, days, visitors, rates, weekdays }: TrafficWish,
  random: () => number,
): DayCount[] {
  const names = Object.keys(rates);
  return Array.from({ length: days }, (_, i) => {
    const date = new Date(Date.parse(`${from}T00:00:00Z`) + i * DAY_MS);
    const share = weekdays[(date.getUTCDay() + 6) % 7] ?? 1;
    const counted = names.map(() => ({ seen: 0, pressed: 0 }));
    for (let visitor = 0; visitor < Math.round(visitors * share); visitor += 1) {
      const at = Math.min(names.length - 1, Math.floor(random() * names.length));
      counted[at].seen += 1;
      if (random() < rates[names[at]]) counted[at].pressed += 1;
    }
    return names.map((variation, k) => ({ day: date.toISOString().slice(0, 10), variation, ...counted[k] }));
  }).flat();
}
