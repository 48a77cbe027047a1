import { normalQuantile } from './distributions.js';

/** How many did something, of how many who could. */
export interface Counted {
  readonly seen: number;
  readonly pressed: number;
}

/** From the lower to the upper end. */
export type Range = readonly [low: number, high: number];

/**
 * Score interval for one proportion, without continuity correction; the whole of 0 to 1 for nobody.
 * Source: Wilson 1927; method 3 of Newcombe, Statistics in Medicine 17 (1998) 857–872.
 */
export function scoreInterval({ seen, pressed }: Counted, alpha = 0.05): Range {
  if (seen === 0) return [0, 1];
  const z = normalQuantile(1 - alpha / 2);
  const centre = 2 * pressed + z ** 2;
  const reach = z * Math.sqrt(z ** 2 + 4 * pressed * (1 - pressed / seen));
  const whole = 2 * (seen + z ** 2);
  return [Math.max(0, (centre - reach) / whole), Math.min(1, (centre + reach) / whole)];
}

/**
 * Hybrid score interval for the difference of two independent proportions, `b − a`, at a size fixed before.
 * Source: method 10 of Newcombe, Statistics in Medicine 17 (1998) 873–890.
 */
export function differenceInterval(a: Counted, b: Counted, alpha = 0.05): Range {
  const [[lowA, highA], [lowB, highB]] = [scoreInterval(a, alpha), scoreInterval(b, alpha)];
  const [rateA, rateB] = [rateOf(a), rateOf(b)];
  const difference = rateB - rateA;
  return [difference - Math.hypot(rateB - lowB, highA - rateA), difference + Math.hypot(highB - rateB, rateA - lowA)];
}

/** Share of those who could that did; 0 for nobody. */
export function rateOf({ seen, pressed }: Counted): number {
  return seen === 0 ? 0 : pressed / seen;
}
