import { say, type Spoken, wordsOf } from '@upper-veneer/words';
import { isProved, proofSettingMessage, type LaidMatch, type MatchProof, type Override } from '@upper-veneer/core';
import type { MatchView } from '../shared/engine/match-api';

/** Overrides to be stored, and what is said of them. */
export interface Written {
  readonly put: readonly Override[];
  readonly drop: readonly string[];
  readonly label: string;
  readonly words: string;
  readonly refused: readonly string[];
  /** The proposal they were written for, which is laid on then. */
  readonly view: Spoken<MatchView> | null;
}

/** What was laid: `65 places by 49 overrides`. */
export function countOf({ laid, put }: Pick<Spoken<LaidMatch>, 'laid' | 'put'>): string {
  return wordsOf('match.place-places-override-overrides', { laid, put: put.length });
}

export function notWritten(refused: Spoken<LaidMatch>['refused']): string[] {
  return refused.map(({ reason, places }) => wordsOf('match.not-written-place-places', { places, reason }));
}

/** What resolving the site with the overrides on says of them. */
export function proofWords(proof: Spoken<MatchProof>, isLitTwice: boolean): string {
  const lit = isLitTwice ? wordsOf('match.both-lightings') : '';
  const places = wordsOf('match.places-resolved', {
    looked: proof.looked,
    what: say(proofSettingMessage(proof.at)),
    lit,
  });
  return isProved(proof) ? wordsOf('match.proved', { places }) : wordsOf('match.not-proved', { places });
}

/** How many places outside the scope follow properties of the theme that are overridden. */
export function followWords(view: Spoken<MatchView> | null): string {
  const outside = (view?.properties ?? []).reduce((sum, { isTaken, outside: own }) => sum + (isTaken ? own : 0), 0);
  return outside === 0 ? '' : wordsOf('match.outside-follow-as-chosen', { outside });
}

/** Findings in words, and how many more there are. */
export function told(what: string, { words, count }: Spoken<MatchProof>['missed']): string[] {
  const more = count - words.length;
  return [
    ...words.map((entry) => `${what}: ${entry}`),
    ...(more > 0 ? [wordsOf('match.more-of', { what, more })] : []),
  ];
}
