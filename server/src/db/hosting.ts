import type { Db } from './db.js';

/** How a site's files are handed to visitors. */
export interface Hosting {
  /** Whether each publication has an address of its own; else all have the same. */
  readonly hasNewName: boolean;
  /** Seconds that caches may keep a file; 0 for asking each time. */
  readonly maxAge: number;
}

export type HostingTable = ReturnType<typeof createHosting>;

/** How the stand-in host serves sites. */
export function createHosting(db: Db) {
  const statements = {
    bySite: db.prepare<[number], { readonly hasNewName: number; readonly maxAge: number }>(
      'SELECT host_new_name AS hasNewName, host_max_age AS maxAge FROM site WHERE id = ?',
    ),
    put: db.prepare<[number, number, number]>('UPDATE site SET host_new_name = ?, host_max_age = ? WHERE id = ?'),
  };
  return {
    bySite: (siteId: number): Hosting => {
      const row = statements.bySite.get(siteId);
      return { hasNewName: row?.hasNewName !== 0, maxAge: row?.maxAge ?? 0 };
    },
    put: (siteId: number, { hasNewName, maxAge }: Hosting): void => {
      statements.put.run(hasNewName ? 1 : 0, maxAge, siteId);
    },
  };
}
