import { longhandsOfProperty } from '../properties/grouped.js';
import { VISITED_LONGHANDS } from '../properties/longhands.js';

/** Why other properties of a visited link cannot be changed. */
export const CLOSED_TO_VISITED =
  'Browsers let :visited change colours only (of text, fill, edges, underline, ring, icon and caret), so that no page can tell where its visitor has been.';

/** Whether a property can be changed for visited links. */
export function isOpenToVisited(property: string): boolean {
  return longhandsOfProperty(property).every((longhand) => VISITED_LONGHANDS.has(longhand));
}
