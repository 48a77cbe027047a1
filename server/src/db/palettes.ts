import { namesOf, type Naming, type Palette, type RoleName } from '@upper-veneer/core';
import type { Subject } from './subject.js';
import type { Db } from './db.js';

/** A palette as it is to be: new swatches have id 0, roles name their swatch. */
export interface NewPalette {
  readonly swatches: readonly {
    readonly id: number;
    readonly name: string;
    readonly css: string;
    readonly token?: string | null;
  }[];
  readonly roles: readonly { readonly role: RoleName; readonly swatch: string; readonly shade: number }[];
}

export type Palettes = ReturnType<typeof createPalettes>;

/** Swatches and roles of the draft. */
export function createPalettes(db: Db) {
  const statements = {
    swatches: db.prepare<[number], Palette['swatches'][number]>(
      'SELECT id, name, css, token FROM swatch WHERE site_id = ? ORDER BY position',
    ),
    roles: db.prepare<[number], Palette['roles'][number]>(
      'SELECT role, swatch_id AS swatchId, shade FROM role WHERE site_id = ? ORDER BY role',
    ),
    insert: db.prepare<[number | null, number, number, string, string, string | null]>(
      'INSERT INTO swatch (id, site_id, position, name, css, token) VALUES (?, ?, ?, ?, ?, ?)',
    ),
    update: db.prepare<[number, string, string, number, number]>(
      'UPDATE swatch SET position = ?, name = ?, css = ? WHERE id = ? AND site_id = ?',
    ),
    drop: db.prepare<[number, number]>('DELETE FROM swatch WHERE id = ? AND site_id = ?'),
    name: db.prepare<[string, number, number]>('UPDATE swatch SET token = ? WHERE id = ? AND site_id = ?'),
    dropRoles: db.prepare<[number]>('DELETE FROM role WHERE site_id = ?'),
    insertRole: db.prepare<[number, string, number, number]>(
      'INSERT INTO role (site_id, role, swatch_id, shade) VALUES (?, ?, ?, ?)',
    ),
  };
  const bySite = (siteId: number): Palette => ({
    swatches: statements.swatches.all(siteId),
    roles: statements.roles.all(siteId),
  });
  /** Makes the palette what is given; swatches keep their ids, also when undo brings them back. */
  const replace = db.transaction((siteId: number, palette: NewPalette): void => {
    statements.dropRoles.run(siteId);
    const known = new Set(bySite(siteId).swatches.map(({ id }) => id));
    for (const id of known) if (!palette.swatches.some((swatch) => swatch.id === id)) statements.drop.run(id, siteId);
    const ids = new Map<string, number>();
    palette.swatches.forEach(({ id, name, css, token }, position) => {
      if (known.has(id)) statements.update.run(position, name, css, id, siteId);
      ids.set(
        name,
        known.has(id)
          ? id
          : Number(
              statements.insert.run(id === 0 ? null : id, siteId, position, name, css, token ?? null).lastInsertRowid,
            ),
      );
    });
    for (const { role, swatch, shade } of palette.roles) {
      const swatchId = ids.get(swatch);
      if (swatchId !== undefined) statements.insertRole.run(siteId, role, swatchId, shade);
    }
  });
  /** Keeps the names that swatches go out under, from their first publication on. */
  const keepNames = db.transaction((siteId: number, names: Naming['names']): void => {
    const palette = bySite(siteId);
    const named = namesOf(palette, names);
    palette.swatches.forEach(({ id, token }, i) => {
      if (!token) statements.name.run(named.swatches[i], id, siteId);
    });
  });
  const subject: Subject<NewPalette> = {
    take: (siteId) => toNewPalette(bySite(siteId)),
    put: replace,
    isStructure: false,
  };
  return { bySite, replace, keepNames, subject };
}

/** A stored palette in the form that `replace` takes. */
export function toNewPalette({ swatches, roles }: Palette): NewPalette {
  return {
    swatches,
    roles: roles.map(({ role, swatchId, shade }) => ({
      role,
      swatch: swatches.find(({ id }) => id === swatchId)?.name ?? '',
      shade,
    })),
  };
}
