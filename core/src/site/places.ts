import { carrierAlike } from '../elsewhere/carriers.js';
import { ancestorsOf, type ElementNode } from '../dom/tree.js';
import { alikeKey, kindSelector } from '../selectors/alike.js';
import { statesOfPlace, type Place } from '../reach/threshold.js';
import { withVeneer } from '../resolve/page.js';
import { StyleView } from '../resolve/style-view.js';
import { restContext } from '../selectors/match-context.js';
import { matchesAny } from '../selectors/match-selector.js';
import { SelectorError, parseSelectorList } from '../selectors/parse-selector.js';
import type { SelectorList } from '../selectors/selector.js';
import { longhandsOfProperty } from '../properties/grouped.js';
import { NO_EXCEPTIONS, passedOverOn, type BulkChange } from './exceptions.js';
import { isSwitchState, type OverrideTarget } from '../veneer/override.js';
import { flipsOf } from '../elsewhere/flips.js';
import { elementOf, pageOf, type SiteModel } from './site-model.js';

/** What decides which elements an override reaches. */
export type ReachQuestion = Pick<
  OverrideTarget,
  'pageId' | 'element' | 'reach' | 'group' | 'pages' | 'spared' | 'parent'
> &
  BulkChange;

/** Whether everything is meant whatever its kind: what is made on the root, and the ring, which any focus shows. */
export function isForAll({ reach, state, property }: ReachQuestion, element: ElementNode): boolean {
  return (
    reach === 'everywhere' &&
    (element.localName === 'html' || (state === 'focus' && (property ?? '').startsWith('outline-')))
  );
}

/** Elements an override reaches, over all pages; the one it was made on among them unless it is left out. */
export function placesOf(site: SiteModel, question: ReachQuestion): Place[] {
  const { pageId, reach, state = 'rest', pages, spared } = question;
  const page = pageOf(site, pageId);
  const element = elementOf(page, question.element);
  const parent = question.parent === undefined || question.parent === null ? null : elementOf(page, question.parent);
  const flip = parent && isSwitchState(state) ? flipsOf(parent, page.document)[state] : undefined;
  const standing = flip ? { flip } : {};
  if (reach === 'one') return [{ page, element, parent, ...standing }];
  const group = reach === 'group' ? readGroup(question.group) : null;
  // For the current page all of a kind are meant, whichever of them is the current one.
  const asCurrent = state === 'current';
  // Only what stands in such a list can be its current one.
  const gathered = asCurrent && reach === 'everywhere' ? 'alike' : reach;
  const key = alikeKey(element, asCurrent);
  const isAll = isForAll(question, element);
  const kinds = gathered === 'everywhere' && !isAll ? parseSelectorList(kindSelector(element).join(', ')) : [];
  const places: Place[] = [];
  if (element.root.host) return partsAlike(site, question, element, element.root.host);
  for (const [id, candidatePage] of site.pages) {
    if (pages && !pages.includes(id)) continue;
    const left = new Set((spared ?? []).filter((spot) => spot.pageId === id).map((spot) => spot.element));
    const alone = site.exceptions === NO_EXCEPTIONS ? null : passedOverOn(site.exceptions, candidatePage, question);
    const context = restContext(candidatePage.document);
    for (const candidate of candidatePage.document.elements) {
      if (candidate.root !== candidatePage.document.root || left.has(candidate.number) || alone?.has(candidate))
        continue;
      const isIn =
        isAll ||
        (group
          ? matchesAny(group, candidate, context)
          : gathered === 'alike'
            ? candidate.localName === element.localName && alikeKey(candidate, asCurrent) === key
            : matchesAny(kinds, candidate, context));
      if (!isIn) continue;
      const own = parent === null ? null : otherAlike(candidate, element, parent);
      if (parent !== null && own === null) continue;
      const place: Place = { page: candidatePage, element: candidate, parent: own, ...standing };
      const isApart =
        flip &&
        own &&
        parent &&
        own.attributes.has('disabled') !== parent.attributes.has('disabled') &&
        !looksAlike({ page, element, parent, ...standing }, place, question);
      places.push(isApart ? { ...place, isApart } : place);
    }
  }
  return places;
}

/** Whether the page itself shows two elements the same way in a state: one that is locked besides may have a look of its own. */
function looksAlike(lead: Place, place: Place, { property, state = 'rest' }: ReachQuestion): boolean {
  if (property === undefined) return true;
  const [longhand] = longhandsOfProperty(property);
  const shown = (of: Place): string =>
    new StyleView(withVeneer(of.page, ''), { states: statesOfPlace(of, state) }).style(of.element).resolved(longhand);
  return shown(lead) === shown(place);
}

/** @returns nothing for a group that no longer reads. */
function readGroup(text: string | null | undefined): SelectorList {
  try {
    return parseSelectorList(text ?? '');
  } catch (error) {
    if (error instanceof SelectorError) return [];
    throw error;
  }
}

/** Behind shadow roots: the same parts of hosts that are alike. */
function partsAlike(site: SiteModel, question: ReachQuestion, element: ElementNode, host: ElementNode): Place[] {
  const key = alikeKey(host);
  const part = element.attributes.get('part');
  const { pages } = question;
  return [...site.pages].flatMap(([id, page]) => {
    if (pages && !pages.includes(id)) return [];
    const alone = site.exceptions === NO_EXCEPTIONS ? null : passedOverOn(site.exceptions, page, question);
    return page.document.elements
      .filter(
        (candidate) =>
          !alone?.has(candidate) &&
          candidate.localName === element.localName &&
          candidate.attributes.get('part') === part &&
          candidate.root.host !== null &&
          candidate.root.host.localName === host.localName &&
          alikeKey(candidate.root.host) === key &&
          (part !== undefined || candidate.number === element.number),
      )
      .map((candidate) => ({ page, element: candidate, parent: null }));
  });
}

/** The element that stands to one as another does to the lead: its own parent or switch; `null` where it has none. */
export function otherAlike(element: ElementNode, lead: ElementNode, other: ElementNode): ElementNode | null {
  if (element === lead) return other;
  return [...ancestorsOf(lead)].includes(other) ? ancestorAlike(element, other) : carrierAlike(element, lead, other);
}

/** The nearest ancestor like another element; `null` where there is none. */
function ancestorAlike(element: ElementNode, parent: ElementNode): ElementNode | null {
  const key = alikeKey(parent);
  return (
    [...ancestorsOf(element)].find((node) => node.localName === parent.localName && alikeKey(node) === key) ?? null
  );
}
