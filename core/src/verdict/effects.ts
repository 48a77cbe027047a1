import { applicableStates, canBeIn } from '../grid/applicable-states.js';
import type { ElementNode } from '../dom/tree.js';
import { longhandsOfProperty } from '../properties/grouped.js';
import { LONGHANDS } from '../properties/longhands.js';
import { alikeKey } from '../selectors/alike.js';
import { statesTogether, type Place } from '../reach/threshold.js';
import type { ElementStyle } from '../resolve/element-style.js';
import type { Page } from '../resolve/page.js';
import { StyleShares, isByWidth } from '../resolve/style-share.js';
import { StyleView } from '../resolve/style-view.js';
import { sameColor } from '../color/same-color.js';
import type { Color } from '../values/color.js';
import { isInRange } from '../veneer/media.js';
import {
  OVERRIDE_STATES,
  isOfAnother,
  isSwitchState,
  type Override,
  type OverrideState,
  type Spot,
} from '../veneer/override.js';
import { colorOfValue } from '../veneer/override-value.js';
import { USUAL_WIDTHS, settingsThatMatter } from '../site/environments.js';
import type { Setting } from '../conditions/environment.js';
import { shortName } from '../selectors/describe-element.js';
import { longhandsFedBy } from './fed-longhands.js';
import { otherAlike, placesOf } from '../site/places.js';
import { elementOf, pageOf, viewIn, type SiteModel } from '../site/site-model.js';
import {
  gatherLooks,
  isVeneered,
  oneOfEachKind,
  stateLooksOf,
  type StateLook,
  type StateViews,
} from './state-looks.js';
import {
  LEGIBILITY_LONGHANDS,
  Legibility,
  Readings,
  differsToTheEye,
  textsOver,
  type Reading,
  type ReadingTally,
} from './legibility.js';
import { flipsOf } from '../elsewhere/flips.js';
import { tellersOf, type Teller } from '../elsewhere/tellers.js';
import { tellingParent } from './telling-parent.js';
import type { StateMap } from '../selectors/match-context.js';
import { touchedOn } from '../selectors/touched.js';

/** Longhands that follow another where nothing else is said: the text colour gives its own to many, the font size its measure. */
const FOLLOWERS: Readonly<Record<string, readonly string[]>> = {
  color: [...LONGHANDS]
    .filter(([, { initial }]) => initial === 'currentcolor')
    .map(([name]) => name)
    .concat('caret-color', 'outline-color', 'box-shadow', 'text-shadow', 'fill', 'stroke'),
  'font-size': [
    'line-height',
    'letter-spacing',
    'padding-top',
    'padding-right',
    'padding-bottom',
    'padding-left',
    'width',
    'max-width',
    'border-top-width',
  ],
};

/** What a change does to the whole site. */
export interface Effects {
  /** Targets on which the override decides and its value shows. */
  readonly reached: number;
  readonly missed: readonly Spot[];
  readonly spill: readonly Spot[];
  /** What changes on the elements it spills to, `property of element`, the first few. */
  readonly spillWords: readonly string[];
  readonly compared: number;
  /** Elements that the rule can touch. */
  readonly elements: number;
  readonly states: readonly OverrideState[];
  /** Where it was looked at, inside the widths it is for. */
  readonly settings: readonly Setting[];
  /** What rules hang on and was not looked at. */
  readonly unseen: readonly string[];
  /** What is read and seen where the override tells on it: the worst of all matches, by kind. */
  readonly readings: readonly ReadingTally[];
  /** States of other elements that told on targets and no longer do. */
  readonly silenced: readonly SilencedTeller[];
  /** States of targets that the override covers or leaves behind, on every page and at every width it is for. */
  readonly looks: readonly StateLook[];
  /** Elements around the target whose states are among them. */
  readonly others: Others;
}

/** The elements whose states tell on a target, by state: a parent's hover, a switch's being switched. */
export type Others = ReadonlyMap<OverrideState, { readonly element: ElementNode; readonly words: string }>;

/** A state of another element by which targets looked otherwise, and which an override covers. */
export interface SilencedTeller {
  readonly words: string;
  readonly before: string;
  readonly spots: readonly Spot[];
}

/** How far a check is. */
export interface VerdictProgress {
  readonly page: number;
  readonly pages: number;
}

const MOST_SPILL_WORDS = 5;

interface Tally {
  readonly missed: Map<string, Spot>;
  readonly spill: Map<string, Spot>;
  readonly spillWords: Set<string>;
  readonly states: Set<OverrideState>;
  readonly looks: StateLook[];
  readonly legibility: Legibility;
  readonly silenced: Map<string, { before: string; spots: Map<string, Spot> }>;
  reached: number;
  compared: number;
  elements: number;
}

/** What an override is to change: usually what it sets, behind a shadow root what the host's custom property is set for. */
interface Aim {
  readonly pseudo: string;
  readonly state: OverrideState;
  readonly longhands: readonly string[];
  /** The longhands, and those that follow them. */
  readonly meant: ReadonlySet<string>;
  readonly isInherited: boolean;
  /** The colour it is to have; `null` for what is none. */
  readonly wanted: Color | null;
}

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
  const tally: Tally = {
    missed: new Map(),
    spill: new Map(),
    spillWords: new Set(),
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
  const { missed, spill, spillWords, states, looks, legibility, reached, compared, elements } = tally;
  return {
    reached,
    missed: [...missed.values()],
    spill: [...spill.values()],
    spillWords: [...spillWords].slice(0, MOST_SPILL_WORDS),
    compared,
    elements,
    states: OVERRIDE_STATES.filter((state) => states.has(state)),
    settings: settings.filter(({ width }) => isInRange(width, override.widths)),
    unseen,
    readings: legibility.tallies(),
    silenced: [...tally.silenced].map(([words, { before, spots }]) => ({ words, before, spots: [...spots.values()] })),
    looks: gatherLooks(looks),
    others,
  };
}

/** What tells on the target besides its own states, where that is not what the override itself is for: the parent's hover, and the nearest switch. */
function othersOf(without: SiteModel, override: Override, { pseudo, state, longhands }: Aim): Others {
  const others = new Map<OverrideState, { element: ElementNode; words: string }>();
  if (override.through || override.property.startsWith('--') || isOfAnother(state) || pseudo.startsWith('-webkit-'))
    return others;
  const page = pageOf(without, override.pageId);
  const element = elementOf(page, override.element);
  const width = override.widths?.max ?? override.widths?.min ?? USUAL_WIDTHS[0];
  const parent = tellingParent(page, element, pseudo, width, viewIn(page, element, 'rest', width));
  if (parent) others.set('parent-hover', { element: parent, words: '' });
  const tellers = tellersOf(page, element, pseudo, { width }, longhands[0]);
  for (const { element: carrier, state: switched, words } of tellers)
    if (carrier === tellers[0].element) others.set(switched, { element: carrier, words });
  return others;
}

/** Longhands in which a change may show: for a custom property what it feeds. */
function watchedBy(page: Page, override: Override, { longhands }: Aim): readonly string[] {
  return override.property.startsWith('--') ? longhandsFedBy(page, override.property) : longhands;
}

function aimOf(site: SiteModel, override: Override): Aim {
  const { pseudo, state, property } = override.through ?? override;
  const longhands = longhandsOfProperty(property);
  const wanted = colorOfValue(override.value, site.palette);
  return {
    // Whoever changes a custom property means all that follows it; a host's is set for one thing behind its root.
    pseudo,
    state,
    longhands,
    meant: new Set(
      withFollowers(
        property.startsWith('--') && !override.through
          ? [...longhands, ...[...site.pages.values()].flatMap((page) => longhandsFedBy(page, property))]
          : longhands,
      ),
    ),
    // Highlights take every property from the highlight of the parent: CSS Pseudo-Elements 4 §3.5.
    wanted,
    isInherited:
      pseudo === 'selection' ||
      longhands.some((longhand) => longhand.startsWith('--') || (LONGHANDS.get(longhand)?.inherited ?? false)),
  };
}

function withFollowers(longhands: readonly string[]): string[] {
  return [...new Set([...longhands, ...longhands.flatMap((longhand) => FOLLOWERS[longhand] ?? [])])];
}

interface PageQuestion {
  readonly site: SiteModel;
  readonly override: Override;
  readonly aim: Aim;
  readonly others: Others;
  readonly pageId: number;
  readonly after: Page;
  readonly before: Page;
  /** What the rule is to match here; `null` for a selector by hand, which is meant for all it matches. */
  readonly own: readonly Place[] | null;
  readonly watched: readonly string[];
  readonly settings: readonly Setting[];
  /** Where it is read. */
  readonly read: readonly Setting[];
}

/** What is compared on one page: found once, looked at in every setting. */
interface Comparison {
  /** Elements that the selector matches itself. */
  readonly hits: ReadonlySet<ElementNode>;
  /** Elements that the change can tell on, the hits among them. */
  readonly touched: readonly ElementNode[];
  readonly targets: ReadonlySet<ElementNode>;
  /** Targets that can be in the state that is meant. */
  readonly wanted: readonly Place[];
  /** One of each kind among them, whose states are looked at beside one another. */
  readonly looked: readonly ElementNode[];
  readonly inState: ReadonlyMap<OverrideState, StateMap>;
  readonly pageViews: PageViews;
}

function comparePage(question: PageQuestion, tally: Tally): void {
  const comparison = comparisonOf(question, tally);
  if (!comparison) return;
  const { hits, touched, targets, wanted, inState, pageViews } = comparison;
  for (const environment of question.settings) compareIn(question, comparison, environment, tally);
  readPage(question, inState, hits, touched, targets, pageViews, tally);
  tally.reached += wanted.filter(({ element }) => !tally.missed.has(spotOn(question, element)[0])).length;
}

/** Finds what the change can tell on; `null` where that is nothing. */
function comparisonOf(question: PageQuestion, tally: Tally): Comparison | null {
  const { override, aim, after, before, own } = question;
  const { hits, touched } = touchedOn(
    after,
    [override.selector],
    (own ?? []).map((place) => place.element),
  );
  if (touched.length === 0) return null;
  tally.elements += touched.length;
  const targets = targetsOf(question, hits, touched);
  const wanted = targets.filter(({ element, isApart }) => !isApart && canBeIn(element, aim.state, aim.pseudo));
  // What a custom property feeds may stand anywhere inside, in states of its own.
  const changeable = override.through ? touched : [...hits];
  for (const element of changeable)
    for (const state of applicableStates(element, override.through ? '' : override.pseudo)) tally.states.add(state);
  const isFed = Boolean(override.through) || override.property.startsWith('--');
  return {
    hits,
    touched,
    targets: new Set(targets.map((place) => place.element)),
    wanted,
    looked: isFed ? [] : oneOfEachKind(wanted.map(({ element }) => element)),
    inState: statesToCompare(question, targets, wanted, changeable, tally.states),
    pageViews: new PageViews(after, before),
  };
}

/** Who is in which state, for each that is compared. Rest first: what it finds serves the others. */
function statesToCompare(
  { site, override, aim, others, after }: PageQuestion,
  targets: readonly Place[],
  wanted: readonly Place[],
  changeable: readonly ElementNode[],
  states: ReadonlySet<OverrideState>,
): Map<OverrideState, StateMap> {
  const inState = new Map(
    OVERRIDE_STATES.filter((state) => states.has(state)).map((state) => [
      state,
      statesTogether(state === aim.state ? wanted : changeable.map((element) => ({ page: after, element })), state),
    ]),
  );
  const leadPage = pageOf(site, override.pageId);
  const lead = elementOf(leadPage, override.element);
  for (const [state, { element: other }] of others) {
    const beside = targets.flatMap(({ element }): Place[] => {
      const like = otherAlike(element, lead, other);
      const flip = isSwitchState(state) ? flipsOf(other, leadPage.document)[state] : undefined;
      return like ? [{ page: after, element, parent: like, ...(flip ? { flip } : {}) }] : [];
    });
    if (beside.length > 0) inState.set(state, statesTogether(beside, state));
  }
  return inState;
}

/** Compares one page in one setting, in every state. */
function compareIn(
  question: PageQuestion,
  { touched, targets, wanted, looked, inState, pageViews }: Comparison,
  environment: Setting,
  tally: Tally,
): void {
  const { site, override, aim, after, before, settings } = question;
  const isMeantHere = isInRange(environment.width, override.widths);
  const views = new Map<OverrideState, StateViews>();
  for (const [state, states] of inState) {
    const viewAfter = pageViews.view(after, environment, state, states);
    const viewBefore = pageViews.view(before, environment, state, states);
    views.set(state, { after: viewAfter, before: viewBefore });
    for (const element of touched) {
      const changed = spiltOn(question, viewAfter, viewBefore, element, targets);
      if (changed === null) continue;
      tally.compared += 1;
      if (changed === '') continue;
      tally.spill.set(...spotOn(question, element));
      tally.spillWords.add(`${changed} of ${shortName(element)}`);
    }
    if (state !== aim.state || !isMeantHere) continue;
    for (const { element } of wanted)
      if (!takesHold(viewAfter.style(element, aim.pseudo), override, aim))
        tally.missed.set(...spotOn(question, element));
  }
  if (!isMeantHere) return;
  const stateAim = { pseudo: aim.pseudo, state: aim.state, longhand: aim.longhands[0], palette: site.palette };
  for (const element of looked)
    tally.looks.push(...stateLooksOf(element, spotOn(question, element)[1], views, stateAim));
  if (aim.state === 'rest' && environment === settings.find((setting) => isInRange(setting.width, override.widths)))
    for (const element of looked) noteSilenced(question, element, spotOn(question, element), environment, tally);
}

function spotOn({ pageId }: PageQuestion, element: ElementNode): [string, Spot] {
  return [`${pageId}/${element.number}`, { pageId, element: element.number }];
}

/** States that live on other elements and told on a target before: those that its override for rest covers now. */
function noteSilenced(
  { before, after, aim, others }: PageQuestion,
  element: ElementNode,
  [key, spot]: [string, Spot],
  environment: Setting,
  tally: Tally,
): void {
  const [longhand] = aim.longhands;
  const calm = new StyleView(after, { environment }).style(element, aim.pseudo).resolved(longhand);
  for (const { words, states } of tellersOf(before, element, aim.pseudo, environment, longhand).filter(
    (teller) => !isCovered(teller, others),
  )) {
    if (new StyleView(after, { environment, states }).style(element, aim.pseudo).resolved(longhand) !== calm) continue;
    const known = tally.silenced.get(words) ?? {
      before: new StyleView(before, { environment, states }).style(element, aim.pseudo).resolved(longhand),
      spots: new Map<string, Spot>(),
    };
    known.spots.set(key, spot);
    tally.silenced.set(words, known);
  }
}

/** Whether a state is among those that every target is looked at in. */
function isCovered({ words, state }: Teller, others: Others): boolean {
  return others.get(state)?.words === words;
}

/** Reads everything on a page that the change tells on, in every state, wherever its looks can differ. */
function readPage(
  { override, aim, pageId, after, before, read }: PageQuestion,
  inState: ReadonlyMap<OverrideState, StateMap>,
  hits: ReadonlySet<ElementNode>,
  touched: readonly ElementNode[],
  targets: ReadonlySet<ElementNode>,
  views: PageViews,
  tally: Tally,
): void {
  const touchedSet = new Set(touched);
  for (const setting of read) {
    const layout = after.layouts?.get(setting.width);
    const beside = layout
      ? textsOver(layout, after.document.elements, hits).filter((element) => !touchedSet.has(element))
      : [];
    for (const [state, states] of inState) {
      const viewAfter = views.view(after, setting, state, states);
      const viewBefore = views.view(before, setting, state, states);
      const [now, then] = [new Readings(viewAfter, state), new Readings(viewBefore, state)];
      const changed = new Map<ElementNode, boolean>();
      const isChanged = (element: ElementNode): boolean => {
        const known = changed.get(element);
        if (known !== undefined) return known;
        const parent = element.flatParent;
        const answer =
          (parent !== null && touchedSet.has(parent) && isChanged(parent)) ||
          differsToTheEye(viewAfter.style(element), viewBefore.style(element));
        changed.set(element, answer);
        return answer;
      };
      const take = (element: ElementNode, pseudo: string, isTarget: boolean): void => {
        const earlier = then.of(element, pseudo);
        for (const reading of now.of(element, pseudo)) {
          const same = earlier.find(({ kind }) => kind === reading.kind) ?? null;
          // What comes out as before is no matter of the change, unless it was meant.
          if (isTarget || !same || !isSameReading(reading, same))
            tally.legibility.take({ ...reading, spot: { pageId, element: element.number }, state, setting }, same);
        }
      };
      for (const element of touched) {
        const isTarget = targets.has(element) && state === aim.state;
        if (override.pseudo !== '') {
          if (isTarget) take(element, override.pseudo, true);
          continue;
        }
        if (!isTarget && !isChanged(element)) continue;
        take(element, '', isTarget);
        if (element.attributes.has('placeholder')) take(element, 'placeholder', false);
        for (const pseudo of ['before', 'after'])
          if (viewAfter.generates(element, pseudo)) take(element, pseudo, false);
      }
      for (const element of beside) take(element, '', false);
    }
  }
}

/** Views of a page, made once for a state and a setting, and what they share. */
class PageViews {
  readonly #shares: StyleShares;
  readonly #views = new Map<Page, Map<string, StyleView>>();

  constructor(after: Page, before: Page) {
    this.#shares = new StyleShares(isByWidth(after) || isByWidth(before));
  }

  view(page: Page, environment: Setting, state: OverrideState, states: StateMap): StyleView {
    let views = this.#views.get(page);
    if (!views) this.#views.set(page, (views = new Map()));
    const key = `${state}|${JSON.stringify(environment)}`;
    let view = views.get(key);
    if (!view)
      views.set(key, (view = new StyleView(page, { states, environment, share: this.#shares.of(environment) })));
    return view;
  }
}

function isSameReading(a: Reading, b: Reading): boolean {
  return a.doubt === b.doubt && sameColor(a.ink, b.ink) && sameColor(a.ground, b.ground);
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

/** The elements on a page that are to change, with the parents whose state is meant. */
function targetsOf(
  { site, override, own, after }: PageQuestion,
  hits: ReadonlySet<ElementNode>,
  touched: readonly ElementNode[],
): readonly Place[] {
  if (override.through) {
    const hosts = new Set(own?.map((place) => place.element) ?? hits);
    const lead = elementOf(pageOf(site, override.pageId), override.through.element);
    const key = alikeKey(lead);
    return touched
      .filter(
        (element) =>
          element.localName === lead.localName &&
          element.root.host !== null &&
          hosts.has(element.root.host) &&
          alikeKey(element) === key,
      )
      .map((element) => ({ page: after, element }));
  }
  if (own) return own;
  const parent = override.parent == null ? null : elementOf(pageOf(site, override.pageId), override.parent);
  return [...hits].map((element) => ({
    page: after,
    element,
    parent:
      parent &&
      (otherAlike(element, elementOf(pageOf(site, override.pageId), override.element), parent) ?? element.flatParent),
  }));
}

/** A watched longhand that changes on an element where nobody meant it; '' for none, `null` where any change is meant. */
function spiltOn(
  { override, aim, watched }: PageQuestion,
  after: StyleView,
  before: StyleView,
  element: ElementNode,
  targets: ReadonlySet<ElementNode>,
): string | null {
  const isTarget = targets.has(element);
  const isMeant = isTarget || (aim.isInherited && isUnder(element, targets));
  const isPseudo = override.pseudo !== '';
  const names = isMeant && !(isTarget && isPseudo) ? watched.filter((name) => !aim.meant.has(name)) : watched;
  if (names.length === 0) return null;
  const differs = (pseudo: string): string | undefined => {
    const [a, b] = [after.style(element, pseudo), before.style(element, pseudo)];
    if (a.identity === b.identity) return undefined;
    return names.find((name) => a.resolved(name) !== b.resolved(name));
  };
  // An override of a pseudo-element leaves its own element alone, and the same pseudo-element of others.
  return differs('') ?? (isPseudo && !isTarget ? differs(override.pseudo) : undefined) ?? '';
}

function takesHold(style: ElementStyle, override: Override, { longhands, wanted }: Aim): boolean {
  const shows = (longhand: string): boolean => {
    const color = wanted && style.color(longhand);
    return wanted === null || (color !== null && sameColor(color, wanted));
  };
  if (override.through) return longhands.every(shows);
  if (override.property.startsWith('--')) return isVeneered(style, override.property);
  return longhands.every((longhand) => isVeneered(style, longhand) && shows(longhand));
}

function isUnder(element: ElementNode, targets: ReadonlySet<ElementNode>): boolean {
  for (let node: ElementNode | null = element; node; node = node.flatParent) if (targets.has(node)) return true;
  return false;
}
