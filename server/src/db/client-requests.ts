import type { ClientRequest } from '@upper-veneer/core';
import type { Db } from './db.js';
import type { Subject } from './subject.js';

export type ClientRequests = ReturnType<typeof createClientRequests>;

/** What the clients of sites asked for. */
export function createClientRequests(db: Db) {
  const statements = {
    bySite: db.prepare<[number], { readonly requests: string }>('SELECT requests FROM site WHERE id = ?'),
    put: db.prepare<[string, number]>('UPDATE site SET requests = ? WHERE id = ?'),
  };
  const bySite = (siteId: number): ClientRequest[] =>
    JSON.parse(statements.bySite.get(siteId)?.requests ?? '[]') as ClientRequest[];
  const put = (siteId: number, requests: readonly ClientRequest[]): void => {
    statements.put.run(JSON.stringify(requests), siteId);
  };
  /** Notes that overrides were made for an item. @returns whether there is such an item. */
  const link = (siteId: number, itemId: string, overrides: readonly string[]): boolean => {
    let isThere = false;
    const next = bySite(siteId).map((request) => ({
      ...request,
      items: request.items.map((item) => {
        if (item.id !== itemId) return item;
        isThere = true;
        return { ...item, overrides: [...new Set([...item.overrides, ...overrides])] };
      }),
    }));
    if (isThere) put(siteId, next);
    return isThere;
  };
  const subject: Subject<readonly ClientRequest[]> = { take: bySite, put, isStructure: false };
  return { bySite, put, link, subject };
}
