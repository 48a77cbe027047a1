import type { MessagePort } from 'node:worker_threads';
import { keyOf, rewriteStates, sheetSpans, specimenPage } from '@upper-veneer/core';
import { takeArchive } from '../archive/take-archive.js';
import { bringIn } from '../import/bring-in.js';
import { framePageOf, linkVeneerIn } from './dress-page.js';
import { BEGUN, type JobInputs, type JobKind, type JobResults } from './jobs.js';
import { makeTraffic } from '../trials/make-traffic.js';
import { reanchorPages } from './reanchor-pages.js';
import { tidySheetOf } from './tidy-sheet.js';
import type { TellProgress } from './progress.js';

/** What each kind of job does. */
const DOING: {
  readonly [K in JobKind]: (input: JobInputs[K], tell: TellProgress) => JobResults[K] | Promise<JobResults[K]>;
} = {
  'bring-in': bringIn,
  'take-archive': takeArchive,
  reanchor: reanchorPages,
  specimen: specimenPage,
  'sheet-spans': (html) => sheetSpans(html),
  tidy: tidySheetOf,
  'frame-page': framePageOf,
  'frame-sheet': (css) => rewriteStates(css),
  'link-veneer': linkVeneerIn,
  traffic: makeTraffic,
  ready: () => null,
};

/** Least time between two words of how far a job is, ms. */
const PROGRESS_MS = 100;

/** A job as it is handed to a thread. */
export interface HandedJob<K extends JobKind = JobKind> {
  readonly kind: K;
  readonly input: JobInputs[K];
  readonly port: MessagePort;
}

/** Entry of the thread. */
export default async function work<K extends JobKind>({ kind, input, port }: HandedJob<K>): Promise<JobResults[K]> {
  port.postMessage(BEGUN);
  let toldAt = 0;
  let stage = '';
  const tell: TellProgress = (progress) => {
    const at = keyOf(progress.stage);
    if (at === stage && performance.now() - toldAt < PROGRESS_MS) return;
    toldAt = performance.now();
    stage = at;
    port.postMessage(progress);
  };
  try {
    return await DOING[kind](input, tell);
  } finally {
    port.close();
  }
}
