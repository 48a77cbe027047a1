import { keyOf, message } from '../message/message.js';
import { applicableStates, canBeIn } from '../grid/applicable-states.js';
import type { ElementNode } from '../dom/tree.js';
import { alikeKey } from '../selectors/alike.js';
import { statesTogether, type Place } from '../reach/threshold.js';
import type { ElementStyle } from '../resolve/element-style.js';
import { StyleView } from '../resolve/style-view.js';
import { sameColor } from '../color/same-color.js';
import { isInRange } from '../veneer/media.js';
import { OVERRIDE_STATES, isSwitchState, type Override, type OverrideState, type Spot } from '../veneer/override.js';
import type { Setting } from '../conditions/environment.js';
import { shortName } from '../selectors/describe-element.js';
import { otherAlike } from '../site/places.js';
import { elementOf, pageOf } from '../site/site-model.js';
import { isVeneered, oneOfEachKind, stateLooksOf, type StateViews } from './state-looks.js';
import { flipsOf } from '../elsewhere/flips.js';
import { tellersOf, type Teller } from '../elsewhere/tellers.js';
import type { StateMap } from '../selectors/match-context.js';
import { touchedOn } from '../selectors/touched.js';
import type { Aim } from './aim.js';
import type { Others } from './others.js';
import { PageViews } from './page-views.js';
import type { EffectsTally } from './effects-tally.js';
import { readPage } from './read-page.js';
import type { PageQuestion } from './page-question.js';

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

/** Compares one page without an override and with it, in every state and setting. */
export function comparePage(question: PageQuestion, tally: EffectsTally): void {
  const comparison = comparisonOf(question, tally);
  if (!comparison) return;
  const { hits, touched, targets, wanted, inState, pageViews } = comparison;
  for (const environment of question.settings) compareIn(question, comparison, environment, tally);
  readPage(question, inState, hits, touched, targets, pageViews, tally);
  tally.reached += wanted.filter(({ element }) => !tally.missed.has(spotOn(question, element)[0])).length;
}

/** Finds what the change can tell on; `null` where that is nothing. */
function comparisonOf(question: PageQuestion, tally: EffectsTally): Comparison | null {
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
  tally: EffectsTally,
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
      tally.changed.set(
        `${changed} of ${shortName(element)}`,
        message('verdict.changed', { property: changed, element: shortName(element) }),
      );
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
  tally: EffectsTally,
): void {
  const [longhand] = aim.longhands;
  const calm = new StyleView(after, { environment }).style(element, aim.pseudo).resolved(longhand);
  for (const { words, states } of tellersOf(before, element, aim.pseudo, environment, longhand).filter(
    (teller) => !isCovered(teller, others),
  )) {
    if (new StyleView(after, { environment, states }).style(element, aim.pseudo).resolved(longhand) !== calm) continue;
    const known = tally.silenced.get(keyOf(words)) ?? {
      words,
      before: new StyleView(before, { environment, states }).style(element, aim.pseudo).resolved(longhand),
      spots: new Map<string, Spot>(),
    };
    known.spots.set(key, spot);
    tally.silenced.set(keyOf(words), known);
  }
}

/** Whether a state is among those that every target is looked at in. */
function isCovered({ words, state }: Teller, others: Others): boolean {
  const covered = others.get(state)?.words;
  return covered != null && keyOf(covered) === keyOf(words);
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
