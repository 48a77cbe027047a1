import { isAbsolute, resolve } from 'node:path';
import Jasmine from 'jasmine';
import { inPart, inTurn, turnOf } from './sample.mjs';
import { SPEC_DONE } from './spec-done.mjs';

/**
 * Runs compiled specs by glob and closes with `Executed N specs, N failed`; with `SPEC_SAMPLE` those alone whose turn it is,
 * with `SPEC_PART=2/3` the second, fifth, eighth…
 */
const patterns = process.argv.slice(2);
const jasmine = new Jasmine();
jasmine.exitOnCompletion = false;
jasmine.randomizeTests(false);
jasmine.jasmine.DEFAULT_TIMEOUT_INTERVAL = process.env.PROVE_DRAWS || process.env.TIDY_RUNS ? 3_600_000 : 240_000;
// Left out since it is not their turn, which is another thing than being switched off.
const notYet = new Set();
if (process.env.SPEC_SAMPLE || process.env.SPEC_PART) {
  const isInTurn = process.env.SPEC_SAMPLE ? inTurn(turnOf()) : inPart(process.env.SPEC_PART);
  jasmine.env.configure({
    specFilter: (spec) => {
      const isNow = isInTurn(spec.getFullName());
      if (!isNow) notYet.add(spec.getFullName());
      return isNow;
    },
  });
}
let passed = 0;
let failed = 0;
const times = [];
jasmine.clearReporters();
jasmine.addReporter({
  specDone(result) {
    if (notYet.has(result.fullName)) return;
    if (process.env.SPEC_PROGRESS) process.stderr.write(SPEC_DONE);
    times.push({ name: result.fullName, ms: result.duration ?? 0 });
    if (result.status === 'passed') passed += 1;
    else failed += 1;
    // Specs left out (by `fit`, `xit` or `pending`) are told as failed: nothing is green that did not run.
    if (result.status !== 'passed' && result.status !== 'failed')
      process.stdout.write(`\nNOT RUN (${result.status}) ${result.fullName}\n`);
    if (result.status !== 'failed') return;
    process.stdout.write(`\nFAILED ${result.fullName}\n`);
    for (const { message, stack } of result.failedExpectations)
      process.stdout.write(
        `  ${message}\n${(stack ?? '')
          .split('\n')
          .filter((line) => line.includes('dist/'))
          .slice(0, 3)
          .join('\n')}\n`,
      );
  },
  suiteDone(result) {
    for (const { message } of result.failedExpectations ?? []) {
      failed += 1;
      process.stdout.write(`\nFAILED ${result.fullName}: ${message}\n`);
    }
  },
  jasmineDone(result) {
    for (const { message } of result.failedExpectations ?? []) {
      failed += 1;
      process.stdout.write(`\nFAILED ${message}\n`);
    }
  },
});
await jasmine.execute(patterns.map((pattern) => (isAbsolute(pattern) ? pattern : resolve(pattern))));
const slow = times
  .filter(({ ms }) => ms > Number(process.env.SLOW_MS ?? 10_000))
  .sort((a, b) => b.ms - a.ms)
  .slice(0, 20);
if (slow.length > 0)
  process.stdout.write(`Slowest:\n${slow.map(({ name, ms }) => `  ${Math.round(ms / 1000)} s  ${name}`).join('\n')}\n`);
if (passed + failed === 0 && notYet.size > 0) process.stdout.write('None of its specs is in this turn.\n');
else if (passed + failed === 0) {
  failed = 1;
  process.stdout.write(`\nFAILED no spec in ${patterns.join(' ')}\n`);
}
process.stdout.write(`Executed ${passed + failed} specs, ${failed} failed\n`);
process.exit(failed > 0 ? 1 : 0);
