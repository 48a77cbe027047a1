import { message, type Message } from '../message/message.js';
import type { ElementNode } from '../dom/tree.js';
import { tellersOf } from '../elsewhere/tellers.js';
import { applicableStates } from '../grid/applicable-states.js';
import { planOverride, withOverrides } from '../plan/plan-override.js';
import { longhandsOfProperty } from '../properties/grouped.js';
import { VENEER_SHEET_NAME, withVeneer } from '../resolve/page.js';
import { decidingDeclaration } from '../census/paintings.js';
import { matchedInAnyState } from '../selectors/touched.js';
import { placesOf } from '../site/places.js';
import { elementOf, pageOf, viewIn, type SiteModel } from '../site/site-model.js';
import type { Override, OverrideState, Spot } from '../veneer/override.js';
import type { OverrideWish } from '../veneer/override-wish.js';
import { tellingParent } from '../verdict/telling-parent.js';
import type { MatchProposal } from './proposal.js';
import { colorsBeside } from './shape/colors-beside.js';
import type { ProposedShape } from './shape/propose-shapes.js';
import { resolvedAlone } from './shape/resolved-alone.js';
import { shapeTasks } from './shape/shape-tasks.js';
import { tasksOf, type Task } from './lay-tasks.js';
import type { ThemeProperty } from './theme-properties.js';
import { allInState } from '../census/census-states.js';
import { hexOf } from '../color/read-notation.js';
import { StyleView } from '../resolve/style-view.js';
import { readComposite } from '../veneer/composite.js';
import { plainCssOfValue, plainValuesIn } from '../veneer/override-value.js';
import { colorOfCss } from '../veneer/palette.js';

export interface LayProgress {
  readonly done: number;
  readonly of: number;
}

/** What laying a proposal on comes to. */
export interface LaidMatch {
  readonly put: readonly Override[];
  readonly drop: readonly string[];
  /** Places that are overridden. */
  readonly laid: number;
  /** What could not be written, with the reason and how many places it leaves. */
  readonly refused: readonly { readonly reason: Message; readonly places: number }[];
}

/**
 * Overrides for all that a proposal changes: one rule for alike elements where all of them are meant, else one for each.
 * A generator: it yields after each, so that a caller can show progress and stop.
 * @param width viewport width the scope was looked at, CSS px.
 * @param shapes corners, edges, shadows and type that are laid on besides.
 * @param properties of the theme; those taken are overridden first, and what follows them to its colour needs nothing more.
 */
export function* layMatch(
  site: SiteModel,
  proposal: MatchProposal,
  width: number,
  properties: readonly ThemeProperty[] = [],
  shapes: readonly ProposedShape[] = [],
): Generator<LayProgress, LaidMatch & { readonly after: SiteModel }> {
  // Shapes first: a state's shadow that they keep takes its matched colours after.
  const tasks = [...shapeTasks(site, shapes, width), ...tasksOf(site, colorsBeside(proposal, shapes), width)];
  return yield* layTasks(site, tasks, width, properties);
}

/** Overrides for tasks, one after the other, and the site with them on. */
export function* layTasks(
  site: SiteModel,
  tasks: readonly Task[],
  width: number,
  properties: readonly ThemeProperty[] = [],
): Generator<LayProgress, LaidMatch & { readonly after: SiteModel }> {
  const of = tasks.reduce((sum, { spots }) => sum + spots.size, 0);
  const laying = new Laying(site, width);
  for (const property of properties.filter(({ isTaken }) => isTaken)) {
    laying.overrideProperty(property);
    yield { done: 0, of };
  }
  for (const task of tasks) {
    while (task.spots.size > 0) {
      laying.next(task);
      yield { done: of - tasks.reduce((sum, { spots }) => sum + spots.size, 0), of };
    }
  }
  return laying.result();
}

const WIDE = /^(?:inherit|initial|unset|revert|revert-layer)$/i;

/** States that another element may be in for a place: a switch's. */
const ELSEWHERE: Readonly<Partial<Record<Task['state'], OverrideState>>> = {
  checked: 'switched',
  disabled: 'locked',
  focus: 'focused',
};

/** Lays one override after the other, each on the site as those before left it. */
class Laying {
  #at: SiteModel;
  readonly #put = new Map<string, Override>();
  readonly #drop = new Set<string>();
  /** Elements and pseudo-elements that follow a property of the theme that was overridden. */
  readonly #fed = new Set<string>();
  /** Places by the reason they could not be written. */
  readonly #refused = new Map<string, { readonly reason: Message; readonly places: number }>();
  #laid = 0;

  constructor(
    readonly site: SiteModel,
    readonly width: number,
  ) {
    this.#at = site;
  }

  /** Overrides a custom property where it is declared. */
  overrideProperty({ fed, value }: ThemeProperty): void {
    if (!value) return;
    const plan = planOverride(this.#at, {
      ...fed.spot,
      pseudo: '',
      state: 'rest',
      reach: 'alike',
      property: fed.name,
      value,
      width: this.width,
    });
    if (!plan.ok) {
      this.#refuse(
        message('match.property-refused', { property: fed.name, reason: plan.reason }),
        fed.followers.length,
      );
      return;
    }
    this.#keep(plan);
    for (const { pageId, element, decider, pseudo } of fed.followers)
      for (const key of [`${element}:${pseudo}`, `${decider}:`, `${decider}:${pseudo}`])
        this.#fed.add(`${pageId}:${key}`);
  }

  /** Takes the next place of a task, with all that one override serves. */
  next(task: Task): void {
    const [first] = task.spots.values();
    const { pageId, element } = first.spot;
    const isFed = this.#fed.has(`${pageId}:${element}:${task.pseudo}`);
    if ((isFed || (task.isEcho && this.#follows(task, first.spot))) && this.#isSo(task, first.spot)) {
      task.spots.delete(keyOf(first.spot));
      this.#laid += task.isKept || task.isEcho ? 0 : first.places;
      return;
    }
    const wish = this.#wishFor(task, first.spot);
    if (task.isKept && !this.#isCovered(wish)) {
      task.spots.delete(keyOf(first.spot));
      return;
    }
    const plan = planOverride(this.#at, wish);
    const served = plan.ok ? this.#servedBy(task, plan.put) : [];
    const keys = served.length > 0 ? served : [keyOf(first.spot)];
    const places =
      task.isKept || task.isEcho ? 0 : keys.reduce((sum, key) => sum + (task.spots.get(key)?.places ?? 0), 0);
    for (const key of keys) task.spots.delete(key);
    if (!plan.ok) {
      this.#refuse(plan.reason, Math.max(1, places));
      return;
    }
    this.#laid += places;
    this.#keep(plan);
  }

  /** Whether a place that comes to a value does so in the other lighting too: by an override, which follows the palette. */
  #follows({ property, pseudo, state, value }: Task, { pageId, element: number }: Spot): boolean {
    if (!this.site.palette.second || plainValuesIn(value).every(({ kind }) => kind === 'literal')) return true;
    const page = pageOf(this.#at, pageId);
    const view = new StyleView(page, {
      environment: { width: this.width },
      states: allInState(page.document, state),
    });
    const { decided } = decidingDeclaration(view.style(elementOf(page, number), pseudo), leadLonghand(property));
    return decided?.block.rule?.sheet.name === VENEER_SHEET_NAME;
  }

  /** Whether a place comes to what it is to become already. */
  #isSo({ property, pseudo, state, value }: Task, { pageId, element: number }: Spot): boolean {
    const page = pageOf(this.#at, pageId);
    const element = elementOf(page, number);
    const view = new StyleView(page, {
      environment: { width: this.width },
      states: allInState(page.document, state),
    });
    const style = view.style(element, pseudo);
    const wanted = plainCssOfValue(value, this.site.palette);
    if (value.kind === 'composite') {
      const same = (css: string): string =>
        readComposite(css, this.site.palette).css + JSON.stringify(readComposite(css, this.site.palette).colors);
      return longhandsOfProperty(property).every((longhand) => same(style.resolved(longhand)) === same(wanted));
    }
    // What the place inherits, or the browser says, is not known before.
    if (WIDE.test(wanted)) return false;
    const color = colorOfCss(wanted);
    if (color === null)
      return longhandsOfProperty(property).every(
        (longhand) => style.resolved(longhand) === resolvedAlone(property, wanted),
      );
    return longhandsOfProperty(property).every((longhand) => {
      const shown = style.color(longhand);
      return shown !== null && hexOf(shown) === hexOf(color);
    });
  }

  #keep(plan: { readonly put: readonly Override[]; readonly drop: readonly string[] }): void {
    for (const id of plan.drop) {
      this.#put.delete(id);
      if (this.site.overrides.some((override) => override.id === id)) this.#drop.add(id);
    }
    for (const override of plan.put) {
      this.#put.set(override.id, override);
      this.#drop.delete(override.id);
    }
    this.#at = withOverrides(this.#at, plan);
  }

  /** Alike elements by one rule, where none of them is to stay as it is. */
  #wishFor({ property, pseudo, state, value, spots, isOfAll }: Task, spot: Spot): OverrideWish {
    const page = pageOf(this.#at, spot.pageId);
    const element = elementOf(page, spot.element);
    const base = { ...spot, pseudo, property, value, width: this.width, reach: 'alike' as const };
    const wished: OverrideWish = { ...base, ...this.#stateOf(spot, element, pseudo, property, state) };
    if (isOfAll) return { ...wished, reach: 'everywhere' };
    const alike = placesOf(this.#at, wished);
    const pageIds = new Map([...this.#at.pages].map(([id, own]) => [own.document, id]));
    const isAll =
      alike.length > 0 &&
      alike.every((place) =>
        spots.has(keyOf({ pageId: pageIds.get(place.page.document) ?? -1, element: place.element.number })),
      );
    return isAll ? wished : { ...wished, reach: 'one' };
  }

  /** Whether what is laid on by now hides what a state shows by itself. */
  #isCovered({ pageId, element: number, pseudo, property, state, parent }: OverrideWish): boolean {
    const dressed = pageOf(this.#at, pageId);
    const element = elementOf(dressed, number);
    const other = parent == null ? null : elementOf(dressed, parent);
    const [now, own] = [dressed, withVeneer(dressed, '')].map((page) =>
      viewIn(page, element, state, this.width, other).style(element, pseudo).resolved(leadLonghand(property)),
    );
    return now !== own;
  }

  /** The state as an override names it: where that of another element paints the place, that one's. */
  #stateOf(
    spot: Spot,
    element: ElementNode,
    pseudo: string,
    property: string,
    state: Task['state'],
  ): Pick<OverrideWish, 'state' | 'parent'> {
    if (state === 'hover') {
      const parent = this.#hoveredParent(spot, element, pseudo, property);
      return parent ? { state: 'parent-hover', parent: parent.number } : { state };
    }
    const elsewhere = ELSEWHERE[state];
    if (!elsewhere || applicableStates(element, pseudo).includes(state)) return { state };
    const page = withVeneer(pageOf(this.#at, spot.pageId), '');
    const teller = tellersOf(page, element, pseudo, { width: this.width }, leadLonghand(property)).find(
      (found) => found.state === elsewhere,
    );
    return teller ? { state: elsewhere, parent: teller.element.number } : { state };
  }

  /** The ancestor whose hover paints a place already, before the pointer is over the place itself. */
  #hoveredParent(spot: Spot, element: ElementNode, pseudo: string, property: string): ElementNode | null {
    const page = withVeneer(pageOf(this.#at, spot.pageId), '');
    const rest = viewIn(page, element, 'rest', this.width);
    const parent = tellingParent(page, element, pseudo, this.width, rest);
    if (!parent) return null;
    const [own, parents] = [
      viewIn(page, element, 'hover', this.width),
      viewIn(page, element, 'parent-hover', this.width, parent),
    ].map((view) => view.style(element, pseudo).resolved(leadLonghand(property)));
    return own === parents ? parent : null;
  }

  /** Spots of a task that the overrides written for one of them match. */
  #servedBy(task: Task, put: readonly Override[]): string[] {
    const served = new Set<string>();
    for (const { selector } of put) {
      for (const [pageId, page] of this.#at.pages)
        for (const element of matchedInAnyState(page, selector)) {
          const key = keyOf({ pageId, element: element.number });
          if (task.spots.has(key)) served.add(key);
        }
    }
    return [...served];
  }

  #refuse(reason: Message, places: number): void {
    const key = JSON.stringify(reason);
    this.#refused.set(key, { reason, places: places + (this.#refused.get(key)?.places ?? 0) });
  }

  result(): LaidMatch & { readonly after: SiteModel } {
    return {
      after: this.#at,
      put: [...this.#put.values()],
      drop: [...this.#drop],
      laid: this.#laid,
      refused: [...this.#refused.values()],
    };
  }
}

function leadLonghand(property: string): string {
  return longhandsOfProperty(property)[0];
}

function keyOf({ pageId, element }: Spot): string {
  return `${pageId}:${element}`;
}
