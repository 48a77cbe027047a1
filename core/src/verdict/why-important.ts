import { longhandsOfProperty } from '../properties/grouped.js';
import { findThreshold } from '../reach/threshold.js';
import { settingsThatMatter } from '../site/environments.js';
import { inOtherLighting } from '../site/other-lighting.js';
import { placesOf } from '../site/places.js';
import type { SiteModel } from '../site/site-model.js';
import type { Override } from '../veneer/override.js';
import { selectorsIn } from '../selectors/selectors-in.js';

/** Why an override says `!important`, for people; empty where it does not. */
export function whyImportant(site: SiteModel, override: Override): string {
  if (!override.important) return '';
  const longhands = longhandsOfProperty(override.property);
  const bar = findThreshold({
    places: placesOf(site, override),
    pseudo: override.pseudo,
    state: override.state,
    longhands,
    isReplaced: (selector) => selectorsIn(override.selector).includes(selector),
    environments: settingsThatMatter(site, longhands, override.widths).settings,
    alsoAt: inOtherLighting(site),
  });
  if (!bar.important) return 'It says !important, and nothing it has to beat needs that.';
  return bar.setBy === 'its style attribute'
    ? 'It says !important because a style attribute sets this, and nothing else in a stylesheet beats one.'
    : `It says !important because ${bar.setBy ?? 'a rule of the page'} does too.`;
}
