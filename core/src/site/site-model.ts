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
import { LazyPages } from './lazy-pages.js';
import { NO_EXCEPTIONS, type Exceptions } from './exceptions.js';
import { compileVeneer } from '../veneer/compile-veneer.js';
import type { Override } from '../veneer/override.js';
import type { Palette } from '../veneer/palette.js';
import type { SheetOptions } from '../veneer/sheet-options.js';

/** A site as it was captured. */
export interface SiteSource extends SheetOptions {
  readonly pages: readonly {
    readonly id: number;
    readonly name: string;
    readonly path: string;
    readonly html: string;
  }[];
  /** Stylesheets by path. */
  readonly stylesheets: Readonly<Record<string, string>>;
  readonly parts: readonly Part[];
  readonly veneerPlace: VeneerPlace;
}

/** A site being worked on: its pages resolved, with the veneer as it stands. Immutable but for its caches. */
export interface SiteModel {
  readonly source: SiteSource;
  /** Pages as they were captured, all parts closed, without a veneer. Each is read when it is first asked for. */
  readonly closed: LazyPages;
  /** The same with the parts that are opened. @internal */
  readonly opened: LazyPages;
  readonly pages: LazyPages;
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
  const closed = new LazyPages(
    source.pages.map(({ id }) => id),
    (id) => parseSource(source, sourceOf(source, id)),
  );
  return {
    source,
    closed,
    opened: closed,
    pages: closed,
    overrides: [],
    palette: { swatches: [], roles: [] },
    exceptions: NO_EXCEPTIONS,
    css: '',
    parts: source.parts.map((part) => ({ part, selectors: parseSelectorList(part.selector) })),
  };
}

const readers = new WeakMap<SiteSource['stylesheets'], LoadSheet>();

/** Reader of a site's sheets, the same for all its pages, which have in common what they both link. */
function sheetsOf({ stylesheets }: SiteSource): LoadSheet {
  let reader = readers.get(stylesheets);
  if (!reader)
    readers.set(stylesheets, (reader = (path) => (Object.hasOwn(stylesheets, path) ? stylesheets[path] : null)));
  return reader;
}

function parseSource(source: SiteSource, { path, html }: SiteSource['pages'][number], amendments?: Amendments): Page {
  return parsePage(html, { path, loadSheet: sheetsOf(source), veneerPlace: source.veneerPlace, amendments });
}

/** The site with some of its parts shown otherwise than they were captured: hidden ones opened, as their openers say, others put away. */
export function openParts(site: SiteModel, partIds: readonly number[]): SiteModel {
  const ids = site.source.pages.map(({ id }) => id);
  const opened =
    partIds.length === 0
      ? site.closed
      : new LazyPages(ids, (id) => {
          const closed = pageIn(site.closed, id);
          const amendments = toggledOn(site, closed, partIds);
          return amendments.size === 0 ? closed : parseSource(site.source, sourceOf(site.source, id), amendments);
        });
  return { ...site, opened, pages: new LazyPages(ids, (id) => withVeneer(pageIn(opened, id), site.css)) };
}

/**
 * Reads pages that nobody has asked for yet, one a step, so that what asks for all of them does not wait for all at once.
 * Ends by itself when all are read.
 */
export function* readPages(site: SiteModel): Generator<{ readonly read: number; readonly pages: number }, void> {
  for (const id of site.closed.unread) {
    pageIn(site.closed, id);
    yield { read: site.closed.size - site.closed.unread.length, pages: site.closed.size };
  }
}

function sourceOf({ pages }: SiteSource, id: number): SiteSource['pages'][number] {
  const found = pages.find((page) => page.id === id);
  if (!found) throw new RangeError(`No page ${id} in this site`);
  return found;
}

function pageIn(pages: LazyPages, id: number): Page {
  const page = pages.get(id);
  if (!page) throw new RangeError(`No page ${id} in this site`);
  return page;
}

/** Attribute changes on a page as it was captured that open hidden parts by their openers, and put away those that have none. */
export function toggledOn(site: SiteModel, closed: Page, partIds: readonly number[]): Amendments {
  const parts = site.source.parts.filter(({ id }) => partIds.includes(id));
  return new Map([
    ...amendmentsOf(
      closed,
      parts.flatMap(({ openers }) => openers),
    ),
    ...parts.filter(({ openers }) => openers.length === 0).flatMap(({ selector }) => [...closingsOf(closed, selector)]),
  ]);
}

/** The site with what a frame measured of one of its pages at a width. */
export function layOut(site: SiteModel, pageId: number, layout: PageLayout): SiteModel {
  return { ...site, pages: site.pages.with(pageId, withLayout(pageOf(site, pageId), layout)) };
}

/** The site with other overrides or another palette; only the veneer is parsed again. */
export function dressSite(
  site: SiteModel,
  overrides: readonly Override[],
  palette: Palette,
  exceptions: Exceptions = site.exceptions,
): SiteModel {
  const css = compileVeneer(overrides, { ...sheetOptionsOf(site.source), palette, parts: site.source.parts });
  return {
    ...site,
    overrides,
    palette,
    exceptions,
    css,
    pages: site.pages.changed(
      (id) => pageIn(site.opened, id),
      (page) => withVeneer(page, css),
    ),
  };
}

/** Page with an id. @throws {RangeError} when the site has none. */
export function pageOf(site: SiteModel, pageId: number): Page {
  return pageIn(site.pages, pageId);
}

/** Element with a running number. @throws {RangeError} when the page has none. */
export function elementOf(page: Page, number: number): ElementNode {
  const element = page.document.elements[number];
  if (!element) throw new RangeError(`No element ${number} in a page of ${page.document.elements.length}`);
  return element;
}

/** View of a page with one element in a state; a parent's state needs the parent. */
export function viewIn(
  page: Page,
  element: ElementNode,
  state: StateName,
  width: number,
  parent: ElementNode | null = null,
): StyleView {
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
