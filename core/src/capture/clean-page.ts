import { parse, serialize, type DefaultTreeAdapterTypes as P5 } from 'parse5';
import { cssAddresses, withCssAddresses } from '../syntax/css-addresses.js';
import { addressSlotsOf, parseSrcset, type AddressKind } from './page-addresses.js';

/** An address a page leads to, as written. */
export interface PageAddress {
  readonly address: string;
  readonly kind: AddressKind;
}

export interface CleanedPage {
  readonly html: string;
  /** Text of its `<title>`; empty without one. */
  readonly title: string;
  readonly scripts: number;
  readonly handlers: number;
}

/** Elements that run or embed foreign content; inert ones of the same name stay in their place, so that sibling counts do. */
const INERT = new Set(['script', 'object', 'embed', 'applet', 'portal']);

/** Addresses a page leads to, its inline styles included, and the `<base>` it resolves them against; empty without one. */
export function pageAddresses(html: string): { readonly base: string; readonly addresses: readonly PageAddress[] } {
  const document = parse(html, { scriptingEnabled: false });
  let base = '';
  const addresses: PageAddress[] = [];
  visitElements(document, (element) => {
    if (element.tagName === 'base' && base === '')
      base = element.attrs.find(({ name }) => name === 'href')?.value.trim() ?? '';
    for (const { kind, value } of addressSlotsOf(element)) addresses.push({ kind, address: value });
    for (const { value } of srcsetsOf(element))
      for (const { address } of parseSrcset(value)) addresses.push({ kind: 'file', address });
    for (const css of stylesOf(element))
      for (const { address, kind } of cssAddresses(css.text)) addresses.push({ address, kind });
  });
  return { base, addresses };
}

/** Passes after which a page that still changes is refused: what it is read as depends on how often it is read. */
const MOST_PASSES = 6;

/**
 * A page without what runs: scripts, handlers, `javascript:` addresses, refreshes and content policies; `<base>` is
 * dropped, since addresses are resolved by `resolve`. Cleaned again until that changes nothing, for what is written
 * out may be read otherwise than what was read.
 * @param resolve the address to write for one that was found; `null` takes the attribute away.
 * @throws {RangeError} for a page that never comes to rest.
 */
export function cleanPage(html: string, resolve: (address: PageAddress) => string | null): CleanedPage {
  const first = cleanOnce(html, resolve);
  // What the first pass wrote leads where it should.
  const kept = new Set(first.written);
  let current = first.html;
  for (let pass = 1; pass < MOST_PASSES; pass += 1) {
    const next = cleanOnce(current, (found) =>
      kept.has(found.address) || found.kind === 'page' ? found.address : null,
    );
    if (next.html === current)
      return { html: current, title: first.title, scripts: first.scripts, handlers: first.handlers };
    current = next.html;
  }
  throw new RangeError('The page reads otherwise each time it is read');
}

function cleanOnce(
  html: string,
  resolve: (address: PageAddress) => string | null,
): CleanedPage & { readonly written: readonly string[] } {
  const document = parse(html, { scriptingEnabled: false });
  const written: string[] = [];
  let title = '';
  let scripts = 0;
  let handlers = 0;
  const lead = (found: PageAddress): string | null => {
    if (isInside(found)) return found.address;
    const next = resolve(found);
    if (next !== null) written.push(next);
    return next;
  };
  visitElements(document, (element) => {
    if (element.tagName === 'title' && title === '' && element.namespaceURI.endsWith('xhtml'))
      title = textOf(element).replace(/\s+/g, ' ').trim();
    if (element.tagName === 'script' && !isInertScript(element)) scripts += 1;
    // What is written after it can never be read as anything but its text.
    if (element.tagName === 'plaintext') element.nodeName = element.tagName = 'pre';
    if (INERT.has(element.tagName)) {
      makeInert(element);
      return;
    }
    const before = element.attrs.length;
    element.attrs = element.attrs.filter(
      ({ name, value }) => !(/^on/i.test(name) || (ADDRESS_NAMES.has(name) && value.split(';').some(isScriptAddress))),
    );
    if (animatesWhatRuns(element)) element.attrs = element.attrs.filter(({ name }) => !ANIMATED.has(name));
    handlers += before - element.attrs.length;
    element.attrs = element.attrs.filter(({ name }) => !DROPPED_ATTRIBUTES.has(name) && !name.startsWith('data-uv-'));
    if (
      element.tagName === 'meta' &&
      element.attrs.some(
        ({ name, value }) => name === 'http-equiv' && /refresh|content-security-policy|set-cookie/i.test(value),
      )
    )
      element.attrs = [];
    if (element.tagName === 'base') element.attrs = [];
    // Chromium's web archives keep shadow roots under an attribute of their own.
    if (element.tagName === 'template' && !element.attrs.some(({ name }) => name === 'shadowrootmode'))
      element.attrs = element.attrs.map((attribute) =>
        attribute.name === 'shadowmode' ? { ...attribute, name: 'shadowrootmode' } : attribute,
      );
    for (const slot of addressSlotsOf(element)) slot.set(lead({ address: slot.value, kind: slot.kind }));
    for (const srcset of srcsetsOf(element)) {
      srcset.value = parseSrcset(srcset.value)
        .flatMap(({ address, descriptor }) => {
          const next = lead({ address, kind: 'file' });
          return next === null ? [] : [`${next} ${descriptor}`.trim()];
        })
        .join(', ');
    }
    for (const css of stylesOf(element)) css.set(withCssAddresses(css.text, (found) => lead(found) ?? 'about:invalid'));
  });
  return { html: serialize(document), title, scripts, handlers, written };
}

/** Whether an element would give an address, a handler or a style to another. */
function animatesWhatRuns({ tagName, attrs }: P5.Element): boolean {
  if (!ANIMATING.has(tagName)) return false;
  const target = attrs.find(({ name }) => name === 'attributeName')?.value.trim() ?? '';
  return /^(?:xlink:)?href$|^on|^src|^style$/i.test(target);
}

/** SVG elements that give an attribute other values. Source: SVG 2 §2.1 animation elements. */
const ANIMATING: ReadonlySet<string> = new Set([
  'animate',
  'set',
  'animateTransform',
  'animatetransform',
  'animateMotion',
  'animatemotion',
]);
const ANIMATED: ReadonlySet<string> = new Set(['to', 'from', 'by', 'values']);
/** Attributes of SVG elements that are read as CSS and may lead to files. Source: SVG 2 §6.6 presentation attributes. */
const PRESENTATION: ReadonlySet<string> = new Set([
  'fill',
  'stroke',
  'filter',
  'mask',
  'mask-image',
  'clip-path',
  'cursor',
  'marker',
  'marker-start',
  'marker-mid',
  'marker-end',
  'background',
  'background-image',
  'list-style-image',
]);

const DROPPED_ATTRIBUTES = new Set(['nonce', 'integrity', 'crossorigin', 'ping', 'autofocus', 'srcdoc', 'manifest']);
const ADDRESS_NAMES = new Set([
  'href',
  'src',
  'action',
  'formaction',
  'data',
  'poster',
  'background',
  'to',
  'from',
  'values',
]);

function isScriptAddress(value: string): boolean {
  // eslint-disable-next-line no-control-regex -- browsers pass over control characters there
  return /^(?:javascript|vbscript):/i.test(value.replace(/[\u0000-\u0020]+/g, ''));
}

/** Addresses that lead nowhere else: within the page, or carrying their content with them, which a frame would run. */
function isInside({ address, kind }: PageAddress): boolean {
  if (address.startsWith('#') || /^about:/i.test(address)) return true;
  if (kind === 'page') return /^(?:mailto:|tel:)/i.test(address);
  return kind !== 'frame' && /^data:(?:image|font|application\/(?:font|x-font))/i.test(address);
}

function isInertScript({ attrs, childNodes }: P5.Element): boolean {
  return childNodes.length === 0 && attrs.some(({ name, value }) => name === 'type' && value === 'text/plain');
}

function makeInert(element: P5.Element): void {
  const kept = element.attrs.filter(({ name }) => name === 'id' || name === 'class');
  element.attrs = element.tagName === 'script' ? [...kept, { name: 'type', value: 'text/plain' }] : kept;
  if (element.tagName === 'script') element.childNodes = [];
}

function srcsetsOf(element: P5.Element): P5.Element['attrs'] {
  return element.attrs.filter(({ name }) => name === 'srcset' || name === 'imagesrcset');
}

interface StyleText {
  readonly text: string;
  set(text: string): void;
}

function stylesOf(element: P5.Element): StyleText[] {
  const isSvg = element.namespaceURI.endsWith('svg');
  const styles: StyleText[] = element.attrs
    .filter(({ name }) => name === 'style' || (isSvg && PRESENTATION.has(name)))
    .map((attribute) => ({
      text: attribute.value,
      set: (text) => {
        attribute.value = text;
      },
    }));
  if (element.tagName === 'style') {
    styles.push({
      text: textOf(element),
      set: (text) => {
        element.childNodes = [
          { nodeName: '#text', value: text.replaceAll(/<\/style/gi, '<\\/style'), parentNode: element } as P5.TextNode,
        ];
      },
    });
  }
  return styles;
}

function textOf(element: P5.Element): string {
  return element.childNodes.map((child) => ('value' in child ? child.value : '')).join('');
}

/** Every element in document order, template contents included, without recursion: hostile pages nest deeply. */
function visitElements(document: P5.Document, visit: (element: P5.Element) => void): void {
  const stack: P5.ChildNode[] = [...document.childNodes].reverse();
  for (let node = stack.pop(); node; node = stack.pop()) {
    if (!('tagName' in node)) continue;
    visit(node);
    const content = 'content' in node ? (node as P5.Template).content.childNodes : [];
    for (const children of [node.childNodes, content])
      for (let i = children.length - 1; i >= 0; i -= 1) stack.push(children[i]);
  }
}
