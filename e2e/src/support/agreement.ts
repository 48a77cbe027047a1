import type { Page as BrowserPage } from 'playwright-core';
import { StyleView, lineageOf, type ElementNode, type MediaEnvironment, type Page } from '@upper-veneer/core';
import { forceStates, type ForcedState } from './force-states.js';

export type { ForcedState } from './force-states.js';
import { pointAtNothing } from './point-at-nothing.js';

/** Colour longhands on which core and browser must agree wholly. */
export const COLOR_PROPERTIES = [
  'color',
  'background-color',
  'border-top-color',
  'border-right-color',
  'border-bottom-color',
  'border-left-color',
  'outline-color',
  'text-decoration-color',
  'fill',
  'stroke',
  'caret-color',
  'accent-color',
] as const;
/** Longhands besides those. */
export const OTHER_PROPERTIES = [
  'opacity',
  'visibility',
  'display',
  'font-family',
  'font-size',
  'font-weight',
  'line-height',
  'text-decoration-line',
  'background-image',
  'box-shadow',
  'text-shadow',
  ...['top', 'right', 'bottom', 'left'].flatMap((side) => [`border-${side}-width`, `border-${side}-style`]),
  'border-top-left-radius',
  'border-top-right-radius',
  'border-bottom-right-radius',
  'border-bottom-left-radius',
];
export const COMPARED_PROPERTIES = [...COLOR_PROPERTIES, ...OTHER_PROPERTIES];

/** One value on which they differ. */
export interface Difference {
  readonly element: number;
  readonly name: string;
  readonly pseudo: string;
  readonly state: string;
  readonly property: string;
  readonly core: string;
  readonly browser: string;
}

/** Outcome of a comparison, by property. */
export interface Agreement {
  readonly compared: Map<string, number>;
  readonly differences: Difference[];
}

export function emptyAgreement(): Agreement {
  return { compared: new Map(), differences: [] };
}

/**
 * Compares the core's values with `getComputedStyle` for every element and generated pseudo-element of a loaded page.
 * In a state, each element in turn is forced into it, hover and active with its ancestors.
 */
export async function compareWithBrowser(
  browserPage: BrowserPage,
  page: Page,
  options: {
    readonly properties: readonly string[];
    readonly states: readonly ForcedState[];
    readonly environment?: Partial<MediaEnvironment>;
  },
  into: Agreement,
): Promise<void> {
  const { properties, states, environment } = options;
  await settle(browserPage);
  for (const state of states) {
    if (state === 'rest') {
      const values = await readAll(browserPage, properties);
      const view = new StyleView(page, { environment });
      page.document.elements.forEach((element, i) => record(view, element, values[i] ?? {}, state, properties, into));
      continue;
    }
    await forEachForced(browserPage, page, state, async (element, chain) => {
      // Forcing `focus` puts the ancestors into `:focus-within`; `focus-visible` is forced alone.
      const around: (readonly [ElementNode, ReadonlySet<string>])[] =
        state === 'focus'
          ? lineageOf(element)
              .slice(0, -1)
              .map((node) => [node, new Set(['focus-within'])] as const)
          : [];
      const view = new StyleView(page, {
        environment,
        states: new Map([
          ...around,
          ...chain.map((node): readonly [ElementNode, ReadonlySet<string>] => [node, new Set([state])]),
        ]),
      });
      const values = await readOne(browserPage, element.number, properties);
      record(view, element, values, state, properties, into);
    });
  }
}

/** Values by pseudo-element (`''` for the element itself). */
type Values = Record<string, string[]>;

function record(
  view: StyleView,
  element: ElementNode,
  values: Values,
  state: string,
  properties: readonly string[],
  into: Agreement,
): void {
  for (const pseudo of ['', 'before', 'after']) {
    const browser = values[pseudo];
    const content = view.style(element, pseudo).resolved('content');
    const hasContent = pseudo === '' || (content !== 'none' && content !== 'normal');
    if (hasContent !== (browser !== undefined)) {
      into.differences.push({
        element: element.number,
        name: nameOf(element),
        pseudo,
        state,
        property: 'content',
        core: content,
        browser: browser ? 'some' : 'none',
      });
      continue;
    }
    if (!browser) continue;
    const style = view.style(element, pseudo);
    properties.forEach((property, i) => {
      into.compared.set(property, (into.compared.get(property) ?? 0) + 1);
      const core = style.resolved(property);
      if (!sameValue(core, browser[i]))
        into.differences.push({
          element: element.number,
          name: nameOf(element),
          pseudo,
          state,
          property,
          core,
          browser: browser[i],
        });
    });
  }
}

function nameOf(element: ElementNode): string {
  return element.localName + (element.id ? `#${element.id}` : '') + element.classes.map((name) => `.${name}`).join('');
}

/** Equal texts, or equal but for the last digits of their numbers. */
export function sameValue(a: string, b: string): boolean {
  const clean = (text: string): string =>
    text
      .replace(/url\("?(?:http:\/\/site\.test\/)?([^")]*)"?\)/g, (_, path: string) => `url(${path.split('/').pop()})`)
      .replace(/\s+/g, ' ')
      .trim();
  const x = clean(a);
  const y = clean(b);
  if (x === y) return true;
  const number = /-?(?:\d+\.?\d*|\.\d+)(?:e[+-]?\d+)?/g;
  if (x.replace(number, '#') !== y.replace(number, '#')) return false;
  const left = (x.match(number) ?? []).map(Number);
  const right = (y.match(number) ?? []).map(Number);
  return left.every((value, i) => Math.abs(value - right[i]) <= Math.max(0.002, Math.abs(value) * 0.0005));
}

/** Stops transitions and animations, which would show values between two states. */
async function settle(browserPage: BrowserPage): Promise<void> {
  await pointAtNothing(browserPage);
  await browserPage.evaluate(() => {
    const sheet = new CSSStyleSheet();
    sheet.replaceSync('*, ::before, ::after { transition: none !important; animation: none !important; }');
    const roots: (Document | ShadowRoot)[] = [document];
    for (const root of roots) {
      root.adoptedStyleSheets = [...root.adoptedStyleSheets, sheet];
      for (const element of root.querySelectorAll('*')) if (element.shadowRoot) roots.push(element.shadowRoot);
    }
  });
}

/* The two readers run in the page; elements are numbered as the core numbers them. */
const READER = `(properties, only) => {
  const elements = [...document.querySelectorAll('*')];
  const hosts = elements.filter((e) => e.shadowRoot);
  for (let i = 0; i < hosts.length; i += 1) {
    const inner = [...hosts[i].shadowRoot.querySelectorAll('*')];
    elements.push(...inner);
    hosts.push(...inner.filter((e) => e.shadowRoot));
  }
  const read = (element) => {
    const out = {};
    for (const pseudo of ['', 'before', 'after']) {
      const style = getComputedStyle(element, pseudo ? '::' + pseudo : undefined);
      const content = style.getPropertyValue('content');
      if (pseudo && (content === 'none' || content === 'normal')) continue;
      out[pseudo] = properties.map((property) => style.getPropertyValue(property));
    }
    return out;
  };
  return only === null ? elements.map(read) : read(elements[only]);
}`;

async function readAll(browserPage: BrowserPage, properties: readonly string[]): Promise<Values[]> {
  return browserPage.evaluate(`(${READER})(${JSON.stringify(properties)}, null)`);
}

async function readOne(browserPage: BrowserPage, number: number, properties: readonly string[]): Promise<Values> {
  return browserPage.evaluate(`(${READER})(${JSON.stringify(properties)}, ${number})`);
}

/** Forces a state on each element in turn; the chain that holds it is the element and, for hover and active, its ancestors. */
async function forEachForced(
  browserPage: BrowserPage,
  page: Page,
  state: ForcedState,
  visit: (element: ElementNode, chain: readonly ElementNode[]) => Promise<void>,
): Promise<void> {
  const forced = await forceStates(browserPage);
  const withAncestors = state === 'hover' || state === 'active';
  const walk = async (element: ElementNode, chain: readonly ElementNode[]): Promise<void> => {
    const next = withAncestors ? [...chain, element] : [element];
    await forced.force(element.number, [state]);
    await visit(element, next);
    if (!withAncestors) await forced.force(element.number, []);
    for (const child of element.children) await walk(child, next);
    for (const child of element.shadowRoot?.children ?? []) await walk(child, next);
    if (withAncestors) await forced.force(element.number, []);
  };
  for (const element of page.document.root.children) await walk(element, []);
  await forced.end();
}
