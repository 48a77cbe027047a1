import { say } from '@upper-veneer/words';
import { dressSite, openSite, pageOf, type SiteModel } from '../site/site-model.js';
import { matchingElements } from '../selectors/matching-elements.js';
import { parseSelectorList } from '../selectors/parse-selector.js';
import { planOverride, withOverrides } from '../plan/plan-override.js';
import type { OverrideWish } from '../veneer/override-wish.js';
import type { Override } from '../veneer/override.js';
import type { Palette } from '../veneer/palette.js';

export const RIVER_PALETTE: Palette = {
  swatches: [
    { id: 1, name: 'River', css: '#104a47' },
    { id: 2, name: 'Chalk', css: '#ffffff' },
    { id: 3, name: 'Ink', css: '#1d2b2a' },
  ],
  roles: [
    { role: 'second', swatchId: 1, shade: 0 },
    { role: 'on-second', swatchId: 2, shade: 0 },
    { role: 'ink', swatchId: 3, shade: 0 },
    { role: 'ground', swatchId: 2, shade: 0 },
  ],
};

/** A site of one page, with a theme of its own in the head. */
export function openOnePage(theme: string, body: string, palette: Palette = RIVER_PALETTE): SiteModel {
  const html = `<!doctype html><html><head><style>${theme}</style></head><body>${body}</body></html>`;
  return dressSite(
    openSite({
      pages: [{ id: 1, name: 'Home', path: 'index.html', html }],
      stylesheets: {},
      parts: [],
      veneerPlace: 'head-end',
      prefix: 'brand',
    }),
    [],
    palette,
  );
}

/** Running number of the first element that a selector matches. @throws {Error} when none does. */
export function numberOn(site: SiteModel, selector: string): number {
  const [found] = matchingElements(pageOf(site, 1), parseSelectorList(selector));
  if (!found) throw new Error(`Nothing matches ${selector}`);
  return found.number;
}

/** The site with one wish fulfilled, and its override. @throws {Error} with the reason when it cannot be. */
export function fulfil(
  site: SiteModel,
  selector: string,
  some: Partial<OverrideWish>,
): { readonly site: SiteModel; readonly override: Override } {
  const plan = planOverride(site, {
    pageId: 1,
    element: numberOn(site, selector),
    pseudo: '',
    reach: 'alike',
    state: 'rest',
    property: 'color',
    value: { kind: 'role', role: 'second', shade: 0 },
    width: 1280,
    ...some,
  });
  if (!plan.ok) throw new Error(say(plan.reason));
  return { site: withOverrides(site, plan), override: plan.put[0] };
}
