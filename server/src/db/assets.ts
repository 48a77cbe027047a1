import { randomUUID } from 'node:crypto';
import type { Db } from './db.js';

export interface Asset {
  readonly mediaType: string;
  readonly body: Buffer;
}

export interface NewAsset extends Asset {
  readonly path: string;
}

export type Assets = ReturnType<typeof createAssets>;

/** Files that pages link: stylesheets, pictures, fonts; by their path in the site. */
export function createAssets(db: Db) {
  const statements = {
    stylesheets: db.prepare<[number], { path: string; body: Buffer }>(
      "SELECT path, body FROM asset WHERE site_id = ? AND media_type = 'text/css' ORDER BY path",
    ),
    pictures: db.prepare<[number], { path: string; mediaType: string; bytes: number }>(
      "SELECT path, media_type AS mediaType, LENGTH(body) AS bytes FROM asset WHERE site_id = ? AND media_type LIKE 'image/%' ORDER BY path",
    ),
    documents: db.prepare<[number], { path: string }>(
      "SELECT path FROM asset WHERE site_id = ? AND media_type = 'text/html' ORDER BY path",
    ),
    byPath: db.prepare<[number, string], Asset>(
      'SELECT media_type AS mediaType, body FROM asset WHERE site_id = ? AND path = ?',
    ),
    put: db.prepare<[number, string, string, Buffer]>(
      'INSERT INTO asset (site_id, path, media_type, body) VALUES (?, ?, ?, ?) ON CONFLICT (site_id, path) DO UPDATE SET media_type = excluded.media_type, body = excluded.body',
    ),
  };
  const started = randomUUID();
  const written = new Map<number, number>();
  return {
    /** Names a site's files as they stand, as long as this server runs: another whenever one of them is written. */
    edition: (siteId: number): string => `${started}-${written.get(siteId) ?? 0}`,
    /** Text of each stylesheet by its path. */
    stylesheets: (siteId: number): Record<string, string> =>
      Object.fromEntries(statements.stylesheets.all(siteId).map(({ path, body }) => [path, body.toString('utf8')])),
    /** Paths of captured documents that are no pages: those that framed parts show. */
    documents: (siteId: number): string[] => statements.documents.all(siteId).map(({ path }) => path),
    pictures: (siteId: number) => statements.pictures.all(siteId),
    byPath: (siteId: number, path: string) => statements.byPath.get(siteId, path) ?? null,
    put: (siteId: number, { path, mediaType, body }: NewAsset): void => {
      written.set(siteId, (written.get(siteId) ?? 0) + 1);
      statements.put.run(siteId, path, mediaType, body);
    },
  };
}
