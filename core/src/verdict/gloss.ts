import { message, type Message } from '../message/message.js';
import { propertyTold } from '../grid/rows.js';
import { flipsOf } from '../elsewhere/flips.js';
import { isSwitchState, type Override } from '../veneer/override.js';
import { valueTold } from '../veneer/override-value.js';
import { pseudoTold, shortName } from '../selectors/describe-element.js';
import { placesOf } from '../site/places.js';
import { elementOf, pageOf, type SiteModel } from '../site/site-model.js';
import { matchedInAnyState } from '../selectors/touched.js';

/** What the override does, for those who do not read CSS. */
export function glossOf(site: SiteModel, override: Override): Message {
  const element = elementOf(pageOf(site, override.pageId), override.element);
  const pages = override.isByHand
    ? [...site.pages.values()].filter((page) => matchedInAnyState(page, override.selector).length > 0).length
    : new Set(placesOf(site, override).map((place) => place.page)).size;
  const { through } = override;
  const { pseudo, property } = through ?? override;
  const { min, max } = override.widths ?? { min: null, max: null };
  return message('gloss', {
    when: whenOf(site, override),
    subject: message('gloss.subject', {
      of: property.startsWith('--')
        ? 'property'
        : pseudo === 'before' || pseudo === 'after'
          ? pseudo
          : pseudo === ''
            ? 'element'
            : 'part',
      property,
      what: propertyTold(property),
      part: pseudoTold(pseudo),
      kind: kindMessage(
        through ? elementOf(pageOf(site, override.pageId), through.element).localName : element.localName,
      ),
    }),
    value: valueTold(site, override.value),
    way: through ? 'through' : 'plain',
    through: override.property,
    range: min === null ? (max === null ? 'all' : 'upTo') : max === null ? 'from' : 'between',
    min: min ?? 0,
    max: max ?? 0,
    pages,
  });
}

function whenOf(site: SiteModel, { pageId, parent, state }: Override): Message {
  const { document } = pageOf(site, pageId);
  const flip =
    parent != null && isSwitchState(state) && document.elements[parent]
      ? flipsOf(document.elements[parent], document)[state]
      : undefined;
  return flip && parent != null
    ? message('gloss.when-other', { element: shortName(document.elements[parent]), stands: flip.words })
    : message(`gloss.when.${state}`);
}

const KINDS = ['a', 'button', 'input', 'p', 'h1', 'h2', 'h3', 'label', 's', 'html', 'li', 'figcaption'] as const;

/** A kind of element in a sentence. */
export function kindMessage(localName: string): Message {
  return message('kind', { name: KINDS.find((known) => known === localName) ?? 'other' });
}
