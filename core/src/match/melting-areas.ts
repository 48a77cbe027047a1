import { keyOf, message, type Message } from '../message/message.js';
import { compositeOver } from '../color/contrast.js';
import { SAME_TO_THE_EYE, deltaE2000 } from '../color/delta-e.js';
import type { ElementNode } from '../dom/tree.js';
import { visibleFills } from '../census/visible-fills.js';
import { boxOf, type PageLayout, type Rect } from '../resolve/page-layout.js';
import { withVeneer } from '../resolve/page.js';
import { StyleView } from '../resolve/style-view.js';
import { nameTold } from '../selectors/describe-element.js';
import { pageOf, type SiteModel } from '../site/site-model.js';
import { WHITE, type Color } from '../values/color.js';
import type { Spot } from '../veneer/override.js';
import { paintedAsFound, paintedAsMatched } from './painted-by.js';
import type { PaintedInstead } from './prominence.js';
import type { MatchProposal } from './proposal.js';
import { inScope, pagesOf, type MatchScope } from './scope.js';

/** Two areas side by side that were told apart as they arrived, and hardly are as matched. */
export interface MeltingAreas {
  readonly a: Spot;
  readonly b: Spot;
  /** `Main content and Footer`. */
  readonly words: Message;
  /** ΔE2000 between them as they arrived, and as matched. */
  readonly before: number;
  readonly after: number;
  /** Pairs of these words, and pages on which they meet. */
  readonly pairs: number;
  readonly pages: number;
}

/** px² from which on a fill is an area, and px along which two have to touch (common practice). */
const LEAST_AREA = 1500;
const LEAST_TOUCH = 40;
/** px between two boxes that touch to the eye. */
const GAP = 1.5;
const POINTS = 20_000;
type Side = 'top' | 'right' | 'bottom' | 'left';
const OPPOSITE: Readonly<Record<Side, Side>> = { top: 'bottom', right: 'left', bottom: 'top', left: 'right' };

/**
 * Neighbouring areas that become one: fills that touch along a side without an edge between them, at ΔE2000 above 2.3 as found and
 * under it as matched, at rest. An area on its own ground is no neighbour: that is a condition of the match. Only where a page was laid
 * out; what is said of a pair is of the one that was most apart. A generator: it yields after each page.
 */
export function* meltingAreas(
  site: SiteModel,
  scope: MatchScope,
  proposal: MatchProposal,
  width: number,
): Generator<string, MeltingAreas[]> {
  const byWords = new Map<string, MeltingAreas>();
  for (const pageId of pagesOf(site, scope)) {
    const layout = pageOf(site, pageId).layouts?.get(width);
    if (!layout) continue;
    const onPage = new Set<string>();
    for (const found of meltingOn(site, scope, proposal, pageId, layout)) {
      const known = byWords.get(keyOf(found.words));
      const pages = (known?.pages ?? 0) + (onPage.has(keyOf(found.words)) ? 0 : 1);
      onPage.add(keyOf(found.words));
      const lead = known && known.before >= found.before ? known : found;
      byWords.set(keyOf(found.words), { ...lead, pairs: (known?.pairs ?? 0) + 1, pages });
    }
    yield pageOf(site, pageId).path;
  }
  return [...byWords.values()].sort((a, b) => b.before - a.before);
}

interface Area {
  readonly element: ElementNode;
  readonly box: Rect;
  readonly isIn: boolean;
}

function meltingOn(
  site: SiteModel,
  scope: MatchScope,
  proposal: MatchProposal,
  pageId: number,
  layout: PageLayout,
): MeltingAreas[] {
  const page = pageOf(site, pageId);
  const arrived = new StyleView(withVeneer(page, ''), { environment: { width: layout.width } });
  const dressed = new StyleView(page, { environment: { width: layout.width } });
  const isIn = inScope(site, scope, pageId);
  const looks = [paintedAsFound(proposal, pageId), paintedAsMatched(proposal, pageId)].map(
    (painted, i) => new Look(i === 0 ? arrived : dressed, arrived, isIn, pageId, painted),
  );
  const visible = visibleFills(
    arrived,
    layout,
    (number) => looks[0].fillOf(page.document.elements[number])?.alpha ?? 0,
    POINTS,
  );
  const areas = page.document.elements.flatMap((element): Area[] => {
    const box = boxOf(layout, element.number);
    const isArea = box !== null && (visible.get(element.number) ?? 0) >= LEAST_AREA;
    return isArea ? [{ element, box, isIn: isIn(element) }] : [];
  });
  return pairsOf(areas).flatMap(({ a, b, side }): MeltingAreas[] => {
    if (!a.isIn && !b.isIn) return [];
    const [before, after] = looks.map((look) => look.difference(a.element, b.element));
    if (before < SAME_TO_THE_EYE || after >= SAME_TO_THE_EYE) return [];
    if (looks[1].hasEdge(a.element, side) || looks[1].hasEdge(b.element, OPPOSITE[side])) return [];
    return [
      {
        a: { pageId, element: a.element.number },
        b: { pageId, element: b.element.number },
        words: message('match.two', { a: nameTold(a.element), b: nameTold(b.element) }),
        before,
        after,
        pairs: 1,
        pages: 1,
      },
    ];
  });
}

/** Areas that touch along a side, neither within the other; `side` is that of `a`. */
function pairsOf(areas: readonly Area[]): { readonly a: Area; readonly b: Area; readonly side: Side }[] {
  const byTop = [...areas].sort((a, b) => a.box.top - b.box.top);
  return byTop.flatMap((a, i) => {
    const found: { a: Area; b: Area; side: Side }[] = [];
    for (const b of byTop.slice(i + 1)) {
      // Later ones begin lower still.
      if (b.box.top > a.box.top + a.box.height + GAP) break;
      const side = touchingSide(a.box, b.box);
      if (side && !isAround(a.element, b.element) && !isAround(b.element, a.element)) found.push({ a, b, side });
    }
    return found;
  });
}

function touchingSide(a: Rect, b: Rect): Side | null {
  const across = Math.min(a.left + a.width, b.left + b.width) - Math.max(a.left, b.left);
  const along = Math.min(a.top + a.height, b.top + b.height) - Math.max(a.top, b.top);
  if (across >= LEAST_TOUCH && Math.abs(a.top + a.height - b.top) <= GAP) return 'bottom';
  if (along < LEAST_TOUCH) return null;
  if (Math.abs(a.left + a.width - b.left) <= GAP) return 'right';
  return Math.abs(b.left + b.width - a.left) <= GAP ? 'left' : null;
}

function isAround(outer: ElementNode, inner: ElementNode): boolean {
  for (let node = inner.flatParent; node; node = node.flatParent) if (node === outer) return true;
  return false;
}

/** What elements paint, by what stands and what is laid over it. */
class Look {
  constructor(
    readonly view: StyleView,
    readonly arrived: StyleView,
    readonly isIn: (element: ElementNode) => boolean,
    readonly pageId: number,
    readonly painted: PaintedInstead,
  ) {}

  fillOf(element: ElementNode): Color | null {
    return this.#colorOf(element, 'background-color');
  }

  /** ΔE2000 between what two elements are filled with, over white where it is let through. */
  difference(a: ElementNode, b: ElementNode): number {
    const [over, beside] = [a, b].map((element) => compositeOver(this.fillOf(element) ?? WHITE, WHITE));
    return deltaE2000(over, beside);
  }

  /** Whether a side is drawn in a colour that can be told from the fill. */
  hasEdge(element: ElementNode, side: Side): boolean {
    const style = this.view.style(element);
    const color = this.#colorOf(element, `border-${side}-color`);
    const fill = this.fillOf(element) ?? WHITE;
    return (
      Number.parseFloat(style.resolved(`border-${side}-width`)) > 0 &&
      color !== null &&
      deltaE2000(compositeOver(color, fill), compositeOver(fill, WHITE)) >= SAME_TO_THE_EYE
    );
  }

  #colorOf(element: ElementNode, property: string): Color | null {
    const own = this.isIn(element) ? this.arrived : this.view;
    return this.painted(this.pageId, element.number, property) ?? own.style(element).color(property);
  }
}
