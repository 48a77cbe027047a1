import type { HandedValue, SettingsSheet } from '@upper-veneer/core';
import type { Db } from './db.js';
import type { Subject } from './subject.js';

/** A part's settings sheet without what was handed over, which no undo takes back. */
export type SheetRow = Omit<SettingsSheet, 'handed'>;

/** A value that a field was given over there. */
export interface HandedRow extends HandedValue {
  readonly partId: number;
  readonly field: string;
}

export type SettingsSheets = ReturnType<typeof createSettingsSheets>;

/** Settings sheets of a site's parts, and what was handed over of them. */
export function createSettingsSheets(db: Db) {
  const statements = {
    bySite: db.prepare<[number], { readonly settings: string }>('SELECT settings FROM site WHERE id = ?'),
    put: db.prepare<[string, number]>('UPDATE site SET settings = ? WHERE id = ?'),
    handed: db.prepare<[number], HandedRow>(
      'SELECT part_id AS partId, field, text, handed_at AS at FROM handed_setting WHERE site_id = ? ORDER BY part_id, field',
    ),
    hand: db.prepare<[number, number, string, string, string]>(
      'INSERT INTO handed_setting (site_id, part_id, field, text, handed_at) VALUES (?, ?, ?, ?, ?) ON CONFLICT (site_id, part_id, field) DO UPDATE SET text = excluded.text, handed_at = excluded.handed_at',
    ),
    takeBack: db.prepare<[number, number, string]>(
      'DELETE FROM handed_setting WHERE site_id = ? AND part_id = ? AND field = ?',
    ),
  };
  const rows = (siteId: number): SheetRow[] =>
    JSON.parse(statements.bySite.get(siteId)?.settings ?? '[]') as SheetRow[];
  const put = (siteId: number, sheets: readonly SheetRow[]): void => {
    statements.put.run(JSON.stringify(sheets), siteId);
  };
  const subject: Subject<readonly SheetRow[]> = { take: rows, put, isStructure: false };
  return {
    rows,
    put,
    subject,
    handed: (siteId: number): HandedRow[] => statements.handed.all(siteId),
    /** Sheets with what was handed over of each. */
    bySite: (siteId: number): SettingsSheet[] => {
      const handed = statements.handed.all(siteId);
      return rows(siteId).map((sheet) => ({
        ...sheet,
        handed: Object.fromEntries(
          handed.filter(({ partId }) => partId === sheet.partId).map(({ field, text, at }) => [field, { text, at }]),
        ),
      }));
    },
    /** Puts a part's sheet in place of the one it has; takes it away where it is `null`. */
    replace: (siteId: number, partId: number, sheet: SheetRow | null): void => {
      const others = rows(siteId).filter((own) => own.partId !== partId);
      put(
        siteId,
        [...others, ...(sheet ? [sheet] : [])].sort((a, b) => a.partId - b.partId),
      );
    },
    /** A part's sheet becomes another's, where that has none. */
    move: (siteId: number, from: number, into: number): void => {
      const all = rows(siteId);
      const isFree = all.every(({ partId }) => partId !== into);
      put(
        siteId,
        all.flatMap((sheet) => (sheet.partId !== from ? [sheet] : isFree ? [{ ...sheet, partId: into }] : [])),
      );
    },
    /** Notes what a field holds over there; `null` for that it was not handed over after all. */
    hand: (siteId: number, partId: number, field: string, value: HandedValue | null): void => {
      if (value) statements.hand.run(siteId, partId, field, value.text, value.at);
      else statements.takeBack.run(siteId, partId, field);
    },
  };
}
