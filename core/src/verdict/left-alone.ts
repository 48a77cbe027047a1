import { inner, message } from '../message/message.js';
import type { ElementNode } from '../dom/tree.js';
import { stateTold } from '../grid/rows.js';
import { statesTogether } from '../reach/threshold.js';
import { StyleView } from '../resolve/style-view.js';
import { NO_EXCEPTIONS, isExcepted } from '../site/exceptions.js';
import { settingsTold } from '../site/environments.js';
import type { Setting } from '../conditions/environment.js';
import { placesOf } from '../site/places.js';
import { elementOf, pageOf, type SiteModel } from '../site/site-model.js';
import { showsText } from '../resolve/text-figures.js';
import type { Override, Spot } from '../veneer/override.js';
import { MOST_SPOTS, type Finding } from './finding.js';
import { touchedOn } from '../selectors/touched.js';

const PAINTED = ['color', 'background-color', 'border-top-color', 'fill'] as const;

/**
 * What is to be left alone and changes all the same, by what it inherits or by a custom property it follows: an override passes
 * over exceptions itself, not over what hangs on its targets. The element it was made on is meant.
 * @param settings where it is looked at, in the override's own state.
 */
export function leftAloneFindings(
  site: SiteModel,
  without: SiteModel,
  override: Override,
  settings: readonly Setting[],
): Finding[] {
  const { exceptions } = site;
  if (exceptions === NO_EXCEPTIONS || exceptions.colors.length + exceptions.places.length === 0) return [];
  const lead = elementOf(pageOf(site, override.pageId), override.element);
  const changed = new Map<string, Spot>();
  for (const [pageId, after] of site.pages) {
    const before = pageOf(without, pageId);
    const own = override.isByHand ? [] : placesOf(site, override).filter(({ page }) => page === after);
    const { touched } = touchedOn(
      after,
      [override.selector],
      own.map(({ element }) => element),
    );
    const states = statesTogether(own, override.state);
    const isLeft = (
      then: StyleView,
      now: StyleView,
      element: ElementNode,
      longhand: (typeof PAINTED)[number],
    ): boolean => {
      const color = then.style(element).color(longhand);
      if (!color || (color.alpha ?? 0) === 0 || (longhand === 'color' && !showsText({ element, pseudo: '' })))
        return false;
      return (
        then.style(element).resolved(longhand) !== now.style(element).resolved(longhand) &&
        isExcepted(exceptions, after.document, element, color)
      );
    };
    for (const environment of settings) {
      const [then, now] = [
        new StyleView(before, { environment, states }),
        new StyleView(after, { environment, states }),
      ];
      for (const element of touched) {
        const key = `${pageId}/${element.number}`;
        if (element !== lead && !changed.has(key) && PAINTED.some((longhand) => isLeft(then, now, element, longhand)))
          changed.set(key, { pageId, element: element.number });
      }
    }
  }
  if (changed.size === 0) return [];
  return [
    {
      standing: 'fails',
      text: message('verdict.changes-exceptions', { changed: changed.size }),
      basis: message('verdict.changes-exceptions-basis', {
        state: inner(stateTold(override.state)),
        where: settingsTold(settings),
      }),
      spots: [...changed.values()].slice(0, MOST_SPOTS),
    },
  ];
}
