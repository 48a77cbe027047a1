import { message } from '@upper-veneer/words';
import type { Browser } from 'playwright-core';
import pidusage from 'pidusage';
import { BOUNDS } from './bounds.js';
import { CaptureProblem } from './capture-problem.js';

const EVERY_MS = 500;

/**
 * Watches a browser's memory and processes, by what it says it has started.
 * @param end told once a bound is passed.
 * @returns what ends the watch.
 */
export function watchBrowser(browser: Browser, end: (problem: CaptureProblem) => void): () => void {
  let isAsking = false;
  const watching = setInterval(() => {
    if (isAsking) return;
    isAsking = true;
    void problemOf(browser)
      .then((problem) => problem && end(problem))
      .catch(() => undefined)
      .finally(() => (isAsking = false));
  }, EVERY_MS);
  watching.unref();
  return () => clearInterval(watching);
}

async function problemOf(browser: Browser): Promise<CaptureProblem | null> {
  const session = await browser.newBrowserCDPSession();
  const { processInfo } = await session.send('SystemInfo.getProcessInfo');
  await session.detach();
  if (processInfo.length > BOUNDS.processes)
    return new CaptureProblem('too-large', message('capture.too-many-processes', { processes: BOUNDS.processes }));
  const used = await pidusage(processInfo.map(({ id }) => id));
  const memory = Object.values(used).reduce((sum, own) => sum + (own?.memory ?? 0), 0);
  return memory > BOUNDS.memory
    ? new CaptureProblem('too-large', message('capture.too-much-memory', { gigabytes: BOUNDS.memory / 1024 ** 3 }))
    : null;
}
