import { moment, wordsOf } from '@upper-veneer/words';
import type { TrialDocument } from '@upper-veneer/contract';
import type { Range, TrialJudgement } from '@upper-veneer/core';

export const WEEKDAYS = [
  wordsOf('trial.monday'),
  wordsOf('trial.tuesday'),
  wordsOf('trial.wednesday'),
  wordsOf('trial.thursday'),
  wordsOf('trial.friday'),
  wordsOf('trial.saturday'),
  wordsOf('trial.sunday'),
] as const;

/** A share as a percentage. */
export function percent(share: number, digits = 2): string {
  return `${(100 * share).toFixed(digits)} %`;
}

/** A difference of shares in points, signed. */
export function points(difference: number): string {
  const text = (100 * Math.abs(difference)).toFixed(2);
  return `${difference < 0 && Number(text) > 0 ? '−' : '+'}${text}`;
}

export function rangeWords([low, high]: Range): string {
  return wordsOf('trial.point-range', { points: points(low), points2: points(high) });
}

/** A day as it is read: `4 May`. */
export function dayWords(day: string): string {
  return moment(`${day}T00:00:00Z`, 'day');
}

/** Several names in a row: `Monday and Tuesday`. */
export function listed(names: readonly string[]): string {
  return names.length < 2
    ? names.join('')
    : wordsOf('trial.list-end', { names: names.slice(0, -1), at: names.at(-1) ?? '' });
}

/** Where a trial stands, in a line. */
export function standingWords({ state, startedAt, decision }: TrialDocument, size: number): string {
  const ends = wordsOf('trial.ends-when-visitors-have', { size });
  switch (state) {
    case 'planned':
      return wordsOf('trial.planned', { ends });
    case 'running':
      return wordsOf('trial.runs-since', { day: dayWords((startedAt ?? '').slice(0, 10)), ends });
    case 'paused':
      return wordsOf('trial.paused-visitors-get-what');
    case 'decided':
      return decision
        ? wordsOf('trial.decided-for', {
            winner: decision.winner,
            who: decision.who,
            day: dayWords(decision.at.slice(0, 10)),
            why: decision.why,
          })
        : 'decided';
  }
}

/** What may be said of what was counted. */
export function callWords({ call, sums }: TrialJudgement): {
  readonly standing: 'holds' | 'look' | 'fails';
  readonly title: string;
  readonly text: string;
} {
  switch (call.kind) {
    case 'better':
      return {
        standing: 'holds',
        title: wordsOf('trial.does-better-may-be', { variation: call.variation }),
        text: wordsOf('trial.range-holds-every-look'),
      };
    case 'broken':
      return {
        standing: 'fails',
        title: wordsOf('trial.split-not-even-nothing'),
        text: wordsOf('trial.visitors-did-not-come'),
      };
    case 'none':
      return {
        standing: 'holds',
        title: wordsOf('trial.no-difference-worth-having'),
        text: wordsOf('trial.planned-size-reached-what'),
      };
    case 'open':
      return {
        standing: 'look',
        title: sums.every(({ seen }) => seen === 0)
          ? wordsOf('trial.nothing-counted-yet')
          : wordsOf('trial.not-clear-yet'),
        text: wordsOf('trial.range-still-holds-no'),
      };
  }
}
