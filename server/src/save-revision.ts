import { message, wholenessProblem, type Override } from '@upper-veneer/core';
import { basisOf } from './draft-basis.js';
import { compileFork, misreadRule } from './draft.js';
import { HttpProblem } from './http/problem.js';
import type { Store } from './store.js';
import { tidyDraft } from './work/tidy-draft.js';
import type { WorkPool } from './work/work-pool.js';

export interface SaveRevision {
  readonly store: Store;
  readonly pool: WorkPool;
  readonly siteId: number;
  readonly note: string;
  /** Those of the draft, or of a fork of it. */
  readonly overrides: readonly Override[];
  /** ISO 8601, UTC. */
  readonly at: string;
  readonly signal?: AbortSignal;
  readonly onProgress?: (done: number, total: number) => void;
}

/**
 * Saves overrides as a revision, its sheet tidied away from this thread: as they stand now, however the draft goes on meanwhile.
 * @returns its number; `null` when nobody waits for it any more or the site is gone.
 * @throws {HttpProblem} where a browser would not read the sheet as it is meant; {@link WorkError} `stopped`.
 */
export async function saveRevision(asked: SaveRevision): Promise<number | null> {
  const { store, pool, siteId, note, overrides, at, signal, onProgress } = asked;
  const plainCss = compileFork(store, siteId, overrides);
  const basis = JSON.stringify(basisOf(store, siteId));
  const misread = misreadRule(store, siteId, plainCss, overrides);
  if (misread !== null)
    throw new HttpProblem(422, 'refused.not-saved', message('refusal.misread', { rule: misread.slice(0, 120) }));
  const tidied = await tidyDraft(store, pool, siteId, { signal, onProgress, overrides });
  if (signal?.aborted || !store.sites.byId(siteId)) return null;
  const isUntidied = plainCss !== '' && (tidied === null || wholenessProblem(tidied) !== null);
  return store.revisions.save(siteId, {
    note,
    css: isUntidied ? plainCss : (tidied ?? plainCss),
    plainCss,
    overrides: JSON.stringify(overrides),
    basis,
    savedAt: at,
    untidied: isUntidied ? 1 : 0,
  });
}
