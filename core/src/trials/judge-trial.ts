import { anytimeRange } from './confidence-sequence.js';
import { daysIn, sumOf, totals, type DayCount } from './counts.js';
import { differingDays, type DifferingDay } from './differing-days.js';
import { evenSplit, SPLIT_BROKEN } from './even-split.js';
import { differenceInterval, rateOf, scoreInterval, type Counted, type Range } from './intervals.js';
import { sampleSize, type SizeQuestion } from './sample-size.js';

/** What a trial is judged by. */
export interface TrialPlan extends SizeQuestion {
  /** Variations in their order; the others are held against the first. */
  readonly variations: readonly string[];
  /** Conversions that are asked about: looking for a winner by each is one more look. */
  readonly conversions: number;
}

/** One variation against the first, after each day. */
export interface DayFigure {
  readonly day: string;
  readonly difference: number;
  /** Range that holds at every look. */
  readonly anytime: Range;
  readonly seen: readonly number[];
}

/** What was counted of one variation against the first. */
export interface TrialPair {
  readonly variation: string;
  readonly difference: number;
  /** Range that holds however often one looks. */
  readonly anytime: Range;
  /** Range at the size planned for; `null` before that is reached, when it says nothing. */
  readonly fixed: Range | null;
  readonly days: readonly DayFigure[];
  /** First day from which it was clear without a break; `null` where it is not. */
  readonly clearFrom: string | null;
  readonly differing: readonly DifferingDay[];
}

export interface TrialJudgement {
  readonly sums: readonly (Counted & { readonly variation: string; readonly rate: number; readonly range: Range })[];
  readonly pairs: readonly TrialPair[];
  /** Visitors each is planned to be seen by. */
  readonly size: number;
  readonly isSizeReached: boolean;
  /** Chance of a split at least as uneven. */
  readonly splitP: number;
  readonly isSplitEven: boolean;
  /** Questions asked at once; the ranges are widened for them. */
  readonly questions: number;
  /** Chance of an error that each question is given of the whole. */
  readonly alpha: number;
  /**
   * What may be said: `broken` where the split is not even, so that nothing is; `better` with the variation that does better and may be
   * called; `none` where the size is reached without a difference worth having being left; else `open`.
   */
  readonly call:
    { readonly kind: 'broken' | 'open' | 'none' } | { readonly kind: 'better'; readonly variation: string };
}

/** Judges what was counted so far, over every day; what is called holds however often that was done. @throws RangeError for a plan of no rates. */
export function judgeTrial(counts: readonly DayCount[], plan: TrialPlan): TrialJudgement {
  const [first, ...others] = plan.variations;
  const questions = Math.max(1, others.length * plan.conversions);
  const alpha = plan.alpha / questions;
  const size = sampleSize({ ...plan, alpha });
  const sums = totals(counts, plan.variations);
  const isSizeReached = sums.every(({ seen }) => seen >= size);
  const pairs = others.map((name): TrialPair => {
    const own = counts.filter(({ variation }) => variation === first || variation === name);
    const days = daysOf(own, first, name, (a, b) => anytimeRange(a, b, 2 * size, alpha));
    const [a, b] = totals(own, [first, name]);
    return {
      variation: name,
      difference: rateOf(b) - rateOf(a),
      anytime: anytimeRange(a, b, 2 * size, alpha),
      fixed: isSizeReached ? differenceInterval(a, b, alpha) : null,
      days,
      clearFrom: clearFrom(days),
      differing: differingDays(own, first, name),
    };
  });
  const splitP = evenSplit(sums.map(({ seen }) => seen));
  const isSplitEven = splitP >= SPLIT_BROKEN;
  return {
    sums: sums.map((own, i) => ({
      ...own,
      variation: plan.variations[i],
      rate: rateOf(own),
      range: scoreInterval(own),
    })),
    pairs,
    size,
    isSizeReached,
    splitP,
    isSplitEven,
    questions,
    alpha,
    call: isSplitEven ? callOf(first, pairs, plan.smallest, isSizeReached) : { kind: 'broken' },
  };
}

/** The figures after each day, everything before it counted in. */
function daysOf(
  counts: readonly DayCount[],
  first: string,
  name: string,
  range: (a: Counted, b: Counted) => Range,
): readonly DayFigure[] {
  const byDay = new Map<string, DayCount[]>();
  for (const own of counts) byDay.set(own.day, [...(byDay.get(own.day) ?? []), own]);
  let sums: readonly Counted[] = [];
  return daysIn(counts).map((day) => {
    const today = totals(byDay.get(day) ?? [], [first, name]);
    sums = today.map((own, i) => sumOf([own, ...sums.slice(i, i + 1)]));
    const [a, b] = sums;
    return { day, difference: rateOf(b) - rateOf(a), anytime: range(a, b), seen: today.map(({ seen }) => seen) };
  });
}

function callOf(
  first: string,
  pairs: readonly TrialPair[],
  smallest: number,
  isSizeReached: boolean,
): TrialJudgement['call'] {
  const [best] = pairs.filter(({ anytime }) => anytime[0] > 0).sort((x, y) => y.difference - x.difference);
  if (best) return { kind: 'better', variation: best.variation };
  if (pairs.length > 0 && pairs.every(({ anytime }) => anytime[1] < 0)) return { kind: 'better', variation: first };
  const isNone = pairs.every(({ fixed }) => fixed !== null && Math.max(-fixed[0], fixed[1]) < Math.abs(smallest));
  return { kind: isSizeReached && isNone ? 'none' : 'open' };
}

function clearFrom(days: readonly DayFigure[]): string | null {
  let from: string | null = null;
  for (const { day, anytime } of days) {
    const isClear = anytime[0] > 0 || anytime[1] < 0;
    if (!isClear) from = null;
    else from ??= day;
  }
  return from;
}
