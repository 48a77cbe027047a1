import { NO_EXCEPTIONS, passedOverOn } from '../site/exceptions.js';
import { elementOf, pageOf, type SiteModel } from '../site/site-model.js';
import type { OverrideWish } from '../veneer/override-wish.js';

/** What a bulk act wishes for, and what of it the site's exceptions leave alone. */
export interface PassedOver {
  readonly wishes: readonly OverrideWish[];
  /** Wishes that were dropped: their place, or the colour it shows, is an exception. */
  readonly leftAlone: number;
}

/** Wishes of a bulk act without those for exceptions. Where one reaches further than its own element, its reach passes over them. */
export function passOver(site: SiteModel, wishes: readonly OverrideWish[]): PassedOver {
  const kept = wishes.filter((wish) => !isPassedOver(site, wish));
  return { wishes: kept, leftAlone: wishes.length - kept.length };
}

function isPassedOver(site: SiteModel, wish: OverrideWish): boolean {
  if (site.exceptions === NO_EXCEPTIONS || wish.reach !== 'one') return false;
  const page = pageOf(site, wish.pageId);
  return passedOverOn(site.exceptions, page, wish).has(elementOf(page, wish.element));
}
