import { withSheetOrder, type SheetSpan } from '@upper-veneer/core';
import type { Db } from './db.js';

export interface PageRow {
  readonly id: number;
  readonly name: string;
  readonly path: string;
  readonly html: string;
  /** Address or file it was captured from; empty for the demo. */
  readonly source: string;
}

export interface NewPage {
  readonly name: string;
  readonly path: string;
  readonly html: string;
  readonly source?: string;
}

type StoredPage = PageRow & { readonly sheetOrder: string | null; readonly sheetSpans: string | null };

export type Pages = ReturnType<typeof createPages>;

/** Captured pages, in their order in the site. */
export function createPages(db: Db) {
  const columns = 'id, name, path, html, source, sheet_order AS sheetOrder, sheet_spans AS sheetSpans';
  const statements = {
    bySite: db.prepare<[number], StoredPage>(`SELECT ${columns} FROM page WHERE site_id = ? ORDER BY position`),
    byId: db.prepare<[number, number], StoredPage>(`SELECT ${columns} FROM page WHERE site_id = ? AND id = ?`),
    ids: db.prepare<[number], { id: number }>('SELECT id FROM page WHERE site_id = ? ORDER BY position'),
    byPath: db.prepare<[number, string], StoredPage>(`SELECT ${columns} FROM page WHERE site_id = ? AND path = ?`),
    nextPosition: db.prepare<[number], { next: number }>(
      'SELECT COALESCE(MAX(position) + 1, 0) AS next FROM page WHERE site_id = ?',
    ),
    insert: db.prepare<[number, number, string, string, string, string]>(
      'INSERT INTO page (site_id, position, name, path, html, source) VALUES (?, ?, ?, ?, ?, ?)',
    ),
    recapture: db.prepare<[string, string, number, number]>(
      'UPDATE page SET html = ?, source = ?, sheet_order = NULL, sheet_spans = NULL WHERE site_id = ? AND id = ?',
    ),
    captured: db.prepare<[number, number], Pick<StoredPage, 'html' | 'sheetSpans'>>(
      'SELECT html, sheet_spans AS sheetSpans FROM page WHERE site_id = ? AND id = ?',
    ),
    putSpans: db.prepare<[string, number, number, string]>(
      'UPDATE page SET sheet_spans = ? WHERE site_id = ? AND id = ? AND html = ?',
    ),
    rename: db.prepare<[string, number, number]>('UPDATE page SET name = ? WHERE site_id = ? AND id = ?'),
    drop: db.prepare<[number, number]>('DELETE FROM page WHERE site_id = ? AND id = ?'),
  };
  return {
    bySite: (siteId: number) => statements.bySite.all(siteId).map(arranged),
    byId: (siteId: number, id: number) => arrangedOrNull(statements.byId.get(siteId, id)),
    /** Their ids alone, without reading them. */
    ids: (siteId: number) => statements.ids.all(siteId).map(({ id }) => id),
    byPath: (siteId: number, path: string) => arrangedOrNull(statements.byPath.get(siteId, path)),
    /** Adds it last; a page of a path that is there already is captured again: its id then, else `null`. */
    put: (siteId: number, { name, path, html, source = '' }: NewPage): number | null => {
      const existing = statements.byPath.get(siteId, path);
      if (existing) statements.recapture.run(html, source, siteId, existing.id);
      else statements.insert.run(siteId, statements.nextPosition.get(siteId)?.next ?? 0, name, path, html, source);
      return existing?.id ?? null;
    },
    /** The page as it was captured, and where its sheets stand in it; `null` for those while nobody has looked. */
    captured: (siteId: number, id: number): { readonly html: string; readonly spans: SheetSpan[] | null } | null => {
      const row = statements.captured.get(siteId, id);
      return row ? { html: row.html, spans: row.sheetSpans === null ? null : spansIn(row.sheetSpans) } : null;
    },
    /** Keeps where the sheets of this very source stand; `false` when the page has another one by now. */
    putSpans: (siteId: number, id: number, html: string, spans: readonly SheetSpan[]): boolean =>
      statements.putSpans.run(JSON.stringify(spans), siteId, id, html).changes === 1,
    rename: (siteId: number, id: number, name: string): void => {
      statements.rename.run(name, siteId, id);
    },
    drop: (siteId: number, id: number): void => {
      statements.drop.run(siteId, id);
    },
  };
}

function arrangedOrNull(row: StoredPage | undefined): PageRow | null {
  return row ? arranged(row) : null;
}

/** A page with its stylesheets in the order the designer gave them. */
function arranged({ sheetOrder, sheetSpans, ...page }: StoredPage): PageRow {
  if (sheetOrder === null || sheetSpans === null) return page;
  return { ...page, html: withSheetOrder(page.html, JSON.parse(sheetOrder) as number[], spansIn(sheetSpans)) };
}

function spansIn(text: string): SheetSpan[] {
  return JSON.parse(text) as SheetSpan[];
}
