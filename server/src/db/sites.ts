import type { Part, VeneerPlace } from '@upper-veneer/core';
import type { Db } from './open.js';

export interface SiteRow {
  readonly id: number;
  readonly name: string;
  readonly prefix: string;
  readonly veneerPlace: VeneerPlace;
  readonly version: number;
}

export interface PageRow {
  readonly id: number;
  readonly name: string;
  readonly path: string;
  readonly html: string;
}

export interface Asset {
  readonly mediaType: string;
  readonly body: Buffer;
}

/** A site to be stored, as the seed or an import brings it. */
export interface NewSite {
  readonly name: string;
  readonly prefix: string;
  readonly veneerPlace: VeneerPlace;
  readonly pages: readonly { readonly name: string; readonly path: string; readonly html: string }[];
  readonly assets: readonly { readonly path: string; readonly mediaType: string; readonly body: Buffer }[];
  readonly parts: readonly { readonly name: string; readonly kind: string; readonly selector: string }[];
  readonly swatches: readonly { readonly name: string; readonly css: string }[];
  readonly roles: readonly { readonly role: string; readonly swatch: string; readonly shade: number }[];
}

export type Sites = ReturnType<typeof createSites>;

/** Sites with what was captured of them. */
export function createSites(db: Db) {
  const columns = 'id, name, prefix, veneer_place AS veneerPlace, version';
  const statements = {
    all: db.prepare<[], { id: number; name: string; pages: number }>('SELECT s.id, s.name, (SELECT COUNT(*) FROM page p WHERE p.site_id = s.id) AS pages FROM site s ORDER BY s.id'),
    byId: db.prepare<[number], SiteRow>(`SELECT ${columns} FROM site WHERE id = ?`),
    byName: db.prepare<[string], SiteRow>(`SELECT ${columns} FROM site WHERE name = ?`),
    pages: db.prepare<[number], PageRow>('SELECT id, name, path, html FROM page WHERE site_id = ? ORDER BY position'),
    page: db.prepare<[number, number], PageRow>('SELECT id, name, path, html FROM page WHERE site_id = ? AND id = ?'),
    pageByPath: db.prepare<[number, string], PageRow>('SELECT id, name, path, html FROM page WHERE site_id = ? AND path = ?'),
    stylesheets: db.prepare<[number], { path: string; body: Buffer }>("SELECT path, body FROM asset WHERE site_id = ? AND media_type = 'text/css' ORDER BY path"),
    asset: db.prepare<[number, string], Asset>('SELECT media_type AS mediaType, body FROM asset WHERE site_id = ? AND path = ?'),
    parts: db.prepare<[number], Part>('SELECT id, name, kind, selector FROM part WHERE site_id = ? ORDER BY position'),
    countVersion: db.prepare<[number]>('UPDATE site SET version = version + 1 WHERE id = ?'),
    insertSite: db.prepare<[string, string, string]>('INSERT INTO site (name, prefix, veneer_place) VALUES (?, ?, ?)'),
    insertPage: db.prepare<[number, number, string, string, string]>('INSERT INTO page (site_id, position, name, path, html) VALUES (?, ?, ?, ?, ?)'),
    insertAsset: db.prepare<[number, string, string, Buffer]>('INSERT INTO asset (site_id, path, media_type, body) VALUES (?, ?, ?, ?)'),
    insertPart: db.prepare<[number, number, string, string, string]>('INSERT INTO part (site_id, position, name, kind, selector) VALUES (?, ?, ?, ?, ?)'),
    insertSwatch: db.prepare<[number, number, string, string]>('INSERT INTO swatch (site_id, position, name, css) VALUES (?, ?, ?, ?)'),
    insertRole: db.prepare<[number, string, number, number]>('INSERT INTO role (site_id, role, swatch_id, shade) VALUES (?, ?, ?, ?)'),
  };
  const insert = db.transaction((site: NewSite): number => {
    const id = Number(statements.insertSite.run(site.name, site.prefix, site.veneerPlace).lastInsertRowid);
    site.pages.forEach(({ name, path, html }, i) => statements.insertPage.run(id, i, name, path, html));
    site.assets.forEach(({ path, mediaType, body }) => statements.insertAsset.run(id, path, mediaType, body));
    site.parts.forEach(({ name, kind, selector }, i) => statements.insertPart.run(id, i, name, kind, selector));
    const swatchIds = new Map(site.swatches.map(({ name, css }, i) => [name, Number(statements.insertSwatch.run(id, i, name, css).lastInsertRowid)]));
    for (const { role, swatch, shade } of site.roles) {
      const swatchId = swatchIds.get(swatch);
      if (swatchId === undefined) throw new RangeError(`Role ${role} names the swatch "${swatch}", which the site does not have`);
      statements.insertRole.run(id, role, swatchId, shade);
    }
    return id;
  });
  return {
    all: () => statements.all.all(),
    byId: (id: number) => statements.byId.get(id) ?? null,
    byName: (name: string) => statements.byName.get(name) ?? null,
    pages: (siteId: number) => statements.pages.all(siteId),
    page: (siteId: number, id: number) => statements.page.get(siteId, id) ?? null,
    pageByPath: (siteId: number, path: string) => statements.pageByPath.get(siteId, path) ?? null,
    stylesheets: (siteId: number): Record<string, string> => Object.fromEntries(statements.stylesheets.all(siteId).map(({ path, body }) => [path, body.toString('utf8')])),
    asset: (siteId: number, path: string) => statements.asset.get(siteId, path) ?? null,
    parts: (siteId: number) => statements.parts.all(siteId),
    countVersion: (siteId: number) => statements.countVersion.run(siteId),
    insert,
  };
}
