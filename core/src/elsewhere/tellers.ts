import { message, type Message } from '../message/message.js';
import type { ElementNode } from '../dom/tree.js';
import type { Page } from '../resolve/page.js';
import { pointerStates } from './pointer-states.js';
import { StyleShare } from '../resolve/style-share.js';
import { StyleView } from '../resolve/style-view.js';
import type { StateMap } from '../selectors/match-context.js';
import type { Setting } from '../conditions/environment.js';
import { shortName } from '../selectors/describe-element.js';
import { SWITCH_STATES, type SwitchState } from '../veneer/override.js';
import { carriersOf } from './carriers.js';
import { flipsOf, type Flip } from './flips.js';

/** A state of an element by which another looks otherwise. */
export interface Teller {
  /** What is so then: `input is checked`. */
  readonly words: Message;
  readonly element: ElementNode;
  readonly state: SwitchState;
  readonly flip: Flip;
  readonly states: StateMap;
}

const TELLS = [
  'color',
  'background-color',
  'background-image',
  'border-top-color',
  'opacity',
  'box-shadow',
  'text-decoration-line',
  'outline-color',
  'fill',
  'visibility',
  'display',
] as const;
/** What is switched itself is asked about by its own pseudo-classes. */
const HAS_STATES_OF_ITS_OWN: ReadonlySet<string> = new Set(['input', 'details', 'dialog']);
/** States that are tried for one element. */
const MOST_TRIED = 32;

/**
 * The states of elements around one, and of itself, that tell on it or its pseudo-element, the nearest first.
 * @param longhand only those that change it are given when set.
 */
export function tellersOf(
  page: Page,
  element: ElementNode,
  pseudo: string,
  setting: Setting,
  longhand: string | null = null,
): Teller[] {
  const candidates = carriersOf(element)
    .filter(({ relation, element: own }) => relation !== 'self' || !HAS_STATES_OF_ITS_OWN.has(own.localName))
    .flatMap(({ element: carrier, relation }) =>
      tellersIn(page, carrier).filter(({ state }) => relation !== 'self' || state !== 'focused'),
    )
    .slice(0, MOST_TRIED);
  if (candidates.length === 0) return [];
  const properties = longhand === null ? TELLS : [longhand];
  const share = new StyleShare();
  const rest = new StyleView(page, { environment: setting, share }).style(element, pseudo);
  const locked = new Map<ElementNode, string>();
  return candidates.filter(({ states, state, element: carrier }) => {
    const style = new StyleView(page, { environment: setting, states, share }).style(element, pseudo);
    const shown = properties.map((property) => style.resolved(property)).join('|');
    if (state === 'switched') locked.set(carrier, shown);
    // Both at once say something of their own only where neither does alone.
    if (style.identity === rest.identity || (state === 'switched-locked' && shown === locked.get(carrier)))
      return false;
    return properties.some((property) => style.resolved(property) !== rest.resolved(property));
  });
}

function tellersIn(page: Page, element: ElementNode): Teller[] {
  const flips = flipsOf(element, page.document);
  return SWITCH_STATES.flatMap((state): Teller[] => {
    const flip = flips[state];
    return flip
      ? [
          {
            words: message('flip.other', { element: shortName(element), stands: flip.words }),
            element,
            state,
            flip,
            states:
              state === 'focused'
                ? pointerStates(page.document, element, 'focus')
                : new Map([[element, new Set(flip.given)]]),
          },
        ]
      : [];
  });
}
