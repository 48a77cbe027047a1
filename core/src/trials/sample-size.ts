import { normalQuantile } from './distributions.js';

/** What a trial is planned for. */
export interface SizeQuestion {
  /** Rate that is expected of the first variation, 0–1. */
  readonly base: number;
  /** Smallest difference worth having, 0–1; either sign. */
  readonly smallest: number;
  /** Chance of calling a difference that is none. */
  readonly alpha: number;
  /** Chance of finding one that is that large. */
  readonly power: number;
}

/**
 * Visitors that each variation is to be seen by, so that a difference as large as the smallest worth having is found, looked at once
 * and at the end; with continuity correction.
 * Source: Fleiss, Levin, Paik, Statistical Methods for Rates and Proportions (2003), §4.2 (4.14) and (4.18) of the normal approximation.
 * @throws RangeError for rates that are none.
 */
export function sampleSize({ base, smallest, alpha, power }: SizeQuestion): number {
  const other = base + smallest;
  if (!(base > 0 && base < 1 && other > 0 && other < 1) || smallest === 0)
    throw new RangeError(`From ${base} by ${smallest} there is no other rate between 0 and 1`);
  const [zAlpha, zPower] = [normalQuantile(1 - alpha / 2), normalQuantile(power)];
  const mean = (base + other) / 2;
  const plain =
    (zAlpha * Math.sqrt(2 * mean * (1 - mean)) + zPower * Math.sqrt(base * (1 - base) + other * (1 - other))) ** 2 /
    smallest ** 2;
  return Math.ceil((plain / 4) * (1 + Math.sqrt(1 + 4 / (plain * Math.abs(smallest)))) ** 2);
}
