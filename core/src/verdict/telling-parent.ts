import type { ElementNode } from '../dom/tree.js';
import type { Page } from '../resolve/page.js';
import type { StyleView } from '../resolve/style-view.js';
import { viewIn } from '../site/site-model.js';

const TELLS = [
  'color',
  'background-color',
  'border-top-color',
  'border-bottom-color',
  'text-decoration-line',
  'opacity',
  'background-image',
];
/** Ancestors that are tried. */
const MOST_STEPS = 6;

/**
 * The nearest ancestor whose hover changes what an element shows, besides what its own hover does; `null` for none.
 * @param rest the page at rest, at the same width in CSS px.
 */
export function tellingParent(
  page: Page,
  element: ElementNode,
  pseudo: string,
  width: number,
  rest: StyleView,
): ElementNode | null {
  const calm = rest.style(element, pseudo);
  for (let node = element.parent, steps = 0; node && steps < MOST_STEPS; node = node.parent, steps += 1) {
    if (['body', 'html', 'main'].includes(node.localName)) return null;
    const style = viewIn(page, element, 'parent-hover', width, node).style(element, pseudo);
    if (TELLS.some((property) => style.resolved(property) !== calm.resolved(property))) return node;
  }
  return null;
}
