import { message, type Message } from '../message/message.js';
import { CENSUS_STATES, allInState, type CensusState } from '../census/census-states.js';
import type { Setting } from '../conditions/environment.js';
import type { ElementNode } from '../dom/tree.js';
import { flipsOf } from '../elsewhere/flips.js';
import { longhandsOfProperty } from '../properties/grouped.js';
import { statesTogether, type Place } from '../reach/threshold.js';
import type { ElementStyle } from '../resolve/element-style.js';
import { VENEER_SHEET_NAME, type Page } from '../resolve/page.js';
import { StyleView } from '../resolve/style-view.js';
import { matchedInAnyState } from '../selectors/touched.js';
import { settingsThatMatter } from '../site/environments.js';
import { otherAlike, placesOf } from '../site/places.js';
import { inEachLighting, pageOf, type SiteModel } from '../site/site-model.js';
import { isSwitchState, type Override } from '../veneer/override.js';
import { elementsBetween } from '../recapture/elements-between.js';
import { formerPage, type FormerCapture } from './former-capture.js';

/** An element before and after its page was captured again, by running numbers; `null` where there is none. */
export interface DriftPlace {
  readonly formerId: number;
  readonly pageId: number;
  readonly was: number | null;
  readonly is: number | null;
}

/** What a new capture did to one override. */
export interface Drift {
  /** As it stands now. */
  readonly override: Override;
  /** It matched them; what they became it does not match. */
  readonly lost: readonly DriftPlace[];
  /** It matched them, and nothing on the page is like them now. */
  readonly gone: readonly DriftPlace[];
  /** It matches them still, and another rule wins now. */
  readonly beaten: readonly (DriftPlace & { readonly by: Message })[];
  /** It matches them now, and did not match what they were, or they are new. */
  readonly gained: readonly DriftPlace[];
  /** How many it still reaches as it did. */
  readonly kept: number;
}

/** How far a look is. */
export interface DriftProgress {
  readonly done: number;
  readonly of: number;
}

/**
 * What new captures did to the overrides that were there: each whose targets, win or matches are others now, on the pages captured
 * again. Of several former captures of a page the first that has an override counts.
 * A generator: it yields after each override of each page.
 */
export function* driftOf(site: SiteModel, formers: readonly FormerCapture[]): Generator<DriftProgress, Drift[]> {
  const found = new Map<string, Drift>();
  const compared = new Set<string>();
  const now = new Map(site.overrides.map((override) => [override.id, override]));
  const of = formers.reduce((sum, { overrides }) => sum + overrides.length, 0);
  let done = 0;
  const lit = inEachLighting(site).map((own) => ({ site: own, settingsFor: rememberedSettings(own) }));
  for (const former of [...formers].sort((a, b) => a.id - b.id)) {
    const [own, ...others] = lit;
    const pair = new CapturePair(
      own.site,
      former,
      own.settingsFor,
      others.map((other) => new CapturePair(other.site, former, other.settingsFor)),
    );
    yield { done, of };
    for (const before of former.overrides) {
      done += 1;
      const override = now.get(before.id);
      const key = `${former.pageId}:${before.id}`;
      if (!override || compared.has(key)) continue;
      compared.add(key);
      const drift = pair.compare(before, override);
      const known = found.get(override.id);
      found.set(override.id, known ? together(known, drift) : drift);
      yield { done, of };
    }
  }
  return [...found.values()].filter(hasDrifted).sort((a, b) => weightOf(b) - weightOf(a));
}

/** That one of several targets is no longer on a page is no drift; that none of them is, is. */
function hasDrifted({ lost, gone, beaten, gained, kept }: Drift): boolean {
  return lost.length + beaten.length + gained.length > 0 || (gone.length > 0 && kept === 0);
}

/** What does nothing any more first, then what does less, then what does more. */
function weightOf({ lost, gone, beaten, gained, kept }: Drift): number {
  const missing = lost.length + gone.length + beaten.length;
  return (missing > 0 ? 1e6 : 0) + (missing > 0 && kept === 0 ? 1e6 : 0) + missing * 10 + gained.length;
}

function together(a: Drift, b: Drift): Drift {
  return {
    override: a.override,
    lost: [...a.lost, ...b.lost],
    gone: [...a.gone, ...b.gone],
    beaten: [...a.beaten, ...b.beaten],
    gained: [...a.gained, ...b.gained],
    kept: a.kept + b.kept,
  };
}

type SettingsFor = (longhands: readonly string[], widths: Override['widths']) => readonly Setting[];

/** Settings that have a say in some properties, each reckoned once. */
function rememberedSettings(site: SiteModel): SettingsFor {
  const known = new Map<string, readonly Setting[]>();
  return (longhands, widths) => {
    const key = JSON.stringify([longhands, widths]);
    let settings = known.get(key);
    if (!settings) known.set(key, (settings = settingsThatMatter(site, longhands, widths).settings));
    return settings;
  };
}

/** An element that is matched before and after. */
interface KeptPair {
  readonly was: ElementNode;
  readonly is: ElementNode;
}

/** A page before and after. */
class CapturePair {
  readonly before: Page;
  readonly after: Page;
  readonly #became: ReadonlyMap<ElementNode, ElementNode>;
  readonly #was: ReadonlyMap<ElementNode, ElementNode>;
  readonly #views = new Map<string, StyleView>();

  constructor(
    readonly site: SiteModel,
    readonly former: FormerCapture,
    readonly settingsFor: SettingsFor,
    /** The same pair in the site's other lighting. */
    readonly others: readonly CapturePair[] = [],
  ) {
    this.before = formerPage(site, former);
    this.after = pageOf(site, former.pageId);
    this.#became = elementsBetween(this.before.document, this.after.document);
    this.#was = new Map([...this.#became].map(([was, is]) => [is, was]));
  }

  compare(before: Override, override: Override): Drift {
    const { id: formerId, pageId } = this.former;
    const place = (was: ElementNode | undefined, is: ElementNode | undefined): DriftPlace => ({
      formerId,
      pageId,
      was: was?.number ?? null,
      is: is?.number ?? null,
    });
    const isOut = override.pages != null && !override.pages.includes(pageId);
    const matchedBefore = new Set(matchedInAnyState(this.before, before.selector));
    const matched = new Set(isOut ? [] : matchedInAnyState(this.after, override.selector));
    const meant = [...matchedBefore].map((was) => ({ was, is: this.#became.get(was) }));
    const kept = meant.filter((pair): pair is KeptPair => pair.is !== undefined && matched.has(pair.is));
    const beaten = this.beaten(before, override, kept);
    for (const pair of this.others) {
      const still = kept.filter(({ is }) => !beaten.some((own) => own.is === is));
      beaten.push(...pair.beatenHere(before, override, still));
    }
    return {
      override,
      lost: meant.flatMap(({ was, is }) => (is && !matched.has(is) ? [place(was, is)] : [])),
      gone: meant.flatMap(({ was, is }) => (is ? [] : [place(was, undefined)])),
      beaten: beaten.map(({ was, is, by }) => ({ ...place(was, is), by })),
      gained: this.#gained(override, matchedBefore, matched).map((is) => place(this.#was.get(is), is)),
      kept: kept.length - beaten.length,
    };
  }

  /** What is matched besides, but for new elements of the kind that the override is for. */
  #gained(
    override: Override,
    matchedBefore: ReadonlySet<ElementNode>,
    matched: ReadonlySet<ElementNode>,
  ): ElementNode[] {
    const besides = [...matched].filter((is) => {
      const was = this.#was.get(is);
      return !was || !matchedBefore.has(was);
    });
    if (besides.every((is) => this.#was.has(is))) return besides;
    const meant = new Set(placesOf(this.site, override).map(({ element }) => element));
    return besides.filter((is) => this.#was.has(is) || !meant.has(is));
  }

  /** Of what is still matched, where ours won before and does not now, in any setting that has a say in it. */
  beaten(before: Override, override: Override, kept: readonly KeptPair[]): (KeptPair & { readonly by: Message })[] {
    const longhands = longhandsOfProperty(override.property);
    if (override.property.startsWith('--') || longhands.length === 0) return [];
    let left = [...kept];
    const beaten: (KeptPair & { readonly by: Message })[] = [];
    for (const setting of this.settingsFor(longhands, override.widths)) {
      if (left.length === 0) break;
      const now = this.#viewOf(
        this.after,
        { as: override, now: override },
        setting,
        left.map(({ is }) => is),
      );
      const then = this.#viewOf(
        this.before,
        { as: before, now: override },
        setting,
        left.map(({ was }) => was),
      );
      left = left.filter(({ was, is }) => {
        const by = rivalOf(now.style(is, override.pseudo), longhands);
        if (by === null || rivalOf(then.style(was, before.pseudo), longhands) !== null) return true;
        beaten.push({ was, is, by });
        return false;
      });
    }
    return beaten;
  }

  /** The same of elements of another lighting's pages, by their running numbers. */
  beatenHere(before: Override, override: Override, kept: readonly KeptPair[]): ReturnType<CapturePair['beaten']> {
    const at = (page: Page, { number }: ElementNode): ElementNode => page.document.elements[number];
    const own = new Map(kept.map((pair) => [pair.is.number, pair]));
    const pairs = kept.map(({ was, is }) => ({ was: at(this.before, was), is: at(this.after, is) }));
    return this.beaten(before, override, pairs).flatMap(({ is, by }) => {
      const pair = own.get(is.number);
      return pair ? [{ ...pair, by }] : [];
    });
  }

  /** A page with all of some elements in an override's state, as the element each hangs on brings it about. */
  #viewOf(
    page: Page,
    { as: override, now }: { readonly as: Override; readonly now: Override },
    setting: Setting,
    elements: readonly ElementNode[],
  ): StyleView {
    const { state, pageId } = override;
    if ((CENSUS_STATES as readonly string[]).includes(state)) {
      const key = JSON.stringify([page === this.after, state, setting]);
      let view = this.#views.get(key);
      if (!view) {
        const states = allInState(page.document, state as CensusState);
        this.#views.set(key, (view = new StyleView(page, { environment: setting, states })));
      }
      return view;
    }
    // Where it was made on another page, what it hangs on there tells what it hangs on here.
    const home = pageId === this.former.pageId ? page : pageOf(this.site, now.pageId);
    const { element: leadNumber, parent: otherNumber } = home === page ? override : now;
    const { elements: all } = home.document;
    const [lead, other] = [all[leadNumber], otherNumber == null ? undefined : all[otherNumber]];
    const places = elements.map((element): Place => {
      const parent = lead && other ? otherAlike(element, lead, other) : null;
      const flip = parent && isSwitchState(state) ? flipsOf(parent, page.document)[state] : undefined;
      return { page, element, parent, ...(flip ? { flip } : {}) };
    });
    return new StyleView(page, { environment: setting, states: statesTogether(places, state) });
  }
}

/** The rule that wins over ours on an element; `null` where ours wins. */
function rivalOf(style: ElementStyle, longhands: readonly string[]): Message | null {
  for (const longhand of longhands) {
    const top = style.seen(longhand).ranked(longhand).at(0);
    if (!top) return NOTHING_SAID;
    const { rule } = top.block;
    if (rule?.sheet.name !== VENEER_SHEET_NAME)
      return rule
        ? message('drift.rule', { rule: rule.selectorText, sheet: rule.sheet.name })
        : message('drift.style-attribute');
  }
  return null;
}

const NOTHING_SAID = message('drift.what-inherited');
