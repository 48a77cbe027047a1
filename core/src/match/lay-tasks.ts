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
  /** By `page:element` of where it is laid, how many places follow. */
  readonly spots: Map<string, { readonly spot: Spot; places: number }>;
}

/** Properties whose value holds several colours. */
const COMPOSITES = new Set(['background-image', 'box-shadow', 'text-shadow']);
const SIDES = ['top', 'right', 'bottom', 'left'].map((side) => `border-${side}-color`);

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
      if (place.state === 'rest' || values.has(key) || !values.has(placeKey({ ...place, state: 'rest' }))) continue;
      values.set(key, { place, values: new Map([[place.index, ownValue(site, place, width)]]), isKept: true });
    }
  const tasks = new Map<string, Task>();
  const add = ({ place, isKept }: Wanted, property: string, value: OverrideValue): void => {
    const id = JSON.stringify([property, place.pseudo, place.state, value, isKept]);
    let task = tasks.get(id);
    if (!task)
      tasks.set(id, (task = { property, pseudo: place.pseudo, state: place.state, value, isKept, spots: new Map() }));
    const key = `${place.pageId}:${place.anchor}`;
    const known = task.spots.get(key);
    if (known) known.places += 1;
    else task.spots.set(key, { spot: { pageId: place.pageId, element: place.anchor }, places: 1 });
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
    if (!isOne || sides.length === 1) add(wanted, place.property, value);
    else if (sides[0] === place.property) add(wanted, 'border-color', value);
  }
  return [...tasks.values()].sort((a, b) => order(a) - order(b));
}

/** Places that laying a proposal on changes: sides of one edge are one, and what follows its text is none. */
export function placesToLay(site: SiteModel, proposal: MatchProposal, width: number): number {
  return tasksOf(site, proposal, width).reduce(
    (sum, { spots, isKept }) => (isKept ? sum : sum + [...spots.values()].reduce((own, { places }) => own + places, 0)),
    0,
  );
}

function placeKey({ pageId, element, pseudo, property, state }: Omit<FoundPlace, 'index'>): string {
  return `${pageId}:${element}:${pseudo}:${property}:${state}`;
}

/** Rest first, so that states are written over it; last what is kept, where it is covered by then. */
function order({ state, isKept }: Task): number {
  return isKept ? 2 : state === 'rest' ? 0 : 1;
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
  const css = view.style(view.page.document.elements[place.element], place.pseudo).resolved(place.property);
  const composite = readComposite(css, { swatches: [], roles: [] });
  return { ...composite, colors: composite.colors.map((color, i) => values.get(i) ?? color) };
}
