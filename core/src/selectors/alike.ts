import type { ElementNode } from '../dom/tree.js';
import { isCurrent } from './current-marker.js';
import { isLink } from './element-states.js';
import { isLastingId, lastingClasses } from './class-names.js';

/** What an element is to a visitor: the kind that "everywhere" gathers. */
export type Kind = 'button' | 'link' | 'field' | 'heading' | 'other';

const FIELD_TYPES = new Set([
  'text',
  'search',
  'email',
  'tel',
  'url',
  'password',
  'number',
  'date',
  'time',
  'month',
  'week',
  'datetime-local',
]);

export function kindOf(element: ElementNode): Kind {
  let kind = kinds.get(element);
  if (kind === undefined) kinds.set(element, (kind = readKind(element)));
  return kind;
}

const kinds = new WeakMap<ElementNode, Kind>();

function readKind(element: ElementNode): Kind {
  const { localName, attributes } = element;
  const type = (attributes.get('type') ?? 'text').toLowerCase();
  if (localName === 'button' || (localName === 'input' && ['submit', 'button', 'reset'].includes(type)))
    return 'button';
  if (isLink(element)) return 'link';
  if (localName === 'textarea' || localName === 'select' || (localName === 'input' && FIELD_TYPES.has(type)))
    return 'field';
  return /^h[1-6]$/.test(localName) ? 'heading' : 'other';
}

/** Selector list that gathers a kind; `null` where only the tag says it. */
export function kindSelector(element: ElementNode): readonly string[] {
  switch (kindOf(element)) {
    case 'button':
      return ['button', 'input[type="submit"]', 'input[type="button"]', 'input[type="reset"]'];
    case 'link':
      return ['a[href]'];
    case 'field':
      return element.localName === 'input' ? ['input'] : [element.localName];
    default:
      return [element.localName];
  }
}

const keys = new WeakMap<ElementNode, string>();

/**
 * What makes two elements alike: the tag, its type or role, and the classes that last; where there are none,
 * the nearest named ancestor they share and their tag. The current one of several is not like the others.
 * @param asCurrent whether being the current one is left out of it.
 */
export function alikeKey(element: ElementNode, asCurrent = false): string {
  let key = keys.get(element);
  if (key === undefined) keys.set(element, (key = makeKey(element)));
  return asCurrent || !isCurrent(element) ? key : `${key}|current`;
}

function makeKey(element: ElementNode): string {
  const own = lastingClasses(element.classes);
  const parts = [element.localName, element.attributes.get('type') ?? '', element.attributes.get('role') ?? ''];
  if (own.length > 0) return [...parts, ...own.sort().map((name) => `.${name}`)].join('|');
  const place: string[] = [];
  for (let node = element.parent; node; node = node.parent) {
    const classes = lastingClasses(node.classes);
    if (node.id && isLastingId(node.id)) {
      place.push(`#${node.id}`);
      break;
    }
    if (classes.length > 0 && node.localName !== 'body') {
      place.push(`.${classes.join('.')}`);
      break;
    }
    if (['main', 'header', 'footer', 'nav', 'aside', 'form', 'body'].includes(node.localName)) {
      place.push(node.localName);
      break;
    }
  }
  return [...parts, ...place, element.id && isLastingId(element.id) ? `#${element.id}` : ''].join('|');
}
