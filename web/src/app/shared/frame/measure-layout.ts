import type { MeasuredLayout } from './measured-layout';

/**
 * Measures where elements and their texts lie, in CSS px from the page's top left. It needs nothing but the document, so that
 * specs run it in a browser of their own.
 * @param elements by running number.
 */
export function measureLayout(document: Document, elements: ReadonlyMap<number, Element>): MeasuredLayout {
  const view = document.defaultView as Window;
  const { scrollX, scrollY, innerWidth, innerHeight } = view;
  let count = 0;
  for (const number of elements.keys()) count = Math.max(count, number + 1);
  const boxes: number[] = new Array<number>(count * 4).fill(0);
  const fragments: [number, number[]][] = [];
  const lines: [number, number[]][] = [];
  const pseudoBoxes: [string, number[]][] = [];
  const flat = (rects: Iterable<DOMRect>): number[] =>
    [...rects].flatMap(({ left, top, width, height }) =>
      width > 0 && height > 0 ? [left + scrollX, top + scrollY, width, height] : [],
    );
  const px = (value: string): number => Number.parseFloat(value) || 0;
  for (const [number, element] of elements) {
    const box = element.getBoundingClientRect();
    [box.left + scrollX, box.top + scrollY, box.width, box.height].forEach((value, i) => {
      boxes[number * 4 + i] = value;
    });
    if (box.width <= 0 || box.height <= 0) continue;
    const pieces = element.getClientRects();
    if (pieces.length > 1) fragments.push([number, flat(pieces)]);
    const style = view.getComputedStyle(element);
    const own = linesOf(element, style, box);
    if (own.length > 0) lines.push([number, own]);
    for (const name of ['before', 'after']) {
      const place = pseudoBox(element, name);
      if (place) pseudoBoxes.push([`${number}:${name}`, place]);
    }
  }
  return { width: innerWidth, height: innerHeight, boxes, fragments, lines, pseudoBoxes };

  /** Lines of an element's own text; of a field, where its value or placeholder stands. */
  function linesOf(element: Element, style: CSSStyleDeclaration, box: DOMRect): number[] {
    const tag = element.localName;
    if (tag === 'input' || tag === 'textarea' || tag === 'select') {
      const left = box.left + px(style.borderLeftWidth) + px(style.paddingLeft);
      const right = box.right - px(style.borderRightWidth) - px(style.paddingRight);
      const height = Math.min(box.height, px(style.fontSize) * 1.2);
      const top =
        tag === 'textarea'
          ? box.top + px(style.borderTopWidth) + px(style.paddingTop)
          : box.top + (box.height - height) / 2;
      return right > left && height > 0
        ? [left + scrollX, top + scrollY, Math.min(right - left, px(style.fontSize) * 8), height]
        : [];
    }
    const found: number[] = [];
    for (const node of element.childNodes) {
      if (node.nodeType !== 3 || (node.nodeValue ?? '').trim() === '') continue;
      const range = document.createRange();
      range.selectNodeContents(node);
      // White space at the ends of a line has boxes of its own.
      for (const rect of range.getClientRects())
        if (rect.width > 1 && rect.height > 1)
          found.push(rect.left + scrollX, rect.top + scrollY, rect.width, rect.height);
    }
    return found;
  }

  /** Box of a positioned pseudo-element, reckoned from its used offsets: it has none that could be asked for. Source: CSSOM §9, resolved values of `left` and `top`. */
  function pseudoBox(element: Element, name: string): number[] | null {
    const style = view.getComputedStyle(element, `::${name}`);
    if (
      style.content === 'none' ||
      style.content === 'normal' ||
      style.display === 'none' ||
      (style.position !== 'absolute' && style.position !== 'fixed')
    )
      return null;
    const isBorderBox = style.boxSizing === 'border-box';
    const extra = (a: string, b: string, c: string, d: string): number =>
      isBorderBox ? 0 : px(a) + px(b) + px(c) + px(d);
    let width =
      px(style.width) + extra(style.paddingLeft, style.paddingRight, style.borderLeftWidth, style.borderRightWidth);
    let height =
      px(style.height) + extra(style.paddingTop, style.paddingBottom, style.borderTopWidth, style.borderBottomWidth);
    if (width <= 0 || height <= 0) return null;
    const [originX, originY] = style.position === 'fixed' ? [0, 0] : containerOf(element);
    let left = originX + px(style.left) + px(style.marginLeft);
    let top = originY + px(style.top) + px(style.marginTop);
    const matrix = /^matrix\(([^)]+)\)$/.exec(style.transform)?.[1].split(',').map(Number);
    if (matrix) {
      const [a, b, c, d, e, f] = matrix;
      const [turnedWidth, turnedHeight] = [
        Math.abs(a) * width + Math.abs(c) * height,
        Math.abs(b) * width + Math.abs(d) * height,
      ];
      left += (width - turnedWidth) / 2 + e;
      top += (height - turnedHeight) / 2 + f;
      [width, height] = [turnedWidth, turnedHeight];
    }
    return [left + scrollX, top + scrollY, width, height];
  }

  /** Top left of the padding box that an absolutely positioned pseudo-element hangs in. */
  function containerOf(element: Element): [number, number] {
    for (let node: Element | null = element; node; node = node.parentElement) {
      const style = view.getComputedStyle(node);
      if (
        style.position === 'static' &&
        style.transform === 'none' &&
        style.filter === 'none' &&
        style.perspective === 'none'
      )
        continue;
      const box = node.getBoundingClientRect();
      return [box.left + px(style.borderLeftWidth), box.top + px(style.borderTopWidth)];
    }
    return [-scrollX, -scrollY];
  }
}
