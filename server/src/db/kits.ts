import type { Kit } from '@upper-veneer/core';
import type { KitDocument } from '@upper-veneer/contract';
import type { Db } from './db.js';

export type Kits = ReturnType<typeof createKits>;

/** Kits, which belong to no site. */
export function createKits(db: Db) {
  const statements = {
    all: db.prepare<[], { readonly id: number; readonly keptAt: string; readonly body: string }>(
      'SELECT id, kept_at AS keptAt, body FROM kit ORDER BY id DESC',
    ),
    count: db.prepare<[], { readonly count: number }>('SELECT COUNT(*) AS count FROM kit'),
    insert: db.prepare<[string, string]>('INSERT INTO kit (kept_at, body) VALUES (?, ?)'),
    drop: db.prepare<[number]>('DELETE FROM kit WHERE id = ?'),
  };
  return {
    /** The newest first. */
    all: (): KitDocument[] =>
      statements.all.all().map(({ body, ...row }) => ({ ...row, kit: JSON.parse(body) as Kit })),
    count: () => statements.count.get()?.count ?? 0,
    put: (kit: Kit, at: string): void => {
      statements.insert.run(at, JSON.stringify(kit));
    },
    /** @returns whether there was one. */
    drop: (id: number): boolean => statements.drop.run(id).changes > 0,
  };
}
