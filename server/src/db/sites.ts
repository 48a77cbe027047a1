import { SPECIMEN_PATH, type VeneerPlace } from '@upper-veneer/core';
import type { Db } from './db.js';

export interface SiteRow {
  readonly id: number;
  readonly name: string;
  readonly prefix: string;
  readonly veneerPlace: VeneerPlace;
  readonly version: number;
  /** Counts changes to the pages, sheets and parts themselves. */
  readonly structure: number;
}

export type Sites = ReturnType<typeof createSites>;

/** Sites by name, with the counts that tell clients what to read again. */
export function createSites(db: Db) {
  const columns =
    "id, name, prefix, CASE WHEN veneer_after IS NULL THEN veneer_place ELSE 'after:' || veneer_after END AS veneerPlace, version, structure";
  const statements = {
    all: db.prepare<[string], { id: number; name: string; pages: number }>(
      'SELECT s.id, s.name, (SELECT COUNT(*) FROM page p WHERE p.site_id = s.id AND p.path <> ?) AS pages FROM site s ORDER BY s.id',
    ),
    byId: db.prepare<[number], SiteRow>(`SELECT ${columns} FROM site WHERE id = ?`),
    byName: db.prepare<[string], SiteRow>(`SELECT ${columns} FROM site WHERE name = ?`),
    insert: db.prepare<[string, string, string]>('INSERT INTO site (name, prefix, veneer_place) VALUES (?, ?, ?)'),
    rename: db.prepare<[string, number]>('UPDATE site SET name = ? WHERE id = ?'),
    drop: db.prepare<[number]>('DELETE FROM site WHERE id = ?'),
    dropRoles: db.prepare<[number]>('DELETE FROM role WHERE site_id = ?'),
    dropInverted: db.prepare<[number]>('DELETE FROM inverted_role WHERE site_id = ?'),
    dropOverrides: db.prepare<[number]>('DELETE FROM override WHERE site_id = ?'),
    live: db.prepare<[number], { secret: string | null }>('SELECT live_secret AS secret FROM site WHERE id = ?'),
    byLive: db.prepare<[string], { id: number }>('SELECT id FROM site WHERE live_secret = ?'),
    putLive: db.prepare<[string | null, number]>('UPDATE site SET live_secret = ? WHERE id = ?'),
    countVersion: db.prepare<[number]>('UPDATE site SET version = version + 1 WHERE id = ?'),
    countStructure: db.prepare<[number]>('UPDATE site SET structure = structure + 1 WHERE id = ?'),
  };
  return {
    /** The specimen is no page of theirs. */
    all: () => statements.all.all(SPECIMEN_PATH),
    byId: (id: number) => statements.byId.get(id) ?? null,
    byName: (name: string) => statements.byName.get(name) ?? null,
    insert: ({
      name,
      prefix,
      veneerPlace,
    }: {
      readonly name: string;
      readonly prefix: string;
      readonly veneerPlace: 'head-end' | 'body-end';
    }) => Number(statements.insert.run(name, prefix, veneerPlace).lastInsertRowid),
    rename: (id: number, name: string): void => {
      statements.rename.run(name, id);
    },
    /** Removes a site with all it has; what points at its pages and swatches goes first. */
    drop: db.transaction((id: number): void => {
      statements.dropOverrides.run(id);
      statements.dropRoles.run(id);
      statements.dropInverted.run(id);
      statements.drop.run(id);
    }),
    /** What opens the draft's stylesheet to a page elsewhere; `null` while it is switched off. */
    live: (siteId: number) => statements.live.get(siteId)?.secret ?? null,
    byLive: (secret: string) => statements.byLive.get(secret)?.id ?? null,
    putLive: (siteId: number, secret: string | null): void => {
      statements.putLive.run(secret, siteId);
    },
    countVersion: (siteId: number) => statements.countVersion.run(siteId),
    countStructure: (siteId: number) => statements.countStructure.run(siteId),
  };
}
