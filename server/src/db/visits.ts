import type { VisitPlan } from '@upper-veneer/core';
import type { VisitDocument } from '@upper-veneer/contract';
import type { Db } from './db.js';

interface Row {
  readonly id: number;
  readonly plan: string;
  readonly paths: string;
}

export type Visits = ReturnType<typeof createVisits>;

/** How pages of sites were visited, to be done again. */
export function createVisits(db: Db) {
  const statements = {
    bySite: db.prepare<[number], Row>('SELECT id, plan, paths FROM visit WHERE site_id = ? ORDER BY id'),
    insert: db.prepare<[number, string, string]>('INSERT INTO visit (site_id, plan, paths) VALUES (?, ?, ?)'),
    update: db.prepare<[string, string, number, number]>(
      'UPDATE visit SET plan = ?, paths = ? WHERE site_id = ? AND id = ?',
    ),
    drop: db.prepare<[number, number]>('DELETE FROM visit WHERE site_id = ? AND id = ?'),
  };
  const bySite = (siteId: number): VisitDocument[] =>
    statements.bySite.all(siteId).map(({ id, plan, paths }) => ({
      id,
      plan: JSON.parse(plan) as VisitPlan,
      paths: JSON.parse(paths) as string[],
    }));
  return {
    bySite,
    /** Keeps a visit: in the place of one, of one that brought the very same pages, or as a new one. */
    keep: (siteId: number, { id, plan, paths }: { id: number | null; plan: VisitPlan; paths: readonly string[] }) => {
      const [planText, pathText] = [JSON.stringify(plan), JSON.stringify(paths)];
      const same = bySite(siteId).find((own) => own.id === id || JSON.stringify(own.paths) === pathText);
      if (same) statements.update.run(planText, pathText, siteId, same.id);
      else statements.insert.run(siteId, planText, pathText);
    },
    /** A page of this path is gone; a visit that brought nothing else goes with it. */
    forget: (siteId: number, path: string): void => {
      for (const { id, plan, paths } of bySite(siteId)) {
        if (!paths.includes(path)) continue;
        const left = paths.filter((own) => own !== path);
        if (left.length === 0) statements.drop.run(siteId, id);
        else statements.update.run(JSON.stringify(plan), JSON.stringify(left), siteId, id);
      }
    },
  };
}
