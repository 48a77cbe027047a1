import { longhandsOfProperty } from '../properties/grouped.js';

/**
 * Longhands that browsers take from `:visited`; anything else of it is passed over, so that no page can tell where its visitor has been.
 * Source: Selectors 4 §8.2 leaves the list to browsers; this is Chromium's, and common practice.
 */
const OPEN: ReadonlySet<string> = new Set([
  'color',
  'background-color',
  'border-top-color',
  'border-right-color',
  'border-bottom-color',
  'border-left-color',
  'outline-color',
  'text-decoration-color',
  'caret-color',
  'column-rule-color',
  'text-emphasis-color',
  'fill',
  'stroke',
]);

/** Why other properties of a visited link cannot be changed. */
export const CLOSED_TO_VISITED =
  'Browsers let :visited change colours only (of text, fill, edges, underline, ring, icon and caret), so that no page can tell where its visitor has been.';

/** Whether a property can be changed for visited links. */
export function isOpenToVisited(property: string): boolean {
  return longhandsOfProperty(property).every((longhand) => OPEN.has(longhand));
}
