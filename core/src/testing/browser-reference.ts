/**
 * The engine the specs run in, as a reference. In Node there is none and the rows' own values are the check;
 * in Karma the same rows are held against Chromium.
 */

interface DomElement {
  readonly shadowRoot: DomRoot | null;
  style: Record<string, unknown> & { cssText: string; getPropertyValue(name: string): string };
}
interface DomRoot {
  querySelectorAll(selector: string): Iterable<DomElement>;
}
interface DomDocument extends DomRoot {
  createElement(name: string): DomElement & {
    srcdoc: string;
    onload: () => void;
    contentDocument: DomDocument;
    getBoundingClientRect(): unknown;
    contentWindow: DomWindow;
    remove(): void;
    setAttribute(name: string, value: string): void;
  };
  readonly body: { append(node: unknown): void };
}
interface DomWindow {
  getComputedStyle(element: DomElement, pseudo?: string): { getPropertyValue(name: string): string };
  matchMedia(query: string): { readonly matches: boolean };
  readonly innerWidth: number;
  readonly innerHeight: number;
}

const scope = globalThis as unknown as {
  document?: DomDocument;
  CSS?: { supports(condition: string): boolean };
  CSSStyleSheet?: new () => {
    replaceSync(css: string): void;
    readonly cssRules: ArrayLike<{ readonly selectorText?: string; readonly cssText: string }>;
  };
  window?: DomWindow;
  DOMParser?: new () => { parseFromString(text: string, type: string): DomDocument };
};

/** Whether the specs run in a browser. */
export const isInBrowser = scope.document !== undefined;

/** Indexes, in document order, of the elements a selector matches; `null` in Node, or when the engine refuses the selector. */
export function browserMatches(html: string, selector: string): number[] | 'refused' | null {
  if (!scope.DOMParser) return null;
  const document = new scope.DOMParser().parseFromString(html, 'text/html');
  const all = [...document.querySelectorAll('*')];
  try {
    return [...document.querySelectorAll(selector)].map((element) => all.indexOf(element));
  } catch {
    return 'refused';
  }
}

/** The engine's answer to a media query, with its own viewport; `null` in Node. */
export function browserMedia(
  query: string,
): { readonly matches: boolean; readonly width: number; readonly height: number } | null {
  return scope.window
    ? {
        matches: scope.window.matchMedia(query).matches,
        width: scope.window.innerWidth,
        height: scope.window.innerHeight,
      }
    : null;
}

/** The engine's answer to a supports condition; `null` in Node. */
export function browserSupports(condition: string): boolean | null {
  return scope.CSS ? scope.CSS.supports(condition) : null;
}

/** A style rule's selector as the engine keeps it, forgiven parts left out; '' where it drops the rule, `null` in Node. */
export function browserSelector(selector: string): string | null {
  if (!scope.CSSStyleSheet) return null;
  const sheet = new scope.CSSStyleSheet();
  sheet.replaceSync(`${selector} { color: red }`);
  return sheet.cssRules.length === 1 ? (sheet.cssRules[0].selectorText ?? '') : '';
}

/** What the engine makes of one declaration, by longhand; `null` in Node. */
export function browserLonghands(declaration: string, longhands: readonly string[]): Record<string, string> | null {
  if (!scope.document) return null;
  const element = scope.document.createElement('div');
  element.style.cssText = declaration;
  return Object.fromEntries(longhands.map((name) => [name, element.style.getPropertyValue(name)]));
}

/** Computed values of every element (shadow trees after the document), `[element][property]`; `null` in Node. */
export async function browserComputed(
  html: string,
  properties: readonly string[],
  pseudo?: string,
): Promise<string[][] | null> {
  if (!scope.document) return null;
  const frame = scope.document.createElement('iframe');
  frame.setAttribute('style', 'width: 1280px; height: 800px; border: 0');
  const loaded = new Promise<void>((done) => {
    frame.onload = () => done();
  });
  frame.srcdoc = html;
  scope.document.body.append(frame);
  await loaded;
  // Laid out, so that the window inside has its size whatever else the machine does.
  frame.getBoundingClientRect();
  const elements: DomElement[] = [...frame.contentDocument.querySelectorAll('*')];
  for (const { shadowRoot } of elements) if (shadowRoot) elements.push(...shadowRoot.querySelectorAll('*'));
  const values = elements.map((element) => {
    const style = frame.contentWindow.getComputedStyle(element, pseudo);
    return properties.map((property) => style.getPropertyValue(property));
  });
  frame.remove();
  return values;
}
