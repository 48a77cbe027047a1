import { spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { root } from './setup.mjs';

/** In how many turns `npm test` comes by every spec of the sets that are sampled. */
export const TURNS = 32;

/**
 * Which of the turns it is: by the last commit, so that a commit has the same sample wherever it is tested and those that
 * follow one another have others; `SPEC_TURN` sets it by hand.
 */
export function turnOf() {
  if (process.env.SPEC_TURN !== undefined) return Number(process.env.SPEC_TURN) % TURNS;
  const { stdout, status } = spawnSync('git', ['rev-parse', 'HEAD'], { cwd: root, encoding: 'utf8' });
  return (
    createHash('sha256')
      .update(status === 0 ? stdout.trim() : '')
      .digest()[0] % TURNS
  );
}

/** Numbers names in the order they first come. */
function placing() {
  const places = new Map();
  return (name) => {
    if (!places.has(name)) places.set(name, places.size);
    return places.get(name);
  };
}

/** Tells which specs of a run are in a part of several, such as `2/3`. */
export function inPart(words) {
  const [part, parts] = words.split('/').map(Number);
  const placeOf = placing();
  return (name) => placeOf(name) % parts === part - 1;
}

/** Tells which specs of a run are in a turn: one in as many as there are turns, from another one on in each. */
export function inTurn(turn) {
  const placeOf = placing();
  return (name) => (placeOf(name) + turn) % TURNS === 0;
}
