/** Runs steps to their end at one go, for who needs neither progress nor a stop. */
export function toEnd<Step, Result>(steps: Generator<Step, Result>): Result {
  for (;;) {
    const step = steps.next();
    if (step.done) return step.value;
  }
}
