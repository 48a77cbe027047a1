import { CENSUS_STATES, allInState, type CensusState } from '../census/census-states.js';
import type { Setting } from '../conditions/environment.js';
import type { ElementNode } from '../dom/tree.js';
import { longhandsOfProperty } from '../properties/grouped.js';
import { VENEER_SHEET_NAME, type Page } from '../resolve/page.js';
import { StyleView } from '../resolve/style-view.js';
import { alikeKey } from '../selectors/alike.js';
import { matchedInAnyState } from '../selectors/touched.js';
import { settingsThatMatter } from '../site/environments.js';
import { placesOf } from '../site/places.js';
import { pageOf, viewIn, type SiteModel } from '../site/site-model.js';
import { isOfAnother, type Override } from '../veneer/override.js';
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
  readonly beaten: readonly (DriftPlace & { readonly by: string })[];
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
  const settingsFor = rememberedSettings(site);
  for (const former of [...formers].sort((a, b) => a.id - b.id)) {
    const pair = new CapturePair(site, former, settingsFor);
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

/** A page before and after. */
class CapturePair {
  readonly #before: Page;
  readonly #after: Page;
  readonly #became: ReadonlyMap<ElementNode, ElementNode>;
  readonly #was: ReadonlyMap<ElementNode, ElementNode>;
  readonly #views = new Map<string, StyleView>();

  constructor(
    readonly site: SiteModel,
    readonly former: FormerCapture,
    readonly settingsFor: SettingsFor,
  ) {
    this.#before = formerPage(site, former);
    this.#after = pageOf(site, former.pageId);
    this.#became = elementsBetween(this.#before.document, this.#after.document);
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
    const matchedBefore = new Set(matchedInAnyState(this.#before, before.selector));
    const matched = new Set(isOut ? [] : matchedInAnyState(this.#after, override.selector));
    const meant = [...matchedBefore].map((was) => ({ was, is: this.#became.get(was) }));
    const kept = meant.filter(({ is }) => is !== undefined && matched.has(is));
    const beaten = this.#beaten(before, override, kept as { was: ElementNode; is: ElementNode }[]);
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
  #beaten(
    before: Override,
    override: Override,
    kept: readonly { readonly was: ElementNode; readonly is: ElementNode }[],
  ): { readonly was: ElementNode; readonly is: ElementNode; readonly by: string }[] {
    const longhands = longhandsOfProperty(override.property);
    if (override.property.startsWith('--') || longhands.length === 0) return [];
    const settings = this.settingsFor(longhands, override.widths);
    const answers = new Map<string, string | null>();
    return kept.flatMap(({ was, is }) => {
      // Alike elements in alike places come to the same.
      const key = `${alikeKey(was)}|${alikeKey(is)}|${is.parent ? alikeKey(is.parent) : ''}`;
      let by = answers.get(key);
      if (by === undefined) {
        by = null;
        for (const setting of settings) {
          const winner = this.#rivalOf(this.#after, is, override, longhands, setting);
          if (winner === null || this.#rivalOf(this.#before, was, before, longhands, setting) !== null) continue;
          by = winner;
          break;
        }
        answers.set(key, by);
      }
      return by === null ? [] : [{ was, is, by }];
    });
  }

  /** The rule that wins over an override's on an element; `null` where ours wins. */
  #rivalOf(
    page: Page,
    element: ElementNode,
    override: Override,
    longhands: readonly string[],
    setting: Setting,
  ): string | null {
    const style = this.#viewOf(page, element, override, setting).style(element, override.pseudo);
    for (const longhand of longhands) {
      const rule = style.seen(longhand).ranked(longhand).at(0)?.block.rule;
      if (rule?.sheet.name !== VENEER_SHEET_NAME)
        return rule ? `${rule.selectorText} in ${rule.sheet.name}` : 'a style attribute';
    }
    return null;
  }

  #viewOf(page: Page, element: ElementNode, { state }: Override, setting: Setting): StyleView {
    const shared = (CENSUS_STATES as readonly string[]).includes(state) ? (state as CensusState) : null;
    // A state of another element is told where both stand; what matters here is the target as it is at rest then.
    if (!shared) return viewIn(page, element, isOfAnother(state) ? 'rest' : (state as 'rest'), setting.width);
    const key = JSON.stringify([page === this.#after, shared, setting]);
    let view = this.#views.get(key);
    if (!view)
      this.#views.set(
        key,
        (view = new StyleView(page, { environment: setting, states: allInState(page.document, shared) })),
      );
    return view;
  }
}
