import { type Palette, describeHome, valueWords } from '@upper-veneer/core';
import type { MatchRow } from '../shared/engine/engine-api';

/** What a row becomes, in words. */
export function becomesWords(row: MatchRow, palette: Palette): string {
  return row.becomes.kind === 'leave' ? 'left alone' : valueWords({ palette }, row.becomes.value);
}

/** Where a row can be changed, in words: the home most of it has, and that there are others. */
export function homeWords({ found: { homes } }: MatchRow): string {
  const [first] = homes;
  if (!first) return '';
  return `${describeHome(first)}${homes.length > 1 ? ` and ${homes.length - 1} more` : ''}`;
}

/** How a row stands: what is read or seen of it at its worst, against what is asked. */
export function standingOf({ worst }: MatchRow): 'holds' | 'look' | 'fails' | null {
  if (!worst) return null;
  if (worst.ratio >= worst.wanted) return 'holds';
  return worst.before < worst.wanted ? 'look' : 'fails';
}
