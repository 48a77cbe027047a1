import { type PageLayout } from '../resolve/page-layout.js';
import { withLayout } from '../resolve/page.js';
import type { Amendments } from '../dom/amendment.js';
import type { ElementNode } from '../dom/tree.js';
import { amendmentsOf, closingsOf } from '../parts/open-parts.js';
import { standingActs } from '../parts/part.js';
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
import { isSpecimen } from './specimen-path.js';
import type { MediaEnvironment } from '../conditions/environment.js';
import { otherLighting, type Lighting, type LightingMarker, type LightingSignal } from '../veneer/lighting.js';
import { compileVeneer, type CompileOptions } from '../veneer/compile-veneer.js';
import type { OwnCss } from '../veneer/own-css.js';
import type { Override } from '../veneer/override.js';
import { paletteIn, type Palette } from '../veneer/palette.js';
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
  /** What calls the lighting it is in; `null` in the light one. @internal */
  readonly litBy: LightingSignal | null;
  /** Parts shown otherwise than they were captured. @internal */
  readonly openedParts: readonly number[];
  readonly overrides: readonly Override[];
  readonly palette: Palette;
  /** What of the veneer no override can say. */
  readonly ownCss: readonly OwnCss[];
  /** What is left alone. */
  readonly exceptions: Exceptions;
  /** The veneer compiled. */
  readonly css: string;
  /** @internal */
  readonly parts: readonly { readonly part: Part; readonly selectors: SelectorList }[];
}

/** How the sheet of a site is written. */
export function sheetOptionsOf(options: SheetOptions): SheetOptions {
  const { prefix, asValues, names, hoverOnly, flatFor, isByLetters } = options;
  return { prefix, asValues, names, hoverOnly, flatFor, isByLetters };
}

/** What the site's sheet is compiled with besides its overrides. */
export function compileOptionsOf({ source, palette, ownCss }: SiteModel): CompileOptions {
  return { ...sheetOptionsOf(source), palette, ownCss, parts: source.parts };
}

/** Opens a site without a veneer, its hidden parts closed. */
export function openSite(source: SiteSource): SiteModel {
  closedBySource.delete(source);
  const closed = closedPages(source, null);
  return {
    source,
    closed,
    opened: closed,
    pages: closed,
    litBy: null,
    openedParts: [],
    overrides: [],
    palette: { swatches: [], roles: [] },
    ownCss: [],
    exceptions: NO_EXCEPTIONS,
    css: '',
    parts: source.parts.map((part) => ({ part, selectors: parseSelectorList(part.selector) })),
  };
}

const closedBySource = new WeakMap<SiteSource, Map<string, LazyPages>>();

/** Pages of a site as they were captured, in the lighting that a signal calls; those that were read once are kept. */
function closedPages(source: SiteSource, told: LightingSignal | null): LazyPages {
  let known = closedBySource.get(source);
  if (!known) closedBySource.set(source, (known = new Map()));
  const key = JSON.stringify(told);
  let pages = known.get(key);
  if (!pages) {
    const [ids, aside] = pageIds(source);
    pages = new LazyPages(
      ids,
      (id) => {
        const page = sourceOf(source, id);
        if (told?.kind !== 'marker') {
          const bare = parseSource(source, page, undefined, told ? DARK : {});
          const marks = templateMarks(source, bare);
          return marks.size === 0 ? bare : parseSource(source, page, marks, told ? DARK : {});
        }
        const unlit = pageIn(closedPages(source, null), id);
        return parseSource(source, page, together(templateMarks(source, unlit), markedOn(unlit, told)));
      },
      aside,
    );
    known.set(key, pages);
  }
  return pages;
}

/** Pages that visitors get, and the specimen, which stands aside. */
function pageIds({ pages }: SiteSource): readonly [shown: number[], aside: number[]] {
  const isAside = (page: SiteSource['pages'][number]): boolean => isSpecimen(page);
  return [pages.filter((page) => !isAside(page)).map(({ id }) => id), pages.filter(isAside).map(({ id }) => id)];
}

const revealed = new WeakMap<SiteModel, SiteModel>();

/** The site with the specimen among its pages, as it is looked at where nothing that could show is to be passed over. */
export function withSpecimen(site: SiteModel): SiteModel {
  if (site.pages.aside.length === 0) return site;
  let whole = revealed.get(site);
  if (!whole)
    revealed.set(
      site,
      (whole = {
        ...site,
        closed: site.closed.revealed(),
        opened: site.opened.revealed(),
        pages: site.pages.revealed(),
      }),
    );
  return whole;
}

/** What the templates that parts are in change on a page. */
function templateMarks({ parts }: SiteSource, page: Page): Amendments {
  const acts = standingActs(parts);
  return acts.length === 0 ? NONE : amendmentsOf(page, acts);
}

const NONE: Amendments = new Map();
const DARK = { colorScheme: 'dark' } as const;

/** The marker that calls the second lighting, put on a page. */
function markedOn({ document }: Page, { on, attribute, value }: LightingMarker): Amendments {
  const element =
    on === 'html' ? document.rootElement : document.rootElement.children.find(({ localName }) => localName === 'body');
  if (!element) return NONE;
  return new Map([
    [
      element.number,
      [
        attribute === 'class'
          ? { act: 'add-class', name: value, value: '' }
          : { act: 'set-attribute', name: attribute, value },
      ],
    ],
  ]);
}

const readers = new WeakMap<SiteSource['stylesheets'], LoadSheet>();

/** Reader of a site's sheets, the same for all its pages, which have in common what they both link. */
function sheetsOf({ stylesheets }: SiteSource): LoadSheet {
  let reader = readers.get(stylesheets);
  if (!reader)
    readers.set(stylesheets, (reader = (path) => (Object.hasOwn(stylesheets, path) ? stylesheets[path] : null)));
  return reader;
}

function parseSource(
  source: SiteSource,
  { path, html }: SiteSource['pages'][number],
  amendments?: Amendments,
  environment: Partial<MediaEnvironment> = {},
): Page {
  return parsePage(html, {
    path,
    loadSheet: sheetsOf(source),
    veneerPlace: source.veneerPlace,
    amendments,
    environment,
  });
}

/** The site with some of its parts shown otherwise than they were captured: hidden ones opened, as their openers say, others put away. */
export function openParts(site: SiteModel, partIds: readonly number[]): SiteModel {
  const [ids, aside] = [[...site.pages.keys()], site.pages.aside];
  const opened =
    partIds.length === 0
      ? site.closed
      : new LazyPages(
          ids,
          (id) => {
            const closed = pageIn(site.closed, id);
            const amendments = toggledOn(site, closed, partIds);
            return amendments.size === 0
              ? closed
              : parseSource(
                  site.source,
                  sourceOf(site.source, id),
                  together(together(templateMarks(site.source, closed), lightingMarks(site, closed)), amendments),
                  closed.environment,
                );
          },
          aside,
        );
  return {
    ...site,
    opened,
    openedParts: partIds,
    pages: new LazyPages(ids, (id) => withVeneer(pageIn(opened, id), site.css), aside),
  };
}

/** What calls the site's lighting on a page, where that is a marker on it. */
export function lightingMarks({ litBy }: SiteModel, page: Page): Amendments {
  return litBy?.kind === 'marker' ? markedOn(page, litBy) : NONE;
}

function together(a: Amendments, b: Amendments): Amendments {
  return new Map(
    [...new Set([...a.keys(), ...b.keys()])].map((number) => [
      number,
      [...(a.get(number) ?? []), ...(b.get(number) ?? [])],
    ]),
  );
}

/** The site in one of its lightings; one that has no second is lit as it is. */
export function lightSite(site: SiteModel, lighting: Lighting): SiteModel {
  const palette = paletteIn(site.palette, site.palette.second ? lighting : 'light');
  const litBy = palette.lighting === 'inverted' ? (palette.second?.told ?? null) : null;
  if (JSON.stringify(litBy) === JSON.stringify(site.litBy))
    return palette === site.palette ? site : { ...site, palette };
  const lit = openParts({ ...site, palette, litBy, closed: closedPages(site.source, litBy) }, site.openedParts);
  // Until it is laid out anew, a page lies as it did in the other lighting.
  const layoutsOf = (id: number): Page['layouts'] =>
    site.pages.unread.includes(id) ? undefined : pageIn(site.pages, id).layouts;
  return {
    ...lit,
    pages: new LazyPages(
      [...site.pages.keys()],
      (id) => ({ ...pageIn(lit.pages, id), layouts: layoutsOf(id) }),
      site.pages.aside,
    ),
  };
}

const otherwiseLit = new WeakMap<SiteModel, SiteModel>();

/** The site in each of its lightings, the one it is in first. */
export function inEachLighting(site: SiteModel): readonly [SiteModel, ...SiteModel[]] {
  if (!site.palette.second) return [site];
  let other = otherwiseLit.get(site);
  if (!other) otherwiseLit.set(site, (other = lightSite(site, otherLighting(site.palette.lighting ?? 'light'))));
  return [site, other];
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

/** Attribute changes by which a page is shown in the site's lighting, with parts shown otherwise than they were captured. */
export function shownOtherwise(site: SiteModel, pageId: number, partIds: readonly number[]): Amendments {
  const closed = pageIn(site.closed, pageId);
  return together(lightingMarks(site, closed), toggledOn(site, closed, partIds));
}

/** Attribute changes on a page as it was captured that open hidden parts by their openers, and put away those that have none. */
function toggledOn(site: SiteModel, closed: Page, partIds: readonly number[]): Amendments {
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

/** The site with other overrides or another palette, in the lighting it is in; only the veneer is parsed again. */
export function dressSite(
  site: SiteModel,
  overrides: readonly Override[],
  palette: Palette,
  { exceptions = site.exceptions, ownCss = site.ownCss }: Partial<Pick<SiteModel, 'exceptions' | 'ownCss'>> = {},
): SiteModel {
  const lighting = site.palette.lighting ?? 'light';
  const lit = { ...lightSite({ ...site, palette: paletteIn(palette, lighting) }, lighting), ownCss };
  const css = compileVeneer(overrides, compileOptionsOf(lit));
  return {
    ...lit,
    overrides,
    exceptions,
    css,
    pages: lit.pages.changed(
      (id) => pageIn(lit.opened, id),
      (page) => withVeneer(page, css),
    ),
  };
}

/** The site with a stylesheet in the veneer's place that no overrides are known of. */
export function dressSheet(site: SiteModel, css: string): SiteModel {
  return {
    ...site,
    css,
    overrides: [],
    ownCss: [],
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

/** Whether an element stands in a part, or is one of its outermost. */
export function isInPart(site: SiteModel, page: Page, element: ElementNode, partId: number): boolean {
  const selectors = site.parts.find(({ part }) => part.id === partId)?.selectors ?? [];
  const context = restContext(page.document);
  for (let node: ElementNode | null = element; node; node = node.flatParent)
    if (matchesAny(selectors, node, context)) return true;
  return false;
}

/** The part an element belongs to: that of its nearest ancestor that is one. */
export function partOf(site: SiteModel, page: Page, element: ElementNode): Part | null {
  const context = restContext(page.document);
  for (let node: ElementNode | null = element; node; node = node.flatParent) {
    for (const { part, selectors } of site.parts) if (matchesAny(selectors, node, context)) return part;
  }
  return null;
}
