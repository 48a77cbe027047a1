import { siblingsOf, type ElementNode } from '../dom/tree.js';
import type { Page } from '../resolve/page.js';
import { StyleView } from '../resolve/style-view.js';
import type { StateMap } from '../selectors/match-context.js';
import { shortName } from '../site/describe-element.js';
import type { Setting } from '../site/environments.js';

/** A state that lives on another element, by which an element looks otherwise: a tick box before a drawn switch, a parent's `aria-expanded`. */
export interface Teller {
  /** What is so then: `input is checked`. */
  readonly words: string;
  readonly states: StateMap;
}

/** Steps up the lineage whose neighbours are tried, and neighbours of one step. */
const MOST_STEPS = 4;
const MOST_NEIGHBOURS = 6;
const TELLS = ['color', 'background-color', 'background-image', 'border-top-color', 'opacity', 'box-shadow', 'text-decoration-line', 'visibility', 'display'] as const;
/** Values that widgets flip between (common practice of headless component libraries and ARIA 1.2). */
const FLIPS: Readonly<Record<string, readonly (readonly [string, string])[]>> = {
  'aria-expanded': [['false', 'true']], 'aria-pressed': [['false', 'true']], 'aria-selected': [['false', 'true']], 'aria-checked': [['false', 'true']],
  'data-state': [['closed', 'open'], ['off', 'on'], ['unchecked', 'checked'], ['inactive', 'active']],
};

/** The states of other elements that tell on an element or pseudo-element of a page, the nearest first. @param longhand only those that change it are given when set. */
export function tellersOf(page: Page, element: ElementNode, pseudo: string, setting: Setting, longhand: string | null = null): Teller[] {
  const candidates = candidatesFor(element);
  if (candidates.length === 0) return [];
  const properties = longhand === null ? TELLS : [longhand];
  const rest = new StyleView(page, { environment: setting }).style(element, pseudo);
  return candidates.filter(({ states }) => {
    const style = new StyleView(page, { environment: setting, states }).style(element, pseudo);
    return properties.some((property) => style.resolved(property) !== rest.resolved(property));
  });
}

function candidatesFor(element: ElementNode): Teller[] {
  const found: Teller[] = [];
  for (let node: ElementNode | null = element, steps = 0; node && steps < MOST_STEPS; node = node.flatParent, steps += 1) {
    if (node.localName === 'body') break;
    if (node !== element) found.push(...flipsOf(node));
    for (const sibling of siblingsOf(node).slice(0, node.position).reverse().slice(0, MOST_NEIGHBOURS)) found.push(...flipsOf(sibling));
    // A parent may ask what stands in it, by :has().
    if (node !== element) for (const child of node.children.slice(0, MOST_NEIGHBOURS)) if (child !== element) found.push(...flipsOf(child));
  }
  return found.filter(({ words }, i) => found.findIndex((other) => other.words === words) === i).slice(0, 12);
}

/** What an element can be flipped to. */
function flipsOf(element: ElementNode): Teller[] {
  const name = shortName(element);
  const give = (words: string, ...states: string[]): Teller => ({ words: `${name} ${words}`, states: new Map([[element, new Set(states)]]) });
  const type = (element.attributes.get('type') ?? '').toLowerCase();
  const found: Teller[] = [];
  if (element.localName === 'input' && (type === 'checkbox' || type === 'radio')) {
    found.push(element.attributes.has('checked') ? give('is not checked', '!checked') : give('is checked', 'checked'));
    if (!element.attributes.has('disabled')) found.push(give('is disabled', 'disabled', '[disabled='), give('is checked and disabled', 'checked', 'disabled', '[disabled='));
  }
  if (element.localName === 'details' && !element.attributes.has('open')) found.push(give('is open', 'open', '[open='));
  for (const [attribute, pairs] of Object.entries(FLIPS)) {
    const value = element.attributes.get(attribute);
    for (const [off, on] of pairs) if (value === off || value === on) found.push(give(`has ${attribute}="${value === off ? on : off}"`, `[${attribute}=${value === off ? on : off}`));
  }
  return found;
}
