import { readdirSync } from 'node:fs';
import { join } from 'node:path';
import { TURNS } from './sample.mjs';
import { root } from './setup.mjs';

/** How long each file of specs in the real interface takes by itself, s: long ones start first, and turns are made alike by it. */
const LASTS = {
  'visit.spec.js': 144,
  'visit-hostile.spec.js': 129,
  'proof-over-time.spec.js': 105,
  'bench.spec.js': 100,
  'proof.spec.js': 95,
  'survey.spec.js': 85,
  'bench-tasks.spec.js': 70,
  'accessible.spec.js': 60,
  'match.spec.js': 60,
  'bench-visitor.spec.js': 60,
  'another-language.spec.js': 55,
  'bench-hard.spec.js': 55,
  'bench-acts.spec.js': 55,
  'palette.spec.js': 50,
  'bench-keyboard.spec.js': 45,
  'bring-in.spec.js': 40,
  'trial.spec.js': 38,
  'settings.spec.js': 35,
  'sheet.spec.js': 34,
  'host-cache.spec.js': 30,
  'sheet-edit.spec.js': 30,
  'site-file.spec.js': 28,
  'requests.spec.js': 22,
  'hostile.spec.js': 20,
  'lightings.spec.js': 18,
  'counting.spec.js': 15,
  'live.spec.js': 14,
  'page-file.spec.js': 12,
  'kits.spec.js': 12,
  'start.spec.js': 10,
  'bench-rehearsal.spec.js': 10,
  'core-doc.spec.js': 3,
};
/** With all of their draws, s. */
const WHOLE_LASTS = {
  'recolourings.spec.js': 4200,
  'wider-net.spec.js': 3700,
  'proof.spec.js': 990,
  'proof-faults.spec.js': 770,
  'painted-grounds.spec.js': 550,
  'drift.spec.js': 400,
  'bulk-readings.spec.js': 120,
  'agreement-packages.spec.js': 115,
  'delivery.spec.js': 105,
};
const UNKNOWN = 40;
/** What is run at once at most, s. */
const MOST_LASTING = 40;
/** Run in every turn: one looks at every screen, in another window and light in each; the other takes seconds. */
const EACH_TIME = ['accessible.spec.js', 'core-doc.spec.js'];
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
  TRIAL_RUNS: '4000',
  SETTINGS_RUNS: '300',
};
/** All that a person who uses the product runs. */
const PRODUCT = ['server', 'web'];
const ALL_DRAWS = { PROVE_DRAWS: '400' };
const specsIn = (folder) =>
  readdirSync(join(root, folder)).flatMap((file) => (file.endsWith('.spec.ts') ? [file.replace(/\.ts$/, '.js')] : []));

/**
 * Every set of specs; each prints how many it ran and how many failed. `load`: 2 keeps a core busy, 1 waits half of the
 * time. `needs`: what is to be built, and `driver` and `chromium`. `isTimed`: waits with a limit for what a screen shows, so that what failed beside others is run once more alone.
 * `isSampled`: `npm test` runs a share of its specs; `turn`: it runs in one turn alone, `null` in each; `part`: a part of its
 * specs. `sample`: words by which `npm test` asks for a share; `whole`: variables by which `npm run prove` has all of its draws.
 */
export function allSets({ isWhole = false } = {}) {
  return [
    ...againstChromium(isWhole),
    {
      name: 'core in Node, and words',
      needs: ['core'],
      ...jasmine('words/dist/**/*.spec.js', 'core/dist/**/*.spec.js'),
      whole: CORE_DRAWS,
      load: 2,
      lasts: 110,
    },
    {
      name: 'web, and core in Chromium',
      needs: ['contract', 'snapshot', 'chromium'],
      ...karma('web'),
      load: 2,
      lasts: 80,
    },
    ...['spec', 'worker'].map((name) => ({
      // What Karma builds is built without asking for types; the types of templates are asked for where the web is built.
      name: `types of web: ${name}`,
      needs: ['contract', 'snapshot'],
      command: node,
      args: ['node_modules/typescript-7/bin/tsc', '-p', `web/tsconfig.${name}.json`, '--noEmit'],
      isSingle: true,
      load: 2,
      lasts: 5,
    })),
    {
      name: 'server',
      ...jasmine('server/dist/**/*.spec.js'),
      needs: ['server', 'driver', 'chromium'],
      load: 1,
      lasts: 112,
    },
    {
      name: 'browser',
      needs: ['browser', 'chromium'],
      ...jasmine('browser/dist/**/*.spec.js'),
      load: 1,
      lasts: 5,
    },
    {
      name: 'command line',
      needs: ['cli', 'chromium'],
      ...jasmine('cli/dist/**/*.spec.js'),
      load: 1,
      lasts: 15,
    },
    {
      // A share of what `npm run fuzz` throws.
      name: 'fuzz',
      needs: ['server', 'driver'],
      command: node,
      args: ['tools/fuzz.mjs', '4000', '--unhurried'],
      isSingle: true,
      load: 2,
      lasts: 12,
    },
    {
      name: 'lint',
      needs: [],
      command: node,
      args: ['tools/lint.mjs'],
      sample: ['--sample'],
      isSingle: true,
      load: 2,
      lasts: 90,
    },
    ...interfaceSets(),
  ].sort((a, b) => b.lasts - a.lasts);
}

/** One set; with all of their draws, which take minutes and gigabytes, each file is a set of its own and ends with what it holds. */
function againstChromium(isWhole) {
  const folder = 'against-chromium';
  const set = (name, file, lasts) => ({
    name: `core against Chromium${name}`,
    needs: [...PRODUCT, 'e2e', 'driver', 'chromium'],
    ...jasmine(`e2e/dist/${folder}/${file}`),
    isSampled: true,
    whole: ALL_DRAWS,
    load: 2,
    lasts,
  });
  if (!isWhole) return [set('', '*.spec.js', 120)];
  return specsIn(`e2e/src/${folder}`).map((file) =>
    set(`: ${file.replace('.spec.js', '')}`, file, WHOLE_LASTS[file] ?? UNKNOWN),
  );
}

/** A file of specs in the real interface has a product and a browser of its own; one that lasts is run in parts, each in another turn. */
function interfaceSets() {
  const sets = specsIn('e2e/src/specs').flatMap((file) => {
    const lasts = LASTS[file] ?? UNKNOWN;
    const parts = EACH_TIME.includes(file) ? 1 : Math.ceil(lasts / MOST_LASTING);
    return Array.from({ length: parts }, (_, i) => ({
      name: `interface: ${file.replace('.spec.js', '')}${parts > 1 ? `, part ${i + 1} of ${parts}` : ''}`,
      ...jasmine(`e2e/dist/specs/${file}`),
      needs: [...PRODUCT, 'e2e', 'driver', 'chromium'],
      isTimed: true,
      isEachTime: EACH_TIME.includes(file),
      ...(parts > 1 ? { part: `${i + 1}/${parts}` } : {}),
      whole: ALL_DRAWS,
      load: 1,
      lasts: Math.round(lasts / parts),
    }));
  });
  const turns = inTurns(sets.filter(({ isEachTime }) => !isEachTime));
  return sets.map((set) => ({ ...set, turn: turns.get(set.name) ?? null }));
}

/** Sets by the turn they are run in, so that turns take about as long: the longest first, each to the shortest turn so far. */
function inTurns(sets) {
  const turns = Array(TURNS).fill(0);
  const sorted = [...sets].sort((a, b) => b.lasts - a.lasts || (a.name < b.name ? -1 : 1));
  return new Map(
    sorted.map(({ name, lasts }) => {
      const turn = turns.indexOf(Math.min(...turns));
      turns[turn] += lasts;
      return [name, turn];
    }),
  );
}
