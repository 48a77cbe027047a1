import { message, type Message } from '../message/message.js';
import type { ElementNode } from '../dom/tree.js';
import { VENEER_SHEET_NAME, type Page } from '../resolve/page.js';
import type { RankedDeclaration } from '../resolve/element-style.js';
import { StyleView } from '../resolve/style-view.js';
import { pointerStates } from '../elsewhere/pointer-states.js';
import { NO_SPECIFICITY, compareSpecificity, type Specificity } from '../selectors/selector.js';
import type { MediaEnvironment } from '../conditions/environment.js';
import type { Flip } from '../elsewhere/flips.js';
import type { StateMap } from '../selectors/match-context.js';
import type { OverrideState } from '../veneer/override.js';

/** An element on a page of the site. */
export interface Place {
  readonly page: Page;
  readonly element: ElementNode;
  /** The element whose state is meant, for the states of another. */
  readonly parent?: ElementNode | null;
  /** How that element stands in a state of its being switched: as the lead's would. */
  readonly flip?: Flip;
  /** Whether it is locked besides and shows that by a look of its own, which a rule for the lead's state leaves to it. */
  readonly isApart?: boolean;
}

/** What a rule has to win over: a declaration of a rule, `sheet:line selector`, of a style attribute or of the browser. */
export interface SetBy {
  readonly by: 'rule' | 'attribute' | 'browser';
  /** Empty where it is none. */
  readonly rule: string;
}

/** What a rule needs to win on every target. */
export interface Threshold {
  /** Specificity to reach; equal is enough unless `strict`. */
  readonly specificity: Specificity;
  readonly strict: boolean;
  readonly important: boolean;
  /** Why no stylesheet can win; `null` when one can. */
  readonly impossible: Message | null;
  /** What sets the bar; `null` where nothing stands in the way. */
  readonly setBy: SetBy | null;
}

export interface ThresholdQuestion {
  readonly places: readonly Place[];
  readonly pseudo: string;
  readonly state: OverrideState;
  readonly longhands: readonly string[];
  /** Whether a rule of the veneer is about to be replaced and so no rival. */
  readonly isReplaced: (selectorText: string) => boolean;
  /** Whether a rule of the veneer is sure to stand before the new one, so that a tie is won. */
  readonly isWrittenBefore?: (selectorText: string) => boolean;
  /** Environments the rule is for; one at the usual width when empty. */
  readonly environments?: readonly Partial<MediaEnvironment>[];
  /** State of the pseudo-element itself. */
  readonly pseudoState?: 'hover';
  /** The same place of the page as it is otherwise, such as in another lighting: the rule is to win there too. */
  readonly alsoAt?: (place: Place) => readonly Place[];
}

/** Source: CSS Cascading 5 §6.2, origin: important declarations of the browser stand above all. */
const OWN_TO_BROWSERS = message('reach.browser-itself-says-important');

/** From this many places on, those of a page are put into the state together. */
const TOGETHER_FROM = 10;

/** The highest bar that present winners set for a rule loaded where the veneer is, in every environment it is for. */
export function findThreshold(question: ThresholdQuestion): Threshold {
  const { pseudo, longhands, isReplaced, isWrittenBefore = () => false } = question;
  let bar: Threshold = { specificity: NO_SPECIFICITY, strict: false, important: false, impossible: null, setBy: null };
  for (const {
    view,
    place: { page, element },
  } of viewsOf({ ...question, places: placesToWinOn(question) })) {
    const style = view.style(element, pseudo);
    for (const longhand of longhands) {
      for (const declaration of style.seen(longhand).ranked(longhand)) {
        if (declaration.block.origin === 'user-agent' && declaration.important)
          return { ...bar, important: true, impossible: OWN_TO_BROWSERS, setBy: { by: 'browser', rule: '' } };
        if (declaration.block.origin !== 'author') continue;
        // The page's own rule may read just like ours; only ours is replaced.
        const ours =
          declaration.block.rule?.sheet.name === VENEER_SHEET_NAME ? (declaration.block.selector?.text ?? '') : null;
        if (ours !== null && isReplaced(ours)) continue;
        bar = raiseBar(bar, rivalOf(declaration, page, ours !== null && isWrittenBefore(ours)));
        // A normal declaration below an important one sets no bar of its own.
        if (declaration.important) break;
      }
    }
  }
  return bar;
}

function placesToWinOn({ places, alsoAt = () => [] }: ThresholdQuestion): Place[] {
  return places.filter(({ isApart }) => !isApart).flatMap((place) => [place, ...alsoAt(place)]);
}

/** Every place in the state, in every environment. Many places of one page share a view with all of them in it, which sets no lower bar. */
function* viewsOf({
  places,
  state,
  environments,
  pseudoState,
}: ThresholdQuestion): Generator<{ readonly view: StyleView; readonly place: Place }> {
  const byPage = new Map<Page, Place[]>();
  for (const place of places) {
    const own = byPage.get(place.page);
    if (own) own.push(place);
    else byPage.set(place.page, [place]);
  }
  const pseudoStates = pseudoState ? new Set([pseudoState]) : undefined;
  for (const environment of environments?.length ? environments : [{}]) {
    for (const [page, own] of byPage) {
      if (state === 'rest' || own.length >= TOGETHER_FROM) {
        const view = new StyleView(page, { states: statesTogether(own, state), environment, pseudoStates });
        for (const place of own) yield { view, place };
      } else {
        for (const place of own)
          yield {
            view: new StyleView(page, { states: statesOfPlace(place, state), environment, pseudoStates }),
            place,
          };
      }
    }
  }
}

/** The states of a page with an element in one of its own, or with what it follows in one. */
export function statesOfPlace({ page, element, parent, flip }: Place, state: OverrideState): StateMap {
  return parent && flip && state !== 'focused'
    ? new Map([[parent, new Set(flip.given)]])
    : pointerStates(page.document, element, state, parent);
}

/** States of a page with several of its elements in a state at once. */
export function statesTogether(places: readonly Place[], state: OverrideState): Map<ElementNode, Set<string>> {
  const all = new Map<ElementNode, Set<string>>();
  for (const place of places) {
    for (const [node, names] of statesOfPlace(place, state)) {
      const set = all.get(node) ?? new Set<string>();
      for (const name of names) set.add(name);
      all.set(node, set);
    }
  }
  return all;
}

function rivalOf({ block, important }: RankedDeclaration, page: Page, isWrittenBefore: boolean): Threshold {
  const rule = block.rule;
  const setBy: SetBy = rule
    ? { by: 'rule', rule: `${rule.sheet.name} ${block.selector?.text ?? ''}`.trim() }
    : { by: 'attribute', rule: '' };
  if (block.treeDepth > 0) {
    // CSS Cascading 5 §6.1, context: normal declarations of the outer tree beat those inside, important ones lose to them.
    return {
      specificity: NO_SPECIFICITY,
      strict: false,
      important: false,
      impossible: important ? message('reach.rule-inside-its-shadow') : null,
      setBy: null,
    };
  }
  if (block.attached) {
    return {
      specificity: NO_SPECIFICITY,
      strict: false,
      important: true,
      impossible: important ? message('reach.its-style-attribute-says') : null,
      setBy,
    };
  }
  if (rule?.layer !== null && rule?.layer !== undefined) {
    if (important)
      return {
        specificity: NO_SPECIFICITY,
        strict: false,
        important: true,
        impossible: message('reach.layer-says-important-which', { layer: rule.layer }),
        setBy,
      };
    return { specificity: NO_SPECIFICITY, strict: false, important: false, impossible: null, setBy: null };
  }
  const isOwn = rule?.sheet.name === VENEER_SHEET_NAME;
  return {
    specificity: block.specificity,
    strict: isOwn ? !isWrittenBefore : block.order >= page.veneerOrder,
    important,
    impossible: null,
    setBy,
  };
}

/** The higher of two bars. */
export function raiseBar(a: Threshold, b: Threshold): Threshold {
  if (a.impossible || b.impossible) return a.impossible ? a : b;
  if (a.important !== b.important) return a.important ? a : b;
  const order = compareSpecificity(a.specificity, b.specificity);
  if (order !== 0) return order > 0 ? a : b;
  return a.strict ? a : b;
}

/** Whether a specificity clears a bar. */
export function clears(specificity: Specificity, bar: Threshold): boolean {
  const order = compareSpecificity(specificity, bar.specificity);
  return order > 0 || (order === 0 && !bar.strict);
}
