/** Time a piece of work may hold the interface's thread, ms. */
const SLICE_MS = 10;

/**
 * Gives the thread back once a slice is used up; `check` throws to stop.
 * @param slice ms; what a designer waits for takes longer ones, as each may wait for the page to be drawn.
 */
export function createSlices(check: () => void, slice = SLICE_MS): () => Promise<void> {
  let until = performance.now() + slice;
  return async () => {
    if (performance.now() < until) return;
    await new Promise<void>((done) => {
      const { port1, port2 } = new MessageChannel();
      port1.onmessage = () => done();
      port2.postMessage(null);
    });
    check();
    until = performance.now() + slice;
  };
}
