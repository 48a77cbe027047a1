import type { FormerCapture, Override } from '@upper-veneer/core';
import type { Db } from './db.js';

/** Former captures kept of one page; of more the oldest goes. */
const MOST_KEPT = 5;

interface Row {
  readonly id: number;
  readonly pageId: number;
  readonly html: string;
  readonly stylesheets: string;
  readonly overrides: string;
  readonly capturedAt: string;
}

export type FormerCaptures = ReturnType<typeof createFormerCaptures>;

/** Pages as they were before they were captured again, with their sheets and the draft as it stood, until what drifted is settled. */
export function createFormerCaptures(db: Db) {
  const columns = 'id, page_id AS pageId, html, stylesheets, overrides, captured_at AS capturedAt';
  const statements = {
    bySite: db.prepare<[number], Row>(`SELECT ${columns} FROM former_capture WHERE site_id = ? ORDER BY id`),
    byId: db.prepare<[number, number], Row>(`SELECT ${columns} FROM former_capture WHERE site_id = ? AND id = ?`),
    count: db.prepare<[number], { count: number }>('SELECT COUNT(*) AS count FROM former_capture WHERE site_id = ?'),
    insert: db.prepare<[number, number, string, string, string, string]>(
      'INSERT INTO former_capture (site_id, page_id, html, stylesheets, overrides, captured_at) VALUES (?, ?, ?, ?, ?, ?)',
    ),
    trim: db.prepare<[number, number, number]>(
      'DELETE FROM former_capture WHERE page_id = ? AND id <= (SELECT id FROM former_capture WHERE page_id = ? ORDER BY id DESC LIMIT 1 OFFSET ?)',
    ),
    putOverrides: db.prepare<[string, number]>('UPDATE former_capture SET overrides = ? WHERE id = ?'),
    drop: db.prepare<[number]>('DELETE FROM former_capture WHERE id = ?'),
    dropAll: db.prepare<[number]>('DELETE FROM former_capture WHERE site_id = ?'),
  };
  return {
    bySite: (siteId: number) => statements.bySite.all(siteId).map(toCapture),
    byId: (siteId: number, id: number) => {
      const row = statements.byId.get(siteId, id);
      return row ? toCapture(row) : null;
    },
    count: (siteId: number) => statements.count.get(siteId)?.count ?? 0,
    keep: (siteId: number, { pageId, html, stylesheets, overrides }: Omit<FormerCapture, 'id'>, at: string): void => {
      statements.insert.run(siteId, pageId, html, JSON.stringify(stylesheets), JSON.stringify(overrides), at);
      statements.trim.run(pageId, pageId, MOST_KEPT);
    },
    /** What overrides came to is right as it is; a capture that no override is held against any more goes. */
    settle: db.transaction((siteId: number, ids: ReadonlySet<string>): void => {
      for (const row of statements.bySite.all(siteId)) {
        const left = (JSON.parse(row.overrides) as readonly Override[]).filter(({ id }) => !ids.has(id));
        if (left.length === 0) statements.drop.run(row.id);
        else statements.putOverrides.run(JSON.stringify(left), row.id);
      }
    }),
    settleAll: (siteId: number): void => {
      statements.dropAll.run(siteId);
    },
  };
}

function toCapture({
  id,
  pageId,
  html,
  stylesheets,
  overrides,
  capturedAt,
}: Row): FormerCapture & { readonly capturedAt: string } {
  return {
    id,
    pageId,
    html,
    capturedAt,
    stylesheets: JSON.parse(stylesheets) as FormerCapture['stylesheets'],
    overrides: JSON.parse(overrides) as FormerCapture['overrides'],
  };
}
