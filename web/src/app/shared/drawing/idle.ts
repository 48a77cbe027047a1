/** What never comes to rest is not waited for longer, ms. */
const PATIENCE_MS = 4000;

/** Waits until nothing else is to be done (requestIdleCallback, W3C). */
export function idle(): Promise<void> {
  return new Promise((done) => requestIdleCallback(() => done(), { timeout: PATIENCE_MS }));
}
