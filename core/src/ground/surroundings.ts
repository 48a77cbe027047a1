import type { Message } from '../message/message.js';
import { contrastRatio, compositeOver, readableOn } from '../color/contrast.js';
import { sameColor } from '../color/same-color.js';
import type { ElementNode } from '../dom/tree.js';
import { boxOf, type PageLayout } from '../resolve/page-layout.js';
import type { Page } from '../resolve/page.js';
import { StyleView } from '../resolve/style-view.js';
import { WHITE, rgb8, type Color } from '../values/color.js';
import { surroundingsByChain, type Surroundings } from './chain.js';
import { CLEAR, Layering, groupsOf } from './layering.js';
import { shadowsAt } from './outer-shadows.js';
import { paintAt } from './paint-at.js';
import type { Painter } from './painting-order.js';
import { measuredOf, spotAt, spotsOf, withShadows, type Painted, type Spot } from './spots.js';

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

/** Works out beforehand what every question about grounds at a width needs; nothing where the page is not measured there. */
export function readyGrounds(page: Page, width: number): void {
  const layout = page.layouts?.get(width);
  if (layout) measuredOf(new StyleView(page, { environment: { width } }), layout);
}

function byBoxes(view: StyleView, layout: PageLayout, element: ElementNode, pseudo: string): Surroundings | null {
  const own = measuredOf(view, layout);
  const under = spotsOf(view, layout, element, pseudo);
  if (under.length === 0) return null;
  const style = view.style(element, pseudo);
  const fill = style.color('-webkit-text-fill-color') ?? style.color('color') ?? rgb8(0, 0, 0);
  const found = tellingSpots(view, withShadows(view, own, under, element)).map((spot) =>
    composite(view, spot, fill, element, pseudo),
  );
  const outside = outsideOf(view, layout, element);
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
  readonly doubts: readonly Message[];
  readonly isHidden: boolean;
}

/** An edge thinner than this crosses a text and is no ground of it: no glyph is lost in it. CSS px (common practice). */
const LEAST_EDGE = 4;

/** What a point comes to with a text there and without. */
interface TwicePainted {
  readonly without: Color;
  readonly withText: Color;
  readonly doubts: readonly Message[];
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
  const doubts: Message[] = [];
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
    if (painted.doubt !== null) doubts.push(painted.doubt);
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

function canvasColor(view: StyleView, x: number, y: number, doubts: Message[]): Color {
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
  if (painted.doubt !== null) doubts.push(painted.doubt);
  const canvas = style.colorScheme() === 'dark' ? rgb8(18, 18, 18) : WHITE;
  return painted.color ? compositeOver(painted.color, canvas) : canvas;
}

/** Colour around a box, just outside its edge: the one found at most of its sides; and what is doubtful at any of them. */
function outsideOf(
  view: StyleView,
  layout: PageLayout,
  element: ElementNode,
): { readonly color: Color; readonly colors: readonly Color[]; readonly doubts: readonly Message[] } {
  const box = boxOf(layout, element.number);
  if (!box) return { color: WHITE, colors: [WHITE], doubts: [] };
  const own = measuredOf(view, layout);
  const { order, spots } = own;
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
  const painted = withShadows(view, own, around, element).map((spot) =>
    composite(view, { ...spot, over: [] }, CLEAR, element.flatParent ?? element),
  );
  const colors = painted.map(({ ground }) => ground);
  const count = (color: Color): number => colors.filter((other) => sameColor(other, color)).length;
  const color = colors.reduce((best, shown) => (count(shown) > count(best) ? shown : best), colors[0]);
  return {
    color,
    colors: colors.filter((shown, i) => colors.findIndex((other) => sameColor(other, shown)) === i),
    doubts: [...new Set(painted.flatMap(({ doubts }) => doubts))],
  };
}
