import type { ElementNode, PageDocument } from '../dom/tree.js';
import { escapeIdentifier, quoteString } from '../selectors/parse-selector.js';
import type { SwitchState } from '../veneer/override.js';
import { isFocusable } from '../selectors/element-states.js';
import { switchClassesOf } from '../rules/switch-classes.js';

/** How an element stands when it is switched over from how it was captured, or locked. */
export interface Flip {
  /** For the head of a column: `checked`. */
  readonly short: string;
  /** As in `the input is checked`. */
  readonly words: string;
  /** As states give it. */
  readonly given: readonly string[];
  /** As a selector asks for it, after the element's own. */
  readonly selector: string;
}

/** Values that widgets flip between (WAI-ARIA 1.2; `data-state` is common practice of headless component libraries). */
const FLIPS: Readonly<Record<string, readonly (readonly [off: string, on: string, words: string])[]>> = {
  'aria-expanded': [['false', 'true', 'expanded']],
  'aria-pressed': [['false', 'true', 'pressed on']],
  'aria-selected': [['false', 'true', 'selected']],
  'aria-checked': [['false', 'true', 'checked']],
  'data-state': [
    ['closed', 'open', 'open'],
    ['off', 'on', 'on'],
    ['unchecked', 'checked', 'checked'],
    ['inactive', 'active', 'active'],
  ],
};

/**
 * What can be switched of an element: a tick, `details`, the attributes by which widgets say how they stand, a class that rules tell
 * its looks apart by. What belongs together flips together.
 */
export function flipsOf(
  element: ElementNode,
  { switchClasses }: Pick<PageDocument, 'switchClasses'>,
): Partial<Record<SwitchState, Flip>> {
  const type = (element.attributes.get('type') ?? '').toLowerCase();
  const isTick = element.localName === 'input' && (type === 'checkbox' || type === 'radio');
  const switched = isTick ? tickFlip(element) : switchFlip(element, switchClasses);
  const locked: Flip | null =
    isTick && !element.attributes.has('disabled')
      ? { short: 'off', words: 'disabled', given: ['disabled', '[disabled='], selector: ':disabled' }
      : null;
  const both: Flip | null = switched &&
    locked && {
      short: `${switched.short}, off`,
      words: `${switched.words} and disabled`,
      given: [...switched.given, ...locked.given],
      selector: switched.selector + locked.selector,
    };
  return {
    ...(switched ? { switched } : {}),
    ...(locked ? { locked } : {}),
    ...(both ? { 'switched-locked': both } : {}),
    ...(isFocusable(element) ? { focused: FOCUSED } : {}),
  };
}

/** Selectors 4 §9.4: the ring that a keyboard brings. */
const FOCUSED: Flip = {
  short: 'focused',
  words: 'focused',
  given: ['focus', 'focus-visible', 'focus-within'],
  selector: ':focus-visible',
};

function tickFlip(element: ElementNode): Flip {
  return element.attributes.has('checked')
    ? { short: 'not checked', words: 'not checked', given: ['!checked'], selector: ':not(:checked)' }
    : { short: 'checked', words: 'checked', given: ['checked'], selector: ':checked' };
}

function switchFlip(element: ElementNode, known: PageDocument['switchClasses']): Flip | null {
  const parts: Flip[] = [];
  if (element.localName === 'details' || element.localName === 'dialog') {
    parts.push(
      element.attributes.has('open')
        ? { short: 'closed', words: 'closed', given: ['!open', '![open'], selector: ':not([open])' }
        : { short: 'open', words: 'open', given: ['open', '[open='], selector: '[open]' },
    );
  }
  for (const [attribute, pairs] of Object.entries(FLIPS)) {
    const value = element.attributes.get(attribute);
    for (const [off, on, words] of pairs) {
      if (value !== off && value !== on) continue;
      const other = value === off ? on : off;
      const said = value === off ? words : `not ${words}`;
      parts.push({
        short: said,
        words: said,
        given: [`[${attribute}=${other}`],
        selector: `[${attribute}=${quoteString(other)}]`,
      });
    }
  }
  for (const name of switchClassesOf(element, known)) {
    const own = `.${escapeIdentifier(name)}`;
    parts.push(
      element.classes.includes(name)
        ? { short: `not .${name}`, words: `without .${name}`, given: [`!.${name}`], selector: `:not(${own})` }
        : { short: `.${name}`, words: `.${name}`, given: [`.${name}`], selector: own },
    );
  }
  const [first] = parts;
  // Attributes that say the same flip together; classes are switched one at a time, the first that is asked for.
  const together = parts.filter(
    (part) => part === first || (part.given[0].startsWith('[') && first.given[0].startsWith('[')),
  );
  return first ? { ...first, given: together.flatMap(({ given }) => given) } : null;
}
