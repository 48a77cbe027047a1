import { keyOf, message } from '@upper-veneer/core';
import type { Request, Response } from 'express';
import type { ImportProgress, ImportResult } from '@upper-veneer/contract';
import { createEventStreams, type EventStreams, type StreamEvent } from '../http/event-stream.js';
import { toProblem } from '../http/problem.js';
import { CaptureProblem } from '@upper-veneer/browser';
import type { ReportProgress } from './captured.js';

type Work = (report: ReportProgress, signal: AbortSignal) => Promise<ImportResult & { readonly ok: true }>;

interface Job {
  readonly abort: AbortController;
  readonly streams: EventStreams;
  progress: ImportProgress;
  result: ImportResult | null;
}

/** How long the end of an import can still be asked for, ms. */
const KEPT_MS = 10 * 60_000;
/** Progress is told no more often than this, ms. */
const TOLD_EVERY_MS = 100;

/** Imports under way, each with its progress, told by server-sent events. */
export interface ImportJobs {
  start(work: Work): number;
  /** Whether there is such a job; `response` then gets its events. */
  follow(id: number, request: Request, response: Response): Promise<boolean>;
  stop(id: number): boolean;
  close(): void;
}

export function createImportJobs(log: (error: unknown) => void): ImportJobs {
  const jobs = new Map<number, Job>();
  const timers = new Set<NodeJS.Timeout>();
  let next = 1;
  const end = (job: Job, id: number, result: ImportResult): void => {
    job.result = result;
    job.streams.tell({ name: 'end', data: result });
    job.streams.end();
    const timer = setTimeout(() => {
      jobs.delete(id);
      timers.delete(timer);
    }, KEPT_MS);
    timer.unref();
    timers.add(timer);
  };
  return {
    start(work) {
      const id = next;
      next += 1;
      const job: Job = {
        abort: new AbortController(),
        streams: createEventStreams(),
        progress: { stage: message('stage.reading'), done: 0, total: 0 },
        result: null,
      };
      jobs.set(id, job);
      let toldAt = 0;
      const report: ReportProgress = (stage, done, total) => {
        if (job.abort.signal.aborted) throw new CaptureProblem('stopped', message('capture.import-stopped'));
        const isNews = keyOf(stage) !== keyOf(job.progress.stage) || Date.now() - toldAt >= TOLD_EVERY_MS;
        job.progress = { stage, done, total };
        if (!isNews) return;
        toldAt = Date.now();
        job.streams.tell({ name: 'progress', data: job.progress });
      };
      // Answered first, so that the progress of a short import is seen as well.
      setImmediate(() => {
        work(report, job.abort.signal).then(
          (result) => end(job, id, result),
          (error: unknown) => {
            const problem = toProblem(error);
            if (problem.status >= 500) log(error);
            end(job, id, { ok: false, problem });
          },
        );
      });
      return id;
    },
    async follow(id, request, response) {
      const job = jobs.get(id);
      if (!job) return false;
      await job.streams.open(request, response, (): StreamEvent[] => [
        { name: 'progress', data: job.progress },
        ...(job.result ? [{ name: 'end', data: job.result }] : []),
      ]);
      if (job.result) job.streams.end();
      return true;
    },
    stop(id) {
      const job = jobs.get(id);
      job?.abort.abort();
      return job !== undefined;
    },
    close() {
      for (const timer of timers) clearTimeout(timer);
      for (const job of jobs.values()) {
        job.abort.abort();
        job.streams.end();
      }
    },
  };
}
