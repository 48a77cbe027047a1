import type { Override } from '@upper-veneer/core';
import type { Db } from './db.js';
import { distinctOverrides, withMoved } from './kept-overrides.js';

/** A draft that was left behind: steps of it were undone, and others taken in their place. */
export interface LeftDraftRow {
  readonly id: number;
  /** ISO 8601. */
  readonly leftAt: string;
  /** The last of the steps that were written over, and how many. */
  readonly label: string;
  readonly steps: number;
  /** How many overrides it has. */
  readonly count: number;
  /** The overrides, and what they were compiled with besides, as JSON. */
  readonly overrides: string;
  readonly basis: string;
}

/** Drafts kept of one site; of more the oldest goes. */
const MOST_KEPT = 20;

export type LeftDrafts = ReturnType<typeof createLeftDrafts>;

/** Drafts left behind, so that what was undone by mistake is found again. */
export function createLeftDrafts(db: Db) {
  const statements = {
    all: db.prepare<[number], Omit<LeftDraftRow, 'overrides' | 'basis'>>(
      'SELECT id, left_at AS leftAt, label, steps, count FROM left_draft WHERE site_id = ? ORDER BY id DESC',
    ),
    byId: db.prepare<[number, number], LeftDraftRow>(
      'SELECT id, left_at AS leftAt, label, steps, count, overrides, basis FROM left_draft WHERE site_id = ? AND id = ?',
    ),
    contents: db.prepare<[number], Pick<LeftDraftRow, 'id' | 'overrides'>>(
      'SELECT id, overrides FROM left_draft WHERE site_id = ?',
    ),
    putOverrides: db.prepare<[string, number]>('UPDATE left_draft SET overrides = ? WHERE id = ?'),
    insert: db.prepare<[number, string, string, number, number, string, string]>(
      'INSERT INTO left_draft (site_id, left_at, label, steps, count, overrides, basis) VALUES (?, ?, ?, ?, ?, ?, ?)',
    ),
    trim: db.prepare<[number, number, number]>(
      'DELETE FROM left_draft WHERE site_id = ? AND id <= (SELECT id FROM left_draft WHERE site_id = ? ORDER BY id DESC LIMIT 1 OFFSET ?)',
    ),
  };
  return {
    /** Without what they hold, the newest first. */
    summaries: (siteId: number) => statements.all.all(siteId),
    byId: (siteId: number, id: number) => statements.byId.get(siteId, id) ?? null,
    /** Every override that a draft left behind leads back to, each once. */
    overridesIn: (siteId: number): Override[] =>
      distinctOverrides(statements.contents.all(siteId).map(({ overrides }) => overrides)),
    /** Puts others in place of overrides that they lead back to. */
    rewrite: (siteId: number, moved: ReadonlyMap<string, Override>): void => {
      if (moved.size === 0) return;
      for (const { id, overrides } of statements.contents.all(siteId)) {
        const next = withMoved(overrides, moved);
        if (next !== overrides) statements.putOverrides.run(next, id);
      }
    },
    keep: (siteId: number, { leftAt, label, steps, count, overrides, basis }: Omit<LeftDraftRow, 'id'>): void => {
      statements.insert.run(siteId, leftAt, label, steps, count, overrides, basis);
      statements.trim.run(siteId, siteId, MOST_KEPT);
    },
  };
}
