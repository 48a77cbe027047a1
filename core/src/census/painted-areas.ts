import type { ElementNode } from '../dom/tree.js';
import { type StyleView } from '../resolve/style-view.js';
import { boxIn, type PageMeasure } from './page-measure.js';
import type { Painting } from './paintings.js';
import { visibleFills } from './visible-fills.js';

/** Points of the grid that areas are taken from: of the whole site, and of one page at most and at least. */
const SITE_POINTS = 2_000_000;
const MOST_POINTS = 500_000;
const LEAST_POINTS = 6_000;

export function pointsPerPage(pages: number): number {
  return Math.min(MOST_POINTS, Math.max(LEAST_POINTS, Math.floor(SITE_POINTS / Math.max(1, pages))));
}

/** Area of each painting of a page, px², as it was laid out. */
export function areasOf(
  view: StyleView,
  measure: PageMeasure,
  paintings: ReadonlyMap<ElementNode, readonly Painting[]>,
  points: number,
): (element: ElementNode, painting: Painting) => number {
  const stops = new Map<ElementNode, number>();
  const opacities = new Map<number, number>();
  for (const [element, list] of paintings) {
    const own = list.filter(({ pseudo }) => pseudo === '');
    const gradient = own.filter(({ use }) => use === 'gradient');
    const hasPicture =
      /url\(/.test(view.style(element).resolved('background-image')) ||
      element.localName === 'img' ||
      element.localName === 'iframe' ||
      element.localName === 'video';
    const fill = own.find(({ use }) => use === 'fill')?.color.alpha ?? 0;
    const under = 1 - (gradient.length > 0 ? Math.min(...gradient.map(({ color }) => color.alpha ?? 1)) : 0);
    stops.set(element, gradient.length);
    opacities.set(element.number, hasPicture ? 1 : Math.min(1, 1 - under * (1 - fill)));
  }
  const visible = visibleFills(view, measure.layout, (number) => opacities.get(number) ?? 0, points);
  const isPictured = (element: ElementNode): boolean => /url\(/.test(view.style(element).resolved('background-image'));
  return (element, { use, pseudo, property }) => {
    const box = boxIn(measure, element.number);
    if (pseudo !== '') {
      const [width, height] = measure.pseudoSizes[`${element.number}:${pseudo}`] ?? [0, 0];
      return use === 'fill' || use === 'icon'
        ? width * height * (use === 'icon' ? GLYPH_INK : 1)
        : use === 'gradient'
          ? (width * height) / 2
          : 0;
    }
    if (!box) return 0;
    const seen = visible.get(element.number) ?? 0;
    if (use === 'text') return property === 'color' ? box.ink : 0;
    // A picture or gradient on a fill hides it.
    if (use === 'fill') return isPictured(element) || (stops.get(element) ?? 0) > 0 ? 0 : seen;
    if (use === 'gradient') return isPictured(element) ? 0 : seen / Math.max(1, stops.get(element) ?? 1);
    if (use === 'edge') {
      const side = property.split('-')[1];
      return (
        Number.parseFloat(view.style(element).resolved(`border-${side}-width`)) *
        (side === 'top' || side === 'bottom' ? box.width : box.height)
      );
    }
    if (use === 'ring')
      return 2 * (box.width + box.height) * Number.parseFloat(view.style(element).resolved('outline-width'));
    return use === 'icon' ? box.width * box.height : 0;
  };
}

/** Share of its box that a glyph drawn as an icon inks (common practice). */
const GLYPH_INK = 0.3;
