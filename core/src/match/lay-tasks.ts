import { withVeneer } from '../resolve/page.js';
import { StyleView } from '../resolve/style-view.js';
import { allInState } from '../census/census-states.js';
import { elementOf, pageOf, type SiteModel } from '../site/site-model.js';
import { readComposite } from '../veneer/composite.js';
import type { Spot } from '../veneer/override.js';
import type { OverrideValue, PlainValue } from '../veneer/override-value.js';
import type { FoundPlace } from './found-color.js';
import type { MatchProposal } from './proposal.js';

/** Places that are to take one value by one property in one state. */
export interface Task {
  readonly property: string;
  readonly pseudo: string;
  readonly state: FoundPlace['state'];
  readonly value: OverrideValue;
  /** By `page:element` of where it is laid, how many places follow. */
  readonly spots: Map<string, { readonly spot: Spot; places: number }>;
}

/** Properties whose value holds several colours. */
const COMPOSITES = new Set(['background-image', 'box-shadow', 'text-shadow']);
const SIDES = ['top', 'right', 'bottom', 'left'].map((side) => `border-${side}-color`);

/** What a proposal changes, by value: sides of one colour as one, gradients and shadows whole, and nothing for what follows its text. */
export function tasksOf(site: SiteModel, proposal: MatchProposal, width: number): Task[] {
  const values = new Map<string, { readonly place: FoundPlace; readonly values: Map<number, PlainValue> }>();
  const shown = new Set<string>();
  for (const { found, becomes } of proposal.rows)
    for (const place of found.places) {
      shown.add(placeKey(place));
      if (becomes.kind === 'leave') continue;
      const key = placeKey(place);
      const entry = values.get(key) ?? { place, values: new Map<number, PlainValue>() };
      entry.values.set(place.index, becomes.value);
      values.set(key, entry);
    }
  const tasks = new Map<string, Task>();
  const add = (place: FoundPlace, property: string, value: OverrideValue): void => {
    const id = JSON.stringify([property, place.pseudo, place.state, value]);
    let task = tasks.get(id);
    if (!task) tasks.set(id, (task = { property, pseudo: place.pseudo, state: place.state, value, spots: new Map() }));
    const key = `${place.pageId}:${place.anchor}`;
    const known = task.spots.get(key);
    if (known) known.places += 1;
    else task.spots.set(key, { spot: { pageId: place.pageId, element: place.anchor }, places: 1 });
  };
  for (const { place, values: own } of values.values()) {
    if (COMPOSITES.has(place.property)) {
      add(place, place.property, compositeOf(site, place, own, width));
      continue;
    }
    const [value] = own.values();
    const text = values.get(placeKey({ ...place, property: 'color', pseudo: '' }))?.values.get(0);
    if (place.followsText && text && JSON.stringify(text) === JSON.stringify(value)) continue;
    if (!SIDES.includes(place.property)) {
      add(place, place.property, value);
      continue;
    }
    const sides = SIDES.filter((property) => shown.has(placeKey({ ...place, property })));
    const isOne = sides.every(
      (property) =>
        JSON.stringify(values.get(placeKey({ ...place, property }))?.values.get(0)) === JSON.stringify(value),
    );
    if (!isOne || sides.length === 1) add(place, place.property, value);
    else if (sides[0] === place.property) add(place, 'border-color', value);
  }
  return [...tasks.values()].sort((a, b) => order(a) - order(b));
}

/** Places that laying a proposal on changes: sides of one edge are one, and what follows its text is none. */
export function placesToLay(site: SiteModel, proposal: MatchProposal, width: number): number {
  return tasksOf(site, proposal, width).reduce(
    (sum, { spots }) => sum + [...spots.values()].reduce((own, { places }) => own + places, 0),
    0,
  );
}

function placeKey({ pageId, element, pseudo, property, state }: Omit<FoundPlace, 'index'>): string {
  return `${pageId}:${element}:${pseudo}:${property}:${state}`;
}

/** Rest first, so that states are written over it. */
function order({ state }: Task): number {
  return state === 'rest' ? 0 : 1;
}

/** A gradient or shadow with its matched colours; the others stay as they were. */
function compositeOf(
  site: SiteModel,
  { pageId, element, pseudo, property, state }: FoundPlace,
  values: ReadonlyMap<number, PlainValue>,
  width: number,
): OverrideValue {
  const page = withVeneer(pageOf(site, pageId), '');
  const view = new StyleView(page, { environment: { width }, states: allInState(page.document, state) });
  const composite = readComposite(view.style(elementOf(page, element), pseudo).resolved(property), {
    swatches: [],
    roles: [],
  });
  return { ...composite, colors: composite.colors.map((color, i) => values.get(i) ?? color) };
}
