import { spawn } from 'node:child_process';
import { readdirSync } from 'node:fs';
import { join } from 'node:path';
import {
  ensureBuilt,
  ensureChromium,
  ensureDatabaseDriver,
  ensurePackages,
  fail,
  requireNode,
  root,
  say,
} from './setup.mjs';

requireNode();
const failed = (error) => fail(`The set-up failed.\n${error.message}`);
await Promise.all([ensureChromium(), ensurePackages()]).catch(failed);
// Compiled while the product is built and the first sets run, which need no database.
let hasDriver = false;
const driver = ensureDatabaseDriver().then(() => {
  hasDriver = true;
}, failed);
await ensureBuilt(['core', 'contract', 'cli', 'server', 'web', 'e2e']);

/** How long those that take longer than half a minute do, s; they start first. */
const LONG = {
  'bench.spec.js': 125,
  'bench-tasks.spec.js': 110,
  'bench-acts.spec.js': 100,
  'accessible.spec.js': 110,
  'survey.spec.js': 120,
  'bench-hard.spec.js': 100,
  'hostile.spec.js': 90,
  'bring-in.spec.js': 60,
  'bench-keyboard.spec.js': 60,
};
const node = process.execPath;
const jasmine = (...patterns) => ({ command: node, args: ['tools/run-jasmine.mjs', ...patterns] });
const karma = (project) => ({ command: 'npx', args: ['ng', 'test', project], cwd: join(root, 'web') });

/** A file of specs in the real interface has a product and a browser of its own. */
const interfaceSpecs = readdirSync(join(root, 'e2e/dist/specs'))
  .filter((file) => file.endsWith('.spec.js'))
  .map((file) => ({
    name: `interface: ${file.replace('.spec.js', '')}`,
    ...jasmine(`e2e/dist/specs/${file}`),
    needsDriver: true,
    isTimed: true,
    load: 1,
    lasts: LONG[file] ?? 30,
  }));

/**
 * Every set of specs; each prints how many it ran and how many failed. `load`: 2 keeps a core busy, 1 waits half of the
 * time. `isTimed`: waits with a limit for what a screen shows, so that what failed beside others is run once more alone.
 */
const SETS = [
  { name: 'core against Chromium', ...jasmine('e2e/dist/against-chromium/*.spec.js'), load: 2, lasts: 190 },
  { name: 'core in Node', ...jasmine('core/dist/**/*.spec.js'), load: 2, lasts: 35 },
  { name: 'web, and core in Chromium', ...karma('web'), load: 2, lasts: 80 },
  { name: 'server', ...jasmine('server/dist/**/*.spec.js'), needsDriver: true, load: 1, lasts: 35 },
  { name: 'command line', ...jasmine('cli/dist/**/*.spec.js'), load: 1, lasts: 10 },
  { name: 'lint', command: 'npm', args: ['run', 'lint', '--silent'], isSingle: true, load: 2, lasts: 35 },
  ...interfaceSpecs,
].sort((a, b) => b.lasts - a.lasts);

/** Two cores, each with what keeps it busy or two that wait. */
const MOST_LOAD = 4;
const only = process.argv.slice(2);
let passed = 0;
let failures = 0;
const waiting = SETS.filter(({ name }) => only.length === 0 || only.some((word) => name.includes(word)));
let load = 0;
const running = new Set();
const failedBesideOthers = [];
while (waiting.length > 0 || running.size > 0) {
  // What needs the driver lets others go first until it is compiled.
  const next = waiting.findIndex((set) => load + set.load <= MOST_LOAD && (!set.needsDriver || hasDriver));
  if (next < 0) {
    await Promise.race([...running, ...(hasDriver ? [] : [driver])]);
    continue;
  }
  const [set] = waiting.splice(next, 1);
  load += set.load;
  const run = runSet(set).then((result) => {
    if (set.isTimed && result.failed > 0) failedBesideOthers.push(set);
    else count(result);
    load -= set.load;
    running.delete(run);
  });
  running.add(run);
}
for (const set of failedBesideOthers) {
  say(`\n${set.name} failed beside other sets; once more, alone:`);
  count(await runSet(set));
}
say(`\n${passed} passed, ${failures} failed`);
process.exit(failures > 0 ? 1 : 0);

async function runSet(set) {
  const started = Date.now();
  const { code, output } = await collect(set);
  say(`\n== ${set.name}\n${output.trimEnd()}`);
  const counts = set.isSingle ? { run: 1, failed: code === 0 ? 0 : 1 } : readCounts(output);
  // A set that dies before it counts has failed, however little it said.
  const result = counts ?? { run: 1, failed: 1 };
  if (code !== 0 && result.failed === 0) result.failed = 1;
  say(`   ${result.run} run, ${result.failed} failed, ${Math.round((Date.now() - started) / 1000)} s`);
  return result;
}

function count(result) {
  passed += Math.max(0, result.run - result.failed);
  failures += result.failed;
}

function collect({ command, args, cwd = root }) {
  return new Promise((done) => {
    const child = spawn(command, args, {
      cwd,
      stdio: ['ignore', 'pipe', 'pipe'],
      env: { ...process.env, CHROME_BIN: process.env.CHROME_BIN ?? '/usr/bin/chromium', NG_CLI_ANALYTICS: 'false' },
    });
    let output = '';
    const take = (chunk) => {
      output += chunk;
    };
    child.stdout.on('data', take);
    child.stderr.on('data', take);
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
