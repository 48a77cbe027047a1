import type { Override } from '@upper-veneer/core';
import type { Db } from './db.js';
import { distinctOverrides, withMoved } from './kept-overrides.js';

export interface RevisionRow {
  readonly number: number;
  readonly note: string;
  /** The sheet as it is published. */
  readonly css: string;
  /** The same before it was tidied, by which a draft is told to equal it. */
  readonly plainCss: string;
  /** The overrides, as JSON. */
  readonly overrides: string;
  /** What it was compiled from beside them, as JSON; `null` for a revision saved before that was kept. */
  readonly basis: string | null;
  readonly savedAt: string;
  /** 1 where the sheet is as it was compiled, since tidying took too long or failed. */
  readonly untidied: 0 | 1;
}

/** A revision in a list. */
export interface RevisionSummaryRow extends Pick<RevisionRow, 'number' | 'note' | 'savedAt' | 'untidied'> {
  readonly rules: number;
  /** What its proof came to; `null` where it was not proved. */
  readonly fails: number | null;
  readonly toLookAt: number | null;
}

export type Revisions = ReturnType<typeof createRevisions>;

/** Saved versions of the veneer, and which of them is published. */
export function createRevisions(db: Db) {
  const columns = 'number, note, css, plain_css AS plainCss, overrides, basis, saved_at AS savedAt, untidied';
  const statements = {
    byNumber: db.prepare<[number, number], RevisionRow>(
      `SELECT ${columns} FROM revision WHERE site_id = ? AND number = ?`,
    ),
    summaries: db.prepare<[number], RevisionSummaryRow>(
      "SELECT number, note, saved_at AS savedAt, LENGTH(css) - LENGTH(REPLACE(css, '{', '')) AS rules, untidied, fails, to_look_at AS toLookAt FROM revision WHERE site_id = ? ORDER BY number DESC",
    ),
    equalTo: db.prepare<[number, string], { number: number }>(
      'SELECT number FROM revision WHERE site_id = ? AND plain_css = ? ORDER BY number DESC LIMIT 1',
    ),
    newest: db.prepare<[number], { number: number | null }>(
      'SELECT MAX(number) AS number FROM revision WHERE site_id = ?',
    ),
    insert: db.prepare<[number, number, string, string, string, string, string | null, string, number]>(
      'INSERT INTO revision (site_id, number, note, css, plain_css, overrides, basis, saved_at, untidied) VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?)',
    ),
    sheets: db.prepare<[number], Pick<RevisionRow, 'number' | 'css'>>(
      'SELECT number, css FROM revision WHERE site_id = ?',
    ),
    contents: db.prepare<[number], Pick<RevisionRow, 'number' | 'overrides'>>(
      'SELECT number, overrides FROM revision WHERE site_id = ?',
    ),
    putOverrides: db.prepare<[string, number, number]>(
      'UPDATE revision SET overrides = ? WHERE site_id = ? AND number = ?',
    ),
    prove: db.prepare<[number, number, number, number]>(
      'UPDATE revision SET fails = ?, to_look_at = ? WHERE site_id = ? AND number = ?',
    ),
    publish: db.prepare<[number, number, string]>(
      'INSERT INTO publication (site_id, revision, published_at) VALUES (?, ?, ?)',
    ),
    published: db.prepare<[number], { revision: number }>(
      'SELECT revision FROM publication WHERE site_id = ? ORDER BY id DESC LIMIT 1',
    ),
  };
  return {
    /** All of them without their sheets, the newest first. */
    summaries: (siteId: number) => statements.summaries.all(siteId),
    /** The newest that a sheet equals; `null` for none. */
    equalTo: (siteId: number, plainCss: string) => statements.equalTo.get(siteId, plainCss)?.number ?? null,
    /** Number of the last one; 0 for none. */
    newest: (siteId: number) => statements.newest.get(siteId)?.number ?? 0,
    byNumber: (siteId: number, number: number) => statements.byNumber.get(siteId, number) ?? null,
    save: db.transaction(
      (
        siteId: number,
        { note, css, plainCss, overrides, basis, savedAt, untidied }: Omit<RevisionRow, 'number'>,
      ): number => {
        const number = (statements.newest.get(siteId)?.number ?? 0) + 1;
        statements.insert.run(siteId, number, note, css, plainCss, overrides, basis, savedAt, untidied);
        return number;
      },
    ),
    /** Their published sheets alone. */
    sheets: (siteId: number) => statements.sheets.all(siteId),
    /** Every override that a revision leads back to, each once. */
    overridesIn: (siteId: number): Override[] =>
      distinctOverrides(statements.contents.all(siteId).map(({ overrides }) => overrides)),
    /** Puts others in place of overrides that revisions lead back to; the sheets stay as they were saved. */
    rewrite: (siteId: number, moved: ReadonlyMap<string, Override>): void => {
      if (moved.size === 0) return;
      for (const { number, overrides } of statements.contents.all(siteId)) {
        const next = withMoved(overrides, moved);
        if (next !== overrides) statements.putOverrides.run(next, siteId, number);
      }
    },
    /** Keeps what a revision's proof came to. */
    prove: (
      siteId: number,
      number: number,
      { fails, toLookAt }: { readonly fails: number; readonly toLookAt: number },
    ) => statements.prove.run(fails, toLookAt, siteId, number),
    publish: (siteId: number, number: number, at: string) => statements.publish.run(siteId, number, at),
    published: (siteId: number) => statements.published.get(siteId)?.revision ?? null,
  };
}
