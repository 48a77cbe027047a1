import jStat from 'jstat';

/** Quantile of the standard normal distribution. @param p 0–1, both ends left out. */
export function normalQuantile(p: number): number {
  return jStat.normal.inv(p, 0, 1);
}

/** Two-sided p-value of a standard normal score. */
export function twoSided(z: number): number {
  return 2 * jStat.normal.cdf(-Math.abs(z), 0, 1);
}

/** Share of a chi-square distribution that lies above a value. */
export function chiSquareAbove(value: number, df: number): number {
  // Far out the share under it rounds to 1; with one degree of freedom it is a normal score squared.
  return df === 1 ? twoSided(Math.sqrt(value)) : 1 - jStat.chisquare.cdf(value, df);
}
