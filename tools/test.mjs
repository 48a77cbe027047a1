import { spawn } from 'node:child_process';
import { join } from 'node:path';
import { ensureBuilt, ensureChromium, ensureDatabaseDriver, ensurePackages, fail, requireNode, root, say } from './setup.mjs';

requireNode();
const failed = (error) => fail(`The set-up failed.\n${error.message}`);
await Promise.all([ensureChromium(), ensurePackages()]).catch(failed);
// Compiled while the product is built and the first sets run, which need no database.
const driver = ensureDatabaseDriver().catch(failed);
await ensureBuilt(['core', 'contract', 'server', 'web', 'e2e']);

const node = process.execPath;
const jasmine = (...patterns) => ({ command: node, args: ['tools/run-jasmine.mjs', ...patterns] });
const karma = (project) => ({ command: 'npx', args: ['ng', 'test', project], cwd: join(root, 'web') });

/** Every set of specs, those that take longest first; each prints how many it ran and how many failed. */
const SETS = [
  { name: 'core against Chromium', ...jasmine('e2e/dist/against-chromium/*.spec.js') },
  { name: 'end to end', ...jasmine('e2e/dist/specs/!(palette|start|core-doc|bench-hard|bring-in|survey|hostile).spec.js'), needsDriver: true },
  { name: 'short ways through', ...jasmine('e2e/dist/specs/@(palette|start|core-doc|bench-hard|bring-in|survey|hostile).spec.js'), needsDriver: true },
  { name: 'core in Chromium', ...karma('core') },
  { name: 'core in Node', ...jasmine('core/dist/**/*.spec.js') },
  { name: 'web', ...karma('web') },
  { name: 'server', ...jasmine('server/dist/**/*.spec.js'), needsDriver: true },
  { name: 'lint', command: 'npm', args: ['run', 'lint', '--silent'], isSingle: true },
];

/** Sets that run at a time: the browser waits most of the time in one while the other computes. A third makes specs wait on one another. */
const AT_A_TIME = 2;
const only = process.argv.slice(2);
let passed = 0;
let failures = 0;
const waiting = SETS.filter(({ name }) => only.length === 0 || only.some((word) => name.includes(word)));
await Promise.all(Array.from({ length: AT_A_TIME }, async () => {
  for (let set = waiting.shift(); set; set = waiting.shift()) await runSet(set);
}));
say(`\n${passed} passed, ${failures} failed`);
process.exit(failures > 0 ? 1 : 0);

async function runSet(set) {
  if (set.needsDriver) await driver;
  const started = Date.now();
  const { code, output } = await collect(set);
  say(`\n== ${set.name}\n${output.trimEnd()}`);
  const counts = set.isSingle ? { run: 1, failed: code === 0 ? 0 : 1 } : readCounts(output);
  // A set that dies before it counts has failed, however little it said.
  const result = counts ?? { run: 1, failed: 1 };
  if (code !== 0 && result.failed === 0) result.failed = 1;
  passed += Math.max(0, result.run - result.failed);
  failures += result.failed;
  say(`   ${result.run} run, ${result.failed} failed, ${Math.round((Date.now() - started) / 1000)} s`);
}

function collect({ command, args, cwd = root }) {
  return new Promise((done) => {
    const child = spawn(command, args, { cwd, stdio: ['ignore', 'pipe', 'pipe'], env: { ...process.env, CHROME_BIN: process.env.CHROME_BIN ?? '/usr/bin/chromium', NG_CLI_ANALYTICS: 'false' } });
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
  return karmaRun ? { run: Number(karmaRun[2]), failed: Number(karmaRun[3] ?? 0) + (Number(karmaRun[2]) - Number(karmaRun[1])) } : null;
}
