import type { ElementNode } from '../dom/tree.js';
import type { Page } from '../resolve/page.js';
import { boxOf, holds, rectsOf, type PageLayout, type Rect } from '../resolve/page-layout.js';
import { StyleView } from '../resolve/style-view.js';
import { boxIndexOf } from './box-index.js';
import { outerShadowsOf, shadowCasters, shadowsAt, type OuterShadow } from './outer-shadows.js';
import { paintingOrderOf, type Painter, type PaintingOrder } from './painting-order.js';

/** A point of the page, and what paints there, back to front. */
export interface Spot {
  readonly x: number;
  readonly y: number;
  /** Where in the painting order the text stands. */
  readonly end: number;
  readonly under: readonly Painted[];
  readonly over: readonly Painted[];
}

/** A box that paints at a point: by its fill and edges, or by the shadow it casts around itself. */
export interface Painted {
  readonly painter: Painter;
  readonly box: Rect;
  /** Its place in the painting order. */
  readonly at: number;
  readonly shadows?: readonly OuterShadow[];
}

export interface Measured {
  readonly order: PaintingOrder;
  /** Elements that stay where they are while the page scrolls under them, and all inside those. */
  readonly fixed: ReadonlySet<ElementNode>;
  /** Points under texts, and around boxes, by element and pseudo-element. */
  readonly spots: Map<string, readonly Spot[]>;
}

const measured = new WeakMap<PageLayout, Measured>();

/** What is known of a layout. The order is that of the page at rest: states move boxes before one another so seldom that it is asked once a layout. */
export function measuredOf(view: StyleView, layout: PageLayout): Measured {
  let found = measured.get(layout);
  if (!found) {
    const rest = new StyleView(view.page, { environment: view.environment });
    found = { order: paintingOrderOf(rest, layout), fixed: fixedIn(rest), spots: new Map() };
    measured.set(layout, found);
  }
  return found;
}

function fixedIn(rest: StyleView): ReadonlySet<ElementNode> {
  const known = new Map<ElementNode, boolean>();
  const isFixed = (element: ElementNode): boolean => {
    let is = known.get(element);
    if (is === undefined) {
      const parent = element.flatParent;
      is = rest.style(element).resolved('position') === 'fixed' || (parent !== null && isFixed(parent));
      known.set(element, is);
    }
    return is;
  };
  return new Set(rest.page.document.elements.filter(isFixed));
}

/** Points under the lines of a text, with what paints there; what is fixed over one that scrolls is left out. */
export function spotsOf(view: StyleView, layout: PageLayout, element: ElementNode, pseudo: string): readonly Spot[] {
  const { order, fixed, spots } = measuredOf(view, layout);
  const key = `${element.number}:${pseudo}`;
  let found = spots.get(key);
  if (!found)
    spots.set(
      key,
      (found = pointsUnder(layout, element, pseudo).map(([x, y]) =>
        scrolledClear(fixed, element, spotAt(order, element, pseudo, x, y)),
      )),
    );
  return found;
}

/** What is fixed over a text that scrolls lets it be read further up or down. */
function scrolledClear(fixed: ReadonlySet<ElementNode>, element: ElementNode, spot: Spot): Spot {
  return fixed.has(element) ? spot : { ...spot, over: spot.over.filter(({ painter }) => !fixed.has(painter.element)) };
}

const ACROSS = [0.005, 0.13, 0.25, 0.38, 0.5, 0.62, 0.75, 0.87, 0.995];
/** Glyphs stand in the middle of their line. */
const DOWN = [0.12, 0.5, 0.88];

/** Points under the lines of a text; under the middle of a box that shows none. */
function pointsUnder(layout: PageLayout, element: ElementNode, pseudo: string): [number, number][] {
  const own =
    pseudo === '' || pseudo === 'selection' || pseudo === 'placeholder' || pseudo.startsWith('first-')
      ? rectsOf(layout.lines.get(element.number))
      : rectsOf(layout.pseudoBoxes.get(key(element, pseudo)));
  if (own.length > 0) {
    const [across, down] = own.length > MANY_LINES ? [FEW_ACROSS, [0.5]] : [ACROSS, DOWN];
    return own.flatMap(({ left, top, width, height }) =>
      down.flatMap((y) => across.map((x): [number, number] => [left + width * x, top + height * y])),
    );
  }
  const box = boxOf(layout, element.number);
  return box && (pseudo === '' || pseudo === 'before' || pseudo === 'after' || pseudo === 'marker')
    ? [[box.left + box.width / 2, box.top + box.height / 2]]
    : [];
}

/** Lines above which each is looked under at fewer points; none is passed over. */
const MANY_LINES = 24;
const FEW_ACROSS = [0.005, 0.5, 0.995];

function key(element: ElementNode, pseudo: string): string {
  return `${element.number}:${pseudo}`;
}

export function spotAt(order: PaintingOrder, element: ElementNode, pseudo: string, x: number, y: number): Spot {
  const { painters, textAt } = order;
  const paintedBy = (at: number): Painted | null => {
    const painter = painters[at];
    if (painter.clip && !holds(painter.clip, x, y)) return null;
    // The canvas takes the background of the root, which is everywhere.
    const box =
      painter.element.flatParent === null && painter.pseudo === ''
        ? painter.boxes[0]
        : painter.boxes.find((own) => holds(own, x, y));
    return box ? { painter, box, at } : null;
  };
  // A positioned pseudo-element holds its own text.
  const own =
    pseudo === '' ? -1 : ((placesIn(order).get(element) ?? []).find((at) => painters[at].pseudo === pseudo) ?? -1);
  const end = own === -1 ? (textAt.get(element.number) ?? painters.length) : own + 1;
  const all = boxIndexOf(order)
    .touching({ left: x, top: y, width: 0, height: 0 })
    .flatMap((at) => paintedBy(at) ?? []);
  return { x, y, end, under: all.filter(({ at }) => at < end), over: all.filter(({ at }) => at >= end) };
}

const paintersByElement = new WeakMap<PaintingOrder, ReadonlyMap<ElementNode, readonly number[]>>();

/** Places in the painting order that an element and its pseudo-elements have. */
function placesIn(order: PaintingOrder): ReadonlyMap<ElementNode, readonly number[]> {
  let places = paintersByElement.get(order);
  if (!places) {
    const found = new Map<ElementNode, number[]>();
    order.painters.forEach(({ element }, i) => found.set(element, [...(found.get(element) ?? []), i]));
    paintersByElement.set(order, (places = found));
  }
  return places;
}

/** How far a shadow may reach to be looked for among the boxes near a text, CSS px; those that reach further are asked one by one. */
const NEAR = 120;
const farByCasters = new WeakMap<object, readonly (readonly [ElementNode, number])[]>();

function farCasters(page: Page): readonly (readonly [ElementNode, number])[] {
  const casters = shadowCasters(page);
  let far = farByCasters.get(casters);
  if (!far) farByCasters.set(casters, (far = [...casters].filter(([, reach]) => reach > NEAR)));
  return far;
}

/** The spots with the boxes that cast a shadow there in this view. */
export function withShadows(
  view: StyleView,
  { order, fixed }: Measured,
  spots: readonly Spot[],
  element: ElementNode,
): readonly Spot[] {
  const xs = spots.map(({ x }) => x);
  const ys = spots.map(({ y }) => y);
  const around: Rect = {
    left: Math.min(...xs),
    top: Math.min(...ys),
    width: Math.max(...xs) - Math.min(...xs),
    height: Math.max(...ys) - Math.min(...ys),
  };
  const places = placesIn(order);
  const casters: Painted[] = [];
  const cast = (at: number, reach: number): void => {
    const painter = order.painters[at];
    // The shadow of what is fixed is scrolled clear of as well.
    if (fixed.has(painter.element) && !fixed.has(element)) return;
    const near = painter.boxes.filter((box) => isWithin(box, around, reach));
    if (near.length === 0) return;
    const shadows = outerShadowsOf(view.style(painter.element, painter.pseudo));
    if (shadows.length > 0) casters.push(...near.map((box) => ({ painter, box, at, shadows })));
  };
  const reaches = shadowCasters(view.page);
  for (const at of boxIndexOf(order).touching({
    left: around.left - NEAR,
    top: around.top - NEAR,
    width: around.width + 2 * NEAR,
    height: around.height + 2 * NEAR,
  })) {
    const reach = reaches.get(order.painters[at].element) ?? -1;
    if (reach >= 0 && reach <= NEAR) cast(at, reach);
  }
  for (const [element, reach] of farCasters(view.page)) for (const at of places.get(element) ?? []) cast(at, reach);
  if (casters.length === 0) return spots;
  return spots.map((spot) => {
    const { x, y, end } = spot;
    const here = casters.filter(
      ({ painter, box, shadows = [] }) =>
        (!painter.clip || holds(painter.clip, x, y)) && shadowsAt(shadows, box, x, y).length > 0,
    );
    if (here.length === 0) return spot;
    const inOrder = (list: readonly Painted[]): Painted[] => [...list].sort((a, b) => a.at - b.at);
    return {
      ...spot,
      under: inOrder([...spot.under, ...here.filter(({ at }) => at < end)]),
      over: inOrder([...spot.over, ...here.filter(({ at }) => at >= end)]),
    };
  });
}

/** Whether a box is no further than a distance from a rectangle. */
function isWithin(box: Rect, from: Rect, distance: number): boolean {
  return (
    box.left - distance <= from.left + from.width &&
    box.left + box.width + distance >= from.left &&
    box.top - distance <= from.top + from.height &&
    box.top + box.height + distance >= from.top
  );
}

/**
 * What lies under and over a text, and casts a shadow near it, where the page was laid out at the view's width: by it two widths are told
 * apart. `null` where it was not, or where a picture or gradient lies there, whose place counts.
 */
export function whatLiesAt(view: StyleView, element: ElementNode, pseudo = ''): string | null {
  const layout = view.page.layouts?.get(view.environment.width);
  if (!layout) return null;
  const own = measuredOf(view, layout);
  const spots = spotsOf(view, layout, element, pseudo);
  if (spots.length === 0) return '';
  const found = new Set<string>();
  for (const { under, over } of withShadows(view, own, spots, element))
    for (const [where, painted] of [
      ['u', under],
      ['o', over],
    ] as const)
      for (const { painter, shadows } of painted) {
        if (view.style(painter.element, painter.pseudo).resolved('background-image') !== 'none') return null;
        found.add(`${where}${painter.element.number}${painter.pseudo}${shadows ? 's' : ''}`);
      }
  return [...found].sort().join();
}
