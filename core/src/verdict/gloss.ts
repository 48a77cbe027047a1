import { propertyWords } from '../grid/rows.js';
import { flipsOf } from '../elsewhere/flips.js';
import { isSwitchState, type Override, type OverrideState } from '../veneer/override.js';
import { valueWords } from '../veneer/override-value.js';
import { pseudoWords, shortName } from '../selectors/describe-element.js';
import { placesOf } from '../site/places.js';
import { elementOf, pageOf, type SiteModel } from '../site/site-model.js';
import { matchedInAnyState } from '../selectors/touched.js';

const WHEN: Readonly<Record<OverrideState, string>> = {
  rest: 'At rest',
  autofilled: 'When the browser has filled it in',
  indeterminate: 'While it is neither ticked nor not',
  open: 'While it is open',
  valid: 'When what is typed is accepted',
  'read-only': 'While it can be read only',
  switched: 'When what it follows is switched over',
  locked: 'While what it follows is disabled',
  'switched-locked': 'When what it follows is switched over and disabled',
  focused: 'When the keyboard is on what it follows',
  filled: 'Once something is typed in',
  checked: 'While it is ticked',
  invalid: 'When what is typed is not accepted',
  current: 'When it stands for the current page',
  'parent-invalid': 'While its form is not accepted',
  visited: 'Once visited',
  'parent-hover': 'When the pointer is over what it stands in',
  hover: 'When the pointer is over it',
  focus: 'When the keyboard is on it',
  active: 'While it is pressed',
  disabled: 'While it cannot be used',
};

/** What the override does, for those who do not read CSS. */
export function glossOf(site: SiteModel, override: Override): string {
  const element = elementOf(pageOf(site, override.pageId), override.element);
  const pages = override.isByHand
    ? [...site.pages.values()].filter((page) => matchedInAnyState(page, override.selector).length > 0).length
    : new Set(placesOf(site, override).map((place) => place.page)).size;
  const { through } = override;
  const word = kindWord(
    through ? elementOf(pageOf(site, override.pageId), through.element).localName : element.localName,
  );
  const { pseudo, property } = through ?? override;
  const what = propertyWords(property);
  const subject = property.startsWith('--')
    ? `what takes ${property} in the ${word}`
    : pseudo === 'before' || pseudo === 'after'
      ? `the ${what} of the mark ${pseudo} the ${word}`
      : pseudo === ''
        ? `the ${word}’s ${what}`
        : `the ${word}’s ${pseudoWords(pseudo)}’s ${what}`;
  const by = through ? ` by way of ${override.property}` : '';
  const range = override.widths
    ? `, ${override.widths.min !== null ? `from ${override.widths.min} px` : ''}${override.widths.max !== null ? ` to ${override.widths.max} px` : ''} wide`.replace(
        ',  to',
        ', up to',
      )
    : '';
  return `${whenWords(site, override)}, ${subject} becomes ${valueWords(site, override.value)}${by}${range}, on ${pages} ${pages === 1 ? 'page' : 'pages'}.`;
}

function whenWords(site: SiteModel, { pageId, parent, state }: Override): string {
  if (parent == null || !isSwitchState(state)) return WHEN[state];
  const { document } = pageOf(site, pageId);
  const flip = document.elements[parent] && flipsOf(document.elements[parent], document)[state];
  return flip ? `When ${shortName(document.elements[parent])} is ${flip.words}` : WHEN[state];
}

/** Word for a kind of element in a sentence. */
export function kindWord(localName: string): string {
  const words: Readonly<Record<string, string>> = {
    a: 'link',
    button: 'button',
    input: 'field',
    p: 'paragraph',
    h1: 'heading',
    h2: 'heading',
    h3: 'heading',
    label: 'label',
    s: 'struck-through price',
    html: 'page',
    li: 'list item',
    figcaption: 'caption',
  };
  return words[localName] ?? 'element';
}
