import { withSheetOrder, type VeneerPlace } from '@upper-veneer/core';
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

export interface Asset {
  readonly mediaType: string;
  readonly body: Buffer;
}

export interface NewAsset extends Asset {
  readonly path: string;
}

export interface LeftOutRow {
  readonly path: string;
  readonly reason: string;
}

/** A site to be stored, as the seed or an import brings it. */
export interface NewSite {
  readonly name: string;
  readonly prefix: string;
  readonly veneerPlace: 'head-end' | 'body-end';
  readonly pages: readonly NewPage[];
  readonly assets: readonly NewAsset[];
  readonly parts: readonly { readonly name: string; readonly kind: string; readonly selector: string; readonly openers?: readonly object[] }[];
  readonly swatches: readonly { readonly name: string; readonly css: string }[];
  readonly roles: readonly { readonly role: string; readonly swatch: string; readonly shade: number }[];
  readonly leftOut?: readonly LeftOutRow[];
}

export type Sites = ReturnType<typeof createSites>;

type StoredPage = PageRow & { readonly sheetOrder: string | null };

/** Sites with what was captured of them. */
export function createSites(db: Db) {
  const columns = "id, name, prefix, CASE WHEN veneer_after IS NULL THEN veneer_place ELSE 'after:' || veneer_after END AS veneerPlace, version, structure";
  const pageColumns = 'id, name, path, html, source, sheet_order AS sheetOrder';
  const statements = {
    all: db.prepare<[], { id: number; name: string; pages: number }>('SELECT s.id, s.name, (SELECT COUNT(*) FROM page p WHERE p.site_id = s.id) AS pages FROM site s ORDER BY s.id'),
    byId: db.prepare<[number], SiteRow>(`SELECT ${columns} FROM site WHERE id = ?`),
    byName: db.prepare<[string], SiteRow>(`SELECT ${columns} FROM site WHERE name = ?`),
    rename: db.prepare<[string, number]>('UPDATE site SET name = ? WHERE id = ?'),
    drop: db.prepare<[number]>('DELETE FROM site WHERE id = ?'),
    dropRoles: db.prepare<[number]>('DELETE FROM role WHERE site_id = ?'),
    dropOverrides: db.prepare<[number]>('DELETE FROM override WHERE site_id = ?'),
    pages: db.prepare<[number], StoredPage>(`SELECT ${pageColumns} FROM page WHERE site_id = ? ORDER BY position`),
    page: db.prepare<[number, number], StoredPage>(`SELECT ${pageColumns} FROM page WHERE site_id = ? AND id = ?`),
    pageByPath: db.prepare<[number, string], StoredPage>(`SELECT ${pageColumns} FROM page WHERE site_id = ? AND path = ?`),
    renamePage: db.prepare<[string, number, number]>('UPDATE page SET name = ? WHERE site_id = ? AND id = ?'),
    dropPage: db.prepare<[number, number]>('DELETE FROM page WHERE site_id = ? AND id = ?'),
    overridesOnPage: db.prepare<[number, number], { count: number }>('SELECT COUNT(*) AS count FROM override WHERE site_id = ? AND page_id = ?'),
    nextPosition: db.prepare<[number], { next: number }>('SELECT COALESCE(MAX(position) + 1, 0) AS next FROM page WHERE site_id = ?'),
    recapture: db.prepare<[string, string, number, number]>('UPDATE page SET html = ?, source = ?, sheet_order = NULL WHERE site_id = ? AND id = ?'),
    stylesheets: db.prepare<[number], { path: string; body: Buffer }>("SELECT path, body FROM asset WHERE site_id = ? AND media_type = 'text/css' ORDER BY path"),
    pictures: db.prepare<[number], { path: string; mediaType: string; bytes: number }>("SELECT path, media_type AS mediaType, LENGTH(body) AS bytes FROM asset WHERE site_id = ? AND media_type LIKE 'image/%' ORDER BY path"),
    asset: db.prepare<[number, string], Asset>('SELECT media_type AS mediaType, body FROM asset WHERE site_id = ? AND path = ?'),
    putAsset: db.prepare<[number, string, string, Buffer]>('INSERT INTO asset (site_id, path, media_type, body) VALUES (?, ?, ?, ?) ON CONFLICT (site_id, path) DO UPDATE SET media_type = excluded.media_type, body = excluded.body'),
    leftOut: db.prepare<[number], LeftOutRow>('SELECT path, reason FROM left_out WHERE site_id = ? ORDER BY position'),
    dropLeftOut: db.prepare<[number]>('DELETE FROM left_out WHERE site_id = ?'),
    insertLeftOut: db.prepare<[number, number, string, string]>('INSERT INTO left_out (site_id, position, path, reason) VALUES (?, ?, ?, ?)'),
    countVersion: db.prepare<[number]>('UPDATE site SET version = version + 1 WHERE id = ?'),
    countStructure: db.prepare<[number]>('UPDATE site SET structure = structure + 1 WHERE id = ?'),
    insertSite: db.prepare<[string, string, string]>('INSERT INTO site (name, prefix, veneer_place) VALUES (?, ?, ?)'),
    insertPage: db.prepare<[number, number, string, string, string, string]>('INSERT INTO page (site_id, position, name, path, html, source) VALUES (?, ?, ?, ?, ?, ?)'),
    insertPart: db.prepare<[number, number, string, string, string, string]>('INSERT INTO part (site_id, position, name, kind, selector, openers) VALUES (?, ?, ?, ?, ?, ?)'),
    insertSwatch: db.prepare<[number, number, string, string]>('INSERT INTO swatch (site_id, position, name, css) VALUES (?, ?, ?, ?)'),
    insertRole: db.prepare<[number, string, number, number]>('INSERT INTO role (site_id, role, swatch_id, shade) VALUES (?, ?, ?, ?)'),
  };
  const replaceLeftOut = (siteId: number, rows: readonly LeftOutRow[]): void => {
    statements.dropLeftOut.run(siteId);
    rows.slice(0, 2000).forEach(({ path, reason }, i) => statements.insertLeftOut.run(siteId, i, path, reason));
  };
  const insert = db.transaction((site: NewSite): number => {
    const id = Number(statements.insertSite.run(site.name, site.prefix, site.veneerPlace).lastInsertRowid);
    site.pages.forEach(({ name, path, html, source = '' }, i) => statements.insertPage.run(id, i, name, path, html, source));
    site.assets.forEach(({ path, mediaType, body }) => statements.putAsset.run(id, path, mediaType, body));
    site.parts.forEach(({ name, kind, selector, openers = [] }, i) => statements.insertPart.run(id, i, name, kind, selector, JSON.stringify(openers)));
    const swatchIds = new Map(site.swatches.map(({ name, css }, i) => [name, Number(statements.insertSwatch.run(id, i, name, css).lastInsertRowid)]));
    for (const { role, swatch, shade } of site.roles) {
      const swatchId = swatchIds.get(swatch);
      if (swatchId === undefined) throw new RangeError(`Role ${role} names the swatch "${swatch}", which the site does not have`);
      statements.insertRole.run(id, role, swatchId, shade);
    }
    replaceLeftOut(id, site.leftOut ?? []);
    return id;
  });
  return {
    all: () => statements.all.all(),
    byId: (id: number) => statements.byId.get(id) ?? null,
    byName: (name: string) => statements.byName.get(name) ?? null,
    rename: (id: number, name: string): void => {
      statements.rename.run(name, id);
    },
    drop: db.transaction((id: number): void => {
      statements.dropOverrides.run(id);
      statements.dropRoles.run(id);
      statements.drop.run(id);
    }),
    pages: (siteId: number) => statements.pages.all(siteId).map(arranged),
    page: (siteId: number, id: number) => arrangedOrNull(statements.page.get(siteId, id)),
    pageByPath: (siteId: number, path: string) => arrangedOrNull(statements.pageByPath.get(siteId, path)),
    renamePage: (siteId: number, id: number, name: string): void => {
      statements.renamePage.run(name, siteId, id);
      statements.countStructure.run(siteId);
    },
    dropPage: (siteId: number, id: number): void => {
      statements.dropPage.run(siteId, id);
      statements.countStructure.run(siteId);
    },
    overridesOnPage: (siteId: number, id: number) => statements.overridesOnPage.get(siteId, id)?.count ?? 0,
    /** Adds pages with their files; a page of a path that is there already is captured again. Returns the ids of those. */
    addPages: db.transaction((siteId: number, pages: readonly NewPage[], assets: readonly NewAsset[], leftOut: readonly LeftOutRow[]): number[] => {
      assets.forEach(({ path, mediaType, body }) => statements.putAsset.run(siteId, path, mediaType, body));
      const again: number[] = [];
      for (const { name, path, html, source = '' } of pages) {
        const existing = statements.pageByPath.get(siteId, path);
        if (existing) {
          statements.recapture.run(html, source, siteId, existing.id);
          again.push(existing.id);
        } else statements.insertPage.run(siteId, statements.nextPosition.get(siteId)?.next ?? 0, name, path, html, source);
      }
      replaceLeftOut(siteId, leftOut);
      statements.countStructure.run(siteId);
      statements.countVersion.run(siteId);
      return again;
    }),
    stylesheets: (siteId: number): Record<string, string> => Object.fromEntries(statements.stylesheets.all(siteId).map(({ path, body }) => [path, body.toString('utf8')])),
    pictures: (siteId: number) => statements.pictures.all(siteId),
    asset: (siteId: number, path: string) => statements.asset.get(siteId, path) ?? null,
    leftOut: (siteId: number) => statements.leftOut.all(siteId),
    countVersion: (siteId: number) => statements.countVersion.run(siteId),
    countStructure: (siteId: number) => statements.countStructure.run(siteId),
    insert,
  };
}

function arrangedOrNull(row: StoredPage | undefined): PageRow | null {
  return row ? arranged(row) : null;
}

/** A page with its stylesheets in the order the designer gave them. */
function arranged({ sheetOrder, ...page }: StoredPage): PageRow {
  return sheetOrder === null ? page : { ...page, html: withSheetOrder(page.html, JSON.parse(sheetOrder) as number[]) };
}
