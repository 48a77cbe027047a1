import { spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { root } from './setup.mjs';

/** In how many turns `npm test` comes by every spec of the sets that are sampled. */
export const TURNS = 24;

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

/** Tells which specs of a run are in a turn: every twenty-fourth, from another one in each. */
export function inTurn(turn) {
  const places = new Map();
  return (name) => {
    if (!places.has(name)) places.set(name, places.size);
    return (places.get(name) + turn) % TURNS === 0;
  };
}
