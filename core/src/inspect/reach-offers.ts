import type { Message } from '../message/message.js';
import type { ElementNode } from '../dom/tree.js';
import { groupsOf, lookAlikes, offeredOf } from '../reach/groups.js';
import { withVeneer, type Page } from '../resolve/page.js';
import { StyleView } from '../resolve/style-view.js';
import { placesOf } from '../site/places.js';
import { elementOf, pageOf, type SiteModel } from '../site/site-model.js';
import type { OverrideTarget, Spot } from '../veneer/override.js';

/** A group that could be reached, from its selector. */
export interface GroupOffer {
  readonly selectors: readonly string[];
  readonly words: Message;
  readonly elements: number;
  readonly pages: number;
  readonly isOneLook: boolean;
  readonly places: readonly Spot[];
}

/** What an element could be reached with besides itself, all alike and everything of its kind. */
export interface ReachOffers {
  readonly groups: readonly GroupOffer[];
  /** Groups that were found, of which the most telling are offered. */
  readonly found: number;
  /** Elements of the same kind and look that the chosen reach does not take. */
  readonly lookAlikes: readonly Spot[];
  /** Pages that were looked at, of all; fewer on large sites. */
  readonly looked: number;
}

/** Elements that are looked at, at most: finding what looks alike means resolving each. */
const MOST_ELEMENTS = 12_000;
const MOST_GROUPS = 7;

/** Groups and look-alikes of an element, over as many pages as can be looked at at once, its own first. */
export function reachOffers(
  site: SiteModel,
  target: Pick<OverrideTarget, 'pageId' | 'element' | 'pseudo' | 'reach' | 'group' | 'pages' | 'spared'>,
): ReachOffers {
  const page = pageOf(site, target.pageId);
  const element = elementOf(page, target.element);
  const pages = [page];
  let count = page.document.elements.length;
  for (const other of site.pages.values()) {
    if (other === page || (count += other.document.elements.length) > MOST_ELEMENTS) continue;
    pages.push(other);
  }
  if (element.root.host) return { groups: [], found: 0, lookAlikes: [], looked: pages.length };
  const ids = new Map([...site.pages].map(([id, candidate]) => [candidate, id]));
  const ownerOf = new Map<ElementNode, Page>();
  for (const candidate of pages) for (const node of candidate.document.elements) ownerOf.set(node, candidate);
  const spotOf = (node: ElementNode): Spot => ({
    pageId: ids.get(ownerOf.get(node) ?? page) ?? 0,
    element: node.number,
  });
  const lookOf = looksAtRest(ownerOf);
  const offered = (['alike', 'everywhere'] as const).map((reach) =>
    placesOf(site, { pageId: target.pageId, element: target.element, reach }).map((place) => place.element),
  );
  const reached = new Set(placesOf(site, target).map((place) => place.element));
  const groups = groupsOf(pages, element, lookOf, offered);
  return {
    groups: offeredOf(groups, MOST_GROUPS).map(({ elements, ...group }) => ({
      ...group,
      elements: elements.length,
      places: elements.map(spotOf),
    })),
    found: groups.length,
    lookAlikes: target.reach === 'one' ? [] : lookAlikes(pages, element, lookOf, reached).map(spotOf),
    looked: pages.length,
  };
}

const LOOK = [
  'color',
  'background-color',
  'background-image',
  'border-top-color',
  'border-top-width',
  'border-top-left-radius',
  'display',
] as const;
const looks = new WeakMap<ElementNode, string>();

/** How elements look at rest on a desktop screen, as the pages were captured: what a group is told by stays what it is while its colours change. */
function looksAtRest(ownerOf: ReadonlyMap<ElementNode, Page>): (element: ElementNode) => string {
  const views = new Map<Page, StyleView>();
  return (element) => {
    const known = looks.get(element);
    if (known !== undefined) return known;
    const page = ownerOf.get(element);
    if (!page) return '';
    let view = views.get(page);
    if (!view) views.set(page, (view = new StyleView(withVeneer(page, ''))));
    const style = view.style(element);
    const look = LOOK.map((property) => style.resolved(property)).join('|');
    looks.set(element, look);
    return look;
  };
}
