import type { Opener, Part, PartTemplate } from '@upper-veneer/core';
import type { Subject } from './subject.js';
import type { Db } from './db.js';

/** Parts as they are to be: new ones have id 0. */
export type NewPart = Part;

interface PartRow {
  readonly id: number;
  readonly name: string;
  readonly kind: string;
  readonly selector: string;
  readonly openers: string;
  readonly templates: string;
  readonly template: string;
}

/** The parts and which of them each override belongs to, so that undo brings both back. */
interface PartsSide {
  readonly parts: readonly Part[];
  readonly overrides: Readonly<Record<string, number>>;
}

export type Parts = ReturnType<typeof createParts>;

/** Named regions of a site's pages. */
export function createParts(db: Db) {
  const statements = {
    bySite: db.prepare<[number], PartRow>(
      'SELECT id, name, kind, selector, openers, templates, template FROM part WHERE site_id = ? ORDER BY position',
    ),
    insert: db.prepare<[number | null, number, number, string, string, string, string, string, string]>(
      'INSERT INTO part (id, site_id, position, name, kind, selector, openers, templates, template) VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?)',
    ),
    update: db.prepare<[number, string, string, string, string, string, string, number, number]>(
      'UPDATE part SET position = ?, name = ?, kind = ?, selector = ?, openers = ?, templates = ?, template = ? WHERE id = ? AND site_id = ?',
    ),
    drop: db.prepare<[number, number]>('DELETE FROM part WHERE id = ? AND site_id = ?'),
    overrides: db.prepare<[number], { id: string; partId: number }>(
      'SELECT id, part_id AS partId FROM override WHERE site_id = ? AND part_id IS NOT NULL',
    ),
    moveOverride: db.prepare<[number, number, string]>('UPDATE override SET part_id = ? WHERE site_id = ? AND id = ?'),
    moveOverrides: db.prepare<[number, number, number]>(
      'UPDATE override SET part_id = ? WHERE site_id = ? AND part_id = ?',
    ),
  };
  const bySite = (siteId: number): Part[] =>
    statements.bySite.all(siteId).map(({ openers, templates, template, ...part }): Part => {
      const known = JSON.parse(templates) as readonly PartTemplate[];
      return {
        ...part,
        openers: JSON.parse(openers) as readonly Opener[],
        ...(known.length > 0 ? { templates: known } : {}),
        ...(template === '' ? {} : { template }),
      };
    });
  /** Makes the parts what is given; parts keep their ids, also when undo brings them back. */
  const replace = (siteId: number, parts: readonly NewPart[]): void => {
    const known = new Set(bySite(siteId).map(({ id }) => id));
    for (const id of known) if (!parts.some((part) => part.id === id)) statements.drop.run(id, siteId);
    parts.forEach(({ id, name, kind, selector, openers, templates = [], template = '' }, position) => {
      const texts = [name, kind, selector, JSON.stringify(openers), JSON.stringify(templates), template] as const;
      if (known.has(id)) statements.update.run(position, ...texts, id, siteId);
      else statements.insert.run(id === 0 ? null : id, siteId, position, ...texts);
    });
  };
  const subject: Subject<PartsSide> = {
    isStructure: true,
    take: (siteId) => ({
      parts: bySite(siteId),
      overrides: Object.fromEntries(statements.overrides.all(siteId).map(({ id, partId }) => [id, partId])),
    }),
    put: (siteId, side) => {
      replace(siteId, side.parts);
      for (const [id, partId] of Object.entries(side.overrides)) statements.moveOverride.run(partId, siteId, id);
    },
  };
  return {
    bySite,
    replace,
    /** Overrides of one part become another's. */
    moveOverrides: (siteId: number, from: number, into: number): void => {
      statements.moveOverrides.run(into, siteId, from);
    },
    subject,
  };
}
