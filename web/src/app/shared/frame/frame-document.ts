import {
  FRAMED_ATTRIBUTE,
  NUMBER_ATTRIBUTE,
  amendAttributes,
  sheetBefore,
  stateAttribute,
  withCssAddresses,
  type Amendments,
  type VeneerPlace,
} from '@upper-veneer/core';
import { openTopLayer } from '@upper-veneer/snapshot';
import type { ForcedStates } from '../engine/engine-api';
import { FrameScheme } from './frame-scheme';
import type { FramedPage } from './framed-page';

const VENEER_ID = 'data-uv-veneer';
const LOOK_ID = 'data-uv-look';

/** Lays CSS over a framed document, in place of what was laid on it before. */
export function layIn(document: Document | null, css: string): void {
  if (!document?.head || document.URL === 'about:blank') return;
  let style = document.querySelector(`style[${LOOK_ID}]`);
  if (!style) {
    style = document.createElement('style');
    style.setAttribute(LOOK_ID, '');
    document.head.append(style);
  }
  if (style.textContent !== css) style.textContent = css;
}

/** What stood in the top layer when the page was captured stands there again; focus stays where the designer has it. */
function openLayers(framed: Document): void {
  const held = document.activeElement;
  openTopLayer(framed);
  if (framed.activeElement !== framed.body) (framed.activeElement as HTMLElement | null)?.blur();
  if (held instanceof HTMLElement && document.activeElement !== held) held.focus({ preventScroll: true });
}

/** The frame shows states, not the way between them; what browsers paint over fields they have filled in is beyond any attribute. */
const STILL =
  ':root { forced-color-adjust: none !important; } *, ::before, ::after { transition: none !important; animation: none !important; caret-color: auto; pointer-events: auto !important; } [data-uv-scrolls] { overflow-y: scroll !important; min-height: 160vh !important; } [data-uv-autofill] { background-image: none !important; background-color: light-dark(#e8f0fe, rgba(70, 90, 126, 0.4)) !important; color: fieldtext !important; }';

/**
 * What browsers show of a state where the page has no say; their own sheet knows nothing of attributes.
 * Source: HTML, 15.3.4 and 15.3.10; the ring as Chromium has it.
 */
const DEFAULT_STATES =
  ':any-link[data-uv-visited] { color: visitedtext; } :any-link[data-uv-active] { color: activetext; } [data-uv-focus-visible]:not(html, body, embed, iframe, object) { outline: auto 1px -webkit-focus-ring-color; } a:any-link[data-uv-focus-visible] { outline-offset: 1px; }';

/** A captured page in a frame, reached by running numbers. Geometry is asked here; colours are the core's to decide. */
export class FrameDocument {
  readonly #elements = new Map<number, Element>();
  /** What lets each forced state go again. */
  readonly #forced: (() => void)[] = [];
  /** The states that are forced. */
  #states: ForcedStates = [];

  readonly #scheme: FrameScheme;

  /** The veneer that is laid on. */
  #dressed = '';

  /** Attributes of opened elements as they were captured. */
  #closed = new Map<number, ReadonlyMap<string, string>>();

  constructor(
    readonly document: Document,
    place: VeneerPlace,
  ) {
    this.#scheme = new FrameScheme(document);
    for (const [number, element] of numberedElements(document)) this.#elements.set(number, element);
    const style = createUnseenStyle(document);
    style.setAttribute(VENEER_ID, '');
    const before = linkOf(document, sheetBefore(place));
    if (before) before.after(style);
    else (place === 'body-end' ? (document.body ?? document.documentElement) : document.head).append(style);
    const still = createUnseenStyle(document);
    still.textContent = `@layer uv-still { ${STILL} ${DEFAULT_STATES} }`;
    document.head.prepend(still);
    openLayers(document);
  }

  /** Lays another veneer on; nothing is loaded again. */
  dress(css: string): void {
    const style = this.document.querySelector<HTMLStyleElement>(`style[${VENEER_ID}]`);
    if (!style || this.#dressed === css) return;
    this.#dressed = css;
    style.textContent = this.#rooted(css);
    this.#scheme.again(style);
  }

  /** The veneer stands at the site's root; its addresses lead there from wherever the page is framed. */
  #rooted(css: string): string {
    // A document that was written, not loaded, stands nowhere.
    if (!this.document.URL.startsWith('http')) return css;
    const { pathname } = new URL(this.document.URL);
    const root = new URL(pathname.includes('/pages/') ? '../../files/' : 'files/', this.document.URL);
    return withCssAddresses(css, ({ address }) => (URL.canParse(address) ? null : new URL(address, root).href));
  }

  /** Shows the page as it is framed: its hidden parts opened, in its scheme, with its veneer on. */
  show({ amendments, scheme, frameCss }: FramedPage): void {
    this.amend(amendments);
    this.#scheme.show(scheme);
    this.dress(frameCss);
  }

  /** Shows framed parts as they are to look. @param looks CSS by the path of their captured documents. */
  dressFramed(looks: ReadonlyMap<string, string>): void {
    for (const frame of this.document.querySelectorAll<HTMLIFrameElement>(`iframe[${FRAMED_ATTRIBUTE}]`)) {
      const css = looks.get(frame.getAttribute(FRAMED_ATTRIBUTE) ?? '') ?? '';
      const lay = (): void => layIn(frame.contentDocument, css);
      lay();
      // One that is still on its way is dressed when it is there.
      frame.onload = lay;
    }
  }

  /** Puts elements into states; what was forced before is let go. */
  force(states: ForcedStates): void {
    this.#states = states;
    for (const release of this.#forced.splice(0).reverse()) release();
    for (const { element, names } of states) {
      const node = this.#elements.get(element);
      if (node) for (const name of names) this.#forced.push(forceState(node, name));
    }
  }

  /** Reads the page as it is with nothing forced; nothing is laid out in between. */
  atRest<T>(read: () => T): T {
    const states = this.#states;
    this.force([]);
    const found = read();
    this.force(states);
    return found;
  }

  /** Makes the page longer than its frame, so that there is a scrollbar to see. */
  showScrollbar(isShown: boolean): void {
    this.document.documentElement.toggleAttribute('data-uv-scrolls', isShown);
  }

  /** Lays a test colour over everything, or takes it off again; never part of the veneer. */
  flash(css: string | null): void {
    const style =
      this.document.querySelector('style[data-uv-flash]') ??
      this.document.head.appendChild(createUnseenStyle(this.document));
    style.setAttribute('data-uv-flash', '');
    style.textContent = css ?? '';
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

  /** Selects the text of an element, so that its highlight shows; `null` lets go. */
  select(number: number | null): void {
    const selection = this.document.getSelection();
    const element = number === null ? null : this.#elements.get(number);
    selection?.removeAllRanges();
    if (element) selection?.selectAllChildren(element);
  }

  /** Elements by running number. */
  elements(): ReadonlyMap<number, Element> {
    return this.#elements;
  }

  element(number: number): Element | null {
    return this.#elements.get(number) ?? null;
  }

  /** Running number of the topmost element at a point of the frame's viewport, in CSS px, that shows: an unseen input over a drawn control is looked through, and so is a bare box over what it does not hold. */
  numberAt(x: number, y: number): number | null {
    const seen = this.stackAt(x, y).filter((number) => isSeen(this.#elements.get(number)));
    const [top] = seen;
    const painted = seen.find((number) => paints(this.#elements.get(number)));
    if (top === undefined || painted === undefined) return top ?? null;
    return holds(this.#elements.get(painted), this.#elements.get(top)) ? top : painted;
  }

  /** Running numbers of everything that lies at a point, topmost first. */
  stackAt(x: number, y: number): number[] {
    const numbers: number[] = [];
    const take = (root: Document | ShadowRoot): void => {
      for (const element of root.elementsFromPoint(x, y)) {
        if (element.getRootNode() !== root) continue;
        if (element.shadowRoot) take(element.shadowRoot);
        const number = element.getAttribute(NUMBER_ATTRIBUTE);
        if (number !== null && !numbers.includes(Number(number))) numbers.push(Number(number));
      }
    };
    take(this.document);
    return numbers;
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

/** Whether an element can be seen at all: neither hidden nor wholly see-through, alone or with what it stands in. */
function isSeen(element: Element | undefined): boolean {
  const view = element?.ownerDocument.defaultView;
  if (!element || !view || view.getComputedStyle(element).visibility !== 'visible') return false;
  for (let node: Element | null = element; node; node = above(node))
    if (Number(view.getComputedStyle(node).opacity) < 0.01) return false;
  return true;
}

const SHOWS_ITSELF =
  'img, svg, svg *, video, canvas, iframe, input, select, textarea, button, progress, meter, hr, object, embed';

/** Whether an element paints anything of its own: a fill, a picture, an edge, a shadow, a text. */
function paints(element: Element | undefined): boolean {
  const style = element?.ownerDocument.defaultView?.getComputedStyle(element);
  if (!element || !style) return false;
  return (
    element.matches(SHOWS_ITSELF) ||
    !/^(?:transparent|rgba\(0, 0, 0, 0\))$/.test(style.backgroundColor) ||
    style.backgroundImage !== 'none' ||
    style.boxShadow !== 'none' ||
    ['top', 'right', 'bottom', 'left'].some(
      (side) =>
        style.getPropertyValue(`border-${side}-width`) !== '0px' &&
        style.getPropertyValue(`border-${side}-style`) !== 'none',
    ) ||
    [...element.childNodes].some((node) => node.nodeType === Node.TEXT_NODE && (node.textContent ?? '').trim() !== '')
  );
}

function above(element: Element): Element | null {
  const root = element.getRootNode();
  return element.parentElement ?? (root instanceof ShadowRoot || 'host' in root ? (root as ShadowRoot).host : null);
}

function holds(outer: Element | undefined, inner: Element | undefined): boolean {
  for (let node: Element | null | undefined = inner; node; node = above(node)) if (node === outer) return true;
  return false;
}

/** Marks what a frame adds to a page. */
export const OWN_STYLE_ATTRIBUTE = 'data-uv-own';

/** A style element that no rule of the page brings to view, such as `* { display: block !important }`. */
function createUnseenStyle(document: Document): HTMLStyleElement {
  const style = document.createElement('style');
  style.setAttribute(OWN_STYLE_ATTRIBUTE, '');
  style.style.setProperty('display', 'none', 'important');
  return style;
}

/** What a field is filled with to show it filled. */
const SAMPLE_TEXT = 'Wren Alder';

/** Puts one element into one state, as the core names it; returns what lets it go. */
function forceState(element: Element, name: string): () => void {
  if (name === '!placeholder-shown') {
    const field = element as HTMLInputElement;
    const value = field.value;
    if (value === '')
      field.value = /^(?:number|date|time|month|week|datetime-local|color|range)$/.test(field.type) ? '' : SAMPLE_TEXT;
    return () => {
      field.value = value;
    };
  }
  if (name === 'checked' || name === '!checked') {
    const box = element as HTMLInputElement;
    const { checked } = box;
    box.checked = name === 'checked';
    return () => {
      box.checked = checked;
    };
  }
  if (name === 'indeterminate') {
    const box = element as HTMLInputElement;
    box.indeterminate = true;
    return () => {
      box.indeterminate = false;
    };
  }
  if (name.startsWith('![')) {
    const attribute = name.slice(2);
    const before = element.getAttribute(attribute);
    element.removeAttribute(attribute);
    return () => (before === null ? undefined : element.setAttribute(attribute, before));
  }
  if (name.startsWith('!.')) {
    const had = element.classList.contains(name.slice(2));
    element.classList.remove(name.slice(2));
    return () => element.classList.toggle(name.slice(2), had);
  }
  if (name.startsWith('.')) {
    const had = element.classList.contains(name.slice(1));
    element.classList.add(name.slice(1));
    return () => element.classList.toggle(name.slice(1), had);
  }
  if (name.startsWith('!')) return () => undefined;
  const attribute = name.startsWith('[') ? name.slice(1, name.indexOf('=')) : stateAttribute(name);
  const before = element.getAttribute(attribute);
  element.setAttribute(attribute, name.startsWith('[') ? name.slice(name.indexOf('=') + 1) : '');
  return () => (before === null ? element.removeAttribute(attribute) : element.setAttribute(attribute, before));
}

/** Elements by running number, those in shadow trees among them. */
export function numberedElements(
  root: Document | ShadowRoot,
  found = new Map<number, Element>(),
): Map<number, Element> {
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
  return (
    [...document.querySelectorAll<HTMLLinkElement>('link[rel~="stylesheet" i]')].findLast(({ href }) =>
      new URL(href).pathname.endsWith(end),
    ) ?? null
  );
}
