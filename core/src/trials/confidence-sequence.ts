import { rateOf, type Counted, type Range } from './intervals.js';

/**
 * Range of the difference of two rates, `b − a`, that holds at every look at once, however often one looks: an asymptotic confidence
 * sequence by Robbins' normal mixture. Its width is least at the size planned for.
 * Source: Waudby-Smith, Arbour, Sinha, Kennedy, Ramdas, Time-uniform central limit theory and asymptotic confidence sequences, Annals of
 * Statistics 52 (2024), Theorem 2.2, and its appendix for ρ; the variance of a difference of means of arms drawn at random.
 * @param planned visitors that both are planned to be seen by together.
 */
export function anytimeRange(a: Counted, b: Counted, planned: number, alpha = 0.05): Range {
  const all = a.seen + b.seen;
  if (a.seen === 0 || b.seen === 0) return [-1, 1];
  const difference = rateOf(b) - rateOf(a);
  // Variance of one visitor's share in the difference.
  const variance = all * (varianceOf(a) / a.seen + varianceOf(b) / b.seen);
  const reach = Math.sqrt(variance) * boundary(all, mixtureScale(planned, alpha), alpha);
  return [Math.max(-1, difference - reach), Math.min(1, difference + reach)];
}

/** Half width of the sequence for a mean of variance 1 after `t` observations. */
export function boundary(t: number, rho: number, alpha: number): number {
  const scaled = t * rho ** 2 + 1;
  return Math.sqrt(((2 * scaled) / (t ** 2 * rho ** 2)) * Math.log(Math.sqrt(scaled) / alpha));
}

/** Scale of the mixture for which the range is near its least width after `t` observations. */
export function mixtureScale(t: number, alpha: number): number {
  const twice = -2 * Math.log(alpha);
  return Math.sqrt((twice + Math.log(twice) + 1) / Math.max(1, t));
}

/** Variance of pressing, kept from 0 while few were counted: half a visitor more either way (Jeffreys' prior). */
function varianceOf({ seen, pressed }: Counted): number {
  const rate = (pressed + 0.5) / (seen + 1);
  return rate * (1 - rate);
}
