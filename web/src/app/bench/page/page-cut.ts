import { NUMBER_ATTRIBUTE } from '@upper-veneer/core';
import { OWN_STYLE_ATTRIBUTE, type FrameDocument } from '../../shared/frame/frame-document';

/** How far around a target a page is drawn, CSS px; a tile never shows more. */
const AROUND = { x: 900, y: 420 } as const;
/** How much of a target larger than a tile is drawn, CSS px. */
const SHOWN = { x: 1500, y: 700 } as const;
/** Elements a cut may hold; what needs more is drawn whole. */
const MOST_ELEMENTS = 2_500;
const DOCTYPE = '<!doctype html>';

/** What a page is allowed in its frame, here too. */
const POLICY =
  "default-src 'none'; style-src 'self' 'unsafe-inline'; img-src 'self' data:; font-src 'self' data:; media-src 'self'";

/** A page without most of what a tile cannot show. */
export interface PageCut {
  readonly html: string;
  readonly elements: number;
  /** How the target looks on the whole page at rest, against which what is drawn of the cut is held. */
  readonly look: string;
}

interface Area {
  readonly left: number;
  readonly top: number;
  readonly right: number;
  readonly bottom: number;
}

/**
 * Cuts a framed page down to a target in its surroundings: all it stands in, itself, and what lies near. What lies further off
 * stays as an empty element of the same name and size, so that selectors count it and the rest lies where it lay.
 * @param pause asked between two elements, since a long page has many to measure.
 * @returns `null` where a cut would not be true, or not be smaller: the target has no box, or shadow trees are near it.
 */
export async function cutAround(
  frame: FrameDocument,
  number: number,
  pause: () => Promise<void>,
): Promise<PageCut | null> {
  const target = frame.element(number);
  const view = frame.document.defaultView;
  const box = target?.getBoundingClientRect();
  if (!target || !view || !box || (box.width === 0 && box.height === 0) || target.getRootNode() !== frame.document)
    return null;
  // From the page's own corner, since it may be scrolled in a pause.
  const [left, top] = [box.left + view.scrollX, box.top + view.scrollY];
  const area: Area = {
    left: left - AROUND.x,
    top: top - AROUND.y,
    right: left + Math.min(box.width, SHOWN.x) + AROUND.x,
    bottom: top + Math.min(box.height, SHOWN.y) + AROUND.y,
  };
  const kept = await keptAround({ document: frame.document, view, target, area }, pause);
  if (!kept) return null;
  return frame.atRest(() => ({
    html: write(frame.document, kept.whole, kept.sizes),
    elements: kept.whole.size,
    look: lookOf(frame, number),
  }));
}

/** Size and colours of an element in a frame, as text: two that are equal look alike. */
export function lookOf(frame: FrameDocument, number: number): string {
  const element = frame.element(number);
  const style = element && frame.document.defaultView?.getComputedStyle(element);
  if (!element || !style) return '';
  const { width, height } = element.getBoundingClientRect();
  return [Math.round(width), Math.round(height), ...LOOK.map((property) => style.getPropertyValue(property))].join(' ');
}

const LOOK = ['color', 'background-color', 'background-image', 'border-top-color', 'font-size', 'opacity'] as const;

interface Kept {
  /** Elements written with their content. */
  readonly whole: ReadonlySet<Element>;
  /** Sizes at which the others are held, as CSS. */
  readonly sizes: ReadonlyMap<Element, string>;
}

interface Surroundings {
  readonly document: Document;
  readonly view: Window;
  readonly target: Element;
  readonly area: Area;
}

async function keptAround(
  { document, view, target, area }: Surroundings,
  pause: () => Promise<void>,
): Promise<Kept | null> {
  const way = new Set<Element>();
  for (let node: Element | null = target; node; node = node.parentElement) way.add(node);
  const whole = new Set<Element>();
  const sizes = new Map<Element, string>();
  const waiting: Element[] = [document.documentElement];
  for (let element = waiting.pop(); element; element = waiting.pop()) {
    if (element.shadowRoot) return null;
    whole.add(element);
    if (whole.size > MOST_ELEMENTS) return null;
    if (element === document.head) {
      for (const inside of element.querySelectorAll('*')) whole.add(inside);
      continue;
    }
    for (const child of element.children) {
      await pause();
      const style = view.getComputedStyle(child);
      const isCell = style.display === 'table-cell';
      if (isCell)
        sizes.set(
          child,
          `width: ${child.getBoundingClientRect().width}px !important; box-sizing: border-box !important`,
        );
      if (way.has(child) || child === document.head || mustStay(child, style) || touches(child, view, area))
        waiting.push(child);
      else sizes.set(child, heldSize(child, style));
    }
  }
  return { whole, sizes };
}

/** Whether an element cannot be held at a size without its content: inline boxes, parts of tables, and what has no box but content that may. */
function mustStay(element: Element, { display }: CSSStyleDeclaration): boolean {
  if (element.children.length === 0) return true;
  if (display === 'none') return false;
  const { width, height } = element.getBoundingClientRect();
  return (
    display === 'inline' ||
    display === 'contents' ||
    (display.startsWith('table-') && display !== 'table-cell') ||
    width === 0 ||
    height === 0
  );
}

function touches(element: Element, { scrollX, scrollY }: Window, { left, top, right, bottom }: Area): boolean {
  const box = element.getBoundingClientRect();
  return (
    box.left + scrollX < right && box.right + scrollX > left && box.top + scrollY < bottom && box.bottom + scrollY > top
  );
}

function heldSize(element: Element, { display }: CSSStyleDeclaration): string {
  if (display === 'none') return '';
  const { width, height } = element.getBoundingClientRect();
  const held = `width: ${width}px !important; height: ${height}px !important; min-height: 0 !important; max-height: none !important; min-width: 0 !important; max-width: none !important; box-sizing: border-box !important; overflow: hidden !important`;
  if (display === 'table-cell') return held;
  // Without its content an inline box has no baseline to stand by.
  return display.startsWith('inline-') ? `${held}; vertical-align: top !important` : `${held}; flex: none !important`;
}

/** The document as text, with what is kept. */
function write(document: Document, whole: ReadonlySet<Element>, sizes: ReadonlyMap<Element, string>): string {
  const root = document.documentElement.cloneNode(false) as Element;
  const waiting: [Element, Element][] = [[document.documentElement, root]];
  for (let pair = waiting.pop(); pair; pair = waiting.pop()) {
    const [from, to] = pair;
    for (const child of from.childNodes) {
      if (!(child.nodeType === Node.ELEMENT_NODE)) {
        to.append(child.cloneNode(true));
        continue;
      }
      const element = child as Element;
      // Each tile lays on its own veneer.
      if (element.hasAttribute(OWN_STYLE_ATTRIBUTE)) continue;
      const copy = element.cloneNode(element.localName === 'template' || element.localName === 'svg') as Element;
      const size = sizes.get(element);
      if (size) copy.setAttribute('style', `${copy.getAttribute('style') ?? ''}; ${size}`);
      to.append(copy);
      if (copy.childNodes.length === 0 && whole.has(element)) waiting.push([element, copy]);
    }
  }
  const policy = document.createElement('meta');
  policy.setAttribute('http-equiv', 'content-security-policy');
  policy.setAttribute('content', POLICY);
  root.querySelector('head')?.prepend(policy);
  root.setAttribute(NUMBER_ATTRIBUTE, document.documentElement.getAttribute(NUMBER_ATTRIBUTE) ?? '0');
  return `${document.compatMode === 'CSS1Compat' ? DOCTYPE : ''}${root.outerHTML}`;
}
