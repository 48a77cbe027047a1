import { contrastRatio } from '../color/contrast.js';
import type { Color } from '../values/color.js';
import type { RoleName } from '../veneer/palette.js';
import { MEANT_PAIRS, type MeantPair } from './meant-pairs.js';

/** The pair of a set of roles that comes nearest to failing. */
export interface LowestPair extends MeantPair {
  readonly ratio: number;
}

/** Of all pairs that are meant to meet, the one with the least ratio to what is asked; `null` where no two of them are there. */
export function lowestPair(colors: Readonly<Partial<Record<RoleName, Color>>>): LowestPair | null {
  let lowest: LowestPair | null = null;
  for (const pair of MEANT_PAIRS) {
    const [above, below] = [colors[pair.above], colors[pair.below]];
    if (!above || !below) continue;
    const ratio = contrastRatio(above, below);
    if (!lowest || ratio / pair.wanted < lowest.ratio / lowest.wanted) lowest = { ...pair, ratio };
  }
  return lowest;
}
