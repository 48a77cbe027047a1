import type { Db } from './db.js';
import type { Subject } from './subject.js';

/** A colour or place that is left alone, with the reason. */
export interface ExceptionRow {
  readonly kind: 'color' | 'place';
  /** Hex of the colour, or selector of the place. */
  readonly target: string;
  readonly reason: string;
}

export type Exceptions = ReturnType<typeof createExceptions>;

/** Exceptions of a site, in the order they were made. */
export function createExceptions(db: Db) {
  const statements = {
    bySite: db.prepare<[number], ExceptionRow>(
      'SELECT kind, target, reason FROM exception WHERE site_id = ? ORDER BY position',
    ),
    drop: db.prepare<[number]>('DELETE FROM exception WHERE site_id = ?'),
    insert: db.prepare<[number, number, string, string, string]>(
      'INSERT INTO exception (site_id, position, kind, target, reason) VALUES (?, ?, ?, ?, ?)',
    ),
  };
  const bySite = (siteId: number): ExceptionRow[] => statements.bySite.all(siteId);
  const replace = (siteId: number, rows: readonly ExceptionRow[]): void => {
    statements.drop.run(siteId);
    rows.forEach(({ kind, target, reason }, position) => statements.insert.run(siteId, position, kind, target, reason));
  };
  const subject: Subject<readonly ExceptionRow[]> = { take: bySite, put: replace, isStructure: false };
  return { bySite, replace, subject };
}
