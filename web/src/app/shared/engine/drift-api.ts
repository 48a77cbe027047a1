import type { DriftPlace, DriftProgress, FormerCapture, Override } from '@upper-veneer/core';
import type { ForcedStates } from './forced-states';

/** An override that drifted, without all its places. */
export interface DriftView {
  readonly override: Override;
  /** What it does, for those who do not read CSS. */
  readonly gloss: string;
  /** What became of it. */
  readonly words: string;
  /** Whether something is missing, or it only reaches more than it did. */
  readonly isMissing: boolean;
  /** Where it shows best; `null` where nothing does. */
  readonly place: DriftPlace | null;
  /** What the place was called, and is. */
  readonly wasName: string;
  readonly isName: string;
  /** Selectors of its list that match nothing any more, beside others that do. */
  readonly isIdleInPart: boolean;
}

/** What would put an override right, tried on the site, or why nothing would. */
export type DriftProposalView =
  | {
      readonly ok: true;
      readonly put: readonly Override[];
      readonly drop: readonly string[];
      readonly reaches: number;
      readonly pages: number;
      /** The veneer with it, for a frame. */
      readonly frameCss: string;
    }
  | { readonly ok: false; readonly reason: string };

/** How a place is drawn before and after. */
export interface DriftPicture {
  readonly formerCss: string;
  readonly forcedBefore: ForcedStates;
  readonly forcedNow: ForcedStates;
}

/** What the worker answers of drift. */
export interface DriftApi {
  /** What new captures did to overrides; `null` when another was asked for meanwhile. */
  drift(
    formers: readonly FormerCapture[],
    onProgress: (progress: DriftProgress) => void,
  ): Promise<readonly DriftView[] | null>;
  driftPicture(overrideId: string): DriftPicture | null;
  /** @param keepsFirst whether the selector it has is kept beside the new one. */
  proposeDrift(overrideId: string, keepsFirst: boolean): DriftProposalView;
  /** Every proposal, each on the site as those before it leave it; `null` when another was asked for meanwhile. */
  proposeAllDrift(): Promise<{
    readonly put: readonly Override[];
    readonly drop: readonly string[];
    /** How many are put right by it. */
    readonly right: number;
  } | null>;
  /** An override without the selectors of its list that match nothing; `null` where there is nothing to drop. */
  withoutIdleSelectors(overrideId: string): Override | null;
}
