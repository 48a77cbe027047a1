import { availableParallelism } from 'node:os';
import { Worker } from 'node:worker_threads';
import { ensureBuilt, ensureDependencies, say } from './setup.mjs';

/**
 * Throws drawn and mutated inputs at everything that reads what others wrote, a million by default: `npm run fuzz [inputs] [reader]`.
 * Nothing may crash, take longer than the bound on any input, or be answered with 500. Each input follows from its reader and
 * number, so that a finding can be had again. With `--unhurried`, as `npm test` asks beside others, what hangs alone is late.
 */
const BOUND_MS = process.argv.includes('--unhurried') ? 10_000 : 250;
/** Readers with their share of the inputs. */
const READERS = {
  selectors: 0.24,
  values: 0.24,
  css: 0.12,
  html: 0.06,
  palettes: 0.1,
  settings: 0.04,
  mhtml: 0.02,
  zipNames: 0.14,
  bodies: 0.04,
};

const [inputs = '1000000', only] = process.argv.slice(2).filter((word) => !word.startsWith('--'));
await ensureDependencies();
await ensureBuilt(['core', 'contract', 'snapshot', 'browser', 'server']);
const waiting = Object.entries(READERS)
  .filter(([reader]) => !only || reader === only)
  .flatMap(([reader, share]) => {
    const count = Math.round(Number(inputs) * (only ? 1 : share));
    // In pieces, so that the threads end together.
    const pieces = Math.max(1, Math.ceil(count / 25_000));
    return Array.from({ length: pieces }, (_, i) => ({
      reader,
      from: Math.floor((count * i) / pieces),
      to: Math.floor((count * (i + 1)) / pieces),
    }));
  });
const totals = new Map();
const findings = [];
await Promise.all(
  Array.from({ length: Math.max(1, availableParallelism()) }, async () => {
    for (let piece = waiting.shift(); piece; piece = waiting.shift()) {
      const { done, worst, found } = await run(piece);
      const total = totals.get(piece.reader) ?? { done: 0, worst: 0 };
      totals.set(piece.reader, { done: total.done + done, worst: Math.max(total.worst, worst) });
      findings.push(...found.map((text) => `${piece.reader} ${text}`));
    }
  }),
);
for (const [reader, { done, worst }] of totals)
  say(`${reader}: ${done.toLocaleString('en')} inputs, the dearest ${worst.toFixed(1)} ms`);
for (const finding of findings.slice(0, 40)) say(`▲ ${finding}`);
const sum = [...totals.values()].reduce((all, { done }) => all + done, 0);
say(`${sum.toLocaleString('en')} inputs, ${findings.length} findings (a crash, a 500, or more than ${BOUND_MS} ms)`);
process.exit(findings.length > 0 ? 1 : 0);

function run(piece) {
  return new Promise((done, failed) => {
    const worker = new Worker(new URL('./fuzz-worker.mjs', import.meta.url), {
      workerData: { ...piece, boundMs: BOUND_MS },
    });
    let result = null;
    worker.on('message', (message) => {
      result = message;
    });
    worker.on('error', (error) => done({ done: 0, worst: 0, found: [`thread: ${error.stack ?? error}`] }));
    worker.on('exit', (code) => {
      if (result) done(result);
      else if (code === 0) failed(new Error('A thread ended without a word'));
      else done({ done: 0, worst: 0, found: [`the thread ended with ${code}`] });
    });
  });
}
