import { message, type Message } from '../message/message.js';
import type { ElementNode, PageDocument } from '../dom/tree.js';
import { escapeIdentifier, quoteString } from '../selectors/parse-selector.js';
import type { SwitchState } from '../veneer/override.js';
import { isFocusable } from '../selectors/element-states.js';
import { switchClassesOf } from '../rules/switch-classes.js';

/** How an element stands when it is switched over from how it was captured, or locked. */
export interface Flip {
  /** For the head of a column: `checked`. */
  readonly short: Message;
  /** As in `the input is checked`. */
  readonly words: Message;
  /** As states give it. */
  readonly given: readonly string[];
  /** As a selector asks for it, after the element's own. */
  readonly selector: string;
}

type Stands = 'expanded' | 'pressed' | 'selected' | 'checked' | 'open' | 'on' | 'active';

/** How it stands, for the head of a column and in a sentence. */
function standing(as: Stands | `not-${Stands}` | 'closed' | 'focused'): Pick<Flip, 'short' | 'words'> {
  const told = message(`flip.stands.${as}`);
  return { short: told, words: told };
}

/** Values that widgets flip between (WAI-ARIA 1.2; `data-state` is common practice of headless component libraries). */
const FLIPS: Readonly<Record<string, readonly (readonly [off: string, on: string, words: Stands])[]>> = {
  'aria-expanded': [['false', 'true', 'expanded']],
  'aria-pressed': [['false', 'true', 'pressed']],
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
      ? {
          short: message('flip.off'),
          words: message('flip.disabled'),
          given: ['disabled', '[disabled='],
          selector: ':disabled',
        }
      : null;
  const both: Flip | null = switched &&
    locked && {
      short: message('flip.both-short', { switched: switched.short }),
      words: message('flip.both', { switched: switched.words }),
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
  ...standing('focused'),
  given: ['focus', 'focus-visible', 'focus-within'],
  selector: ':focus-visible',
};

function tickFlip(element: ElementNode): Flip {
  return element.attributes.has('checked')
    ? { ...standing('not-checked'), given: ['!checked'], selector: ':not(:checked)' }
    : { ...standing('checked'), given: ['checked'], selector: ':checked' };
}

function switchFlip(element: ElementNode, known: PageDocument['switchClasses']): Flip | null {
  const parts: Flip[] = [];
  if (element.localName === 'details' || element.localName === 'dialog') {
    parts.push(
      element.attributes.has('open')
        ? { ...standing('closed'), given: ['!open', '![open'], selector: ':not([open])' }
        : { ...standing('open'), given: ['open', '[open='], selector: '[open]' },
    );
  }
  for (const [attribute, pairs] of Object.entries(FLIPS)) {
    const value = element.attributes.get(attribute);
    for (const [off, on, words] of pairs) {
      if (value !== off && value !== on) continue;
      const other = value === off ? on : off;
      parts.push({
        ...standing(value === off ? words : `not-${words}`),
        given: [`[${attribute}=${other}`],
        selector: `[${attribute}=${quoteString(other)}]`,
      });
    }
  }
  for (const name of switchClassesOf(element, known)) {
    const own = `.${escapeIdentifier(name)}`;
    parts.push(
      element.classes.includes(name)
        ? {
            short: message('flip.class-short', { name: `.${name}` }),
            words: message('flip.class', { name: `.${name}` }),
            given: [`!.${name}`],
            selector: `:not(${own})`,
          }
        : {
            short: message('plain', { text: `.${name}` }),
            words: message('plain', { text: `.${name}` }),
            given: [`.${name}`],
            selector: own,
          },
    );
  }
  const [first] = parts;
  // Attributes that say the same flip together; classes are switched one at a time, the first that is asked for.
  const together = parts.filter(
    (part) => part === first || (part.given[0].startsWith('[') && first.given[0].startsWith('[')),
  );
  return first ? { ...first, given: together.flatMap(({ given }) => given) } : null;
}
