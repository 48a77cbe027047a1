import type { Naming } from '@upper-veneer/core';
import type { Subject } from './changes.js';
import type { Db } from './open.js';

export type Namings = ReturnType<typeof createNamings>;

/** How the sheets of sites name their colours. */
export function createNamings(db: Db) {
  const statements = {
    bySite: db.prepare<[number], { prefix: string; asValues: number; names: string }>('SELECT prefix, as_values AS asValues, role_names AS names FROM site WHERE id = ?'),
    put: db.prepare<[string, number, string, number]>('UPDATE site SET prefix = ?, as_values = ?, role_names = ? WHERE id = ?'),
  };
  const bySite = (siteId: number): Required<Naming> => {
    const row = statements.bySite.get(siteId);
    return { prefix: row?.prefix ?? 'brand', asValues: row?.asValues === 1, names: JSON.parse(row?.names ?? '{}') as Naming['names'] ?? {} };
  };
  const put = (siteId: number, { prefix, asValues, names }: Naming): void => {
    statements.put.run(prefix, asValues ? 1 : 0, JSON.stringify(names ?? {}), siteId);
  };
  const subject: Subject<Naming> = { take: bySite, put, isStructure: true };
  return { bySite, put, subject };
}
