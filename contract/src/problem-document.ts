import type { Message } from '@upper-veneer/words';

/** One field and what is wrong with it. `field` is a path such as `put.0.selector`, empty for the body as a whole. */
export interface FieldError {
  readonly field: string;
  readonly reason: string;
}

/** A refused request. Source: RFC 9457, Problem Details for HTTP APIs. */
export interface ProblemDocument {
  /** Which problem it is, for what reads it: `about:blank` where the status says all, else one of ours. */
  readonly type: string;
  readonly title: string;
  readonly status: number;
  readonly detail?: string;
  readonly errors?: readonly FieldError[];
  /** Title and detail by their codes, for whoever says them in another language than the server's. */
  readonly told?: { readonly title: Message; readonly detail: Message | string };
}

/** A step of a visit that found nothing to act on: the page stands as it was before. */
export const STEP_FAILED = '/problems/step-failed';

export const PROBLEM_MEDIA_TYPE = 'application/problem+json';
