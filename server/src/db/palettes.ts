import {
  namesOf,
  type HouseShape,
  type LightingSignal,
  type Naming,
  type Palette,
  type RoleName,
} from '@upper-veneer/core';
import type { Subject } from './subject.js';
import type { Db } from './db.js';

/** A role as it is to be filled: by the name of a swatch. */
export interface NewRole {
  readonly role: RoleName;
  readonly swatch: string;
  readonly shade: number;
  readonly isAssumed?: boolean;
}

/** A palette as it is to be: new swatches have id 0, roles name their swatch. */
export interface NewPalette {
  readonly swatches: readonly {
    readonly id: number;
    readonly name: string;
    readonly css: string;
    readonly token?: string | null;
    /** What is stored stays where they are absent. */
    readonly origin?: string;
    readonly note?: string;
  }[];
  readonly roles: readonly NewRole[];
  /** What is stored stays where it is absent. */
  readonly shape?: HouseShape;
  /** What is stored stays where it is absent. */
  readonly former?: readonly string[];
  /** `null` for one lighting; what is stored stays where it is absent. */
  readonly second?: { readonly told: LightingSignal; readonly roles: readonly NewRole[] } | null;
}

export type Palettes = ReturnType<typeof createPalettes>;

type Swatch = Palette['swatches'][number];
type Fill = Palette['roles'][number];

/** Swatches and roles of the draft, in both lightings. */
export function createPalettes(db: Db) {
  const statements = {
    swatches: db.prepare<[number], Swatch & Required<Pick<Swatch, 'origin' | 'note'>>>(
      'SELECT id, name, css, token, origin, note FROM swatch WHERE site_id = ? ORDER BY position',
    ),
    roles: db.prepare<[number], Omit<Fill, 'isAssumed'> & { readonly assumed: number }>(
      'SELECT role, swatch_id AS swatchId, shade, assumed FROM role WHERE site_id = ? ORDER BY role',
    ),
    invertedRoles: db.prepare<[number], Fill>(
      'SELECT role, swatch_id AS swatchId, shade FROM inverted_role WHERE site_id = ? ORDER BY role',
    ),
    shape: db.prepare<[number], { readonly shape: string }>('SELECT house_shape AS shape FROM site WHERE id = ?'),
    keepShape: db.prepare<[string, number]>('UPDATE site SET house_shape = ? WHERE id = ?'),
    former: db.prepare<[number], { readonly former: string }>('SELECT former_colors AS former FROM site WHERE id = ?'),
    keepFormer: db.prepare<[string, number]>('UPDATE site SET former_colors = ? WHERE id = ?'),
    told: db.prepare<[number], { readonly told: string | null }>('SELECT second_told AS told FROM site WHERE id = ?'),
    tell: db.prepare<[string | null, number]>('UPDATE site SET second_told = ? WHERE id = ?'),
    insert: db.prepare<[number | null, number, number, string, string, string | null, string, string]>(
      'INSERT INTO swatch (id, site_id, position, name, css, token, origin, note) VALUES (?, ?, ?, ?, ?, ?, ?, ?)',
    ),
    update: db.prepare<[number, string, string, string | null, string | null, number, number]>(
      'UPDATE swatch SET position = ?, name = ?, css = ?, origin = coalesce(?, origin), note = coalesce(?, note) WHERE id = ? AND site_id = ?',
    ),
    drop: db.prepare<[number, number]>('DELETE FROM swatch WHERE id = ? AND site_id = ?'),
    name: db.prepare<[string, number, number]>('UPDATE swatch SET token = ? WHERE id = ? AND site_id = ?'),
    keepName: db.prepare<[number, number, string]>(
      'INSERT INTO published_name (swatch_id, site_id, token) VALUES (?, ?, ?) ON CONFLICT (swatch_id) DO NOTHING',
    ),
    keptName: db.prepare<[number, number], { readonly token: string }>(
      'SELECT token FROM published_name WHERE swatch_id = ? AND site_id = ?',
    ),
    dropRoles: db.prepare<[number]>('DELETE FROM role WHERE site_id = ?'),
    dropInverted: db.prepare<[number]>('DELETE FROM inverted_role WHERE site_id = ?'),
    insertRole: db.prepare<[number, string, number, number, number]>(
      'INSERT INTO role (site_id, role, swatch_id, shade, assumed) VALUES (?, ?, ?, ?, ?)',
    ),
    insertInverted: db.prepare<[number, string, number, number]>(
      'INSERT INTO inverted_role (site_id, role, swatch_id, shade) VALUES (?, ?, ?, ?)',
    ),
  };
  const secondOf = (siteId: number): NonNullable<Palette['second']> | null => {
    const told = statements.told.get(siteId)?.told ?? null;
    return told === null
      ? null
      : { told: JSON.parse(told) as LightingSignal, roles: statements.invertedRoles.all(siteId) };
  };
  const bySite = (
    siteId: number,
  ): Palette & {
    readonly second: NonNullable<Palette['second']> | null;
    readonly shape: HouseShape;
    readonly former: readonly string[];
  } => ({
    swatches: statements.swatches.all(siteId),
    roles: statements.roles
      .all(siteId)
      .map(({ assumed, ...fill }) => (assumed === 1 ? { ...fill, isAssumed: true } : fill)),
    second: secondOf(siteId),
    shape: JSON.parse(statements.shape.get(siteId)?.shape ?? '{}') as HouseShape,
    former: JSON.parse(statements.former.get(siteId)?.former ?? '[]') as string[],
  });
  const insert = (
    siteId: number,
    position: number,
    { id, name, css, token, origin, note }: NewPalette['swatches'][number],
  ): number => {
    // What was published under a name keeps it, though it was away meanwhile.
    const kept = token ?? statements.keptName.get(id, siteId)?.token ?? null;
    const given = id === 0 ? null : id;
    const row = statements.insert.run(given, siteId, position, name, css, kept, origin ?? '', note ?? '');
    const own = Number(row.lastInsertRowid);
    if (kept !== null) statements.keepName.run(own, siteId, kept);
    return own;
  };
  /** Makes the palette what is given; swatches keep their ids, also when undo brings them back. */
  const replace = db.transaction((siteId: number, palette: NewPalette): void => {
    const before = bySite(siteId);
    const second = palette.second === undefined ? (toNewPalette(before).second ?? null) : palette.second;
    statements.dropRoles.run(siteId);
    statements.dropInverted.run(siteId);
    const known = new Set(before.swatches.map(({ id }) => id));
    for (const id of known) if (!palette.swatches.some((swatch) => swatch.id === id)) statements.drop.run(id, siteId);
    const ids = new Map<string, number>();
    palette.swatches.forEach(({ id, name, css, token, origin, note }, position) => {
      if (known.has(id)) statements.update.run(position, name, css, origin ?? null, note ?? null, id, siteId);
      ids.set(name, known.has(id) ? id : insert(siteId, position, { id, name, css, token, origin, note }));
    });
    for (const { role, swatch, shade, isAssumed } of palette.roles) {
      const swatchId = ids.get(swatch);
      if (swatchId !== undefined) statements.insertRole.run(siteId, role, swatchId, shade, isAssumed ? 1 : 0);
    }
    if (palette.shape) statements.keepShape.run(JSON.stringify(palette.shape), siteId);
    if (palette.former) statements.keepFormer.run(JSON.stringify(palette.former), siteId);
    statements.tell.run(second && JSON.stringify(second.told), siteId);
    for (const { role, swatch, shade } of second?.roles ?? []) {
      const swatchId = ids.get(swatch);
      if (swatchId !== undefined) statements.insertInverted.run(siteId, role, swatchId, shade);
    }
  });
  /** Keeps the names that swatches go out under, from their first publication on. */
  const keepNames = db.transaction((siteId: number, names: Naming['names']): void => {
    const palette = bySite(siteId);
    const named = namesOf(palette, names);
    palette.swatches.forEach(({ id, token }, i) => {
      if (!token) statements.name.run(named.swatches[i], id, siteId);
      statements.keepName.run(id, siteId, token ?? named.swatches[i]);
    });
  });
  const subject: Subject<NewPalette> = {
    take: (siteId) => toNewPalette(bySite(siteId)),
    // What was kept before there were two lightings, a house shape or an old family, knows of none.
    put: (siteId, palette) =>
      replace(siteId, {
        ...palette,
        second: palette.second ?? null,
        shape: palette.shape ?? {},
        former: palette.former ?? [],
      }),
    isStructure: false,
  };
  return { bySite, replace, keepNames, subject };
}

/** A stored palette in the form that `replace` takes. */
export function toNewPalette({ swatches, roles, second, shape, former }: Palette): NewPalette {
  const named = ({ swatchId, ...fill }: Fill): NewRole => ({
    ...fill,
    swatch: swatches.find(({ id }) => id === swatchId)?.name ?? '',
  });
  return {
    swatches,
    roles: roles.map(named),
    second: second ? { told: second.told, roles: second.roles.map(named) } : null,
    shape: shape ?? {},
    former: former ?? [],
  };
}
