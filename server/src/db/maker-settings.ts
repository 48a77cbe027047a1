import type { Db } from './db.js';

export type MakerSettings = ReturnType<typeof createMakerSettings>;

/** What the stand-in host's makers were told, as a maker keeps it: by site and widget. */
export function createMakerSettings(db: Db) {
  const statements = {
    byWidget: db.prepare<[number, string], { readonly name: string; readonly value: string }>(
      'SELECT name, value FROM maker_setting WHERE site_id = ? AND widget = ? ORDER BY name',
    ),
    put: db.prepare<[number, string, string, string]>(
      'INSERT INTO maker_setting (site_id, widget, name, value) VALUES (?, ?, ?, ?) ON CONFLICT (site_id, widget, name) DO UPDATE SET value = excluded.value',
    ),
  };
  return {
    byWidget: (siteId: number, widget: string): ReadonlyMap<string, string> =>
      new Map(statements.byWidget.all(siteId, widget).map(({ name, value }) => [name, value])),
    put: db.transaction((siteId: number, widget: string, values: ReadonlyMap<string, string>): void => {
      for (const [name, value] of values) statements.put.run(siteId, widget, name, value);
    }),
  };
}
