import type { Place } from '../reach/threshold.js';
import { inEachLighting, type SiteModel } from './site-model.js';

/** Finds a place of a site in its other lighting; nothing in a site of one. */
export function inOtherLighting(site: SiteModel): (place: Place) => readonly Place[] {
  const [, other] = inEachLighting(site);
  if (!other) return () => [];
  const idOf = new Map([...site.pages].map(([id, page]) => [page, id]));
  return ({ page, element, parent, ...place }) => {
    const lit = other.pages.get(idOf.get(page) ?? -1);
    const [own, of] = [element, parent].map((node) => node && lit?.document.elements[node.number]);
    return lit && own ? [{ ...place, page: lit, element: own, ...(of ? { parent: of } : {}) }] : [];
  };
}
