import { hexOf } from '../color/read-notation.js';
import type { ElementNode } from '../dom/tree.js';
import type { StyleView } from '../resolve/style-view.js';
import { shortName } from '../selectors/describe-element.js';
import { elementOf, pageOf, viewIn, type SiteModel } from '../site/site-model.js';

/** Something that paints at a point. */
export interface Painter {
  readonly element: number;
  readonly pseudo: string;
  readonly label: string;
  readonly what: 'fill' | 'gradient' | 'picture' | 'framed content';
  /** Hex of a plain fill. */
  readonly hex: string | null;
  /** Whether what lies under it shows through. */
  readonly isSheer: boolean;
}

/**
 * What paints a pixel: from the elements that lie there, topmost first, those whose own fill, gradient or picture shows.
 * The first is the answer; those under it count only as far as it is sheer.
 * @param stack running numbers, topmost first, as the frame's engine gives them.
 */
export function whatPaints(site: SiteModel, pageId: number, stack: readonly number[], width: number): Painter[] {
  const page = pageOf(site, pageId);
  const view = viewIn(page, page.document.rootElement, 'rest', width);
  const painters: Painter[] = [];
  for (const number of stack) {
    const element = elementOf(page, number);
    // An unseen input over a drawn control, say.
    if (isUnseen(view, element)) continue;
    const base = { element: number, label: shortName(element) };
    if (element.localName === 'iframe')
      painters.push({ ...base, pseudo: '', what: 'framed content', hex: null, isSheer: false });
    if (['img', 'video', 'canvas'].includes(element.localName))
      painters.push({ ...base, pseudo: '', what: 'picture', hex: null, isSheer: true });
    for (const pseudo of ['', 'after', 'before']) {
      if (
        pseudo !== '' &&
        (!view.generates(element, pseudo) || view.style(element, pseudo).resolved('position') !== 'absolute')
      )
        continue;
      const style = view.style(element, pseudo);
      const image = style.resolved('background-image');
      const fill = style.color('background-color');
      if (image !== 'none')
        painters.push({
          ...base,
          pseudo,
          what: image.includes('url(') ? 'picture' : 'gradient',
          hex: null,
          isSheer: /rgba|transparent|url\(/.test(image),
        });
      if (fill && (fill.alpha ?? 0) > 0)
        painters.push({ ...base, pseudo, what: 'fill', hex: hexOf(fill), isSheer: (fill.alpha ?? 0) < 1 });
    }
    if (painters.some(({ isSheer }) => !isSheer)) break;
  }
  return painters;
}

function isUnseen(view: StyleView, element: ElementNode): boolean {
  if (view.style(element).resolved('visibility') !== 'visible') return true;
  for (let node: ElementNode | null = element; node; node = node.flatParent)
    if (Number(view.style(node).resolved('opacity')) === 0) return true;
  return false;
}
