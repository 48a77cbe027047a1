import { type Message } from '@upper-veneer/core';
import { say } from '@upper-veneer/words';
import type { JobInputs, JobKind, JobResults } from './jobs.js';
import type { TellProgress } from './progress.js';

/** Why a job has no result. `busy`: more wait than are let in; `too-long`: its deadline passed; `too-large`: it needs more memory than a job has; `stopped`: nobody waits for it any more. */
export type WorkFault = 'stopped' | 'too-long' | 'too-large' | 'busy' | 'failed';

/** A job that came to no result. */
export class WorkError extends Error {
  override readonly name = 'WorkError';

  constructor(
    readonly fault: WorkFault,
    /** A text where it was not foreseen. */
    readonly told: Message | string,
  ) {
    super(say(told));
  }
}

export interface WorkOptions {
  /** Stops waiting; the job itself ends when nobody waits for it any more. */
  readonly signal?: AbortSignal;
  readonly onProgress?: TellProgress;
  /** Jobs of one lane are done one after another. */
  readonly lane?: string;
  /** Jobs of an equal key that are under way are joined: one is done, all hear of it. */
  readonly key?: string;
}

/** Work away from the thread that answers. Says nothing of where it is done. */
export interface WorkPool {
  /** @throws {WorkError} */
  run<K extends JobKind>(kind: K, input: JobInputs[K], options?: WorkOptions): Promise<JobResults[K]>;
  close(): Promise<void>;
}
