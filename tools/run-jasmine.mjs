import { isAbsolute, resolve } from 'node:path';
import Jasmine from 'jasmine';

/** Runs compiled specs by glob and closes with `Executed N specs, N failed`. */
const patterns = process.argv.slice(2);
const jasmine = new Jasmine();
jasmine.exitOnCompletion = false;
jasmine.randomizeTests(false);
jasmine.jasmine.DEFAULT_TIMEOUT_INTERVAL = process.env.PROVE_DRAWS || process.env.TIDY_RUNS ? 3_600_000 : 240_000;
let passed = 0;
let failed = 0;
jasmine.clearReporters();
jasmine.addReporter({
  specDone(result) {
    if (result.status === 'passed') passed += 1;
    if (result.status !== 'failed') return;
    failed += 1;
    process.stdout.write(`\nFAILED ${result.fullName}\n`);
    for (const { message, stack } of result.failedExpectations) process.stdout.write(`  ${message}\n${(stack ?? '').split('\n').filter((line) => line.includes('dist/')).slice(0, 3).join('\n')}\n`);
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
process.stdout.write(`Executed ${passed + failed} specs, ${failed} failed\n`);
process.exit(failed > 0 ? 1 : 0);
