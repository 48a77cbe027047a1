import { parse, parseFragment, serialize, serializeOuter, html as H, type DefaultTreeAdapterTypes as P5 } from 'parse5';
import { amendAttributes, type AttributeChange } from '../dom/amendment.js';
import { amendmentsOf } from '../parts/open-parts.js';
import type { Part } from '../parts/part.js';
import { resolvePath } from '../rules/resolve-path.js';
import { matchingElements } from '../selectors/matching-elements.js';
import { parseSelectorList } from '../selectors/parse-selector.js';
import type { ElementNode } from '../dom/tree.js';
import { elementOf, openSite, pageOf, viewIn, type SiteModel, type SiteSource } from '../site/site-model.js';
import { SPECIMEN_PATH } from '../site/specimen-path.js';
import { KINDS } from './kinds.js';

/** How a part stands in one of its copies. */
type Variation = 'as captured' | 'filled in' | 'refused' | 'ticked and opened' | 'switched off';

/** Longest markup of one part that is copied, UTF-16 units. */
const MOST_MARKUP = 60_000;
const FIELDS = new Set(['input', 'select', 'textarea']);
/** Viewport width at which parts are looked at, CSS px. */
const WIDTH = 1280;
const HEAD_TAGS = new Set(['html', 'head', 'body']);

/**
 * A page that shows every kind of element and every part of a site in the states that its markup can say, under the site's own
 * stylesheets: what no captured page shows. Parts stand inside what they stand in on their page, by tag, id and classes.
 */
export function specimenPage(source: SiteSource): string {
  const pages = source.pages.filter(({ path }) => path !== SPECIMEN_PATH);
  const site = openSite({ ...source, pages });
  const trees = new Map(pages.map(({ id, path, html }) => [id, readTree(html, path)]));
  const [first] = trees.values();
  const parts = source.parts.map((part) => copiesOf(site, trees, part)).filter(Boolean);
  return [
    '<!doctype html>',
    `<html${attributesText(first?.root.attrs ?? [])}><head><meta charset="utf-8"><title>Specimen</title>`,
    LAYOUT,
    ...headOf([...trees.values()]),
    `</head><body${attributesText(first?.body?.attrs ?? [])}>`,
    '<main class="uv-specimen">',
    KINDS,
    ...parts,
    '</main></body></html>',
    '',
  ].join('\n');
}

/** What is fixed to the window stays in its copy, and copies stand apart. The rules name nothing but what the product put there. */
const LAYOUT =
  '<style>.uv-specimen-kinds,.uv-specimen-copy{contain:layout;margin:24px}.uv-specimen-copy{min-height:72px}.uv-specimen-tall{min-height:640px}</style>';

/** A page's tree, its elements by their running numbers. */
interface Tree {
  readonly root: P5.Element;
  readonly body: P5.Element | undefined;
  readonly elements: readonly P5.Element[];
  readonly path: string;
}

function readTree(text: string, path: string): Tree {
  const elements: P5.Element[] = [];
  const walk = (node: P5.ParentNode): void => {
    for (const child of node.childNodes) {
      if (!('tagName' in child)) continue;
      const isShadow = 'content' in child && child.attrs.some(({ name }) => name === 'shadowrootmode');
      if (isShadow) continue;
      elements.push(child);
      walk(child);
    }
  };
  walk(parse(text, { scriptingEnabled: false }));
  const root = elements[0];
  return { root, body: elements.find(({ tagName }) => tagName === 'body'), elements, path };
}

/** Stylesheets of all pages, each once, in the order they come in. */
function headOf(trees: readonly Tree[]): string[] {
  const lines = new Set<string>();
  for (const { elements, path } of trees)
    for (const element of elements) {
      const rel = element.attrs.find(({ name }) => name === 'rel')?.value ?? '';
      if (element.tagName === 'style') lines.add(serializeOuter(element));
      if (element.tagName === 'link' && /(?:^|\s)stylesheet(?:\s|$)/i.test(rel)) {
        relocate(element, path);
        lines.add(serializeOuter(element));
      }
    }
  return [...lines];
}

/** A part's markup in each of its variations, inside what it stands in on its page; empty where no page has it. */
function copiesOf(site: SiteModel, trees: ReadonlyMap<number, Tree>, { name, selector, openers }: Part): string {
  for (const [pageId, tree] of trees) {
    const element = partOn(site, pageId, selector);
    const node = element === null ? undefined : tree.elements[element];
    if (!node || HEAD_TAGS.has(node.tagName)) continue;
    // A hidden one is shown as its openers show it.
    for (const [number, changes] of amendmentsOf(pageOf(site, pageId), openers)) amend(tree.elements[number], changes);
    const markup = serializeOuter(node);
    if (markup.length > MOST_MARKUP) return '';
    const isTall = standsApart(site, pageId, element ?? 0);
    const around = ancestorsOf(node);
    const copies = VARIATIONS.flatMap(({ variation, change }) => {
      const fragment = parseFragment(markup);
      const own = elementsIn(fragment);
      own.forEach((each) => relocate(each, tree.path));
      if (change && !own.map(change).some(Boolean)) return [];
      const inside = around.reduce(
        (text, outer) => `<${outer.tagName}${attributesText(outer.attrs)}>${text}</${outer.tagName}>`,
        serialize(fragment),
      );
      return [
        `<div class="uv-specimen-copy${isTall ? ' uv-specimen-tall' : ''}" data-uv-variation="${variation}">${inside}</div>`,
      ];
    });
    return `<section class="uv-specimen-part" aria-label="${escaped(name)}">${copies.join('\n')}</section>`;
  }
  return '';
}

function partOn(site: SiteModel, pageId: number, selector: string): number | null {
  const element = matchingElements(pageOf(site, pageId), parseSelectorList(selector)).at(0);
  return element?.root.kind === 'document' ? element.number : null;
}

/** Whether a part, or what it stands in, is laid out against the window rather than where it stands. */
function standsApart(site: SiteModel, pageId: number, number: number): boolean {
  const page = pageOf(site, pageId);
  const element = elementOf(page, number);
  const view = viewIn(page, element, 'rest', WIDTH);
  for (let node: ElementNode | null = element; node; node = node.flatParent)
    if (/^(?:fixed|absolute)$/.test(view.style(node).resolved('position'))) return true;
  return false;
}

/** What stands around an element, from within outwards, as far as selectors may ask for it. */
function ancestorsOf(node: P5.Element): P5.Element[] {
  const around: P5.Element[] = [];
  for (let at = node.parentNode; at && 'tagName' in at; at = at.parentNode)
    // A row of a table stands in no block.
    if (!HEAD_TAGS.has(at.tagName) && at.namespaceURI === H.NS.HTML) around.push(at);
  return around;
}

/** How a variation changes one element. @returns whether it did. */
type ElementChange = (element: P5.Element) => boolean;

const VARIATIONS: readonly { readonly variation: Variation; readonly change: ElementChange | null }[] = [
  { variation: 'as captured', change: null },
  {
    variation: 'filled in',
    change: (element) => isTextField(element) && set(element, 'value', 'Saturday'),
  },
  {
    variation: 'refused',
    change: (element) =>
      isField(element) &&
      drop(element, 'value') &&
      set(element, 'required', '') &&
      set(element, 'aria-invalid', 'true'),
  },
  {
    variation: 'ticked and opened',
    change: (element) => {
      if (element.tagName === 'input' && /^(?:checkbox|radio)$/i.test(valueOf(element, 'type') ?? ''))
        return set(element, 'checked', '');
      if (element.tagName === 'details') return set(element, 'open', '');
      const said = ['aria-pressed', 'aria-expanded', 'aria-selected', 'aria-checked'].filter(
        (name) => valueOf(element, name) !== undefined,
      );
      said.forEach((name) => set(element, name, 'true'));
      return said.length > 0;
    },
  },
  {
    variation: 'switched off',
    change: (element) => (isField(element) || element.tagName === 'button') && set(element, 'disabled', ''),
  },
];

function isField(element: P5.Element): boolean {
  return FIELDS.has(element.tagName) && valueOf(element, 'type') !== 'hidden';
}

function isTextField(element: P5.Element): boolean {
  return element.tagName === 'input' && /^(?:|text|search|email|tel|url)$/i.test(valueOf(element, 'type') ?? '');
}

function amend(element: P5.Element | undefined, changes: readonly AttributeChange[]): void {
  if (!element) return;
  const amended = amendAttributes(new Map(element.attrs.map(({ name, value }) => [name, value])), changes);
  element.attrs = [...amended].map(([name, value]) => ({ name, value }));
}

function elementsIn(node: P5.ParentNode): P5.Element[] {
  return node.childNodes.flatMap((child) => ('tagName' in child ? [child, ...elementsIn(child)] : []));
}

function valueOf({ attrs }: P5.Element, name: string): string | undefined {
  return attrs.find((attr) => attr.name === name)?.value;
}

function set(element: P5.Element, name: string, value: string): true {
  const own = element.attrs.find((attr) => attr.name === name);
  if (own) own.value = value;
  else element.attrs.push({ name, value });
  return true;
}

function drop(element: P5.Element, name: string): true {
  element.attrs = element.attrs.filter((attr) => attr.name !== name);
  return true;
}

/** Leads the files that an element names from its page to the specimen, which stands at the top of the site. */
function relocate(element: P5.Element, path: string): void {
  for (const attr of element.attrs) {
    const isFile = attr.name === 'src' || attr.name === 'poster' || (attr.name === 'href' && element.tagName !== 'a');
    if (!isFile || /^(?:data:|#)/i.test(attr.value)) continue;
    attr.value = resolvePath(path, attr.value) ?? attr.value;
  }
}

function attributesText(attrs: P5.Element['attrs']): string {
  return attrs.map(({ name, value }) => ` ${name}="${escaped(value)}"`).join('');
}

/** Source: HTML §13.1.2.3. */
function escaped(text: string): string {
  return text.replaceAll('&', '&amp;').replaceAll('"', '&quot;').replaceAll('<', '&lt;').replaceAll('>', '&gt;');
}
