import { keyOf, message, type Message } from '../message/message.js';
import { EDGE_SIDES } from '../properties/edges.js';
import { longhandsOfProperty } from '../properties/grouped.js';
import type { ElementNode } from '../dom/tree.js';
import type { Place } from '../reach/threshold.js';
import type { WrittenSelector } from '../reach/selector-request.js';
import { NOT_TOLD, writeSelector } from '../reach/write-selector.js';
import type { Specificity } from '../selectors/selector.js';
import { OVERRIDE_STATES, type Override, type OverrideTarget } from '../veneer/override.js';
import type { OverrideWish } from '../veneer/override-wish.js';
import { valueProblem } from '../veneer/value-problem.js';
import { isInRange } from '../veneer/media.js';
import { isScrollbarPart } from '../veneer/scrollbars.js';
import { settingsThatMatter } from '../site/environments.js';
import { inOtherLighting } from '../site/other-lighting.js';
import { sharedSelector } from '../site/counterparts.js';
import { isForAll, placesOf } from '../site/places.js';
import { CLOSED_TO_VISITED, isOpenToVisited } from '../grid/visited.js';
import { routeOf } from './shadow-route.js';
import { dressSite, elementOf, pageOf, partOf, viewIn, type SiteModel } from '../site/site-model.js';
import { matchedInAnyState } from '../selectors/touched.js';
import { selectorsIn } from '../selectors/selectors-in.js';

/** What is to be written, or why it cannot be. */
export type OverridePlan =
  | {
      readonly ok: true;
      readonly put: readonly Override[];
      readonly drop: readonly string[];
      readonly specificity: Specificity;
    }
  | { readonly ok: false; readonly reason: Message };

/** Plans the overrides that fulfil a wish: their selector wins on every target, in every width it is for. */
export function planOverride(site: SiteModel, asked: OverrideWish): OverridePlan {
  const plan = planAlone(site, asked);
  const bar = plan.ok ? barWish(site, asked) : null;
  const barPlan = bar && planOne(site, bar);
  return plan.ok && barPlan?.ok ? { ...plan, put: [...plan.put, ...barPlan.put] } : plan;
}

/** One element cannot be told from those in its place on pages that are alike: what is wished for it is written for them all. */
function planAlone(site: SiteModel, wish: OverrideWish): OverridePlan {
  const plan = planOne(site, wish);
  if (plan.ok || plan.reason.code !== NOT_TOLD.code || wish.reach !== 'one' || wish.pages) return plan;
  const group = sharedSelector(site, wish.pageId, wish.element);
  return group === null ? plan : planOne(site, { ...wish, reach: 'group', group });
}

/**
 * Engines with scrollbar parts paint by them only where the bar itself has a style: the one that is wanted for a part of a bar
 * without any, which leaves its width as it is. Source: common practice of those engines, asked of Chromium in the specs.
 */
function barWish(site: SiteModel, wish: OverrideWish): OverrideWish | null {
  if (!isScrollbarPart(wish.pseudo) || wish.pseudo === '-webkit-scrollbar') return null;
  const page = pageOf(site, wish.pageId);
  const element = elementOf(page, wish.element);
  const isStyled = viewIn(page, element, 'rest', wish.width)
    .style(element, '-webkit-scrollbar')
    .blocks.some(({ origin }) => origin === 'author');
  if (isStyled) return null;
  return {
    ...wish,
    pseudo: '-webkit-scrollbar',
    pseudoState: undefined,
    property: 'width',
    value: { kind: 'literal', css: 'auto' },
  };
}

function planOne(site: SiteModel, asked: OverrideWish): OverridePlan {
  const problem = valueProblem(asked.property, asked.value, site.palette);
  if (problem) return { ok: false, reason: problem };
  if (asked.state === 'visited' && !isOpenToVisited(asked.property)) return { ok: false, reason: CLOSED_TO_VISITED };
  const route = routeOf(site, asked);
  if (!route.ok) return route;
  const { wish } = route;
  const page = pageOf(site, wish.pageId);
  const element = elementOf(page, wish.element);
  const properties = propertiesToWrite(site, wish, element);
  const before = sameTarget(site, wish, element);
  const drop = before.filter((override) => properties.some((property) => covers(property, override.property)));
  const targets = placesOf(site, wish);
  if (targets.length === 0) return { ok: false, reason: message('plan.every-match-left-out') };
  const written = selectorFor(site, wish, {
    targets,
    lead: targets.find((place) => place.element === element) ?? targets[0],
    drop,
    properties,
  });
  if (!written.ok) return { ok: false, reason: whyNotTold(wish, written.reason) };
  const put = properties.map((property): Override => {
    const replaced = drop.find((override) => override.property === property);
    return {
      ...targetOf(wish),
      id: replaced?.id ?? idOf(wish, property),
      partId: sharedPart(site, wish, element, targets),
      property,
      value: wish.value,
      selector: written.selector,
      important: written.important,
      ...(written.isByHand ? { isByHand: true } : {}),
      ...meantBy(replaced),
    };
  });
  return {
    ok: true,
    put,
    drop: drop.filter(({ id }) => !put.some((override) => override.id === id)).map(({ id }) => id),
    specificity: written.specificity,
  };
}

/** A selector that was found, or kept as it was written by hand. */
type SelectorWritten =
  | (Pick<Extract<WrittenSelector, { ok: true }>, 'ok' | 'selector' | 'important' | 'specificity'> & {
      readonly isByHand?: boolean;
    })
  | Extract<WrittenSelector, { ok: false }>;

/** What a selector is written for. */
interface SelectorTask {
  readonly targets: readonly Place[];
  /** The target that was pointed at, or the first. */
  readonly lead: Place;
  /** Overrides that the new ones stand in for. */
  readonly drop: readonly Override[];
  readonly properties: readonly string[];
}

/** The selector of what is replaced where it was written by hand, else the least that wins on every target. */
function selectorFor(
  site: SiteModel,
  wish: OverrideWish,
  { targets, lead, drop, properties }: SelectorTask,
): SelectorWritten {
  const byHand = wish.isAfresh ? undefined : drop.find((override) => override.isByHand);
  if (byHand)
    return { ok: true, isByHand: true, selector: byHand.selector, important: byHand.important, specificity: [0, 0, 0] };
  const longhands = properties.flatMap(longhandsOfProperty);
  return writeSelector({
    lead,
    targets,
    pages: [...site.pages.values()],
    everywhere: wish.reach === 'everywhere' && wish.state !== 'current',
    kinds: isForAll(wish, elementOf(pageOf(site, wish.pageId), wish.element)) ? ['*'] : undefined,
    group: wish.reach === 'group' ? wish.group : null,
    pseudo: wish.pseudo,
    pseudoState: wish.pseudoState,
    state: wish.state,
    longhands,
    isReplaced: (selector) => drop.some((override) => selectorsIn(override.selector).includes(selector)),
    // Rules of one element stand together in the order of their states.
    isWrittenBefore: (selector) =>
      site.overrides.some(
        (override) =>
          selectorsIn(override.selector).includes(selector) &&
          override.pageId === wish.pageId &&
          override.element === wish.element &&
          override.pseudo === wish.pseudo &&
          override.reach === wish.reach &&
          isEarlier(override, wish),
      ),
    environments: settingsThatMatter(site, longhands, wish.widths).settings,
    alsoAt: inOtherLighting(site),
  });
}

function whyNotTold(wish: OverrideWish, reason: Message): Message {
  return wish.pages && reason.code === NOT_TOLD.code ? message('plan.these-pages-give-no', { reason }) : reason;
}

/** The part that an override belongs to; `null` where its targets lie in several. */
function sharedPart(
  site: SiteModel,
  wish: OverrideWish,
  element: ElementNode,
  targets: readonly Place[],
): number | null {
  const idOfPart = (place: Pick<Place, 'page' | 'element'>): number | null =>
    partOf(site, place.page, place.element)?.id ?? null;
  const own = idOfPart({ page: pageOf(site, wish.pageId), element });
  const isAcross =
    wish.reach === 'everywhere' || (wish.reach === 'group' && targets.some((place) => idOfPart(place) !== own));
  return isAcross ? null : own;
}

/** What is settled of an override stays settled when its value changes. */
function meantBy(before: Override | undefined): Pick<Override, 'meant'> {
  return before?.meant?.length ? { meant: before.meant } : {};
}

/** Plans several wishes as if made one after the other. Those that cannot be written are left out, with their reasons. */
export function planAll(
  site: SiteModel,
  wishes: readonly OverrideWish[],
): { readonly put: readonly Override[]; readonly drop: readonly string[]; readonly refused: readonly Message[] } {
  const put = new Map<string, Override>();
  const drop = new Set<string>();
  const refused = new Map<string, Message>();
  let at = site;
  for (const wish of wishes) {
    const plan = planOverride(at, wish);
    if (!plan.ok) {
      refused.set(keyOf(plan.reason), plan.reason);
      continue;
    }
    for (const id of plan.drop) {
      put.delete(id);
      if (site.overrides.some((override) => override.id === id)) drop.add(id);
    }
    for (const override of plan.put) {
      put.set(override.id, override);
      drop.delete(override.id);
    }
    at = withOverrides(at, plan);
  }
  return { put: [...put.values()], drop: [...drop], refused: [...refused.values()] };
}

/** The site with a plan carried out. */
export function withOverrides(
  site: SiteModel,
  { put, drop }: { readonly put: readonly Override[]; readonly drop: readonly string[] },
): SiteModel {
  const kept = site.overrides.filter(({ id }) => !drop.includes(id) && !put.some((override) => override.id === id));
  return dressSite(site, [...kept, ...put], site.palette);
}

/** Four sides of one colour are written as one; fewer are written side by side, so that the others keep theirs. */
function propertiesToWrite(site: SiteModel, wish: OverrideWish, element: ElementNode): readonly string[] {
  if (wish.property !== 'border-color') return [wish.property];
  const style = viewIn(pageOf(site, wish.pageId), element, wish.state, wish.width, parentOf(site, wish)).style(
    element,
    wish.pseudo,
  );
  const shown = EDGE_SIDES.filter(({ width }) => style.resolved(width) !== '0px').map(({ color }) => color);
  return shown.length === 0 || shown.length === 4 ? ['border-color'] : shown;
}

function parentOf(site: SiteModel, { pageId, parent }: OverrideTarget): ElementNode | null {
  return parent === undefined || parent === null ? null : elementOf(pageOf(site, pageId), parent);
}

function covers(property: string, other: string): boolean {
  const longhands = longhandsOfProperty(property);
  return longhandsOfProperty(other).every((longhand) => longhands.includes(longhand));
}

function isEarlier(override: Override, wish: OverrideWish): boolean {
  if (Boolean(override.widths) !== Boolean(wish.widths)) return !override.widths;
  return OVERRIDE_STATES.indexOf(override.state) < OVERRIDE_STATES.indexOf(wish.state);
}

function targetOf({
  pageId,
  element,
  pseudo,
  reach,
  group,
  state,
  parent,
  widths,
  pages,
  spared,
  through,
}: OverrideWish): OverrideTarget {
  return {
    pageId,
    element,
    pseudo,
    reach,
    ...(reach === 'group' && group ? { group } : {}),
    state,
    ...(parent == null ? {} : { parent }),
    ...(widths == null ? {} : { widths }),
    ...(pages == null ? {} : { pages }),
    ...(spared == null || spared.length === 0 ? {} : { spared }),
    ...(through == null ? {} : { through }),
  };
}

function idOf(wish: OverrideWish, property: string): string {
  const range = wish.widths ? `-${wish.widths.min ?? ''}to${wish.widths.max ?? ''}` : '';
  const group = wish.reach === 'group' ? `-${hashOf(wish.group ?? '')}` : '';
  const scope = wish.pages ? `-p${wish.pages.join('.')}` : '';
  const whole = `${wish.pageId}-${wish.element}-${wish.pseudo || 'element'}${wish.pseudoState ? `.${wish.pseudoState}` : ''}-${wish.reach}${group}-${wish.state}${wish.parent == null ? '' : wish.parent}${range}${scope}-${property}`;
  // What is too long for the store keeps its beginning, and is told apart by all of it.
  return whole.length <= MOST_ID ? whole : `${whole.slice(0, MOST_ID - 14)}-${hashOf(whole)}`;
}

const MOST_ID = 120;

/** 53 bits of a text in base 36. Source: FNV-1a with two seeds, in the public domain. */
function hashOf(text: string): string {
  let [low, high] = [0x811c9dc5, 0x41c6ce57];
  for (let i = 0; i < text.length; i += 1) {
    low = Math.imul(low ^ text.charCodeAt(i), 0x01000193) >>> 0;
    high = Math.imul(high ^ text.charCodeAt(i), 0x85ebca6b) >>> 0;
  }
  return ((high & 0x1fffff) * 0x100000000 + low).toString(36);
}

type Target = Pick<
  OverrideWish,
  'pageId' | 'element' | 'pseudo' | 'reach' | 'group' | 'state' | 'widths' | 'parent' | 'pseudoState'
>;

/** Overrides already made for the same thing: the same element, or one alike it for a wider reach, in the same state and widths. */
function sameTarget(site: SiteModel, wish: Target, element: ElementNode): Override[] {
  return site.overrides.filter((override) => {
    if (
      override.pseudo !== wish.pseudo ||
      override.state !== wish.state ||
      !sameRange(override, wish) ||
      ((override.parent ?? null) !== (wish.parent ?? null) && override.pageId === wish.pageId)
    )
      return false;
    if (
      override.selector.includes(':hover', Math.max(0, override.selector.indexOf('::'))) !==
        (wish.pseudoState === 'hover') &&
      override.pseudo.startsWith('-webkit-scrollbar')
    )
      return false;
    if (
      (override.reach === 'group' || wish.reach === 'group') &&
      (override.group ?? null) !== (wish.group ?? null) &&
      override.reach === wish.reach
    )
      return false;
    if (override.pageId === wish.pageId && override.element === wish.element) return true;
    if (override.reach === 'one' || override.reach !== wish.reach) return false;
    return reaches(site, override, element);
  });
}

function sameRange(
  { widths: a }: Pick<OverrideTarget, 'widths'>,
  { widths: b }: Pick<OverrideTarget, 'widths'>,
): boolean {
  return (a?.min ?? null) === (b?.min ?? null) && (a?.max ?? null) === (b?.max ?? null);
}

/** Whether an override's rule is for an element: it lies in its reach, or a selector written by hand matches it. */
export function reaches(site: SiteModel, override: Override, element: ElementNode): boolean {
  const page = site.pages.get(override.pageId);
  if (!page?.document.elements[override.element]) return false;
  if (override.isByHand) {
    const owner = [...site.pages.values()].find((candidate) => candidate.document.elements[element.number] === element);
    return owner !== undefined && matchedInAnyState(owner, override.selector).includes(element);
  }
  return placesOf(site, override).some((place: Place) => place.element === element);
}

/** A cell of the states grid: one state of one property of a target, as wide as the page is shown. */
export interface CellQuestion {
  readonly pageId: number;
  readonly element: number;
  readonly pseudo: string;
  readonly state: OverrideTarget['state'];
  readonly parent?: number | null;
  readonly property: string;
  readonly pseudoState?: 'hover';
  /** Width it is looked at; overrides for others are left out when given. */
  readonly width?: number;
}

/** Overrides that decide one cell. */
export function overridesOfCell(site: SiteModel, cell: CellQuestion): Override[] {
  const page = pageOf(site, cell.pageId);
  const asked = elementOf(page, cell.element);
  const asWish = {
    ...cell,
    reach: 'one' as const,
    value: { kind: 'literal' as const, css: 'inherit' },
    width: cell.width ?? 1280,
  };
  const route = routeOf(site, asWish);
  const at = route.ok ? route.wish : asWish;
  const element = route.ok ? elementOf(page, at.element) : asked;
  return site.overrides.filter((override) => {
    if (
      override.pseudo !== at.pseudo ||
      override.state !== at.state ||
      !(covers(at.property, override.property) || covers(override.property, at.property))
    )
      return false;
    if (cell.width !== undefined && !isInRange(cell.width, override.widths)) return false;
    if (
      override.pseudo.startsWith('-webkit-scrollbar') &&
      override.selector.endsWith(':hover') !== (cell.pseudoState === 'hover')
    )
      return false;
    return (override.pageId === at.pageId && override.element === at.element) || reaches(site, override, element);
  });
}
