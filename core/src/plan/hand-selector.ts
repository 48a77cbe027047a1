import { message, type Message } from '../message/message.js';
import { SelectorError, parseSelectorList } from '../selectors/parse-selector.js';
import { compareSpecificity, NO_SPECIFICITY, type Specificity } from '../selectors/selector.js';
import { clears, findThreshold } from '../reach/threshold.js';
import { longhandsOfProperty } from '../properties/grouped.js';
import type { Override, Spot } from '../veneer/override.js';
import { settingsThatMatter } from '../site/environments.js';
import { inOtherLighting } from '../site/other-lighting.js';
import { placesOf } from '../site/places.js';
import type { SiteModel } from '../site/site-model.js';
import { matchedInAnyState } from '../selectors/touched.js';
import { selectorsIn } from '../selectors/selectors-in.js';

/** What a selector written by hand would do in place of an override's own. */
export interface SelectorCheck {
  /** Why a browser drops it; empty when it does not. */
  readonly problem: Message | '';
  readonly specificity: Specificity | null;
  readonly elements: number;
  readonly pages: number;
  readonly places: readonly Spot[];
  /** Meant by the override's reach and not matched. */
  readonly missing: readonly Spot[];
  /** Matched and not meant. */
  readonly extra: readonly Spot[];
  /** What it would lose against; empty when it wins on all it matches. */
  readonly losesTo: Message | '';
}

const MOST_SPOTS = 300;

/** Checks a selector, state and pseudo-element included, for an override. */
export function checkSelector(site: SiteModel, override: Override, text: string): SelectorCheck {
  const none = { specificity: null, elements: 0, pages: 0, places: [], missing: [], extra: [], losesTo: '' } as const;
  let specificity: Specificity = NO_SPECIFICITY;
  try {
    const list = parseSelectorList(text);
    if (list.length === 0) return { ...none, problem: message('plan.write-selector') };
    for (const selector of list)
      if (compareSpecificity(selector.specificity, specificity) > 0) specificity = selector.specificity;
    const pseudos = new Set(list.map((selector) => selector.pseudoElements.at(-1)?.name ?? ''));
    if (override.pseudo !== '' && !pseudos.has(override.pseudo))
      return { ...none, specificity, problem: message('plan.must-end-in', { pseudo: override.pseudo }) };
  } catch (error) {
    if (error instanceof SelectorError) return { ...none, problem: error.told };
    throw error;
  }
  const wanted = new Map(
    [...site.pages].map(([id, page]) => [
      id,
      new Set(
        placesOf(site, override)
          .filter((place) => place.page === page)
          .map(({ element }) => element.number),
      ),
    ]),
  );
  const places = [...site.pages].flatMap(([pageId, page]) =>
    matchedInAnyState(page, text).map((node) => ({ pageId, element: node.number, place: { page, element: node } })),
  );
  const isWanted = (spot: Spot): boolean => wanted.get(spot.pageId)?.has(spot.element) ?? false;
  const matched = new Set(places.map(({ pageId, element }) => `${pageId}/${element}`));
  const bar = findThreshold({
    places: places
      .filter(isWanted)
      .slice(0, 200)
      .map(({ place }) => place),
    pseudo: override.pseudo,
    state: override.state,
    longhands: longhandsOfProperty(override.property),
    isReplaced: (selector) => selectorsIn(override.selector).includes(selector),
    environments: settingsThatMatter(site, longhandsOfProperty(override.property), override.widths).settings,
    alsoAt: inOtherLighting(site),
  });
  const isWeak =
    (bar.important && !override.important) || (bar.important === override.important && !clears(specificity, bar));
  const toSpot = ({ pageId, element }: Spot): Spot => ({ pageId, element });
  return {
    problem: '',
    specificity,
    elements: places.length,
    pages: new Set(places.map(({ pageId }) => pageId)).size,
    places: places.slice(0, MOST_SPOTS).map(toSpot),
    missing: [...wanted]
      .flatMap(([pageId, elements]) =>
        [...elements].filter((element) => !matched.has(`${pageId}/${element}`)).map((element) => ({ pageId, element })),
      )
      .slice(0, MOST_SPOTS),
    extra: places
      .filter((spot) => !isWanted(spot))
      .slice(0, MOST_SPOTS)
      .map(toSpot),
    losesTo: isWeak ? message('plan.set-by', { by: bar.setBy?.by ?? 'none', rule: bar.setBy?.rule ?? '' }) : '',
  };
}
