import { matchesAny } from '../selectors/match-selector.js';
import { restContext } from '../selectors/match-context.js';
import { pageOf, type SiteModel } from '../site/site-model.js';
import type { Spot } from '../veneer/override.js';
import { paintedAsFound, paintedAsMatched } from './painted-by.js';
import { prominenceOf, type Prominence } from './prominence.js';
import type { MatchProposal } from './proposal.js';
import { pagesOf, type MatchScope } from './scope.js';

/** The first element of a scope, to be drawn: of a part its outermost, else the whole page; `null` where no page has it. */
export function leadOf(site: SiteModel, scope: MatchScope): Spot | null {
  for (const pageId of pagesOf(site, scope)) {
    const { document } = pageOf(site, pageId);
    if (scope.kind !== 'parts') return { pageId, element: document.rootElement.number };
    const context = restContext(document);
    const selectors = site.parts.filter(({ part }) => scope.partIds.includes(part.id)).map((part) => part.selectors);
    const found = document.elements.find((element) => selectors.some((list) => matchesAny(list, element, context)));
    if (found) return { pageId, element: found.number };
  }
  return null;
}

/** Actions of one page by how much they draw the eye, as they arrived and as a proposal would have them. */
export function prominences(
  site: SiteModel,
  scope: MatchScope,
  proposal: MatchProposal,
  width: number,
  pageId: number,
): { readonly arrived: readonly Prominence[]; readonly matched: readonly Prominence[] } {
  return {
    arrived: prominenceOf(site, scope, width, paintedAsFound(proposal, pageId), [pageId]),
    matched: prominenceOf(site, scope, width, paintedAsMatched(proposal, pageId), [pageId]),
  };
}
