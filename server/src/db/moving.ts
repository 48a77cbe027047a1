import type { SheetSpan } from '@upper-veneer/core';
import type { Db } from './db.js';
import type { RevisionRow } from './revisions.js';

/** A page as it is moved from one database to another, order of its sheets apart. */
export interface MovedPage {
  readonly id: number;
  readonly position: number;
  readonly name: string;
  readonly path: string;
  readonly html: string;
  readonly source: string;
  /** Where its sheets stand in its source; `null` where no order was ever given to them. */
  readonly spans: readonly SheetSpan[] | null;
}

/** A revision with what its proof came to. */
export type MovedRevision = RevisionRow & { readonly fails: number | null; readonly toLookAt: number | null };

export type Moving = ReturnType<typeof createMoving>;

/** What only a site that moves with its numbers needs: rows as they are, and numbers that no row has or had. */
export function createMoving(db: Db) {
  const statements = {
    page: db.prepare<[number, number, number, string, string, string, string, string | null]>(
      'INSERT INTO page (id, site_id, position, name, path, html, source, sheet_spans) VALUES (?, ?, ?, ?, ?, ?, ?, ?)',
    ),
    revision: db.prepare<
      [number, number, string, string, string, string, string | null, string, number, number | null, number | null]
    >(
      'INSERT INTO revision (site_id, number, note, css, plain_css, overrides, basis, saved_at, untidied, fails, to_look_at) VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?)',
    ),
    revisions: db.prepare<[number], MovedRevision>(
      'SELECT number, note, css, plain_css AS plainCss, overrides, basis, saved_at AS savedAt, untidied, fails, to_look_at AS toLookAt FROM revision WHERE site_id = ? ORDER BY number',
    ),
    publications: db.prepare<[number], { readonly revision: number; readonly at: string }>(
      'SELECT revision, published_at AS at FROM publication WHERE site_id = ? ORDER BY id',
    ),
    files: db.prepare<[number], { readonly path: string; readonly mediaType: string }>(
      'SELECT path, media_type AS mediaType FROM asset WHERE site_id = ? ORDER BY path',
    ),
    last: db.prepare<[string], { readonly seq: number }>('SELECT seq FROM sqlite_sequence WHERE name = ?'),
    begin: db.prepare<[string, number]>('INSERT INTO sqlite_sequence (name, seq) VALUES (?, ?)'),
    raise: db.prepare<[number, string]>('UPDATE sqlite_sequence SET seq = ? WHERE name = ?'),
  };
  return {
    putPage: (siteId: number, { id, position, name, path, html, source, spans }: MovedPage): void => {
      statements.page.run(id, siteId, position, name, path, html, source, spans && JSON.stringify(spans));
    },
    putRevision: (siteId: number, row: MovedRevision): void => {
      const { number, note, css, plainCss, overrides, basis, savedAt, untidied, fails, toLookAt } = row;
      statements.revision.run(
        siteId,
        number,
        note,
        css,
        plainCss,
        overrides,
        basis,
        savedAt,
        untidied,
        fails,
        toLookAt,
      );
    },
    revisions: (siteId: number) => statements.revisions.all(siteId),
    publications: (siteId: number) => statements.publications.all(siteId),
    files: (siteId: number) => statements.files.all(siteId),
    /** The first of so many numbers that no row of a table has, had or will be given. Source: https://www.sqlite.org/autoinc.html */
    reserve: (table: 'page' | 'part' | 'swatch', count: number): number => {
      const last = statements.last.get(table)?.seq;
      if (last === undefined) statements.begin.run(table, count);
      else statements.raise.run(last + count, table);
      return (last ?? 0) + 1;
    },
  };
}
