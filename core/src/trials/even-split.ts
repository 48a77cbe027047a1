import { chiSquareAbove } from './distributions.js';

/** p-value under which a split is taken for broken: far under the usual, since it is asked every day (common practice). */
export const SPLIT_BROKEN = 0.001;

/** Chance of a split at least as uneven, if each visitor had the same chance of every variation; 1 for nobody. Source: Pearson's chi-square test of goodness of fit. */
export function evenSplit(seen: readonly number[]): number {
  const all = seen.reduce((sum, own) => sum + own, 0);
  if (all === 0 || seen.length < 2) return 1;
  const wanted = all / seen.length;
  const chi = seen.reduce((sum, own) => sum + (own - wanted) ** 2 / wanted, 0);
  return chiSquareAbove(chi, seen.length - 1);
}
