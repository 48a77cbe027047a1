import { type PageLayout } from '../resolve/page-layout.js';
import { withLayout } from '../resolve/page.js';
import type { Amendments } from '../dom/amendment.js';
import type { ElementNode } from '../dom/tree.js';
import { amendmentsOf, closingsOf } from '../parts/open-parts.js';
import type { Part } from '../parts/part.js';
import { parsePage, withVeneer, type Page, type VeneerPlace } from '../resolve/page.js';
import type { LoadSheet } from '../rules/sheet.js';
import { pointerStates, type StateName } from '../elsewhere/pointer-states.js';
import { StyleView } from '../resolve/style-view.js';
import { restContext } from '../selectors/match-context.js';
import { matchesAny } from '../selectors/match-selector.js';
import { parseSelectorList } from '../selectors/parse-selector.js';
import type { SelectorList } from '../selectors/selector.js';
import { NO_EXCEPTIONS, type Exceptions } from './exceptions.js';
import { compileVeneer } from '../veneer/compile-veneer.js';
import type { Override } from '../veneer/override.js';
import type { Palette } from '../veneer/palette.js';
import type { SheetOptions } from '../veneer/sheet-options.js';

/** A site as it was captured. */
export interface SiteSource extends SheetOptions {
  readonly pages: readonly { readonly id: number; readonly name: string; readonly path: string; readonly html: string }[];
  /** Stylesheets by path. */
  readonly stylesheets: Readonly<Record<string, string>>;
  readonly parts: readonly Part[];
  readonly veneerPlace: VeneerPlace;
}

/** A site being worked on: its pages resolved, with the veneer as it stands. Immutable but for its caches. */
export interface SiteModel {
  readonly source: SiteSource;
  /** Pages as they were captured, all parts closed, without a veneer. */
  readonly closed: ReadonlyMap<number, Page>;
  readonly pages: ReadonlyMap<number, Page>;
  readonly overrides: readonly Override[];
  readonly palette: Palette;
  /** What is left alone. */
  readonly exceptions: Exceptions;
  /** The veneer compiled. */
  readonly css: string;
  /** @internal */
  readonly parts: readonly { readonly part: Part; readonly selectors: SelectorList }[];
}

/** How the sheet of a site is written. */
export function sheetOptionsOf({ prefix, asValues, names, hoverOnly }: SheetOptions): SheetOptions {
  return { prefix, asValues, names, hoverOnly };
}

/** Opens a site without a veneer, its hidden parts closed. */
export function openSite(source: SiteSource): SiteModel {
  const pages = new Map(source.pages.map((page) => [page.id, parseSource(source, page)]));
  return { source, closed: pages, pages, overrides: [], palette: { swatches: [], roles: [] }, exceptions: NO_EXCEPTIONS, css: '', parts: source.parts.map((part) => ({ part, selectors: parseSelectorList(part.selector) })) };
}

const readers = new WeakMap<SiteSource['stylesheets'], LoadSheet>();

/** Reader of a site's sheets, the same for all its pages, which have in common what they both link. */
function sheetsOf({ stylesheets }: SiteSource): LoadSheet {
  let reader = readers.get(stylesheets);
  if (!reader) readers.set(stylesheets, (reader = (path) => (Object.hasOwn(stylesheets, path) ? stylesheets[path] : null)));
  return reader;
}

function parseSource(source: SiteSource, { path, html }: SiteSource['pages'][number], amendments?: Amendments): Page {
  return parsePage(html, { path, loadSheet: sheetsOf(source), veneerPlace: source.veneerPlace, amendments });
}

/** The site with some of its parts shown otherwise than they were captured: hidden ones opened, as their openers say, others put away. */
export function openParts(site: SiteModel, partIds: readonly number[]): SiteModel {
  const pages = new Map(site.source.pages.map((source): [number, Page] => {
    const closed = site.closed.get(source.id) ?? parseSource(site.source, source);
    const amendments = toggledOn(site, closed, partIds);
    return [source.id, withVeneer(amendments.size === 0 ? closed : parseSource(site.source, source, amendments), site.css)];
  }));
  return { ...site, pages };
}

/** Attribute changes on a page as it was captured that open hidden parts by their openers, and put away those that have none. */
export function toggledOn(site: SiteModel, closed: Page, partIds: readonly number[]): Amendments {
  const parts = site.source.parts.filter(({ id }) => partIds.includes(id));
  return new Map([...amendmentsOf(closed, parts.flatMap(({ openers }) => openers)), ...parts.filter(({ openers }) => openers.length === 0).flatMap(({ selector }) => [...closingsOf(closed, selector)])]);
}

/** The site with what a frame measured of one of its pages at a width. */
export function layOut(site: SiteModel, pageId: number, layout: PageLayout): SiteModel {
  return { ...site, pages: new Map([...site.pages].map(([id, page]) => [id, id === pageId ? withLayout(page, layout) : page])) };
}

/** The site with other overrides or another palette; only the veneer is parsed again. */
export function dressSite(site: SiteModel, overrides: readonly Override[], palette: Palette, exceptions: Exceptions = site.exceptions): SiteModel {
  const css = compileVeneer(overrides, { ...sheetOptionsOf(site.source), palette, parts: site.source.parts });
  return { ...site, overrides, palette, exceptions, css, pages: new Map([...site.pages].map(([id, page]) => [id, withVeneer(page, css)])) };
}

/** Page with an id. @throws {RangeError} when the site has none. */
export function pageOf(site: SiteModel, pageId: number): Page {
  const page = site.pages.get(pageId);
  if (!page) throw new RangeError(`No page ${pageId} in this site`);
  return page;
}

/** Element with a running number. @throws {RangeError} when the page has none. */
export function elementOf(page: Page, number: number): ElementNode {
  const element = page.document.elements[number];
  if (!element) throw new RangeError(`No element ${number} in a page of ${page.document.elements.length}`);
  return element;
}

/** View of a page with one element in a state; a parent's state needs the parent. */
export function viewIn(page: Page, element: ElementNode, state: StateName, width: number, parent: ElementNode | null = null): StyleView {
  return new StyleView(page, { states: pointerStates(page.document, element, state, parent), environment: { width } });
}

/** The part an element belongs to: that of its nearest ancestor that is one. */
export function partOf(site: SiteModel, page: Page, element: ElementNode): Part | null {
  const context = restContext(page.document);
  for (let node: ElementNode | null = element; node; node = node.flatParent) {
    for (const { part, selectors } of site.parts) if (matchesAny(selectors, node, context)) return part;
  }
  return null;
}
