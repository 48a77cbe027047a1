import type { ElementNode } from '../dom/tree.js';
import { StyleView } from '../resolve/style-view.js';
import { NO_EXCEPTIONS, isExcepted } from '../site/exceptions.js';
import { placesOf } from '../site/places.js';
import { elementOf, pageOf, type SiteModel } from '../site/site-model.js';
import { showsText } from '../site/text-figures.js';
import type { Override, Spot } from '../veneer/override.js';
import { MOST_SPOTS, type Finding } from './finding.js';
import { touchedOn } from './touched.js';

const PAINTED = ['color', 'background-color', 'border-top-color', 'fill'] as const;

/**
 * What is to be left alone and changes all the same, by what it inherits or by a custom property it follows: an override passes
 * over exceptions itself, not over what hangs on its targets. The element it was made on is meant.
 * @param width viewport width, CSS px.
 */
export function leftAloneFindings(site: SiteModel, without: SiteModel, override: Override, width: number): Finding[] {
  const { exceptions } = site;
  if (exceptions === NO_EXCEPTIONS || exceptions.colors.length + exceptions.places.length === 0) return [];
  const lead = elementOf(pageOf(site, override.pageId), override.element);
  const changed: Spot[] = [];
  for (const [pageId, after] of site.pages) {
    const before = pageOf(without, pageId);
    const { touched } = touchedOn(after, [override.selector], override.isByHand ? [] : placesOf(site, override).filter(({ page }) => page === after).map(({ element }) => element));
    const [now, then] = [new StyleView(after, { environment: { width } }), new StyleView(before, { environment: { width } })];
    const isLeft = (element: ElementNode, longhand: (typeof PAINTED)[number]): boolean => {
      const color = then.style(element).color(longhand);
      if (!color || (color.alpha ?? 0) === 0 || (longhand === 'color' && !showsText({ element, pseudo: '' }))) return false;
      return then.style(element).resolved(longhand) !== now.style(element).resolved(longhand) && isExcepted(exceptions, after.document, element, color);
    };
    for (const element of touched) if (element !== lead && PAINTED.some((longhand) => isLeft(element, longhand))) changed.push({ pageId, element: element.number });
  }
  if (changed.length === 0) return [];
  return [{
    standing: 'fails', text: `changes ${changed.length} that ${changed.length === 1 ? 'is' : 'are'} to be left alone`,
    basis: `They are exceptions of this site, at rest, ${width} px wide, and take their colour from what this override changes: by inheritance, or by a custom property they follow.`, spots: changed.slice(0, MOST_SPOTS),
  }];
}
