import { EDGE_SIDES } from '../properties/edges.js';
import { drawnEdges } from '../resolve/drawn-edges.js';
import { rootedValue } from '../resolve/rooted-value.js';
import { withVeneer } from '../resolve/page.js';
import { StyleView } from '../resolve/style-view.js';
import { allInState } from '../census/census-states.js';
import { pageOf, type SiteModel } from '../site/site-model.js';
import { readComposite } from '../veneer/composite.js';
import type { Spot } from '../veneer/override.js';
import { boundValue, type OverrideValue, type PlainValue } from '../veneer/override-value.js';
import type { FoundPlace } from './found-color.js';
import type { MatchProposal } from './proposal.js';

/** Places that are to take one value by one property in one state. */
export interface Task {
  readonly property: string;
  readonly pseudo: string;
  readonly state: FoundPlace['state'];
  readonly value: OverrideValue;
  /** Whether a state only keeps what it had, which an override for rest may cover. */
  readonly isKept: boolean;
  /** Whether it is said of every element at once. */
  readonly isOfAll: boolean;
  /** Whether a state says once more what shows at rest, which the override for rest may reach. */
  readonly isEcho: boolean;
  /** By `page:element` of where it is laid, how many places follow. */
  readonly spots: Map<string, { readonly spot: Spot; places: number }>;
}

/** Properties whose value holds several colours. */
export const COMPOSITES = new Set(['background-image', 'box-shadow', 'text-shadow', 'scrollbar-color']);
const SIDES = EDGE_SIDES.map(({ color }) => color);

/** What a proposal changes, by value: sides of one colour as one, gradients and shadows whole, and nothing for what follows its text. */
export function tasksOf(site: SiteModel, proposal: MatchProposal, width: number): Task[] {
  const values = new Map<string, Wanted>();
  const shown = new Set<string>();
  for (const { found, becomes } of proposal.rows)
    for (const place of found.places) {
      shown.add(placeKey(place));
      if (becomes.kind === 'leave') continue;
      const key = placeKey(place);
      const entry: Wanted = values.get(key) ?? { place, values: new Map(), isKept: false };
      entry.values.set(place.index, becomes.value);
      values.set(key, entry);
    }
  for (const { found, becomes } of proposal.rows)
    for (const place of becomes.kind === 'leave' ? found.places : []) {
      const key = placeKey(place);
      // What is left alone keeps its colour where an override for rest, or for what it takes it from, would cover it.
      if (values.has(key) || !coveringPlaces(place).some((covering) => values.has(placeKey(covering)))) continue;
      // A composite is kept as it was resolved.
      const own = COMPOSITES.has(place.property) ? [] : [[place.index, ownValue(site, place, width)] as const];
      values.set(key, { place, values: new Map(own), isKept: true });
    }
  const differing = anchorsThatDiffer(proposal);
  const tasks = new Map<string, Task>();
  const add = ({ place, isKept }: Wanted, property: string, value: OverrideValue): void => {
    const isOfAll = place.isOfAll ?? false;
    const isEcho = place.isEcho ?? false;
    const id = JSON.stringify([property, place.pseudo, place.state, value, isKept, isOfAll, isEcho]);
    let task = tasks.get(id);
    if (!task)
      tasks.set(
        id,
        (task = {
          property,
          pseudo: place.pseudo,
          state: place.state,
          value,
          isKept,
          isOfAll,
          isEcho,
          spots: new Map(),
        }),
      );
    const element = isKept || differing.has(anchorKey(place)) ? place.element : place.anchor;
    const key = `${place.pageId}:${element}`;
    const known = task.spots.get(key);
    if (known) known.places += 1;
    else task.spots.set(key, { spot: { pageId: place.pageId, element }, places: 1 });
  };
  for (const wanted of values.values()) {
    const { place, values: own } = wanted;
    if (COMPOSITES.has(place.property)) {
      add(wanted, place.property, compositeOf(site, place, own, width));
      continue;
    }
    const [value] = own.values();
    if (followsBy(values, wanted)) continue;
    if (!SIDES.includes(place.property)) {
      add(wanted, place.property, value);
      continue;
    }
    const sides = SIDES.filter((property) => shown.has(placeKey({ ...place, property })));
    const isOne = sides.every(
      (property) =>
        JSON.stringify(values.get(placeKey({ ...place, property }))?.values.get(0)) === JSON.stringify(value),
    );
    if (!isOne || sides.length === 1 || hasClearSide(site, place, sides, width)) add(wanted, place.property, value);
    else if (sides[0] === place.property) add(wanted, 'border-color', value);
  }
  return [...tasks.values()].sort((a, b) => order(a) - order(b));
}

/** Places whose overrides would cover one that is left alone: itself at rest, what it inherits from, the text it follows or has in its gradient. */
export function coveringPlaces(place: FoundPlace): FoundPlace[] {
  return [
    ...(place.state === 'rest' ? [] : [{ ...place, state: 'rest' as const }]),
    ...(place.anchor === place.element ? [] : [{ ...place, element: place.anchor }]),
    ...((place.followsText && place.property !== 'color') || COMPOSITES.has(place.property)
      ? [{ ...place, property: 'color', pseudo: '' }]
      : []),
  ];
}

function anchorKey({ pageId, anchor, pseudo, property, state }: FoundPlace): string {
  return [pageId, anchor, pseudo, property, state].join(':');
}

/** Elements whose followers are to come to several colours, so that each is written for itself. */
function anchorsThatDiffer({ rows }: MatchProposal): ReadonlySet<string> {
  const seen = new Map<string, string>();
  const differing = new Set<string>();
  for (const { found, becomes } of rows) {
    const value = becomes.kind === 'value' ? JSON.stringify(becomes.value) : '';
    for (const place of found.places) {
      const key = anchorKey(place);
      const other = seen.get(key);
      if (other === undefined) seen.set(key, value);
      else if (other !== value) differing.add(key);
    }
  }
  return differing;
}

/** Whether an edge has a side that is drawn in a clear colour: one value for all of them would paint it. */
function hasClearSide(site: SiteModel, place: FoundPlace, shown: readonly string[], width: number): boolean {
  if (shown.length === SIDES.length) return false;
  const view = viewOf(site, place, width);
  const style = view.style(view.page.document.elements[place.element], place.pseudo);
  return drawnEdges(style).some(({ color }) => !shown.includes(color));
}

/** Places that laying a proposal on changes: sides of one edge are one, and what follows its text is none. */
export function placesToLay(site: SiteModel, proposal: MatchProposal, width: number): number {
  return tasksOf(site, proposal, width).reduce(
    (sum, { spots, isKept, isEcho }) =>
      isKept || isEcho ? sum : sum + [...spots.values()].reduce((own, { places }) => own + places, 0),
    0,
  );
}

/** A place but for which of several in its value. */
export function placeKey({ pageId, element, pseudo, property, state }: Omit<FoundPlace, 'index'>): string {
  return `${pageId}:${element}:${pseudo}:${property}:${state}`;
}

/** What is said of all first, then rest, so that what is said of some and states are written over it; last what is kept, where it is covered by then. */
function order({ state, isKept, isOfAll }: Task): number {
  return isOfAll ? 0 : isKept ? 3 : state === 'rest' ? 1 : 2;
}

/** What a place is to become, by its places in one value. */
interface Wanted {
  readonly place: FoundPlace;
  readonly values: Map<number, PlainValue>;
  readonly isKept: boolean;
}

/** The page as it arrived, everything in the state of a place. */
function viewOf(site: SiteModel, { pageId, state }: FoundPlace, width: number): StyleView {
  const page = withVeneer(pageOf(site, pageId), '');
  return new StyleView(page, { environment: { width }, states: allInState(page.document, state) });
}

/** The colour a place has as it arrived, by the palette where that has it. */
function ownValue(site: SiteModel, place: FoundPlace, width: number): PlainValue {
  const view = viewOf(site, place, width);
  const color = view.style(view.page.document.elements[place.element], place.pseudo).color(place.property);
  return color ? boundValue(color, site.palette) : { kind: 'literal', css: 'currentcolor' };
}

/** Whether a place comes to its value by following its text, in its state and at rest, so that nothing is laid on it. */
function followsBy(values: ReadonlyMap<string, Wanted>, { place, values: own }: Wanted): boolean {
  const text = values.get(placeKey({ ...place, property: 'color', pseudo: '' }))?.values.get(0);
  if (!place.followsText || !text || JSON.stringify(text) !== JSON.stringify(own.get(0))) return false;
  const rest = place.state === 'rest' ? undefined : values.get(placeKey({ ...place, state: 'rest' }));
  return rest === undefined || followsBy(values, rest);
}

/** A gradient or shadow with its matched colours; the others stay as they were. */
function compositeOf(
  site: SiteModel,
  place: FoundPlace,
  values: ReadonlyMap<number, PlainValue>,
  width: number,
): OverrideValue {
  const view = viewOf(site, place, width);
  const style = view.style(view.page.document.elements[place.element], place.pseudo);
  const css = rootedValue(style, view.page, place.property);
  const composite = readComposite(css, { swatches: [], roles: [] });
  return { ...composite, colors: composite.colors.map((color, i) => values.get(i) ?? color) };
}
