import { message, type Message } from '../message/message.js';
import { longhandsOfProperty } from '../properties/grouped.js';
import { findThreshold } from '../reach/threshold.js';
import { settingsThatMatter } from '../site/environments.js';
import { inOtherLighting } from '../site/other-lighting.js';
import { placesOf } from '../site/places.js';
import type { SiteModel } from '../site/site-model.js';
import type { Override } from '../veneer/override.js';
import { selectorsIn } from '../selectors/selectors-in.js';

/** Why an override says `!important`, `null` where it does not. */
export function whyImportant(site: SiteModel, override: Override): Message | null {
  if (!override.important) return null;
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
  if (!bar.important) return message('important.needless');
  if (bar.setBy?.by === 'attribute') return message('important.style-attribute');
  return message('important.beats', { by: bar.setBy?.by ?? 'none', rule: bar.setBy?.rule ?? '' });
}
