import type { Message } from '../message/message.js';
import { contrastRatio } from '../color/contrast.js';
import { deltaE2000 } from '../color/delta-e.js';
import type { ElementNode } from '../dom/tree.js';
import { surroundingsOf } from '../ground/surroundings.js';
import { boxOf, rectsOf } from '../resolve/page-layout.js';
import { withVeneer, type Page } from '../resolve/page.js';
import { StyleView } from '../resolve/style-view.js';
import { nameTold } from '../selectors/describe-element.js';
import { pageOf, type SiteModel } from '../site/site-model.js';
import type { Color } from '../values/color.js';
import type { Spot } from '../veneer/override.js';
import { actionsOn } from './actions.js';
import { fillOver } from './fill-over.js';
import { hasFill } from './job.js';
import { inScope, pagesOf, type MatchScope } from './scope.js';

/** One action with how much it draws the eye. */
export interface Prominence extends Spot {
  readonly name: Message;
  /** Share of all that the actions of its page draw, 0–100. */
  readonly share: number;
  /** What it was reckoned from: px², ΔE2000 of what fills it to what lies around, contrast of its label. */
  readonly area: number;
  readonly difference: number;
  readonly contrast: number;
}

/** px² taken for what was not measured, by letter of its label (common practice: 8 px wide, 20 px high). */
const AREA_A_LETTER = 160;
/** How much less letters draw than a fill of their difference: they ink a quarter of their lines (common practice). */
const LETTERS = 4;
/** Contrast ratio from which a label draws no more. Source: WCAG 2.2, 1.4.6. */
const FULL_CONTRAST = 7;

/**
 * "What the eye meets first": the actions of a scope, page by page, by √area × (ΔE2000 of the fill to what lies around it + ¼ of
 * that of the label to the fill) × (½ + ½ · contrast of the label, from 1 : 1 to 7 : 1). A link without a fill counts by its letters
 * alone, and by the area of its lines. The figure is our own.
 * @param pageIds pages looked at; all of the scope when absent.
 * @param painted what a proposal paints instead, by which the figures are reckoned before it is laid on.
 */
export function prominenceOf(
  site: SiteModel,
  scope: MatchScope,
  width: number,
  painted: PaintedInstead = () => null,
  pageIds: readonly number[] = pagesOf(site, scope),
): Prominence[] {
  return pageIds.flatMap((pageId) => {
    const page = withVeneer(pageOf(site, pageId), '');
    const view = new StyleView(page, { environment: { width } });
    const raw = actionsOn(page, inScope(site, scope, pageId), view).map((element) =>
      figuresOf(view, page, element, (node, property) => painted(pageId, node.number, property)),
    );
    const sum = raw.reduce((total, { figure }) => total + figure, 0);
    return raw
      .map(({ element, figure, ...figures }) => ({
        pageId,
        element: element.number,
        name: nameTold(element),
        share: sum > 0 ? (100 * figure) / sum : 0,
        ...figures,
      }))
      .sort((a, b) => b.share - a.share);
  });
}

/** What a proposal paints on an element by a property; `null` where it leaves it. */
export type PaintedInstead = (pageId: number, element: number, property: string) => Color | null;

function figuresOf(
  view: StyleView,
  page: Page,
  element: ElementNode,
  paintedOn: (node: ElementNode, property: string) => Color | null,
): {
  readonly element: ElementNode;
  readonly figure: number;
  readonly area: number;
  readonly difference: number;
  readonly contrast: number;
} {
  const found = surroundingsOf(view, element);
  const isFilled = hasFill(view, element);
  const outside = fillOver(element.flatParent, paintedOn, view) ?? found.outside;
  const ground = (isFilled ? fillOver(element, paintedOn, view) : outside) ?? found.ground;
  const text = paintedOn(element, 'color') ?? found.text;
  const ratio = contrastRatio(text, ground);
  const layout = page.layouts?.get(view.environment.width);
  const box = layout && boxOf(layout, element.number);
  const lines = layout ? rectsOf(layout.lines.get(element.number)) : [];
  const letters = element.ownText.trim().length * AREA_A_LETTER;
  const area = !layout
    ? letters
    : isFilled
      ? box
        ? box.width * box.height
        : 0
      : lines.reduce((sum, line) => sum + line.width * line.height, 0);
  const difference = (isFilled ? deltaE2000(ground, outside) : 0) + deltaE2000(text, ground) / LETTERS;
  const legible = 0.5 + 0.5 * Math.min(1, (ratio - 1) / (FULL_CONTRAST - 1));
  return { element, figure: Math.sqrt(area) * difference * legible, area, difference, contrast: ratio };
}
