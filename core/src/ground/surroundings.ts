import { contrastRatio, compositeOver, readableOn } from '../color/contrast.js';
import { sameColor } from '../color/same-color.js';
import { lineageOf, type ElementNode } from '../dom/tree.js';
import type { ElementStyle } from '../resolve/element-style.js';
import { StyleView } from '../resolve/style-view.js';
import { WHITE, rgb8, type Color } from '../values/color.js';
import { surroundingsByChain, type Surroundings } from './chain.js';
import type { Page } from '../resolve/page.js';
import { boxIndexOf } from './box-index.js';
import { boxOf, holds, rectsOf, type PageLayout, type Rect } from '../resolve/page-layout.js';
import { outerShadowsOf, shadowCasters, shadowsAt, type OuterShadow } from './outer-shadows.js';
import { groupOf, paintAt } from './paint-at.js';
import { paintingOrderOf, type Painter, type PaintingOrder } from './painting-order.js';

export type { Surroundings } from './chain.js';

/**
 * What stands behind and around a text as it is painted: under its lines, where a frame has measured the page at this width;
 * else over the chain of its ancestors, which `by` says.
 * Source: CSS 2.2 Appendix E for the order, CSS Compositing 1 §5 for the layers.
 */
export function surroundingsOf(view: StyleView, element: ElementNode, pseudo = ''): Surroundings {
  const layout = view.page.layouts?.get(view.environment.width);
  return (layout && byBoxes(view, layout, element, pseudo)) ?? surroundingsByChain(view, element, pseudo);
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

/** A point of the page, and what paints there, back to front. */
interface Spot {
  readonly x: number;
  readonly y: number;
  /** Where in the painting order the text stands. */
  readonly end: number;
  readonly under: readonly Painted[];
  readonly over: readonly Painted[];
}

/** A box that paints at a point: by its fill and edges, or by the shadow it casts around itself. */
interface Painted {
  readonly painter: Painter;
  readonly box: Rect;
  /** Its place in the painting order. */
  readonly at: number;
  readonly shadows?: readonly OuterShadow[];
}

interface Measured {
  readonly order: PaintingOrder;
  /** Elements that stay where they are while the page scrolls under them, and all inside those. */
  readonly fixed: ReadonlySet<ElementNode>;
  /** Points under texts, and around boxes, by element and pseudo-element. */
  readonly spots: Map<string, readonly Spot[]>;
}

const measured = new WeakMap<PageLayout, Measured>();

/** The order is that of the page at rest: states move boxes before one another so seldom that it is asked once a layout. */
function measuredOf(view: StyleView, layout: PageLayout): Measured {
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

function spotsOf(view: StyleView, layout: PageLayout, element: ElementNode, pseudo: string): readonly Spot[] {
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

function byBoxes(view: StyleView, layout: PageLayout, element: ElementNode, pseudo: string): Surroundings | null {
  const own = measuredOf(view, layout);
  const { order, spots } = own;
  const under = spotsOf(view, layout, element, pseudo);
  if (under.length === 0) return null;
  const style = view.style(element, pseudo);
  const fill = style.color('-webkit-text-fill-color') ?? style.color('color') ?? rgb8(0, 0, 0);
  const found = tellingSpots(view, withShadows(view, own, under, element)).map((spot) =>
    composite(view, spot, fill, element, pseudo),
  );
  const outside = outsideOf(view, layout, order, spots, element);
  // Where something opaque lies over a text, nothing of it is seen.
  const seen = found.filter(({ isHidden }) => !isHidden);
  const worst = (seen.length > 0 ? seen : found).reduce((a, b) => (b.ratio < a.ratio ? b : a));
  return {
    ground: worst.ground,
    text: worst.text,
    ratio: worst.ratio,
    doubts: [...new Set(found.flatMap(({ doubts }) => doubts))],
    outside: outside.color,
    outsides: outside.colors,
    outsideDoubts: outside.doubts,
    by: 'boxes',
    isHidden: seen.length === 0,
  };
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

function spotAt(order: PaintingOrder, element: ElementNode, pseudo: string, x: number, y: number): Spot {
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
function withShadows(
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

/** Of points under which the same plain boxes lie, the first, middle and last tell as much as all. */
function tellingSpots(view: StyleView, spots: readonly Spot[]): readonly Spot[] {
  const groups = new Map<string, Spot[]>();
  for (const spot of spots) {
    const key = [...spot.under, ...spot.over]
      .map(
        ({ painter: { element, pseudo }, box, shadows }) =>
          `${element.number}${pseudo}${box.left}${shadows ? 's' : ''}`,
      )
      .join();
    const group = groups.get(key);
    if (group) group.push(spot);
    else groups.set(key, [spot]);
  }
  return [...groups.values()].flatMap((group) => {
    const isPlain =
      [...group[0].under, ...group[0].over].every(({ painter: { element, pseudo }, shadows }) => {
        const style = view.style(element, pseudo);
        return !shadows && style.resolved('background-image') === 'none' && !/inset/.test(style.resolved('box-shadow'));
      }) && view.style(view.page.document.rootElement).resolved('background-image') === 'none';
    return isPlain && group.length > 3 ? [group[0], group[group.length >> 1], group[group.length - 1]] : group;
  });
}

interface Composited {
  readonly ground: Color;
  readonly text: Color;
  readonly ratio: number;
  readonly doubts: readonly string[];
  readonly isHidden: boolean;
}

/** An edge thinner than this crosses a text and is no ground of it: no glyph is lost in it. CSS px (common practice). */
const LEAST_EDGE = 4;

/** What a point comes to with a text there and without. */
interface TwicePainted {
  readonly without: Color;
  readonly withText: Color;
  readonly doubts: readonly string[];
}

/** Paints a point twice, once with the text there and once without. */
function composite(view: StyleView, spot: Spot, fill: Color, element: ElementNode, pseudo = ''): Composited {
  const { without, withText, doubts } = paintTwice(view, spot, fill, element, pseudo);
  // What lies over it may well have the text's own colour: another text would show, were it not hidden.
  const isHidden =
    (fill.alpha ?? 0) > 0 &&
    sameColor(without, withText) &&
    sameColor(without, paintTwice(view, spot, readableOn(without), element, pseudo).withText);
  return {
    ground: without,
    text: withText,
    ratio: contrastRatio(withText, without),
    doubts: isHidden ? [] : doubts,
    isHidden,
  };
}

function paintTwice(
  view: StyleView,
  { x, y, under, over }: Spot,
  fill: Color,
  element: ElementNode,
  pseudo: string,
): TwicePainted {
  const doubts: string[] = [];
  const base = canvasColor(view, x, y, doubts);
  const ground = new Layering(base);
  const text = new Layering(base);
  const paint = ({ painter, box, shadows }: Painted): void => {
    const style = view.style(painter.element, painter.pseudo);
    if (shadows) {
      const groups = groupsOf(view, painter.element, painter.pseudo, doubts);
      for (const color of shadowsAt(shadows, box, x, y)) [ground, text].forEach((layers) => layers.lay(groups, color));
      return;
    }
    if (isCanvas(view, painter)) return;
    const groups = groupsOf(view, painter.element, painter.pseudo, doubts);
    const painted = paintAt(style, box, x, y, false, LEAST_EDGE);
    if (painted.doubt !== '') doubts.push(painted.doubt);
    // A fill that lets nothing through hides what is doubtful under it.
    else if (groups.length === 0 && (painted.color?.alpha ?? 0) >= 0.999) doubts.length = 0;
    ground.lay(groups, painted.color);
    text.lay(groups, painted.color);
  };
  under.forEach(paint);
  const inDoubt = [...doubts];
  // A filter or a blend on what the text stands in changes both, whatever fill lies between.
  const groups = groupsOf(view, element, pseudo, inDoubt);
  if (pseudo === 'selection') {
    const highlight = view.style(element, pseudo).color('background-color');
    [ground, text].forEach((layers) => layers.lay(groups, highlight));
    if (groups.length === 0 && (highlight?.alpha ?? 0) >= 0.999) inDoubt.length = 0;
  }
  text.lay(groups, fill);
  over.forEach(paint);
  return { without: ground.flat(), withText: text.flat(), doubts: [...new Set([...inDoubt, ...doubts])] };
}

/** A group laid on in one piece, told by the style that makes it. */
interface Group {
  readonly of: ElementStyle;
  readonly opacity: number;
}

/** Ancestors, the element and its pseudo-element among them, that are laid on in one piece, the outermost first. */
function groupsOf(view: StyleView, element: ElementNode, pseudo: string, doubts: string[]): Group[] {
  const groups: Group[] = [];
  const styles = [
    // What a highlight says of opacity and filters is its element's.
    ...(pseudo === '' || pseudo === 'selection' ? [] : [view.style(element, pseudo)]),
    ...lineageOf(element)
      .reverse()
      .map((node) => view.style(node)),
  ];
  for (const of of styles) {
    const { opacity, doubt } = groupOf(of);
    if (doubt !== '') doubts.push(doubt);
    if (opacity < 1) groups.unshift({ of, opacity });
  }
  return groups;
}

/** Layers of one point, groups of opacity laid on as they end. */
class Layering {
  readonly #stack: { readonly of: ElementStyle | null; readonly opacity: number; color: Color }[];

  constructor(base: Color) {
    this.#stack = [{ of: null, opacity: 1, color: base }];
  }

  lay(groups: readonly Group[], color: Color | null): void {
    if (!color || (color.alpha ?? 0) === 0) return;
    let shared = 0;
    while (shared < groups.length && this.#stack[shared + 1]?.of === groups[shared].of) shared += 1;
    while (this.#stack.length > shared + 1) this.#close();
    for (const group of groups.slice(shared)) this.#stack.push({ ...group, color: CLEAR });
    const top = this.#stack[this.#stack.length - 1];
    top.color = compositeOver(color, top.color);
  }

  /** The colour in the end. */
  flat(): Color {
    while (this.#stack.length > 1) this.#close();
    return this.#stack[0].color;
  }

  #close(): void {
    const group = this.#stack.pop();
    const below = this.#stack[this.#stack.length - 1];
    if (group && below) below.color = compositeOver(group.color, below.color, group.opacity);
  }
}

const CLEAR = rgb8(0, 0, 0, 0);

/** Whether a box gave its background to the canvas. Source: CSS Backgrounds 3 §2.11.2. */
function isCanvas(view: StyleView, { element, pseudo }: Painter): boolean {
  if (pseudo !== '') return false;
  const root = view.page.document.rootElement;
  if (element === root) return true;
  return element.localName === 'body' && element.parent === root && !paintsBackground(view, root);
}

function paintsBackground(view: StyleView, element: ElementNode): boolean {
  const style = view.style(element);
  return (style.color('background-color')?.alpha ?? 0) > 0 || style.resolved('background-image') !== 'none';
}

function canvasColor(view: StyleView, x: number, y: number, doubts: string[]): Color {
  const root = view.page.document.rootElement;
  const source = paintsBackground(view, root)
    ? root
    : (root.children.find(({ localName }) => localName === 'body') ?? root);
  const style = view.style(source);
  const layout = view.page.layouts?.get(view.environment.width);
  const box = (layout && boxOf(layout, root.number)) ?? {
    left: 0,
    top: 0,
    width: view.environment.width,
    height: view.environment.height,
  };
  const painted = paintAt(style, box, x, y, true);
  if (painted.doubt !== '') doubts.push(painted.doubt);
  const canvas = style.colorScheme() === 'dark' ? rgb8(18, 18, 18) : WHITE;
  return painted.color ? compositeOver(painted.color, canvas) : canvas;
}

/** Colour around a box, just outside its edge: the one found at most of its sides; and what is doubtful at any of them. */
function outsideOf(
  view: StyleView,
  layout: PageLayout,
  order: PaintingOrder,
  spots: Map<string, readonly Spot[]>,
  element: ElementNode,
): { readonly color: Color; readonly colors: readonly Color[]; readonly doubts: readonly string[] } {
  const box = boxOf(layout, element.number);
  if (!box) return { color: WHITE, colors: [WHITE], doubts: [] };
  const name = `${element.number}/outside`;
  let around = spots.get(name);
  if (!around) {
    const { left, top, width, height } = box;
    const points: [number, number][] = [
      [left - 1.5, top + height / 2],
      [left + width + 1.5, top + height / 2],
      [left + width / 2, top - 1.5],
      [left + width / 2, top + height + 1.5],
    ];
    const end = order.boxAt.get(element.number) ?? order.painters.length;
    around = points.map(([x, y]) => {
      const spot = spotAt(order, element, '', x, y);
      return { ...spot, end, under: spot.under.filter(({ at }) => at < end), over: [] };
    });
    spots.set(name, around);
  }
  const painted = withShadows(view, measuredOf(view, layout), around, element).map((spot) =>
    composite(view, { ...spot, over: [] }, CLEAR, element.flatParent ?? element),
  );
  const colors = painted.map(({ ground }) => ground);
  const count = (color: Color): number => colors.filter((other) => sameColor(other, color)).length;
  const color = colors.reduce((best, own) => (count(own) > count(best) ? own : best), colors[0]);
  return {
    color,
    colors: colors.filter((own, i) => colors.findIndex((other) => sameColor(other, own)) === i),
    doubts: [...new Set(painted.flatMap(({ doubts }) => doubts))],
  };
}
