import type { ImportRequest } from '@upper-veneer/contract';
import { isSpecimen, type VisitPlan } from '@upper-veneer/core';
import type { Store } from '../store.js';

/** Visits that an import goes through, and addresses that are fetched again as they are sent. */
export interface WantedVisits {
  readonly visits: readonly { readonly id: number | null; readonly plan: VisitPlan }[];
  readonly addresses: readonly string[];
}

/** What an import visits; `null` when it visits nothing. */
export function visitsFor(store: Store, { kind, siteId, visit, visitIds }: ImportRequest): WantedVisits | null {
  if (kind === 'visit' && visit)
    return { visits: [{ id: visitIds?.[0] ?? null, plan: plainOf(visit) }], addresses: [] };
  if (kind !== 'again' || siteId == null) return null;
  const kept = store.visits.bySite(siteId);
  if (visitIds) return { visits: kept.filter(({ id }) => visitIds.includes(id)), addresses: [] };
  const visited = new Set(kept.flatMap(({ paths }) => paths));
  const others = store.pages
    .bySite(siteId)
    .filter((page) => !isSpecimen(page) && !visited.has(page.path) && /^https?:/.test(page.source));
  return { visits: kept, addresses: [...new Set(others.map(({ source }) => source))] };
}

/** As it is stored: data alone, in the order of its fields. */
function plainOf({ address, width, keep, steps }: VisitPlan): VisitPlan {
  return {
    address,
    width,
    keep,
    steps: steps.map(({ act, selector, words, frame, text, width: own, keep: name }) => ({
      act,
      selector,
      words,
      frame,
      text,
      width: own,
      keep: name,
    })),
  };
}
