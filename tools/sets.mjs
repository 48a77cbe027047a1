import { readdirSync } from 'node:fs';
import { join } from 'node:path';
import { root } from './setup.mjs';

/** How long those that take longer than half a minute do, s; they start first. */
const LONG = {
  'accessible.spec.js': 80,
  'proof-over-time.spec.js': 55,
  'sheet.spec.js': 35,
  'bench.spec.js': 50,
  'bench-tasks.spec.js': 40,
  'survey.spec.js': 45,
  'proof.spec.js': 40,
  'match.spec.js': 40,
};
const node = process.execPath;
const jasmine = (...patterns) => ({ command: node, args: ['tools/run-jasmine.mjs', ...patterns] });
const karma = (project) => ({ command: 'npx', args: ['ng', 'test', project], cwd: join(root, 'web') });
const CORE_DRAWS = {
  TIDY_RUNS: '2000',
  SHEET_RUNS: '500',
  NAME_RUNS: '2000',
  ROLE_RUNS: '200',
  FUZZ_RUNS: '20000',
  MATCH_RUNS: '500',
};
const ALL_DRAWS = { PROVE_DRAWS: '400' };
const specsIn = (folder) => readdirSync(join(root, folder)).filter((file) => file.endsWith('.spec.js'));

/**
 * Every set of specs; each prints how many it ran and how many failed. `load`: 2 keeps a core busy, 1 waits half of the
 * time. `isTimed`: waits with a limit for what a screen shows, so that what failed beside others is run once more alone.
 * `isSampled`: `npm test` runs a share of its specs. `whole`: variables by which `npm run prove` has all of its draws.
 */
export function allSets() {
  return [
    {
      name: 'core against Chromium',
      ...jasmine('e2e/dist/against-chromium/*.spec.js'),
      isSampled: true,
      whole: ALL_DRAWS,
      load: 2,
      lasts: 120,
    },
    { name: 'core in Node', ...jasmine('core/dist/**/*.spec.js'), whole: CORE_DRAWS, load: 2, lasts: 55 },
    { name: 'web, and core in Chromium', ...karma('web'), load: 2, lasts: 80 },
    { name: 'server', ...jasmine('server/dist/**/*.spec.js'), needsDriver: true, load: 1, lasts: 35 },
    { name: 'command line', ...jasmine('cli/dist/**/*.spec.js'), load: 1, lasts: 60 },
    { name: 'lint', command: 'npm', args: ['run', 'lint', '--silent'], isSingle: true, load: 2, lasts: 100 },
    ...interfaceSets(),
  ].sort((a, b) => b.lasts - a.lasts);
}

/** A file of specs in the real interface has a product and a browser of its own. */
function interfaceSets() {
  return specsIn('e2e/dist/specs').map((file) => ({
    name: `interface: ${file.replace('.spec.js', '')}`,
    ...jasmine(`e2e/dist/specs/${file}`),
    needsDriver: true,
    isTimed: true,
    // It looks at every screen each time, in another window and light in each turn.
    isSampled: file !== 'accessible.spec.js',
    whole: ALL_DRAWS,
    load: 1,
    lasts: LONG[file] ?? 25,
  }));
}
