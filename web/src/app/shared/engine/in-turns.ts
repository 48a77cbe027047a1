/** Runs a generator to its end, other questions between; `null` when it is no longer wanted. */
export async function inTurns<Step, Result>(
  steps: Generator<Step, Result>,
  isWanted: () => boolean,
  onProgress: (step: Step) => void = () => undefined,
): Promise<Result | null> {
  let shown = performance.now();
  for (;;) {
    const step = steps.next();
    if (step.done) return step.value;
    if (performance.now() - shown < 60) continue;
    shown = performance.now();
    onProgress(step.value);
    await new Promise((done) => setTimeout(done));
    if (!isWanted()) return null;
  }
}
