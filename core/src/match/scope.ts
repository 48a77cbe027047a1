import type { ElementNode } from '../dom/tree.js';
import { pageOf, partOf, type SiteModel } from '../site/site-model.js';

/** What is matched at once: the site, one page, or some parts wherever they stand. */
export type MatchScope =
  | { readonly kind: 'site' }
  | { readonly kind: 'page'; readonly pageId: number }
  | { readonly kind: 'parts'; readonly partIds: readonly number[] };

/** Elements of a page that are in a scope. */
export function inScope(site: SiteModel, scope: MatchScope, pageId: number): (element: ElementNode) => boolean {
  if (scope.kind === 'site') return () => true;
  if (scope.kind === 'page') return () => scope.pageId === pageId;
  const page = pageOf(site, pageId);
  const known = new Map<ElementNode, boolean>();
  return (element) => {
    let is = known.get(element);
    if (is === undefined) {
      const part = partOf(site, page, element);
      known.set(element, (is = part !== null && scope.partIds.includes(part.id)));
    }
    return is;
  };
}

/** Pages a scope can have places on. */
export function pagesOf(site: SiteModel, scope: MatchScope): readonly number[] {
  return scope.kind === 'page' ? [scope.pageId] : [...site.pages.keys()];
}
