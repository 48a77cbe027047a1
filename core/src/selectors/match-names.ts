import type { ElementNode } from '../dom/tree.js';

/** Whether a type selector names an element. */
export function matchesType(type: string, element: ElementNode): boolean {
  // Chromium folds case in HTML documents for SVG's names too.
  return element.localName === type || element.localName.toLowerCase() === type.toLowerCase();
}

/** Whether two class or id names are the same. @param foldCase whether ASCII case is folded (quirks mode). */
export function sameName(a: string, b: string, foldCase: boolean): boolean {
  return a === b || (foldCase && a.toLowerCase() === b.toLowerCase());
}
