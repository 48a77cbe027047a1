import { parentPort, workerData } from 'node:worker_threads';
import { dressSite, openSite, tidySteps } from '@upper-veneer/core';
import type { TidyMessage, TidyTask } from './tidy-draft.js';

/** Least time between two words of how far it is. */
const PROGRESS_MS = 120;

const { source, overrides, palette } = workerData as TidyTask;
const tell = (message: TidyMessage): void => parentPort?.postMessage(message);
const steps = tidySteps(dressSite(openSite(source), overrides, palette));
let told = 0;
for (;;) {
  const step = steps.next();
  if (step.done) {
    tell({ css: step.value.css });
    break;
  }
  if (performance.now() - told < PROGRESS_MS) continue;
  told = performance.now();
  tell(step.value);
}
