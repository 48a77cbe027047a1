import { toEnd } from '../to-end.js';
import { CENSUS_STATES } from '../census/census-states.js';
import { withVeneer } from '../resolve/page.js';
import { readSheets } from '../site/read-pages.js';
import { pageOf, type SiteModel } from '../site/site-model.js';
import { unreadPages } from '../site/unread.js';
import { mainActions } from './actions.js';
import type { FoundColors } from './found-color.js';
import { Gathering } from './gathering.js';
import { PageScan } from './page-scan.js';
import type { ShapeGathering } from './shape/find-shapes.js';
import { inScope, pagesOf, type MatchScope } from './scope.js';

/** How much of the work on a page is done when it has been looked at in rest, of 1. */
const AT_REST = 0.3;

export interface FindProgress {
  readonly page: string;
  /** 0–1. */
  readonly share: number;
}

/**
 * Everything a scope paints as it arrived, without the veneer, in every state of the census: rows by colour and job, and which of
 * them meet. A generator: it yields its progress, so that a caller can show it and stop.
 * @param width viewport width, CSS px.
 * @param shapes gathered from the same pages as they are resolved, so that it is done once.
 */
export function* findColors(
  site: SiteModel,
  scope: MatchScope,
  width: number,
  shapes?: ShapeGathering,
): Generator<FindProgress, FoundColors> {
  const gathered = new Gathering(site);
  const pageIds = pagesOf(site, scope);
  const paths = new Map(site.source.pages.map(({ id, path }) => [id, path]));
  let [measuredPages, pages] = [0, 0];
  let path = paths.get(pageIds[0]) ?? '';
  const reading = readSheets(site);
  while (!reading.next().done) yield { page: path, share: 0 };
  for (const [done, pageId] of pageIds.entries()) {
    path = paths.get(pageId) ?? '';
    const at = (share: number): FindProgress => ({ page: path, share: (done + share) / pageIds.length });
    yield at(0);
    const dressed = pageOf(site, pageId);
    const page = withVeneer(dressed, '');
    const layout = dressed.layouts?.get(width) ?? null;
    const isIn = inScope(site, scope, pageId);
    const scan = new PageScan(site, pageId, page, dressed, width, layout, isIn);
    if (scan.elements.length > 0) {
      pages += 1;
      if (layout) measuredPages += 1;
      scan.rest(gathered);
      shapes?.add(pageId, scan.restView);
      for (const [i, state] of CENSUS_STATES.entries()) {
        yield at(AT_REST + (i * (1 - AT_REST)) / CENSUS_STATES.length);
        if (state !== 'rest') scan.state(gathered, state);
      }
    }
    yield at(1);
  }
  const rows = gathered.result();
  let row = rows.next();
  for (; !row.done; row = rows.next()) yield { page: path, share: 1 };
  const found = row.value;
  return {
    ...found,
    measuredPages,
    pages,
    unread: unreadPages(site),
    mains: mainActions(site, scope, width),
  };
}

/** Runs a generator to its end. */
export function foundColors(site: SiteModel, scope: MatchScope, width: number): FoundColors {
  return toEnd(findColors(site, scope, width));
}
