import type { Pair } from '@upper-veneer/core';
import { wordsOf } from '@upper-veneer/words';

/** What a pair reaches: the levels of WCAG 2.2 by their names, the others in words. */
export function levelWords(level: Pair['level']): string {
  if (level === 'AA large') return wordsOf('palette.level-large');
  if (level === 'same') return wordsOf('palette.level-same');
  return level === 'holds' || level === 'fails' ? wordsOf(`standing.${level}`) : level;
}
