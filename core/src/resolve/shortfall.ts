import type { ElementNode } from '../dom/tree.js';
import type { Page } from './page.js';

const unread = new WeakMap<Page['base'], Set<ElementNode>>();

/** Notes that matching an element of a page took more steps than the bound: its styles are not those of a browser. */
export function noteShortfall({ base }: Page, element: ElementNode): void {
  const elements = unread.get(base);
  if (elements) elements.add(element);
  else unread.set(base, new Set([element]));
}

/** How many elements of a captured page could not be matched, in whatever view or veneer; nothing built on them is proved. */
export function shortfallOf({ base }: Page): number {
  return unread.get(base)?.size ?? 0;
}
