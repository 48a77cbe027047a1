import { NUMBER_ATTRIBUTE, stateAttribute } from '@upper-veneer/core';
import type { ForcedStates } from '../shared/engine/engine-api';

const VENEER_ID = 'data-uv-veneer';

/** A captured page in a frame, reached by running numbers. Geometry is asked here; colours are the core's to decide. */
export class FrameDocument {
  readonly #elements = new Map<number, Element>();
  #forced: { readonly element: Element; readonly attribute: string }[] = [];

  constructor(readonly document: Document, place: 'head-end' | 'body-end') {
    for (const element of document.querySelectorAll(`[${NUMBER_ATTRIBUTE}]`)) this.#elements.set(Number(element.getAttribute(NUMBER_ATTRIBUTE)), element);
    const style = document.createElement('style');
    style.setAttribute(VENEER_ID, '');
    (place === 'head-end' ? document.head : document.body ?? document.documentElement).append(style);
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
