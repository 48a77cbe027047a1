import type { TrialDocument } from '@upper-veneer/contract';
import type { Range, TrialJudgement } from '@upper-veneer/core';

export const WEEKDAYS = ['Monday', 'Tuesday', 'Wednesday', 'Thursday', 'Friday', 'Saturday', 'Sunday'] as const;

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
  return `${points(low)} to ${points(high)}`;
}

/** A day as it is read: `4 May`. */
export function dayWords(day: string): string {
  return new Date(`${day}T00:00:00Z`).toLocaleDateString('en-GB', { day: 'numeric', month: 'short', timeZone: 'UTC' });
}

/** Several names in a row: `Monday and Tuesday`. */
export function listed(names: readonly string[]): string {
  return names.length < 2 ? names.join('') : `${names.slice(0, -1).join(', ')} and ${names.at(-1)}`;
}

/** Where a trial stands, in a line. */
export function standingWords({ state, startedAt, decision }: TrialDocument, size: number): string {
  const ends = `ends when ${size.toLocaleString('en')} visitors have seen each, or earlier if it is clear`;
  switch (state) {
    case 'planned':
      return `planned; ${ends}`;
    case 'running':
      return `runs since ${dayWords((startedAt ?? '').slice(0, 10))} · ${ends}`;
    case 'paused':
      return `paused; visitors get what is published`;
    case 'decided':
      return decision
        ? `decided for ${decision.winner} by ${decision.who}, ${dayWords(decision.at.slice(0, 10))}: ${decision.why}`
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
        title: `${call.variation} does better, and may be called`,
        text: 'The range holds at every look, however often one looks.',
      };
    case 'broken':
      return {
        standing: 'fails',
        title: 'The split is not even: nothing may be called',
        text: 'Visitors did not come to the variations by the same chance, so their rates cannot be held against each other. Look for what sends them elsewhere.',
      };
    case 'none':
      return {
        standing: 'holds',
        title: 'No difference worth having is left',
        text: 'The planned size is reached, and what the range leaves open is smaller than what was asked for.',
      };
    case 'open':
      return {
        standing: 'look',
        title: sums.every(({ seen }) => seen === 0) ? 'Nothing counted yet' : 'Not clear yet',
        text: 'The range still holds no difference at all. Looking at it costs nothing: it is made for being looked at.',
      };
  }
}
