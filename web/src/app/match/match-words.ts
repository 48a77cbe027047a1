import { say, type Spoken, wordsOf } from '@upper-veneer/words';
import { type Palette, valueTold } from '@upper-veneer/core';
import type { MatchRow } from '../shared/engine/match-api';

/** What a row becomes, in words. */
export function becomesWords(row: Spoken<MatchRow>, palette: Palette): string {
  return row.becomes.kind === 'leave' ? wordsOf('match.left-alone') : say(valueTold({ palette }, row.becomes.value));
}

/** How a row stands: what is read or seen of it at its worst, against what is asked. */
export function standingOf({ worst }: Spoken<MatchRow>): 'holds' | 'look' | 'fails' | null {
  if (!worst) return null;
  if (worst.ratio >= worst.wanted) return 'holds';
  return worst.before < worst.wanted ? 'look' : 'fails';
}
