import { hasPaintedBox, isSeen, seenEdges } from './painted-box.js';
import { decidingDeclaration } from '../../census/paintings.js';
import { lineageOf, type ElementNode } from '../../dom/tree.js';
import { longhandsOfProperty } from '../../properties/grouped.js';
import { boxOf } from '../../resolve/page-layout.js';
import type { StyleView } from '../../resolve/style-view.js';
import { showsText } from '../../resolve/text-figures.js';
import { kindOf } from '../../selectors/alike.js';
import type { HousePart } from '../../veneer/house-shape.js';
import { actionAround } from '../job.js';
import type { Held, ShapeKind, ShapePlace } from './found-shape.js';

/** One shape of one element. */
export interface Shape {
  readonly part: HousePart;
  readonly kind: ShapeKind;
  readonly value: string;
  readonly node: ElementNode;
  /** Element the value comes from, where it is inherited. */
  readonly decider: ElementNode;
  readonly properties: ShapePlace['properties'];
  readonly held: Held;
}

/** px from which a corner is round whatever its box is (common practice). */
const PILL = 99;
/** Names of families that draw signs instead of letters, or that tell code from text (common practice). */
const SIGNS = /icon|awesome|symbol|glyph|material|monospace|mono\b/i;

/** Corners, edges, shadow and family of one element as they are at rest. */
export function shapesOf(view: StyleView, element: ElementNode): Shape[] {
  if (!isSeen(element)) return [];
  const style = view.style(element);
  const found: Shape[] = [];
  const kind: ShapeKind =
    kindOf(element) === 'field' ? 'field' : actionAround(view, element) === element ? 'action' : 'box';
  const add = (
    part: HousePart,
    own: ShapeKind,
    value: string,
    properties: readonly string[],
    held: Held = '',
  ): void => {
    found.push({ part, kind: own, value, node: element, decider: element, properties, held });
  };
  const corners = longhandsOfProperty('border-radius').map((longhand) => style.resolved(longhand));
  if (corners.some((corner) => corner !== '0px') && hasPaintedBox(view, element)) {
    const [corner] = corners;
    if (corners.some((other) => other !== corner))
      add('corner', kind, corners.join(' '), ['border-radius'], 'corners differ by side');
    else add('corner', kind, corner, ['border-radius'], isRound(view, element, corner) ? 'round as it is' : '');
  }
  const sides = seenEdges(style);
  const widths = sides.map((side) => style.resolved(side.width));
  if (widths.length > 0) {
    const properties = sides.length === 4 ? ['border-width'] : sides.map((side) => side.width);
    const of = sides.length === 4 ? kind : 'line';
    if (new Set(widths).size === 1) add('edge', of, widths[0], properties);
    else add('edge', of, widths.join(' '), properties, 'edges differ by side');
  }
  const shadow = style.resolved('box-shadow');
  if (shadow !== 'none') add('shadow', kind, shadow, ['box-shadow']);
  if (showsText(style)) {
    const family = style.resolved('font-family');
    const isHeading = lineageOf(element).some((node) => kindOf(node) === 'heading');
    // Browsers give controls a family of their own.
    const control = kindOf(element) === 'field' ? 'field' : actionAround(view, element) ? 'action' : 'text';
    const part = isHeading ? 'heading-family' : 'text-family';
    const own = isHeading ? 'heading' : control;
    found.push({
      part,
      kind: own,
      value: family,
      node: element,
      decider: decidingDeclaration(style, 'font-family').style.element,
      properties: ['font-family'],
      held: SIGNS.test(family) ? 'signs or code' : '',
    });
  }
  return found;
}

/** A pill or a circle is round by intent. */
function isRound(view: StyleView, element: ElementNode, corner: string): boolean {
  const radius = Number.parseFloat(corner);
  if (corner.includes('%')) return radius >= 50;
  const layout = view.page.layouts?.get(view.environment.width);
  const box = layout && boxOf(layout, element.number);
  return radius >= PILL || (box != null && 2 * radius >= Math.min(box.width, box.height));
}
