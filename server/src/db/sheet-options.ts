import type { SheetOptions } from '@upper-veneer/core';
import type { Subject } from './subject.js';
import type { Db } from './db.js';

interface Row {
  readonly prefix: string;
  readonly as_values: number;
  readonly role_names: string;
  readonly hover_only: number;
  readonly flat_for: string;
  readonly by_letters: number;
}

export type SheetOptionsTable = ReturnType<typeof createSheetOptions>;

/** How the sheets of sites are written. */
export function createSheetOptions(db: Db) {
  const statements = {
    bySite: db.prepare<[number], Row>(
      'SELECT prefix, as_values, role_names, hover_only, flat_for, by_letters FROM site WHERE id = ?',
    ),
    put: db.prepare<[string, number, string, number, string, number, number]>(
      'UPDATE site SET prefix = ?, as_values = ?, role_names = ?, hover_only = ?, flat_for = ?, by_letters = ? WHERE id = ?',
    ),
  };
  const bySite = (siteId: number): Required<SheetOptions> => {
    const row = statements.bySite.get(siteId);
    return {
      prefix: row?.prefix ?? 'brand',
      asValues: row?.as_values === 1,
      names: (JSON.parse(row?.role_names ?? '{}') as SheetOptions['names']) ?? {},
      hoverOnly: row?.hover_only === 1,
      flatFor: row?.flat_for ?? '',
      isByLetters: row?.by_letters === 1,
    };
  };
  const put = (siteId: number, options: SheetOptions): void => {
    const { prefix, asValues, names, hoverOnly, flatFor, isByLetters } = options;
    statements.put.run(
      prefix,
      asValues ? 1 : 0,
      JSON.stringify(names ?? {}),
      hoverOnly ? 1 : 0,
      flatFor ?? '',
      isByLetters ? 1 : 0,
      siteId,
    );
  };
  const subject: Subject<SheetOptions> = { take: bySite, put, isStructure: true };
  return { bySite, put, subject };
}
