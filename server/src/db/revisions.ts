import type { Db } from './db.js';

export interface RevisionRow {
  readonly number: number;
  readonly note: string;
  /** The sheet as it is published. */
  readonly css: string;
  /** The same before it was tidied, by which a draft is told to equal it. */
  readonly plainCss: string;
  /** The overrides, as JSON. */
  readonly overrides: string;
  readonly savedAt: string;
  /** 1 where the sheet is as it was compiled, since tidying took too long or failed. */
  readonly untidied: 0 | 1;
}

export type Revisions = ReturnType<typeof createRevisions>;

/** Saved versions of the veneer, and which of them is published. */
export function createRevisions(db: Db) {
  const columns = 'number, note, css, plain_css AS plainCss, overrides, saved_at AS savedAt, untidied';
  const statements = {
    bySite: db.prepare<[number], RevisionRow>(`SELECT ${columns} FROM revision WHERE site_id = ? ORDER BY number DESC`),
    byNumber: db.prepare<[number, number], RevisionRow>(`SELECT ${columns} FROM revision WHERE site_id = ? AND number = ?`),
    insert: db.prepare<[number, number, string, string, string, string, string, number]>('INSERT INTO revision (site_id, number, note, css, plain_css, overrides, saved_at, untidied) VALUES (?, ?, ?, ?, ?, ?, ?, ?)'),
    publish: db.prepare<[number, number, string]>('INSERT INTO publication (site_id, revision, published_at) VALUES (?, ?, ?)'),
    published: db.prepare<[number], { revision: number }>('SELECT revision FROM publication WHERE site_id = ? ORDER BY id DESC LIMIT 1'),
  };
  return {
    bySite: (siteId: number) => statements.bySite.all(siteId),
    byNumber: (siteId: number, number: number) => statements.byNumber.get(siteId, number) ?? null,
    save: db.transaction((siteId: number, { note, css, plainCss, overrides, savedAt, untidied }: Omit<RevisionRow, 'number'>): number => {
      const number = (statements.bySite.all(siteId)[0]?.number ?? 0) + 1;
      statements.insert.run(siteId, number, note, css, plainCss, overrides, savedAt, untidied);
      return number;
    }),
    publish: (siteId: number, number: number, at: string) => statements.publish.run(siteId, number, at),
    published: (siteId: number) => statements.published.get(siteId)?.revision ?? null,
  };
}
