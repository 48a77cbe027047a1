import { restContext } from '../selectors/match-context.js';
import { matchesAny } from '../selectors/match-selector.js';
import { parseSelectorList } from '../selectors/parse-selector.js';
import type { SwitchState } from '../veneer/override.js';
import { statesOfPlace, type Place } from './threshold.js';

/** Whether a selector matches a place once what it follows is switched: names that tell it apart as captured may be gone by then. */
export function matchesSwitched(text: string, place: Place, state: SwitchState): boolean {
  const { page, element } = place;
  const selectors = parseSelectorList(text).map((selector) => ({ ...selector, pseudoElements: [] }));
  return matchesAny(selectors, element, { ...restContext(page.document), states: statesOfPlace(place, state) });
}
