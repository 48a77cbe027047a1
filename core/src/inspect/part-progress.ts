import type { ElementNode } from '../dom/tree.js';
import { cellOf } from '../grid/cell.js';
import type { Reachability } from '../parts/part.js';
import { isHidden } from '../parts/propose-openers.js';
import { reachabilityOf } from '../parts/propose-parts.js';
import type { Page } from '../resolve/page.js';
import type { StyleView } from '../resolve/style-view.js';
import { shortName } from '../selectors/describe-element.js';
import { elementOf, pageOf, partOf, viewIn, type SiteModel } from '../site/site-model.js';
import { STRAY_ROWS, straysOf } from './strays.js';

/** How much of a part on one page is matched to the brand. */
export interface PartProgress {
  readonly partId: number;
  /** Kinds of places painted: alike elements count once a property. */
  readonly places: number;
  readonly matched: number;
  /** Outermost elements of the part on this page. */
  readonly elements: readonly number[];
  /** How far CSS gets into its first element. */
  readonly reachability: Reachability;
  /** Whether its first element is hidden as the page stands. */
  readonly isHidden: boolean;
  /** Whether it stands over the page, so that one may want it out of the way. */
  readonly isOver: boolean;
}

/** Progress of every part that a page holds, at rest. */
export function partProgress(site: SiteModel, pageId: number, width: number): PartProgress[] {
  const page: Page = pageOf(site, pageId);
  const view = viewIn(page, page.document.rootElement, 'rest', width);
  const byPart = new Map<number, { seen: Map<string, boolean>; elements: number[] }>();
  for (const element of page.document.elements) {
    const part = partOf(site, page, element);
    if (!part) continue;
    let entry = byPart.get(part.id);
    if (!entry) byPart.set(part.id, (entry = { seen: new Map(), elements: [] }));
    const parent = element.flatParent;
    if (!parent || partOf(site, page, parent)?.id !== part.id) entry.elements.push(element.number);
    const style = view.style(element);
    const strays = new Set(straysOf(site, view, style));
    for (const row of STRAY_ROWS) {
      const cell = cellOf(row, 'rest', style, style);
      if (cell.hex === null || (row === 'text' && element.ownText.trim() === '')) continue;
      const key = `${shortName(element)}|${row}|${cell.hex}`;
      entry.seen.set(key, !strays.has(row));
    }
  }
  return [...byPart].map(([partId, { seen, elements }]) => ({
    partId,
    places: seen.size,
    matched: site.palette.swatches.length === 0 ? 0 : [...seen.values()].filter(Boolean).length,
    elements,
    reachability: reachabilityOf(elementOf(page, elements[0])),
    isHidden: isHidden(view, elementOf(page, elements[0])),
    isOver: elements.some((number) => standsOver(view, elementOf(page, number))),
  }));
}

/** A dialog, or what is fixed over what scrolls under it. */
function standsOver(view: StyleView, element: ElementNode): boolean {
  const position = view.style(element).resolved('position');
  return (
    element.localName === 'dialog' ||
    element.attributes.get('role') === 'dialog' ||
    element.attributes.get('aria-modal') === 'true' ||
    position === 'fixed' ||
    (position === 'absolute' && Number(view.style(element).resolved('z-index')) > 0)
  );
}
