import type { MatchChoices } from '@upper-veneer/core';
import type { Db } from './db.js';
import type { Subject } from './subject.js';

/** What is settled of matching one scope. */
export interface PlanRow {
  /** The scope as JSON. */
  readonly scope: string;
  readonly choices: MatchChoices;
}

export type Plans = ReturnType<typeof createPlans>;

/** Plans of Match, one a scope. */
export function createPlans(db: Db) {
  const statements = {
    bySite: db.prepare<[number], { readonly scope: string; readonly choices: string }>(
      'SELECT scope, choices FROM match_plan WHERE site_id = ? ORDER BY scope',
    ),
    drop: db.prepare<[number]>('DELETE FROM match_plan WHERE site_id = ?'),
    put: db.prepare<[number, string, string]>(
      'INSERT INTO match_plan (site_id, scope, choices) VALUES (?, ?, ?) ON CONFLICT (site_id, scope) DO UPDATE SET choices = excluded.choices',
    ),
  };
  const bySite = (siteId: number): PlanRow[] =>
    statements.bySite
      .all(siteId)
      .map(({ scope, choices }) => ({ scope, choices: JSON.parse(choices) as PlanRow['choices'] }));
  const put = (siteId: number, { scope, choices }: PlanRow): void => {
    statements.put.run(siteId, scope, JSON.stringify(choices));
  };
  const subject: Subject<readonly PlanRow[]> = {
    take: bySite,
    put: (siteId, rows) => {
      statements.drop.run(siteId);
      for (const row of rows) put(siteId, row);
    },
    isStructure: false,
  };
  return { bySite, put, subject };
}
