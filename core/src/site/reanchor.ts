import { elementsBetween } from '../recapture/elements-between.js';
import type { Page } from '../resolve/page.js';

/**
 * Where an element of a page is in another capture of the same page.
 * @param number running number in `before`.
 * @returns running number in `after`; `null` when nothing there is like it.
 */
export function reanchor(before: Page, after: Page, number: number): number | null {
  const element = before.document.elements[number];
  return element ? (elementsBetween(before.document, after.document).get(element)?.number ?? null) : null;
}
