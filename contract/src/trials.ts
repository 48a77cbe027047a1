import type { DayCount, TrialJudgement } from '@upper-veneer/core';
import type { ConversionBody, TrialPlanBody, VariationProofBody, VariationSettingsBody } from './trial-requests.js';

/** A fork of the draft. */
export interface VariationDocument {
  readonly id: number;
  readonly name: string;
  /** Revision that holds its sheet. */
  readonly revision: number;
  readonly settings: readonly Readonly<VariationSettingsBody>[];
  /** ISO 8601, UTC. */
  readonly madeAt: string;
}

/** One of the looks of a trial. */
export interface TrialLook {
  /** `A`, `B`… */
  readonly variation: string;
  readonly name: string;
  readonly revision: number;
  readonly settings: readonly Readonly<VariationSettingsBody>[];
}

/** Where figures come from: the stand-in host, made up, or brought in from elsewhere. */
export type CountSource = 'counted' | 'made-up' | 'brought-in';

/** What was counted on a day of one conversion. */
export interface TrialCount extends DayCount {
  readonly conversion: number;
  readonly source: CountSource;
}

/** How a trial ended. */
export interface TrialDecision {
  readonly winner: string;
  readonly who: string;
  readonly why: string;
  readonly at: string;
  /** Which conversion it was decided by; the first when absent. */
  readonly conversion?: number;
  /** What was known then. */
  readonly figures: Pick<TrialJudgement, 'sums' | 'size' | 'splitP' | 'call'> & {
    readonly pairs: readonly Omit<TrialJudgement['pairs'][number], 'days'>[];
  };
}

export interface TrialDocument {
  readonly id: number;
  readonly name: string;
  readonly state: 'planned' | 'running' | 'paused' | 'decided';
  readonly looks: readonly TrialLook[];
  readonly plan: Readonly<TrialPlanBody>;
  readonly conversions: readonly Readonly<ConversionBody>[];
  readonly seen: string;
  /** What each was proved to be before it ran; empty until then. */
  readonly proofs: readonly Readonly<VariationProofBody>[];
  readonly madeAt: string;
  readonly startedAt: string | null;
  readonly decision: TrialDecision | null;
  readonly counts: readonly TrialCount[];
}

/** What a site has of trials. */
export interface TrialsDocument {
  readonly trials: readonly TrialDocument[];
  readonly variations: readonly VariationDocument[];
}
