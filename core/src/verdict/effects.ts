import type { Message } from '../message/message.js';
import type { Page } from '../resolve/page.js';
import { isInRange } from '../veneer/media.js';
import { OVERRIDE_STATES, type Override, type OverrideState, type Spot } from '../veneer/override.js';
import { settingsThatMatter } from '../site/environments.js';
import type { Setting } from '../conditions/environment.js';
import { placesOf } from '../site/places.js';
import { pageOf, type SiteModel } from '../site/site-model.js';
import { gatherLooks, type StateLook } from './state-looks.js';
import { LEGIBILITY_LONGHANDS, Legibility, type ReadingTally } from './legibility.js';
import { type Aim, aimOf, watchedBy, withFollowers } from './aim.js';
import { type Others, othersOf } from './others.js';
import { comparePage } from './compare-page.js';
import type { EffectsTally } from './effects-tally.js';

/** What a change does to the whole site. */
export interface Effects {
  /** Targets on which the override decides and its value shows. */
  readonly reached: number;
  readonly missed: readonly Spot[];
  readonly spill: readonly Spot[];
  /** What changes on the elements it spills to, the first few. */
  readonly changed: readonly Message[];
  readonly compared: number;
  /** Elements that the rule can touch. */
  readonly elements: number;
  readonly states: readonly OverrideState[];
  /** Where it was looked at, inside the widths it is for. */
  readonly settings: readonly Setting[];
  /** What rules hang on and was not looked at. */
  readonly unseen: readonly Message[];
  /** What is read and seen where the override tells on it: the worst of all matches, by kind. */
  readonly readings: readonly ReadingTally[];
  /** States of other elements that told on targets and no longer do. */
  readonly silenced: readonly SilencedTeller[];
  /** States of targets that the override covers or leaves behind, on every page and at every width it is for. */
  readonly looks: readonly StateLook[];
  /** Elements around the target whose states are among them. */
  readonly others: Others;
}

/** A state of another element by which targets looked otherwise, and which an override covers. */
export interface SilencedTeller {
  readonly words: Message;
  readonly before: string;
  readonly spots: readonly Spot[];
}

/** How far a check is. */
export interface VerdictProgress {
  readonly page: number;
  readonly pages: number;
}

const MOST_CHANGED = 5;

/**
 * Resolves everything that an override can touch with it and without it, on every page, in every state that applies and at
 * every width that a breakpoint sets apart for it, and compares.
 * @param without the site less the override.
 */
export function* effectsOf(
  site: SiteModel,
  without: SiteModel,
  override: Override,
): Generator<VerdictProgress, Effects> {
  const targets = override.isByHand ? null : placesOf(site, override);
  const aim = aimOf(site, override);
  const others = othersOf(without, override, aim);
  const watchedOn = (page: Page): string[] => withFollowers(watchedBy(page, override, aim));
  const watched = [...new Set([...site.pages.values()].flatMap(watchedOn))];
  const { settings, unseen } = settingsThatMatter(site, watched);
  const isRead = tellsOnReading(override, aim);
  // Where a text stands on something else, that has widths of its own.
  const read = isRead
    ? settingsThatMatter(site, [...new Set([...watched, ...LEGIBILITY_LONGHANDS])]).settings.filter(({ width }) =>
        isInRange(width, override.widths),
      )
    : [];
  const tally: EffectsTally = {
    missed: new Map(),
    spill: new Map(),
    changed: new Map(),
    states: new Set([aim.state]),
    looks: [],
    legibility: new Legibility(),
    silenced: new Map(),
    reached: 0,
    compared: 0,
    elements: 0,
  };
  let done = 0;
  for (const [pageId, after] of site.pages) {
    const own = targets?.filter((place) => place.page === after) ?? null;
    comparePage(
      {
        site,
        override,
        aim,
        others,
        pageId,
        after,
        before: pageOf(without, pageId),
        own,
        watched: watchedOn(after),
        settings,
        read,
      },
      tally,
    );
    done += 1;
    yield { page: done, pages: site.pages.size };
  }
  const { missed, spill, changed, states, looks, legibility, reached, compared, elements } = tally;
  return {
    reached,
    missed: [...missed.values()],
    spill: [...spill.values()],
    changed: [...changed.values()].slice(0, MOST_CHANGED),
    compared,
    elements,
    states: OVERRIDE_STATES.filter((state) => states.has(state)),
    settings: settings.filter(({ width }) => isInRange(width, override.widths)),
    unseen,
    readings: legibility.tallies(),
    silenced: [...tally.silenced.values()].map((told) => ({ ...told, spots: [...told.spots.values()] })),
    looks: gatherLooks(looks),
    others,
  };
}

/** Whether an override can tell on what is read or seen. */
function tellsOnReading({ property, pseudo }: Override, { longhands }: Aim): boolean {
  if (pseudo.startsWith('-webkit-')) return false;
  return (
    property.startsWith('--') ||
    longhands.some((longhand) =>
      /color$|^fill$|^background|^opacity$|^box-shadow$|^font-(?:size|weight)$|^outline|^border-.*-(?:width|style)$/.test(
        longhand,
      ),
    )
  );
}
