import type { ElementNode } from '../dom/tree.js';
import { StyleView } from '../resolve/style-view.js';
import { placesOf } from '../site/places.js';
import { elementOf, pageOf, type SiteModel } from '../site/site-model.js';
import type { Spot } from '../veneer/override.js';

/**
 * Elements that take an inherited longhand from an element, itself first, at rest at a viewport width in CSS px: what would change
 * with it, were it changed there and for all alike.
 */
export function followersOf(site: SiteModel, pageId: number, number: number, longhand: string, width: number): Spot[] {
  const lead = elementOf(pageOf(site, pageId), number);
  const ids = new Map([...site.pages].map(([id, page]) => [page, id]));
  const found: Spot[] = [];
  for (const [page, id] of ids) {
    const sources = new Set(
      placesOf(site, { pageId, element: lead.number, reach: 'alike' })
        .filter((place) => place.page === page)
        .map(({ element }) => element),
    );
    if (sources.size === 0) continue;
    const view = new StyleView(page, { environment: { width } });
    const follows = new Map<ElementNode, boolean>();
    for (const element of page.document.elements) {
      const parent = element.flatParent;
      const isOwn = sources.has(element);
      const answer =
        isOwn || (parent !== null && follows.get(parent) === true && view.style(element).ranked(longhand).length === 0);
      follows.set(element, answer);
      if (answer) found.push({ pageId: id, element: element.number });
    }
  }
  return found;
}
