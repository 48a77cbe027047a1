import type { Db } from './db.js';

export interface LeftOutRow {
  readonly path: string;
  readonly reason: string;
}

/** Rows that are kept a site; the last import that left more out says how many in its own answer. */
const MOST_ROWS = 2000;

export type LeftOut = ReturnType<typeof createLeftOut>;

/** What an import left out, with why. */
export function createLeftOut(db: Db) {
  const statements = {
    bySite: db.prepare<[number], LeftOutRow>('SELECT path, reason FROM left_out WHERE site_id = ? ORDER BY position'),
    drop: db.prepare<[number]>('DELETE FROM left_out WHERE site_id = ?'),
    insert: db.prepare<[number, number, string, string]>(
      'INSERT INTO left_out (site_id, position, path, reason) VALUES (?, ?, ?, ?)',
    ),
  };
  return {
    bySite: (siteId: number) => statements.bySite.all(siteId),
    replace: (siteId: number, rows: readonly LeftOutRow[]): void => {
      statements.drop.run(siteId);
      rows.slice(0, MOST_ROWS).forEach(({ path, reason }, i) => statements.insert.run(siteId, i, path, reason));
    },
  };
}
