import type { Message } from '@upper-veneer/words';

/** How far a job is: what it is at, and how many of how many. */
export interface WorkProgress {
  readonly stage: Message;
  readonly done: number;
  readonly total: number;
}

export type TellProgress = (progress: WorkProgress) => void;
