import { errorText } from '@upper-veneer/words';
import { message } from '@upper-veneer/core';
import { MessageChannel } from 'node:worker_threads';
import { Piscina } from 'piscina';
import { BEGUN, DEADLINES, SHORT_JOBS, type JobInputs, type JobKind, type JobResults } from './jobs.js';
import type { WorkProgress } from './progress.js';
import { WorkError, type WorkOptions, type WorkPool } from './work-pool.js';

/** Threads at most for long jobs, and for short ones beside them. */
const LONG_THREADS = 2;
const SHORT_THREADS = 1;
/** Jobs that may wait for a thread. */
const MOST_WAITING = 40;
/** Memory of one thread, MB. */
const MEMORY_MB = 1024;

interface Shared {
  readonly result: Promise<unknown>;
  readonly ending: AbortController;
  readonly listeners: Set<(progress: WorkProgress) => void>;
  waiting: number;
}

/** A pool of threads of this process. */
export function createThreadPool(): WorkPool {
  const [long, short] = [LONG_THREADS, SHORT_THREADS].map((maxThreads) => {
    const threads = new Piscina({
      filename: new URL('./worker.js', import.meta.url).href,
      minThreads: 0,
      maxThreads,
      idleTimeout: 20_000,
      maxQueue: MOST_WAITING,
      concurrentTasksPerWorker: 1,
      resourceLimits: { maxOldGenerationSizeMb: MEMORY_MB },
    });
    // A job that is stopped ends its thread, which is no fault of the pool.
    threads.on('error', () => undefined);
    return threads;
  });
  const shared = new Map<string, Shared>();
  const lanes = new Map<string, Promise<unknown>>();

  const hand = async <K extends JobKind>(
    kind: K,
    input: JobInputs[K],
    ending: AbortSignal,
    tell: (progress: WorkProgress) => void,
  ): Promise<JobResults[K]> => {
    const { port1, port2 } = new MessageChannel();
    const deadline = new AbortController();
    let timer: NodeJS.Timeout | undefined;
    port1.on('message', (message: WorkProgress | typeof BEGUN) => {
      if (message === BEGUN) timer = setTimeout(() => deadline.abort(), DEADLINES[kind]);
      else tell(message);
    });
    const signal = AbortSignal.any([ending, deadline.signal]);
    try {
      return (await (SHORT_JOBS.has(kind) ? short : long).run(
        { kind, input, port: port2 },
        { transferList: [port2], signal },
      )) as JobResults[K];
    } catch (error) {
      if (ending.aborted) throw new WorkError('stopped', message('work.stopped'));
      if (deadline.signal.aborted)
        throw new WorkError('too-long', message('work.too-long', { seconds: DEADLINES[kind] / 1000 }));
      const text = errorText(error);
      if (/queue is (?:at|full)|queue limit/i.test(text)) throw new WorkError('busy', message('work.busy'));
      if ((error as { readonly code?: string }).code === 'ERR_WORKER_OUT_OF_MEMORY')
        throw new WorkError('too-large', message('work.too-large', { megabytes: MEMORY_MB }));
      throw new WorkError('failed', text);
    } finally {
      clearTimeout(timer);
      port1.close();
    }
  };

  const inLane = <T>(lane: string | undefined, act: () => Promise<T>): Promise<T> => {
    if (lane === undefined) return act();
    const after = (lanes.get(lane) ?? Promise.resolve()).then(act, act);
    lanes.set(lane, after);
    void after
      .catch(() => undefined)
      .finally(() => {
        if (lanes.get(lane) === after) lanes.delete(lane);
      });
    return after;
  };

  const begin = <K extends JobKind>(kind: K, input: JobInputs[K], { lane, key }: WorkOptions): Shared => {
    const ending = new AbortController();
    const listeners = new Set<(progress: WorkProgress) => void>();
    const result = inLane(lane, () =>
      ending.signal.aborted
        ? Promise.reject(new WorkError('stopped', message('work.stopped')))
        : hand(kind, input, ending.signal, (progress) => listeners.forEach((listen) => listen(progress))),
    );
    const job: Shared = { result, ending, listeners, waiting: 0 };
    if (key !== undefined) {
      shared.set(key, job);
      void result.catch(() => undefined).finally(() => shared.delete(key));
    }
    return job;
  };

  return {
    async run(kind, input, options = {}) {
      const { signal, onProgress, key } = options;
      if (signal?.aborted) throw new WorkError('stopped', message('work.stopped'));
      const underWay = key === undefined ? undefined : shared.get(key);
      const job = underWay && !underWay.ending.signal.aborted ? underWay : begin(kind, input, options);
      job.waiting += 1;
      if (onProgress) job.listeners.add(onProgress);
      let give: () => void = () => undefined;
      const given = new Promise<never>((_, refuse) => {
        give = () => refuse(new WorkError('stopped', message('work.stopped')));
        signal?.addEventListener('abort', give, { once: true });
      });
      try {
        return (await Promise.race([job.result, given])) as JobResults[typeof kind];
      } finally {
        signal?.removeEventListener('abort', give);
        if (onProgress) job.listeners.delete(onProgress);
        job.waiting -= 1;
        if (job.waiting === 0) job.ending.abort();
      }
    },
    close: async () => {
      await Promise.all([long.destroy(), short.destroy()]);
    },
  };
}
