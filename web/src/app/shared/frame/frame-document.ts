import { NUMBER_ATTRIBUTE, amendAttributes, sheetBefore, stateAttribute, type Amendments, type VeneerPlace } from '@upper-veneer/core';
import type { ForcedStates } from '../engine/engine-api';

const VENEER_ID = 'data-uv-veneer';

/** A captured page in a frame, reached by running numbers. Geometry is asked here; colours are the core's to decide. */
export class FrameDocument {
  readonly #elements = new Map<number, Element>();
  #forced: { readonly element: Element; readonly attribute: string }[] = [];

  /** Attributes of opened elements as they were captured. */
  #closed = new Map<number, ReadonlyMap<string, string>>();

  constructor(readonly document: Document, place: VeneerPlace) {
    for (const [number, element] of numberedElements(document)) this.#elements.set(number, element);
    const style = document.createElement('style');
    style.setAttribute(VENEER_ID, '');
    const before = linkOf(document, sheetBefore(place));
    if (before) before.after(style);
    else (place === 'body-end' ? document.body ?? document.documentElement : document.head).append(style);
    // The frame shows states, not the way between them.
    const still = document.createElement('style');
    still.textContent = '@layer uv-still { *, ::before, ::after { transition: none !important; animation: none !important; caret-color: auto; } }';
    document.head.prepend(still);
  }

  /** Lays another veneer on; nothing is loaded again. */
  dress(css: string): void {
    const style = this.document.querySelector(`style[${VENEER_ID}]`);
    if (style && style.textContent !== css) style.textContent = css;
  }

  /** Puts elements into states; what was forced before is let go. */
  force(states: ForcedStates): void {
    for (const { element, attribute } of this.#forced) element.removeAttribute(attribute);
    this.#forced = states.flatMap(({ element, names }) => {
      const node = this.#elements.get(element);
      return node ? names.map((name) => ({ element: node, attribute: stateAttribute(name) })) : [];
    });
    for (const { element, attribute } of this.#forced) element.setAttribute(attribute, '');
  }

  /** Opens hidden parts as their openers say; what was opened before and is not named is closed. */
  amend(amendments: Amendments): void {
    // States are attributes too; they are put on again after.
    this.force([]);
    for (const [number, attributes] of this.#closed) this.#writeAttributes(number, attributes);
    this.#closed = new Map();
    for (const [number, changes] of amendments) {
      const element = this.#elements.get(number);
      if (!element) continue;
      const attributes = new Map([...element.attributes].map(({ name, value }) => [name, value]));
      this.#closed.set(number, attributes);
      this.#writeAttributes(number, amendAttributes(attributes, changes));
    }
  }

  #writeAttributes(number: number, attributes: ReadonlyMap<string, string>): void {
    const element = this.#elements.get(number);
    if (!element) return;
    for (const { name } of [...element.attributes]) if (!attributes.has(name)) element.removeAttribute(name);
    for (const [name, value] of attributes) if (element.getAttribute(name) !== value) element.setAttribute(name, value);
  }

  element(number: number): Element | null {
    return this.#elements.get(number) ?? null;
  }

  /** Running number of the topmost element at a point of the frame's viewport, in CSS px. */
  numberAt(x: number, y: number): number | null {
    const found = this.document.elementFromPoint(x, y)?.closest(`[${NUMBER_ATTRIBUTE}]`);
    return found ? Number(found.getAttribute(NUMBER_ATTRIBUTE)) : null;
  }

  /** Box of an element in the frame's viewport; `null` when it has none. */
  boxOf(number: number): DOMRect | null {
    const box = this.#elements.get(number)?.getBoundingClientRect();
    return box && (box.width > 0 || box.height > 0) ? box : null;
  }

  /** Colours the frame's engine computed, for comparison. */
  colorsOf(number: number, properties: readonly string[]): string[] | null {
    const element = this.#elements.get(number);
    const style = element ? this.document.defaultView?.getComputedStyle(element) : null;
    return style ? properties.map((property) => style.getPropertyValue(property)) : null;
  }
}

/** Elements by running number, those in shadow trees among them. */
export function numberedElements(root: Document | ShadowRoot, found = new Map<number, Element>()): Map<number, Element> {
  for (const element of root.querySelectorAll('*')) {
    const number = element.getAttribute(NUMBER_ATTRIBUTE);
    if (number !== null) found.set(Number(number), element);
    if (element.shadowRoot) numberedElements(element.shadowRoot, found);
  }
  return found;
}

/** The last link to a stylesheet of the site, by its path. */
function linkOf(document: Document, path: string | null): Element | null {
  if (path === null) return null;
  const end = `/files/${path.split('/').map(encodeURIComponent).join('/')}`;
  return [...document.querySelectorAll<HTMLLinkElement>('link[rel~="stylesheet" i]')].findLast(({ href }) => new URL(href).pathname.endsWith(end)) ?? null;
}
