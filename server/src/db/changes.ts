import type { Override } from '@upper-veneer/core';
import type { Db } from './open.js';
import type { Overrides } from './overrides.js';
import type { Sites } from './sites.js';

/** Overrides as they stood, by id; `null` where there was none. */
type Snapshot = readonly { readonly id: string; readonly override: Override | null }[];

interface ChangeRow {
  readonly id: number;
  readonly label: string;
  readonly before: string;
  readonly after: string;
}

export type Changes = ReturnType<typeof createChanges>;

/** The history of the draft: every change, undone or not, each in one transaction. */
export function createChanges(db: Db, overrides: Overrides, sites: Sites) {
  const statements = {
    insert: db.prepare<[number, string, string, string, string]>('INSERT INTO change (site_id, label, before, after, made_at) VALUES (?, ?, ?, ?, ?)'),
    forgetUndone: db.prepare<[number]>('DELETE FROM change WHERE site_id = ? AND undone = 1'),
    lastDone: db.prepare<[number], ChangeRow>('SELECT id, label, before, after FROM change WHERE site_id = ? AND undone = 0 ORDER BY id DESC LIMIT 1'),
    firstUndone: db.prepare<[number], ChangeRow>('SELECT id, label, before, after FROM change WHERE site_id = ? AND undone = 1 ORDER BY id LIMIT 1'),
    mark: db.prepare<[number, number]>('UPDATE change SET undone = ? WHERE id = ?'),
  };
  const snapshot = (siteId: number, ids: readonly string[]): Snapshot => ids.map((id) => ({ id, override: overrides.byId(siteId, id) }));
  const restore = (siteId: number, text: string): void => {
    for (const { id, override } of JSON.parse(text) as Snapshot) {
      if (override) overrides.put(siteId, override);
      else overrides.drop(siteId, id);
    }
    sites.countVersion(siteId);
  };
  return {
    apply: db.transaction((siteId: number, label: string, put: readonly Override[], drop: readonly string[], madeAt: string): void => {
      const ids = [...new Set([...put.map(({ id }) => id), ...drop])];
      const before = snapshot(siteId, ids);
      for (const id of drop) overrides.drop(siteId, id);
      for (const override of put) overrides.put(siteId, override);
      statements.forgetUndone.run(siteId);
      statements.insert.run(siteId, label, JSON.stringify(before), JSON.stringify(snapshot(siteId, ids)), madeAt);
      sites.countVersion(siteId);
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
