import type { Override } from '@upper-veneer/core';
import type { Db } from './open.js';
import type { Overrides } from './overrides.js';
import { toNewPalette, type NewPalette, type Palettes } from './palettes.js';
import type { Sites } from './sites.js';

/** Overrides as they stood, by id; `null` where there was none. */
type Snapshot = readonly { readonly id: string; readonly override: Override | null }[];

/** What a change touched, as it stood on one side of it: overrides, or the palette. */
type Side = Snapshot | { readonly palette: NewPalette };

interface ChangeRow {
  readonly id: number;
  readonly label: string;
  readonly before: string;
  readonly after: string;
}

export type Changes = ReturnType<typeof createChanges>;

/** The history of the draft: every change, undone or not, each in one transaction. */
export function createChanges(db: Db, overrides: Overrides, palettes: Palettes, sites: Sites) {
  const statements = {
    insert: db.prepare<[number, string, string, string, string]>('INSERT INTO change (site_id, label, before, after, made_at) VALUES (?, ?, ?, ?, ?)'),
    forgetUndone: db.prepare<[number]>('DELETE FROM change WHERE site_id = ? AND undone = 1'),
    lastDone: db.prepare<[number], ChangeRow>('SELECT id, label, before, after FROM change WHERE site_id = ? AND undone = 0 ORDER BY id DESC LIMIT 1'),
    firstUndone: db.prepare<[number], ChangeRow>('SELECT id, label, before, after FROM change WHERE site_id = ? AND undone = 1 ORDER BY id LIMIT 1'),
    mark: db.prepare<[number, number]>('UPDATE change SET undone = ? WHERE id = ?'),
  };
  const snapshot = (siteId: number, ids: readonly string[]): Snapshot => ids.map((id) => ({ id, override: overrides.byId(siteId, id) }));
  const restore = (siteId: number, text: string): void => {
    const side = JSON.parse(text) as Side;
    if ('palette' in side) {
      palettes.replace(siteId, side.palette);
    } else {
      for (const { id, override } of side) {
        if (override) overrides.put(siteId, override);
        else overrides.drop(siteId, id);
      }
    }
    sites.countVersion(siteId);
  };
  const record = (siteId: number, label: string, before: Side, after: Side, madeAt: string): void => {
    statements.forgetUndone.run(siteId);
    statements.insert.run(siteId, label, JSON.stringify(before), JSON.stringify(after), madeAt);
    sites.countVersion(siteId);
  };
  return {
    /** Makes the palette what is given. */
    applyPalette: db.transaction((siteId: number, label: string, palette: NewPalette, madeAt: string): void => {
      const before = { palette: toNewPalette(palettes.bySite(siteId)) };
      palettes.replace(siteId, palette);
      record(siteId, label, before, { palette: toNewPalette(palettes.bySite(siteId)) }, madeAt);
    }),
    apply: db.transaction((siteId: number, label: string, put: readonly Override[], drop: readonly string[], madeAt: string): void => {
      const ids = [...new Set([...put.map(({ id }) => id), ...drop])];
      const before = snapshot(siteId, ids);
      for (const id of drop) overrides.drop(siteId, id);
      for (const override of put) overrides.put(siteId, override);
      record(siteId, label, before, snapshot(siteId, ids), madeAt);
    }),
    /** Takes the last change back; `false` when there is none. */
    undo: db.transaction((siteId: number): boolean => {
      const change = statements.lastDone.get(siteId);
      if (!change) return false;
      restore(siteId, change.before);
      statements.mark.run(1, change.id);
      return true;
    }),
    redo: db.transaction((siteId: number): boolean => {
      const change = statements.firstUndone.get(siteId);
      if (!change) return false;
      restore(siteId, change.after);
      statements.mark.run(0, change.id);
      return true;
    }),
    labels: (siteId: number) => ({ undo: statements.lastDone.get(siteId)?.label ?? null, redo: statements.firstUndone.get(siteId)?.label ?? null }),
  };
}
