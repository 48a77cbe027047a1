import type { OwnCss } from '@upper-veneer/core';
import type { Db } from './db.js';
import type { Subject } from './subject.js';

export type OwnCssTable = ReturnType<typeof createOwnCss>;

/** CSS of the designer's own, a section of the sheet each. */
export function createOwnCss(db: Db) {
  const statements = {
    bySite: db.prepare<[number], { readonly own_css: string }>('SELECT own_css FROM site WHERE id = ?'),
    put: db.prepare<[string, number]>('UPDATE site SET own_css = ? WHERE id = ?'),
  };
  const bySite = (siteId: number): OwnCss[] => JSON.parse(statements.bySite.get(siteId)?.own_css ?? '[]') as OwnCss[];
  const put = (siteId: number, ownCss: readonly OwnCss[]): void => {
    statements.put.run(JSON.stringify(ownCss), siteId);
  };
  /** Puts what stands in one part's section at the end of another's. */
  const move = (siteId: number, from: number, into: number): void => {
    const all = bySite(siteId);
    const moved = all.filter(({ partId }) => partId === from);
    if (moved.length === 0) return;
    const css = all
      .filter(({ partId }) => partId === into)
      .concat(moved)
      .map((own) => own.css)
      .join('\n');
    put(siteId, [...all.filter(({ partId }) => partId !== from && partId !== into), { partId: into, css }]);
  };
  const subject: Subject<readonly OwnCss[]> = { take: bySite, put, isStructure: false };
  return { bySite, put, move, subject };
}
