import { spawn } from 'node:child_process';
import { root, say } from './setup.mjs';
import { SPEC_DONE } from './spec-done.mjs';

/** Two cores, each with what keeps it busy or two that wait: with more, what waits with a limit for a screen runs out of it. */
const MOST_LOAD = 4;
/** How often it is said what is being run, ms. */
const SAID_EACH = 60_000;

/**
 * Runs sets of specs beside each other, the longest first, and closes with `N passed, N failed`.
 * @param ready settles when something that a set needs is there: a set that waits for it lets others go first.
 * @param environmentOf variables that a set runs with.
 * @returns how many failed.
 */
export async function runSets(sets, { ready, environmentOf }) {
  let [passed, failures, load] = [0, 0, 0];
  const there = new Set();
  const coming = new Map(
    [...new Set(sets.flatMap(({ needs }) => needs))].map((need) => [
      need,
      Promise.resolve(ready(need)).then(() => {
        there.add(need);
        coming.delete(need);
      }),
    ]),
  );
  const count = (result) => {
    passed += Math.max(0, result.run - result.failed);
    failures += result.failed;
  };
  const waiting = [...sets];
  const running = new Map();
  const failedBesideOthers = [];
  const begun = Date.now();
  const telling = setInterval(() => say(progressOf(running.values(), waiting.length, begun)), SAID_EACH);
  while (waiting.length > 0 || running.size > 0) {
    const next = waiting.findIndex((set) => load + set.load <= MOST_LOAD && set.needs.every((need) => there.has(need)));
    if (next < 0) {
      await Promise.race([...running.keys(), ...coming.values()]);
      continue;
    }
    const [set] = waiting.splice(next, 1);
    load += set.load;
    const progress = { name: set.name, started: Date.now(), run: 0 };
    const run = runSet(set, environmentOf(set), progress).then((result) => {
      if (set.isTimed && result.failed > 0) failedBesideOthers.push(set);
      else count(result);
      load -= set.load;
      running.delete(run);
    });
    running.set(run, progress);
  }
  clearInterval(telling);
  for (const set of failedBesideOthers) {
    say(`\n${set.name} failed beside other sets; once more, alone:`);
    count(await runSet(set, environmentOf(set)));
  }
  say(`\n${passed} passed, ${failures} failed`);
  return failures;
}

function progressOf(running, waiting, begun) {
  const names = [...running].map(
    ({ name, started, run }) => `${name} (${secondsSince(started)} s${run > 0 ? `, ${run} run` : ''})`,
  );
  return `.. ${secondsSince(begun)} s: ${names.join(', ') || 'waiting for what is built'}; ${waiting} to come`;
}

const secondsSince = (started) => Math.round((Date.now() - started) / 1000);

async function runSet(set, environment, progress = { run: 0 }) {
  const started = Date.now();
  const { code, output } = await collect(set, environment, progress);
  say(`\n== ${set.name}\n${output.trimEnd()}`);
  const counts = set.isSingle ? { run: 1, failed: code === 0 ? 0 : 1 } : readCounts(output);
  // A set that dies before it counts has failed, however little it said.
  const result = counts ?? { run: 1, failed: 1 };
  if (code !== 0 && result.failed === 0) result.failed = 1;
  say(`   ${result.run} run, ${result.failed} failed, ${secondsSince(started)} s`);
  return result;
}

function collect({ command, args, cwd = root, isTimed = false }, environment, progress) {
  return new Promise((done) => {
    // What waits for a screen goes before what only takes its time.
    const [file, ...given] = isTimed ? [command, ...args] : ['nice', '-n', '10', command, ...args];
    const child = spawn(file, given, {
      cwd,
      stdio: ['ignore', 'pipe', 'pipe'],
      env: {
        ...process.env,
        CHROME_BIN: process.env.CHROME_BIN ?? '/usr/bin/chromium',
        NG_CLI_ANALYTICS: 'false',
        SPEC_PROGRESS: '1',
        ...environment,
      },
    });
    let output = '';
    const take = (chunk) => {
      output += chunk;
    };
    child.stdout.on('data', take);
    child.stderr.on('data', (chunk) => {
      const signs = String(chunk).split(SPEC_DONE);
      progress.run += signs.length - 1;
      take(signs.join(''));
    });
    child.on('close', (code) => done({ code, output }));
  });
}

function readCounts(output) {
  const own = [...output.matchAll(/Executed (\d+) specs, (\d+) failed/g)].pop();
  if (own) return { run: Number(own[1]), failed: Number(own[2]) };
  const karmaRun = [...output.matchAll(/Executed (\d+) of (\d+)(?: \((\d+) FAILED\))?/g)].pop();
  return karmaRun
    ? { run: Number(karmaRun[2]), failed: Number(karmaRun[3] ?? 0) + (Number(karmaRun[2]) - Number(karmaRun[1])) }
    : null;
}
