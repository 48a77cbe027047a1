import { NUMBER_ATTRIBUTE } from '@upper-veneer/core';
import { OWN_STYLE_ATTRIBUTE, type FrameDocument } from '../../shared/frame/frame-document';
import type { Area } from './far-lines';
import { keptAround } from './kept-around';

/** How far around a target a page is drawn, CSS px; a tile never shows more. */
const AROUND = { x: 900, y: 420 } as const;
/** How much of a target larger than a tile is drawn, CSS px. */
const SHOWN = { x: 1500, y: 700 } as const;
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

/**
 * Cuts a framed page down to a target in its surroundings: all it stands in, itself, and what lies near. What lies further off
 * stays as an empty element of the same name, alone or for several as large as they were, so that selectors count it and the rest
 * lies where it lay.
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
  await pause();
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
