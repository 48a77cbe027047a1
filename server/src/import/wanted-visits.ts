import type { ImportRequest } from '@upper-veneer/contract';
import { isSpecimen, type VisitPlan } from '@upper-veneer/core';
import type { PageRow } from '../db/pages.js';
import type { Store } from '../store.js';

export interface WantedVisit {
  /** Of a visit that is kept already; `null` for a new one. */
  readonly id: number | null;
  readonly plan: VisitPlan;
  /** Paths of the pages it brought before. */
  readonly paths: readonly string[];
}

/** Visits that an import goes through, and addresses that are fetched again as they are sent. */
export interface WantedVisits {
  readonly visits: readonly WantedVisit[];
  readonly addresses: readonly string[];
  /** Names of pages that came from no address, and stay as they are. */
  readonly others: readonly string[];
}

/** What an import visits; `null` when it visits nothing. */
export function visitsFor(store: Store, { kind, siteId, visit, visitIds }: ImportRequest): WantedVisits | null {
  if (kind === 'visit' && visit)
    return { visits: [{ id: visitIds?.[0] ?? null, plan: visit, paths: [] }], addresses: [], others: [] };
  if (kind !== 'again' || siteId == null) return null;
  const kept = store.visits.bySite(siteId);
  if (visitIds) return { visits: kept.filter(({ id }) => visitIds.includes(id)), addresses: [], others: [] };
  const visited = new Set(kept.flatMap(({ paths }) => paths));
  const unvisited = store.pages.bySite(siteId).filter((page) => !isSpecimen(page) && !visited.has(page.path));
  const isSent = ({ source }: PageRow): boolean => /^https?:/.test(source);
  return {
    visits: kept,
    addresses: [...new Set(unvisited.filter(isSent).map(({ source }) => source))],
    others: unvisited.filter((page) => !isSent(page)).map(({ name }) => name),
  };
}
