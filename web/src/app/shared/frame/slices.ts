/** Time a piece of work may hold the interface's thread, ms. */
const SLICE_MS = 10;

/** Gives the thread back once a slice is used up; `check` throws to stop. */
export function createSlices(check: () => void): () => Promise<void> {
  let until = performance.now() + SLICE_MS;
  return async () => {
    if (performance.now() < until) return;
    await new Promise<void>((done) => {
      const { port1, port2 } = new MessageChannel();
      port1.onmessage = () => done();
      port2.postMessage(null);
    });
    check();
    until = performance.now() + SLICE_MS;
  };
}
