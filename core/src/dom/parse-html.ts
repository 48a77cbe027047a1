import { parse, type DefaultTreeAdapterTypes as P5, html } from 'parse5';
import { amendAttributes, type Amendments } from './amendment.js';
import type { ElementNode, Namespace, PageDocument, TreeRoot } from './tree.js';

type Mutable<T> = { -readonly [K in keyof T]: T[K] };
type MutableElement = Mutable<Omit<ElementNode, 'children' | 'attributes'>> & {
  children: ElementNode[];
  attributes: Map<string, string>;
};
type MutableRoot = Mutable<Omit<TreeRoot, 'children'>> & { children: ElementNode[] };

const NAMESPACES: ReadonlyMap<string, Namespace> = new Map([
  [html.NS.HTML, 'html'],
  [html.NS.SVG, 'svg'],
  [html.NS.MATHML, 'mathml'],
]);

/**
 * What stands inside an element at this depth or deeper is read as what follows that, so that no walk runs out of stack.
 * Source: common practice; Chromium's parser has the same bound, and the specs hold the two against one another.
 */
const MAX_DEPTH = 512;
const NONE: Amendments = new Map();

/**
 * Parses a page, declarative shadow roots (`<template shadowrootmode>`) included.
 * Never fails: the HTML standard gives every text a tree (parse5 follows it).
 * Source: HTML §13.2, https://html.spec.whatwg.org/multipage/parsing.html
 * @param amendments attribute changes, by the running number the element gets.
 */
export function parseHtml(text: string, amendments: Amendments = NONE): PageDocument {
  const tree = parse(text, { scriptingEnabled: false });
  const root: MutableRoot = { kind: 'document', host: null, children: [] };
  const elements: ElementNode[] = [];
  const pendingShadow: { host: MutableElement; template: P5.Template }[] = [];

  const read = (
    nodes: readonly P5.ChildNode[],
    parent: MutableElement | null,
    into: MutableRoot,
    depth: number,
  ): void => {
    for (const node of nodes) {
      if ('value' in node && node.nodeName === '#text') {
        if (parent) parent.ownText += node.value;
        continue;
      }
      if (!('tagName' in node)) continue;
      const mode =
        'content' in node && parent
          ? node.attrs.find((a) => a.name === 'shadowrootmode')?.value.toLowerCase()
          : undefined;
      if (
        (mode === 'open' || mode === 'closed') &&
        parent &&
        !parent.shadowRoot &&
        !pendingShadow.some((p) => p.host === parent)
      ) {
        pendingShadow.push({ host: parent, template: node as P5.Template });
        continue;
      }
      const element = makeElement(node, elements.length, parent, into, amendments);
      elements.push(element);
      (parent ? parent.children : into.children).push(element);
      if (depth < MAX_DEPTH) read(node.childNodes, element, into, depth + 1);
      else readOn(node.childNodes, element, into);
    }
  };
  /** What is nested too deep becomes siblings, in document order, without walking deeper itself. */
  const readOn = (nodes: readonly P5.ChildNode[], inside: MutableElement, into: MutableRoot): void => {
    const holder = inside.parent as MutableElement | null;
    const waiting = [...nodes].reverse();
    for (let node = waiting.pop(); node && holder; node = waiting.pop()) {
      if ('value' in node && node.nodeName === '#text') holder.ownText += node.value;
      if (!('tagName' in node)) continue;
      const element = makeElement(node, elements.length, holder, into, amendments);
      elements.push(element);
      holder.children.push(element);
      for (let i = node.childNodes.length - 1; i >= 0; i -= 1) waiting.push(node.childNodes[i]);
    }
  };
  read(tree.childNodes, null, root, 0);

  const shadowRoots: TreeRoot[] = [];
  for (let next = 0; next < pendingShadow.length && next < 2000; next += 1) {
    const { host, template } = pendingShadow[next];
    const shadow: MutableRoot = { kind: 'shadow', host, children: [] };
    host.shadowRoot = shadow;
    shadowRoots.push(shadow);
    read(template.content.childNodes, null, shadow, 0);
  }
  assignFlatParents(elements as unknown as readonly MutableElement[], shadowRoots);
  return { root, elements, rootElement: elements[0], quirks: tree.mode === html.DOCUMENT_MODE.QUIRKS, shadowRoots };
}

function makeElement(
  node: P5.Element,
  number: number,
  parent: MutableElement | null,
  root: TreeRoot,
  amendments: Amendments,
): MutableElement {
  const written = new Map<string, string>();
  for (const { name, value, prefix } of node.attrs) written.set(prefix ? `${prefix}:${name}` : name, value);
  const changes = amendments.get(number);
  const attributes = changes ? amendAttributes(written, changes) : written;
  const siblings = parent ? parent.children : root.children;
  return {
    number,
    localName: node.tagName,
    namespace: NAMESPACES.get(node.namespaceURI) ?? 'other',
    attributes,
    id: attributes.get('id') || null,
    classes: (attributes.get('class') ?? '').split(/[\t\n\f\r ]+/).filter((name) => name !== ''),
    parent,
    root,
    children: [],
    position: siblings.length,
    ownText: '',
    shadowRoot: null,
    flatParent: null,
  };
}

/** CSS Scoping 1 §3.1: children of a host move to the slot that takes them; unslotted ones have no box. */
function assignFlatParents(elements: readonly MutableElement[], shadowRoots: readonly TreeRoot[]): void {
  const slots = new Map<TreeRoot, Map<string, ElementNode>>(shadowRoots.map((root) => [root, new Map()]));
  for (const element of elements) {
    if (element.localName !== 'slot' || element.root.kind !== 'shadow') continue;
    const byName = slots.get(element.root);
    const name = element.attributes.get('name') ?? '';
    if (byName && !byName.has(name)) byName.set(name, element);
  }
  const taken = new Set<ElementNode>();
  for (const element of elements) {
    const slot = element.parent?.shadowRoot
      ? slots.get(element.parent.shadowRoot)?.get(element.attributes.get('slot') ?? '')
      : undefined;
    if (slot) taken.add(slot);
  }
  for (const element of elements) {
    // What a slot holds itself shows only where nothing is assigned to it.
    if (element.parent && taken.has(element.parent)) continue;
    if (element.parent?.shadowRoot) {
      element.flatParent = slots.get(element.parent.shadowRoot)?.get(element.attributes.get('slot') ?? '') ?? null;
    } else {
      element.flatParent = element.parent ?? element.root.host;
    }
  }
}
