/** Which end of a box: where its first child stands, or its last. */
type End = 'top' | 'bottom';

const BLOCK: ReadonlySet<string> = new Set(['block', 'list-item', 'flow-root', 'flex', 'grid', 'table']);

/**
 * Margins above and below a block together with those of its content that reach through it, CSS px: what a box without that
 * content needs to lie where it lay. Source: CSS 2.2, 8.3.1, collapsing margins.
 * @param element a block in flow.
 */
export function outerMargins(element: Element, view: Window): Readonly<Record<End, number>> {
  return { top: outerMargin(element, view, 'top'), bottom: outerMargin(element, view, 'bottom') };
}

function outerMargin(element: Element, view: Window, end: End): number {
  let [most, least] = [0, 0];
  for (let at: Element | null = element; at; at = reachingThrough(at, view, end)) {
    const style = view.getComputedStyle(at);
    const margin = parseFloat(end === 'top' ? style.marginTop : style.marginBottom);
    most = Math.max(most, margin);
    least = Math.min(least, margin);
  }
  return most + least;
}

/** The child whose margin joins that of its parent, as far as one does. */
function reachingThrough(element: Element, view: Window, end: End): Element | null {
  const style = view.getComputedStyle(element);
  const isTop = end === 'top';
  const edge = isTop ? [style.paddingTop, style.borderTopWidth] : [style.paddingBottom, style.borderBottomWidth];
  const isOpen =
    (style.display === 'block' || style.display === 'list-item') &&
    style.overflowY === 'visible' &&
    style.contain === 'none' &&
    edge.every((length) => parseFloat(length) === 0);
  if (!isOpen) return null;
  for (
    let node = isTop ? element.firstChild : element.lastChild;
    node;
    node = isTop ? node.nextSibling : node.previousSibling
  ) {
    if (node.nodeType === Node.TEXT_NODE && node.nodeValue?.trim() !== '') return null;
    if (!(node.nodeType === Node.ELEMENT_NODE)) continue;
    const child = view.getComputedStyle(node as Element);
    if (child.display === 'none' || child.position === 'absolute' || child.position === 'fixed') continue;
    if (child.float !== 'none') continue;
    return BLOCK.has(child.display) ? (node as Element) : null;
  }
  return null;
}
