import { readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { cruise, format } from 'dependency-cruiser';
import rulesOf from 'dependency-cruiser/config-utl/extract-depcruise-options';
import typesOf from 'dependency-cruiser/config-utl/extract-ts-config';
import { fail, root, say } from './setup.mjs';

/**
 * Holds what leans on what to the rules of `.dependency-cruiser.cjs`, and draws the floors of the core into
 * docs/architecture.md from its imports; with `--check`, says whether the picture is true.
 */
const PAGE = join(root, 'docs/architecture.md');
const [begin, end] = ['<!-- floors: drawn by tools/floors.mjs -->', '<!-- end of floors -->'];
const FOLDERS = ['words', 'core', 'contract', 'snapshot', 'browser', 'server', 'web', 'cli'].map(
  (name) => `${name}/src`,
);

process.chdir(root);
const { output } = await cruise(FOLDERS, await rulesOf('./.dependency-cruiser.cjs'), null, {
  tsConfig: typesOf('tsconfig.floors.json'),
});
const told = await format(output, { outputType: 'err' });
if (told.exitCode !== 0) fail(told.output);
const floorOf = (path) => /^core\/src\/([^/]+)\//.exec(path)?.[1] ?? null;
const leans = new Map();
for (const { source, dependencies } of output.modules) {
  const from = floorOf(source);
  if (from === null) continue;
  if (!leans.has(from)) leans.set(from, new Set());
  for (const { resolved } of dependencies) {
    const to = floorOf(resolved);
    if (to !== null && to !== from) leans.get(from).add(to);
  }
}
const reaches = (from, to, seen = new Set()) =>
  [...(leans.get(from) ?? [])].some(
    (next) => next === to || (!seen.has(next) && (seen.add(next), reaches(next, to, seen))),
  );
// What is leant on by way of another is left out of the picture.
const direct = (from) =>
  [...leans.get(from)].filter((to) => ![...leans.get(from)].some((other) => other !== to && reaches(other, to))).sort();
const height = (floor) => 1 + Math.max(0, ...[...(leans.get(floor) ?? [])].map(height));
const floors = [...leans.keys()].sort((a, b) => height(b) - height(a) || (a < b ? -1 : 1));
const picture = [
  '```mermaid',
  'graph TD',
  ...floors.flatMap((from) => direct(from).map((to) => `  ${from} --> ${to}`)),
  '```',
].join('\n');
const text = readFileSync(PAGE, 'utf8');
const [before, after] = [text.slice(0, text.indexOf(begin) + begin.length), text.slice(text.indexOf(end))];
const drawn = `${before}\n${picture}\n${after}`;
if (process.argv.includes('--check')) {
  if (drawn !== text)
    fail('docs/architecture.md no longer shows how the floors of the core stand. Run: node tools/floors.mjs');
} else {
  writeFileSync(PAGE, drawn);
  say(`docs/architecture.md: ${floors.length} floors`);
}
