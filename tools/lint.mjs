import { spawnSync } from 'node:child_process';
import { inTurn, turnOf } from './sample.mjs';
import { root, say } from './setup.mjs';

/**
 * `npm run lint`: format and style of every file, what leans on what, and the words. With `--sample`, as `npm test` asks,
 * format and style of the files that the last commits changed and of a share of the others, by the turn; the rest whole.
 */
const isSampled = process.argv.includes('--sample');
/** How many commits back a file counts as changed. */
const COMMITS = 6;
const STYLED = /^(?:.*\.(?:ts|mjs)|web\/src\/.*\.html)$/;

const git = (...args) => {
  const { status, stdout } = spawnSync('git', args, { cwd: root, encoding: 'utf8' });
  return status === 0 ? stdout.split('\n').filter(Boolean) : null;
};

/** The files to look at, or `null` for all where nobody can say what is kept. A clone without its history has the share alone. */
function sample() {
  const kept = git('ls-files', '--cached', '--others', '--exclude-standard');
  if (kept === null) return null;
  const isInTurn = inTurn(turnOf());
  const latest = new Set(git('diff', '--name-only', `HEAD~${COMMITS}`));
  const gone = new Set(git('ls-files', '--deleted'));
  return kept.filter((file) => (isInTurn(file) || latest.has(file)) && !gone.has(file));
}

const files = isSampled ? sample() : null;
if (files !== null)
  say(`Format and style of ${files.length} files: those of the last ${COMMITS} commits, and a share.`);
const styled = files?.filter((file) => STYLED.test(file)) ?? ['.'];
const node = process.execPath;
const STEPS = [
  ['prettier/bin/prettier.cjs', '--check', '--log-level', 'warn', '--ignore-unknown', ...(files ?? ['.'])],
  ...(styled.length > 0 ? [['eslint/bin/eslint.js', '--max-warnings', '0', '--no-warn-ignored', ...styled]] : []),
].map(([script, ...args]) => [`node_modules/${script}`, ...args]);
for (const args of [...STEPS, ['tools/floors.mjs', '--check'], ['tools/words.mjs']])
  if (spawnSync(node, args, { cwd: root, stdio: 'inherit' }).status !== 0) process.exit(1);
