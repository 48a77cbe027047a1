import { siblingsOf, type ElementNode } from '../dom/tree.js';

/** How a page marks the current one among links or page numbers. */
export interface CurrentMarker {
  /** As a state gives it: `.name` or `[name=value`. */
  readonly given: string;
  /** As a selector asks for it. */
  readonly selector: string;
  /** Whether the element itself carries it, or the list item around it. */
  readonly on: 'self' | 'parent';
  /** What the element itself is given besides, where the mark is on the list item. */
  readonly also: string | null;
}

/** Class names that pages mark the current one of several with (common practice); `active` means that here, not pressed. */
const CURRENT_CLASS = /^(?:is-)?(?:active|current|selected|here|current-page|current-menu-item)$/i;

/** The mark an element carries itself; `null` when it carries none. */
export function markOf(element: ElementNode): Pick<CurrentMarker, 'given' | 'selector'> | null {
  const aria = element.attributes.get('aria-current');
  if (aria !== undefined && aria !== 'false') return { given: `[aria-current=${aria}`, selector: '[aria-current]' };
  const name = element.classes.find((own) => CURRENT_CLASS.test(own));
  return name === undefined ? null : { given: `.${name}`, selector: `.${name}` };
}

/** Whether an element is marked as the current one, itself or by the list item it fills. */
export function isCurrent(element: ElementNode): boolean {
  return markOf(element) !== null || (element.parent?.localName === 'li' && markOf(element.parent) !== null);
}

/** How the list an element stands in marks its current one; `null` when nothing there is marked. */
export function currentMarkerFor(element: ElementNode): CurrentMarker | null {
  const own = siblingsOf(element).filter((node) => node.localName === element.localName || markOf(node) !== null);
  for (const node of own) {
    const mark = markOf(node);
    if (mark) return { ...mark, on: 'self', also: null };
  }
  const item = element.parent;
  if (item?.localName !== 'li') return null;
  for (const other of siblingsOf(item)) {
    const mark = markOf(other);
    const inner = other.children.map(markOf).find((found) => found !== null) ?? null;
    if (mark) return { ...mark, on: 'parent', also: inner?.given ?? null };
    if (inner) return { ...inner, on: 'self', also: null };
  }
  return null;
}
