import { message, type Message } from '../message/message.js';
import { planOverride } from '../plan/plan-override.js';
import { longhandsOfProperty } from '../properties/grouped.js';
import type { Place } from '../reach/threshold.js';
import { writeSelector } from '../reach/write-selector.js';
import type { Page } from '../resolve/page.js';
import { matchedInAnyState } from '../selectors/touched.js';
import { settingsThatMatter } from '../site/environments.js';
import { inOtherLighting } from '../site/other-lighting.js';
import { otherAlike } from '../site/places.js';
import { elementOf, pageOf, type SiteModel } from '../site/site-model.js';
import { isOfAnother, type Override } from '../veneer/override.js';
import { wishOf } from '../veneer/wish-of.js';
import type { Drift } from './drift.js';
import { selectorsIn } from '../selectors/selectors-in.js';

/** What would put an override right. */
export type DriftProposal =
  | {
      readonly ok: true;
      readonly put: readonly Override[];
      readonly drop: readonly string[];
      /** Elements it reaches then, by page. */
      readonly reaches: readonly { readonly pageId: number; readonly element: number }[];
    }
  | { readonly ok: false; readonly reason: Message };

/** Viewport width at which selectors are written, CSS px; they are held against every other. */
const WIDTH = 1280;

/**
 * An override led to what its targets became: its own kind of reach first, the least selector for exactly these elements where that
 * reaches others, and taken out where nothing of it is left.
 * @param keepsFirst whether the selector it has is kept beside the new one, for pages still served as they were.
 */
export function proposeDrift(site: SiteModel, drift: Drift, keepsFirst = false): DriftProposal {
  const { override } = drift;
  const wanted = wantedPlaces(site, drift);
  if (wanted.length === 0) return { ok: true, put: [], drop: [override.id], reaches: [] };
  const ids = new Map<Page, number>([...site.pages].map(([id, page]) => [page, id]));
  const key = ({ page, element }: Pick<Place, 'page' | 'element'>): string => `${ids.get(page) ?? 0}:${element.number}`;
  const own = new Set(wanted.map(key));
  const done = (put: readonly Override[], drop: readonly string[]): DriftProposal => ({
    ok: true,
    put: keepsFirst ? put.map((next) => withFallback(next, override)) : put,
    drop,
    reaches: wanted.map(({ page, element }) => ({ pageId: ids.get(page) ?? 0, element: element.number })),
  });
  const lead = leadOf(site, override, wanted);
  const moved: Override = { ...override, pageId: ids.get(lead.page) ?? override.pageId, element: lead.element.number };
  const reasons: Message[] = [];
  const plan = override.isByHand ? null : planOverride(site, { ...wishOf(moved, WIDTH), isAfresh: true });
  if (plan && !plan.ok) reasons.push(plan.reason);
  if (plan?.ok) {
    const [first] = plan.put;
    const put = plan.put.map((next, i) => (i === 0 ? { ...next, id: override.id } : next));
    const reached = [...site.pages.values()].flatMap((page) =>
      matchedInAnyState(page, first.selector).map((element) => key({ page, element })),
    );
    if (reached.length === own.size && reached.every((place) => own.has(place)))
      return done(
        put,
        [...new Set([...plan.drop, ...(first.id === override.id ? [] : [override.id])])].filter(
          (id) => !put.some((next) => next.id === id),
        ),
      );
  }
  const exact = exactly(site, moved, lead, wanted);
  if (!exact.ok) return { ok: false, reason: exact.reason ?? reasons[0] ?? message('drift.no-selector-tells-them') };
  return done([exact.override], []);
}

/** What it is to reach: what its targets became, with what it reached elsewhere and still does. */
function wantedPlaces(site: SiteModel, { override, lost, beaten, gained }: Drift): Place[] {
  const gainedAt = new Set(gained.map(({ pageId, is }) => `${pageId}:${is ?? ''}`));
  const places = new Map<string, Place>();
  const add = (pageId: number, number: number): void => {
    const page = pageOf(site, pageId);
    places.set(`${pageId}:${number}`, { page, element: elementOf(page, number), parent: null });
  };
  for (const [pageId, page] of site.pages) {
    if (override.pages != null && !override.pages.includes(pageId)) continue;
    for (const { number } of matchedInAnyState(page, override.selector))
      if (!gainedAt.has(`${pageId}:${number}`)) add(pageId, number);
  }
  for (const { pageId, is } of [...lost, ...beaten]) if (is !== null) add(pageId, is);
  return [...places.values()];
}

/** The element that an override was made on, where that is among those wanted, else the first of them. */
function leadOf(site: SiteModel, { pageId, element }: Override, wanted: readonly Place[]): Place {
  const page = pageOf(site, pageId);
  return wanted.find((place) => place.page === page && place.element.number === element) ?? wanted[0];
}

/** The least selector that matches some elements and nothing else, and wins there. */
function exactly(
  site: SiteModel,
  override: Override,
  lead: Place,
  wanted: readonly Place[],
): { readonly ok: true; readonly override: Override } | { readonly ok: false; readonly reason: Message } {
  const { pseudo, state, property, widths } = override;
  const parent = isOfAnother(state) && override.parent != null ? elementOf(lead.page, override.parent) : null;
  const withParent = (place: Place): Place =>
    parent ? { ...place, parent: otherAlike(place.element, lead.element, parent) } : place;
  const longhands = longhandsOfProperty(property);
  const pages = [...site.pages.values()];
  const request = { lead: withParent(lead), targets: wanted.map(withParent), pages, everywhere: false };
  const written = writeSelector({
    ...request,
    pseudo,
    state,
    longhands,
    isReplaced: (selector) => selectorsIn(override.selector).includes(selector),
    isWrittenBefore: () => false,
    environments: settingsThatMatter(site, longhands, widths).settings,
    alsoAt: inOtherLighting(site),
  });
  if (!written.ok) return written;
  if (wanted.length === 1)
    return { ok: true, override: { ...override, reach: 'one', group: null, ...selectorOf(written) } };
  const group = writeSelector({
    ...request,
    lead,
    targets: wanted,
    pseudo: '',
    state: 'rest',
    longhands: [],
    environments: [],
    isReplaced: () => false,
    isWrittenBefore: () => false,
  });
  if (!group.ok) return group;
  return { ok: true, override: { ...override, reach: 'group', group: group.selector, ...selectorOf(written) } };
}

function selectorOf({ selector, important }: { readonly selector: string; readonly important: boolean }) {
  return { selector, important, isByHand: false };
}

/** Both selectors in one rule: the new one, and the one that pages as they were still answer to. */
function withFallback(next: Override, { selector }: Override): Override {
  const parts = [...new Set([...selectorsIn(next.selector), ...selectorsIn(selector)])];
  return { ...next, selector: parts.join(', '), isByHand: true };
}

/** An override without the selectors of its list that match nothing any more; `null` where none or all of them do. */
export function withoutIdleSelectors(site: SiteModel, override: Override): Override | null {
  const parts = selectorsIn(override.selector);
  const working = parts.filter((part) =>
    [...site.pages.values()].some((page) => matchedInAnyState(page, part).length > 0),
  );
  return working.length === 0 || working.length === parts.length ? null : { ...override, selector: working.join(', ') };
}
