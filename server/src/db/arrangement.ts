import type { VeneerPlace } from '@upper-veneer/core';
import type { Subject } from './subject.js';
import type { Db } from './db.js';

/** Where the veneer stands, and the order of each page's stylesheets. */
export interface Arrangement {
  readonly veneerPlace: VeneerPlace;
  /** By page id: places of its sheets as captured, in the order they are to have; `null` for the captured order. */
  readonly sheetOrders: Readonly<Record<number, readonly number[] | null>>;
}

export type Arrangements = ReturnType<typeof createArrangements>;

/** What decides the order of stylesheets in a site's pages. */
export function createArrangements(db: Db) {
  const statements = {
    place: db.prepare<[number], { place: 'head-end' | 'body-end'; after: string | null }>(
      'SELECT veneer_place AS place, veneer_after AS after FROM site WHERE id = ?',
    ),
    putPlace: db.prepare<[string, string | null, number]>(
      'UPDATE site SET veneer_place = ?, veneer_after = ? WHERE id = ?',
    ),
    orders: db.prepare<[number], { id: number; sheetOrder: string | null }>(
      'SELECT id, sheet_order AS sheetOrder FROM page WHERE site_id = ?',
    ),
    putOrder: db.prepare<[string | null, number, number]>(
      'UPDATE page SET sheet_order = ? WHERE site_id = ? AND id = ?',
    ),
  };
  const take = (siteId: number): Arrangement => {
    const row = statements.place.get(siteId);
    return {
      veneerPlace: row?.after != null ? `after:${row.after}` : (row?.place ?? 'head-end'),
      sheetOrders: Object.fromEntries(
        statements.orders
          .all(siteId)
          .map(({ id, sheetOrder }) => [
            id,
            sheetOrder === null ? null : (JSON.parse(sheetOrder) as readonly number[]),
          ]),
      ),
    };
  };
  const put = (siteId: number, { veneerPlace, sheetOrders }: Arrangement): void => {
    const isAfter = veneerPlace.startsWith('after:');
    statements.putPlace.run(
      isAfter || veneerPlace === 'head-end' ? 'head-end' : 'body-end',
      isAfter ? veneerPlace.slice('after:'.length) : null,
      siteId,
    );
    for (const [id, order] of Object.entries(sheetOrders))
      statements.putOrder.run(order === null ? null : JSON.stringify(order), siteId, Number(id));
  };
  const subject: Subject<Arrangement> = { take, put, isStructure: true };
  return { bySite: take, put, subject };
}
