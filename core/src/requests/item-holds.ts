import { keyOf, message, type Message } from '../message/message.js';
import { sameColor } from '../color/same-color.js';
import { hexOf } from '../color/read-notation.js';
import type { ElementNode } from '../dom/tree.js';
import { applicableStates } from '../grid/applicable-states.js';
import { longhandsOfProperty } from '../properties/grouped.js';
import { statesTogether, type Place } from '../reach/threshold.js';
import { shortfallOf } from '../resolve/shortfall.js';
import { StyleView } from '../resolve/style-view.js';
import type { ElementStyle } from '../resolve/element-style.js';
import type { StateMap } from '../selectors/match-context.js';
import { parseSelectorList } from '../selectors/parse-selector.js';
import { selectorProblem } from '../selectors/selector-problem.js';
import { matchedInAnyState } from '../selectors/touched.js';
import { settingsThatMatter } from '../site/environments.js';
import { inEachLighting, withSpecimen, type SiteModel } from '../site/site-model.js';
import { STATE_PAIRS } from '../tidy/same-outcome.js';
import { isInRange } from '../veneer/media.js';
import { OVERRIDE_STATES, isOfAnother, type OverrideState, type Spot } from '../veneer/override.js';
import { colorOfValue, plainCssOfValue } from '../veneer/override-value.js';
import type { Palette } from '../veneer/palette.js';
import type { RequestItem, RequestLook } from './request.js';

/** A place that has not the look that was named for it. */
export interface LookMissed extends Spot {
  readonly look: number;
  /** State it is in, or the two at once. */
  readonly states: readonly OverrideState[];
  readonly width: number;
  readonly lighting: string;
  /** What shows instead. */
  readonly shown: string;
}

/** Whether an item has its looks, everywhere. */
export interface ItemHolds {
  /** Elements that were looked at, over all pages and looks. */
  readonly places: number;
  /** Comparisons: a place in one state, width and lighting each. */
  readonly compared: number;
  /** How many places miss theirs. */
  readonly misses: number;
  /** Those places, each once, with the first state it misses it in; the first of them where there are very many. */
  readonly missed: readonly LookMissed[];
  /** Why not everything was looked at; empty where it was. */
  readonly unseen: readonly Message[];
}

const MOST_MISSED = 200;
/** States that the browser alone brings about. */
const BEYOND: ReadonlySet<OverrideState> = new Set(['autofilled']);
/** States that are looked at where a look is meant for all of them: each alone, and those that come together. */
const LOOKED_AT: readonly (readonly OverrideState[])[] = [
  ...OVERRIDE_STATES.filter((state) => !isOfAnother(state) && !BEYOND.has(state)).map((state) => [state]),
  ...STATE_PAIRS,
];

/**
 * Holds the looks that an item names against every element they are for: on every page, in every state that it can be in by itself, and in
 * two at once, or the one that is named, at every width that a breakpoint sets apart, in both lightings. Colours count as the same where
 * they come to the same pixels.
 */
export function itemHolds(of: SiteModel, item: Pick<RequestItem, 'looks' | 'pageIds'>): ItemHolds {
  const found = { places: 0, compared: 0, missed: new Map<string, LookMissed>(), unseen: new Map<string, Message>() };
  for (const [at, look] of item.looks.entries()) {
    const problem = selectorProblem(look.selector);
    if (problem !== null) noteUnseen(found.unseen, message('plain', { text: problem }));
    else lookHolds(withSpecimen(of), item.pageIds, look, at, found);
  }
  return {
    places: found.places,
    compared: found.compared,
    misses: found.missed.size,
    missed: [...found.missed.values()].slice(0, MOST_MISSED),
    unseen: [...found.unseen.values()],
  };
}

function lookHolds(
  site: SiteModel,
  pageIds: readonly number[],
  look: RequestLook,
  at: number,
  found: { places: number; compared: number; missed: Map<string, LookMissed>; unseen: Map<string, Message> },
): void {
  const longhands = longhandsOfProperty(look.property);
  const { settings: all, unseen } = settingsThatMatter(site, longhands, look.widths);
  const settings = all.filter(({ width }) => isInRange(width, look.widths));
  for (const what of unseen) noteUnseen(found.unseen, message('request.no-setting', { what }));
  const pseudo = parseSelectorList(look.selector)[0]?.pseudoElements.at(-1)?.name ?? '';
  const before = found.places;
  for (const [index, lit] of inEachLighting(site).entries()) {
    for (const [pageId, page] of lit.pages) {
      if (pageIds.length > 0 && !pageIds.includes(pageId)) continue;
      const elements = matchedInAnyState(page, look.selector);
      if (index === 0) found.places += elements.length;
      if (elements.length === 0) continue;
      if (shortfallOf(page) > 0) noteUnseen(found.unseen, message('request.unmatched', { count: shortfallOf(page) }));
      for (const states of look.state === null ? LOOKED_AT : [[look.state]]) {
        const able = elements.filter((element) => {
          const own = applicableStates(element, pseudo);
          return states.every((state) => own.includes(state));
        });
        if (able.length === 0) continue;
        const forced = inStates(
          able.map((element): Place => ({ page, element })),
          states,
        );
        for (const setting of settings) {
          const view = new StyleView(page, { states: forced, environment: setting });
          for (const element of able) {
            found.compared += 1;
            const shown = shownOtherwise(view.style(element, pseudo), longhands, look, lit.palette);
            const key = `${at} ${pageId} ${element.number}`;
            if (shown === null || found.missed.has(key)) continue;
            const lighting = lit.palette.lighting ?? 'light';
            found.missed.set(key, {
              look: at,
              pageId,
              element: element.number,
              states,
              width: setting.width,
              lighting,
              shown,
            });
          }
        }
      }
    }
  }
  if (found.places === before)
    noteUnseen(found.unseen, message('request.matches-nothing', { selector: look.selector }));
}

function noteUnseen(unseen: Map<string, Message>, told: Message): void {
  unseen.set(keyOf(told), told);
}

/** Elements that are all in some states at once. */
function inStates(places: readonly Place[], states: readonly OverrideState[]): StateMap {
  const all = new Map<ElementNode, Set<string>>();
  for (const state of states)
    for (const [node, names] of statesTogether(places, state))
      all.set(node, new Set([...(all.get(node) ?? []), ...names]));
  return all;
}

/** What an element shows instead of a look; `null` where it has it. */
function shownOtherwise(
  style: ElementStyle,
  longhands: readonly string[],
  { value }: RequestLook,
  palette: Palette,
): string | null {
  const wanted = colorOfValue(value, palette);
  for (const longhand of longhands) {
    const color = style.color(longhand);
    if (wanted && color) {
      if (!sameColor(wanted, color)) return hexOf(color);
    } else if (plain(style.resolved(longhand)) !== plain(plainCssOfValue(value, palette)))
      return style.resolved(longhand);
  }
  return null;
}

function plain(css: string): string {
  return css.replaceAll(/\s+/g, ' ').trim().toLowerCase();
}
