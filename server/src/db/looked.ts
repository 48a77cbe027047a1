import type { LookStep } from '@upper-veneer/contract';
import type { Db } from './db.js';

/** A part on a page, or on one step of it, that somebody looked at. */
export interface LookedRow {
  readonly partId: number;
  readonly pageId: number;
  /** What was shown: the page as it is captured, or with hidden parts opened. */
  readonly step: LookStep;
  /** What it looked like, as a fingerprint. */
  readonly look: string;
  readonly at: string;
}

export type LookedTable = ReturnType<typeof createLooked>;

/** What was looked at by eye, and how it looked then. */
export function createLooked(db: Db) {
  const statements = {
    bySite: db.prepare<[number], LookedRow>(
      'SELECT part_id AS partId, page_id AS pageId, step, look, looked_at AS at FROM looked WHERE site_id = ? ORDER BY part_id, page_id, step',
    ),
    put: db.prepare<[number, number, number, string, string, string]>(
      'INSERT INTO looked (site_id, part_id, page_id, step, look, looked_at) VALUES (?, ?, ?, ?, ?, ?) ON CONFLICT (site_id, part_id, page_id, step) DO UPDATE SET look = excluded.look, looked_at = excluded.looked_at',
    ),
    drop: db.prepare<[number, number, number, string]>(
      'DELETE FROM looked WHERE site_id = ? AND part_id = ? AND page_id = ? AND step = ?',
    ),
  };
  return {
    bySite: (siteId: number) => statements.bySite.all(siteId),
    put: (siteId: number, { partId, pageId, step, look, at }: LookedRow): void => {
      statements.put.run(siteId, partId, pageId, step, look, at);
    },
    drop: (siteId: number, { partId, pageId, step }: Pick<LookedRow, 'partId' | 'pageId' | 'step'>): void => {
      statements.drop.run(siteId, partId, pageId, step);
    },
  };
}
