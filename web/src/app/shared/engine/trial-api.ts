import type { LookDifference, Spot } from '@upper-veneer/core';

/** One look as it is served, and the parts it changes. */
export interface LookToProve {
  readonly css: string;
  /** Parts that its looks differ in; `null` stands for what is in no part. */
  readonly partIds: readonly (number | null)[];
}

/** What the proof of a look came to, on the parts it changes. */
export interface ProvedLook {
  /** What cannot be read or seen, as `title: places`. */
  readonly fails: readonly string[];
  readonly looks: number;
  /** What was not looked at, in words. */
  readonly unseen: readonly string[];
}

/** What the worker answers of trials. */
export interface TrialApi {
  /** The first element that a selector matches; `null` where there is none. */
  firstOf(selector: string): Spot | null;
  lookDifference(before: string, after: string): LookDifference;
  /** Looks at the whole site with a sheet on, in every state, width and lighting; `null` when it was stopped. */
  proveLook(
    look: LookToProve,
    onProgress: (progress: { readonly done: number; readonly of: number }) => void,
  ): Promise<ProvedLook | null>;
  stopProvingLooks(): void;
  /** A sheet as a frame takes it. */
  frameCssOf(css: string): string;
}
