import type { Override, OverrideState, OverrideValue, Reach } from '@upper-veneer/core';
import type { Subject } from './subject.js';
import type { Db } from './db.js';

interface Row {
  readonly id: string;
  readonly part_id: number | null;
  readonly page_id: number;
  readonly element: number;
  readonly pseudo: string;
  readonly reach: Reach;
  readonly state: OverrideState;
  readonly property: string;
  readonly value: string;
  readonly selector: string;
  readonly important: number;
  readonly kept_to: string | null;
}

/** What an override may be kept to; absent members are left out of the draft. */
const KEPT_TO = [
  'group',
  'parent',
  'widths',
  'pages',
  'spared',
  'through',
  'meant',
  'isByHand',
] as const satisfies readonly (keyof Override)[];

export type Overrides = ReturnType<typeof createOverrides>;

/** Overrides of the draft. */
export function createOverrides(db: Db) {
  const statements = {
    bySite: db.prepare<[number], Row>('SELECT * FROM override WHERE site_id = ? ORDER BY id'),
    byId: db.prepare<[number, string], Row>('SELECT * FROM override WHERE site_id = ? AND id = ?'),
    put: db.prepare(`INSERT INTO override (site_id, id, part_id, page_id, element, pseudo, reach, state, property, value, selector, important, kept_to)
      VALUES (@siteId, @id, @partId, @pageId, @element, @pseudo, @reach, @state, @property, @value, @selector, @important, @keptTo)
      ON CONFLICT (site_id, id) DO UPDATE SET part_id = excluded.part_id, page_id = excluded.page_id, element = excluded.element, pseudo = excluded.pseudo,
        reach = excluded.reach, state = excluded.state, property = excluded.property, value = excluded.value, selector = excluded.selector, important = excluded.important, kept_to = excluded.kept_to`),
    onPage: db.prepare<[number, number], { count: number }>(
      'SELECT COUNT(*) AS count FROM override WHERE site_id = ? AND page_id = ?',
    ),
    drop: db.prepare<[number, string]>('DELETE FROM override WHERE site_id = ? AND id = ?'),
  };
  const bySite = (siteId: number): Override[] => statements.bySite.all(siteId).map(toOverride);
  const put = (siteId: number, override: Override): void => {
    const { id, partId, pageId, element, pseudo, reach, state, property, value, selector, important } = override;
    const kept = KEPT_TO.flatMap((name) =>
      override[name] === undefined || override[name] === null ? [] : [[name, override[name]] as const],
    );
    statements.put.run({
      siteId,
      id,
      partId,
      pageId,
      element,
      pseudo,
      reach,
      state,
      property,
      selector,
      value: JSON.stringify(value),
      important: important ? 1 : 0,
      keptTo: kept.length > 0 ? JSON.stringify(Object.fromEntries(kept)) : null,
    });
  };
  const drop = (siteId: number, id: string): void => {
    statements.drop.run(siteId, id);
  };
  /** All overrides at once, for steps that change more than overrides. */
  const subject: Subject<readonly Override[]> = {
    take: bySite,
    put: (siteId, overrides) => {
      for (const { id } of bySite(siteId)) drop(siteId, id);
      for (const override of overrides) put(siteId, override);
    },
    isStructure: false,
  };
  return {
    bySite,
    byId: (siteId: number, id: string): Override | null => {
      const row = statements.byId.get(siteId, id);
      return row ? toOverride(row) : null;
    },
    /** How many were made on a page. */
    onPage: (siteId: number, pageId: number) => statements.onPage.get(siteId, pageId)?.count ?? 0,
    put,
    drop,
    subject,
  };
}

function toOverride(row: Row): Override {
  return {
    id: row.id,
    partId: row.part_id,
    pageId: row.page_id,
    element: row.element,
    pseudo: row.pseudo,
    reach: row.reach,
    state: row.state,
    property: row.property,
    value: JSON.parse(row.value) as OverrideValue,
    selector: row.selector,
    important: row.important === 1,
    ...(row.kept_to === null ? {} : (JSON.parse(row.kept_to) as Partial<Override>)),
  };
}
