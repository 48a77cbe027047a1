import { SelectorError, parseSelectorList } from '../selectors/parse-selector.js';
import type { Spot } from '../veneer/override.js';
import { SAME_TO_THE_EYE, deltaE2000OfLab, labOf } from '../color/delta-e.js';
import { hexOf } from '../color/read-notation.js';
import type { ElementNode } from '../dom/tree.js';
import type { Page } from '../resolve/page.js';
import { sourceOf } from '../resolve/explain.js';
import { StyleShare } from '../resolve/style-share.js';
import { StyleView } from '../resolve/style-view.js';
import { partOf, type SiteModel } from '../site/site-model.js';
import { unreadPages, type UnreadPage } from '../site/unread.js';
import type { Color } from '../values/color.js';
import { colorOfCss } from '../veneer/palette.js';
import { CENSUS_STATES, allInState, type CensusState } from './census-states.js';
import { feedingProperties } from '../resolve/feeding-properties.js';
import { createFontCounter, type FontUse } from './fonts.js';
import { boxIn, type PageMeasure } from './page-measure.js';
import { looksAlike, paintingsOf, type Painting, type Use } from './paintings.js';
import { listSheets, type SheetSummary } from './sheets.js';
import { visibleFills } from './visible-fills.js';

/** A place where a colour is painted. */
export interface CensusPlace {
  readonly pageId: number;
  readonly element: number;
  readonly pseudo: string;
  readonly property: string;
  readonly state: CensusState;
  readonly use: Use;
  /** Area it shows, px²; 0 where nothing was measured, and in states other than rest. */
  readonly area: number;
  readonly partId: number | null;
  /** Whether it has no box as the page stands. */
  readonly isHidden: boolean;
}

/** A declaration that paints a colour. */
export interface CensusDeclaration {
  readonly declaration: string;
  /** Sheet, `style attribute`, `attribute`, `browser default` or `initial value`. */
  readonly sheet: string;
  /** Line from 1; 0 where it has none. */
  readonly line: number;
  readonly selector: string;
  readonly places: number;
}

export interface UseCount {
  readonly use: Use;
  /** Elements and pseudo-elements. */
  readonly elements: number;
  readonly area: number;
}

/** One painted colour with all its places. */
export interface CensusColor {
  /** Hex, with alpha digits where it is not opaque. */
  readonly hex: string;
  readonly uses: readonly UseCount[];
  /** Elements and pseudo-elements that paint it in any state. */
  readonly elements: number;
  /** Area it shows at rest over all pages, px². */
  readonly area: number;
  readonly states: readonly CensusState[];
  readonly pageIds: readonly number[];
  readonly partIds: readonly number[];
  readonly places: readonly CensusPlace[];
  readonly declarations: readonly CensusDeclaration[];
  /** Hex of the colour that stands for its near-duplicates; its own when it stands for itself. */
  readonly group: string;
}

/** A custom property that holds a colour, with what follows it. */
export interface FeedingProperty {
  readonly name: string;
  readonly value: string;
  readonly hex: string;
  readonly sheet: string;
  readonly line: number;
  readonly selector: string;
  /** Places that change with it, at rest. */
  readonly places: number;
  readonly elements: number;
  readonly pageIds: readonly number[];
  /** An element whose declaration of it decides. */
  readonly setOn: Spot;
  /** Selector that gathers all elements on which this declaration is made; `null` where its rule asks for more than names. */
  readonly group: string | null;
  /** Elements that change with it, at rest, the first `MOST_FOLLOWERS` of them. */
  readonly followers: readonly Spot[];
}

/** Elements that are handed over for one custom property. */
const MOST_FOLLOWERS = 2000;

export interface Census {
  readonly colors: readonly CensusColor[];
  readonly properties: readonly FeedingProperty[];
  readonly fonts: readonly FontUse[];
  readonly sheets: readonly SheetSummary[];
  /** Elements looked at, and those with a box. */
  readonly elements: number;
  readonly shown: number;
  /** Pages of which something was not read: the counts over them are too low. */
  readonly unread: readonly UnreadPage[];
}

export interface CensusProgress {
  readonly page: string;
  /** 0–1. */
  readonly share: number;
}

/**
 * Counts every colour a site paints, over all pages and states, at one viewport width.
 * A generator: it yields its progress, so that a caller can show it and stop.
 * @param measures what frames measured, by page; without one a page's areas are 0.
 */
export function* takeCensus(
  site: SiteModel,
  measures: readonly PageMeasure[],
  width: number,
): Generator<CensusProgress, Census> {
  const counter = createCounter();
  const fonts = createFontCounter();
  const points = pointsPerPage(measures.length);
  let elements = 0;
  let shown = 0;
  let done = 0;
  const steps = site.pages.size * CENSUS_STATES.length;
  for (const [pageId, page] of site.pages) {
    const measure = measures.find((candidate) => candidate.pageId === pageId) ?? null;
    const share = new StyleShare();
    const rest = new StyleView(page, { environment: { width }, share });
    fonts.add(rest, measure);
    const parts = new Map<ElementNode, number | null>();
    const partIdOf = (element: ElementNode): number | null => {
      let id = parts.get(element);
      if (id === undefined) parts.set(element, (id = partOf(site, page, element)?.id ?? null));
      return id;
    };
    const restPaintings = new Map<ElementNode, readonly Painting[]>();
    const hidden = hiddenElements(page, rest, measure);
    for (const element of page.document.elements) {
      const paintings = paintingsOf(rest, element);
      restPaintings.set(element, paintings);
      elements += 1;
      if (!hidden.has(element)) shown += 1;
    }
    const areaOf = measure ? areasOf(rest, measure, restPaintings, points) : () => 0;
    for (const [element, paintings] of restPaintings) {
      for (const painting of paintings)
        counter.add(painting, {
          pageId,
          element: element.number,
          pseudo: painting.pseudo,
          property: painting.property,
          state: 'rest',
          use: painting.use,
          area: hidden.has(element) ? 0 : areaOf(element, painting),
          partId: partIdOf(element),
          isHidden: hidden.has(element),
        });
    }
    yield { page: page.path, share: (done += 1) / steps };
    for (const state of CENSUS_STATES) {
      if (state === 'rest') continue;
      const states = allInState(page.document, state);
      const view = new StyleView(page, { environment: { width }, states, share });
      const touched =
        state === 'visited'
          ? insideOf(page, new Set(states.keys()))
          : page.document.elements.filter((element) => !looksAlike(view, rest, element));
      for (const element of touched) {
        const before = restPaintings.get(element) ?? [];
        for (const painting of paintingsOf(view, element)) {
          if (
            before.some(
              (other) =>
                other.pseudo === painting.pseudo &&
                other.property === painting.property &&
                other.index === painting.index &&
                hexOf(other.color) === hexOf(painting.color),
            )
          )
            continue;
          counter.add(painting, {
            pageId,
            element: element.number,
            pseudo: painting.pseudo,
            property: painting.property,
            state,
            use: painting.use,
            area: 0,
            partId: partIdOf(element),
            isHidden: hidden.has(element),
          });
        }
      }
      yield { page: page.path, share: (done += 1) / steps };
    }
  }
  return {
    ...counter.result(),
    fonts: fonts.result(),
    sheets: listSheets(site),
    elements,
    shown,
    unread: unreadPages(site),
  };
}

/** Elements that are among some, or stand in one of them: having been visited changes no others. */
function insideOf(page: Page, elements: ReadonlySet<ElementNode>): ElementNode[] {
  return page.document.elements.filter((element) => {
    for (let node: ElementNode | null = element; node; node = node.flatParent) if (elements.has(node)) return true;
    return false;
  });
}

/** Points of the grid that areas are taken from: of the whole site, and of one page at most and at least. */
const SITE_POINTS = 2_000_000;
const MOST_POINTS = 500_000;
const LEAST_POINTS = 6_000;

function pointsPerPage(pages: number): number {
  return Math.min(MOST_POINTS, Math.max(LEAST_POINTS, Math.floor(SITE_POINTS / Math.max(1, pages))));
}

/** Elements without a box: as measured, or else by `display: none` on them or an ancestor. */
function hiddenElements(page: Page, view: StyleView, measure: PageMeasure | null): ReadonlySet<ElementNode> {
  const hidden = new Set<ElementNode>();
  for (const element of page.document.elements) {
    const parent = element.flatParent;
    if ((parent && hidden.has(parent)) || view.style(element).resolved('display') === 'none') hidden.add(element);
    else if (
      measure &&
      boxIn(measure, element.number) === null &&
      view.style(element).resolved('display') !== 'contents'
    )
      hidden.add(element);
  }
  return hidden;
}

function areasOf(
  view: StyleView,
  measure: PageMeasure,
  paintings: ReadonlyMap<ElementNode, readonly Painting[]>,
  points: number,
): (element: ElementNode, painting: Painting) => number {
  const stops = new Map<ElementNode, number>();
  const opacities = new Map<number, number>();
  for (const [element, list] of paintings) {
    const own = list.filter(({ pseudo }) => pseudo === '');
    const gradient = own.filter(({ use }) => use === 'gradient');
    const hasPicture =
      /url\(/.test(view.style(element).resolved('background-image')) ||
      element.localName === 'img' ||
      element.localName === 'iframe' ||
      element.localName === 'video';
    const fill = own.find(({ use }) => use === 'fill')?.color.alpha ?? 0;
    const under = 1 - (gradient.length > 0 ? Math.min(...gradient.map(({ color }) => color.alpha ?? 1)) : 0);
    stops.set(element, gradient.length);
    opacities.set(element.number, hasPicture ? 1 : Math.min(1, 1 - under * (1 - fill)));
  }
  const visible = visibleFills(view, measure.layout, (number) => opacities.get(number) ?? 0, points);
  const isPictured = (element: ElementNode): boolean => /url\(/.test(view.style(element).resolved('background-image'));
  return (element, { use, pseudo, property }) => {
    const box = boxIn(measure, element.number);
    if (pseudo !== '') {
      const [width, height] = measure.pseudoSizes[`${element.number}:${pseudo}`] ?? [0, 0];
      return use === 'fill' || use === 'icon'
        ? width * height * (use === 'icon' ? GLYPH_INK : 1)
        : use === 'gradient'
          ? (width * height) / 2
          : 0;
    }
    if (!box) return 0;
    const seen = visible.get(element.number) ?? 0;
    if (use === 'text') return property === 'color' ? box.ink : 0;
    // A picture or gradient on a fill hides it.
    if (use === 'fill') return isPictured(element) || (stops.get(element) ?? 0) > 0 ? 0 : seen;
    if (use === 'gradient') return isPictured(element) ? 0 : seen / Math.max(1, stops.get(element) ?? 1);
    if (use === 'edge') {
      const side = property.split('-')[1];
      return (
        Number.parseFloat(view.style(element).resolved(`border-${side}-width`)) *
        (side === 'top' || side === 'bottom' ? box.width : box.height)
      );
    }
    if (use === 'ring')
      return 2 * (box.width + box.height) * Number.parseFloat(view.style(element).resolved('outline-width'));
    return use === 'icon' ? box.width * box.height : 0;
  };
}

/** Share of its box that a glyph drawn as an icon inks (common practice). */
const GLYPH_INK = 0.3;

interface Gathered {
  readonly color: Color;
  readonly places: CensusPlace[];
  readonly declarations: Map<string, { readonly source: Omit<CensusDeclaration, 'places'>; places: number }>;
}

function createCounter() {
  const colors = new Map<string, Gathered>();
  const properties = new Map<
    string,
    {
      readonly property: Omit<FeedingProperty, 'places' | 'elements' | 'pageIds' | 'followers'>;
      places: number;
      readonly elements: Map<string, Spot>;
      readonly pageIds: Set<number>;
    }
  >();
  return {
    add(painting: Painting, place: CensusPlace): void {
      const hex = hexOf(painting.color);
      let gathered = colors.get(hex);
      if (!gathered) colors.set(hex, (gathered = { color: painting.color, places: [], declarations: new Map() }));
      gathered.places.push(place);
      const source = declarationOf(painting);
      const key = `${source.sheet}\n${source.line}\n${source.selector}\n${source.declaration}`;
      const entry = gathered.declarations.get(key);
      if (entry) entry.places += 1;
      else gathered.declarations.set(key, { source, places: 1 });
      if (place.state !== 'rest' || !painting.decided) return;
      for (const { name, style, declared } of feedingProperties(painting.style, painting.decided)) {
        const value = style.customProperty(name) ?? '';
        const color = colorOfCss(value);
        if (!color) continue;
        // The page's own declaration is what is changed, whether or not an override of ours lies over it; our names for the palette have none.
        const theirs = sourceOf(declared.block, 0).isVeneer
          ? style.ranked(name).find(({ block }) => !sourceOf(block, 0).isVeneer)
          : declared;
        if (!theirs) continue;
        const from = sourceOf(theirs.block, theirs.entry.declaration.start);
        const id = `${name}\n${from.sheet}\n${from.at?.offset ?? place.element}`;
        let feeding = properties.get(id);
        if (!feeding) {
          properties.set(
            id,
            (feeding = {
              property: {
                name,
                value: value.trim(),
                hex: hexOf(color),
                sheet: from.sheet || 'style attribute',
                line: from.at?.line ?? 0,
                selector: from.selector,
                setOn: { pageId: place.pageId, element: style.element.number },
                group: groupOf(theirs.block.rule?.selectorText ?? ''),
              },
              places: 0,
              elements: new Map(),
              pageIds: new Set(),
            }),
          );
        }
        feeding.places += 1;
        feeding.elements.set(`${place.pageId}:${place.element}`, { pageId: place.pageId, element: place.element });
        feeding.pageIds.add(place.pageId);
      }
    },
    result(): Pick<Census, 'colors' | 'properties'> {
      const list = [...colors]
        .map(([hex, gathered]) => summarize(hex, gathered))
        .sort((a, b) => b.area - a.area || b.elements - a.elements || (a.hex < b.hex ? -1 : 1));
      return {
        colors: withGroups(list),
        properties: [...properties.values()]
          .map(({ property, places, elements, pageIds }) => ({
            ...property,
            places,
            elements: elements.size,
            pageIds: [...pageIds],
            followers: [...elements.values()].slice(0, MOST_FOLLOWERS),
          }))
          .sort((a, b) => b.places - a.places || (a.name < b.name ? -1 : 1)),
      };
    },
  };
}

/** The selectors of a rule as one, where they ask for no state and no pseudo-element. */
function groupOf(selector: string): string | null {
  try {
    const list = parseSelectorList(selector);
    const isPlain = list.every(
      ({ pseudoElements, compounds }) =>
        pseudoElements.length === 0 &&
        compounds.every(({ pseudoClasses }) =>
          pseudoClasses.every((test) => test.kind === 'named' && test.name === 'root'),
        ),
    );
    if (!isPlain || list.length === 0) return null;
    return list.length === 1 ? list[0].text : `:is(${selector})`;
  } catch (error) {
    if (error instanceof SelectorError) return null;
    throw error;
  }
}

const keyOf = ({ pageId, element, pseudo }: CensusPlace): string => `${pageId}:${element}:${pseudo}`;

function summarize(hex: string, { places, declarations }: Gathered): Omit<CensusColor, 'group'> {
  const uses = [...new Set(places.map(({ use }) => use))]
    .map((use): UseCount => {
      const own = places.filter((place) => place.use === use);
      return { use, elements: new Set(own.map(keyOf)).size, area: own.reduce((sum, { area }) => sum + area, 0) };
    })
    .sort((a, b) => b.area - a.area || b.elements - a.elements);
  return {
    hex,
    uses,
    elements: new Set(places.map(keyOf)).size,
    area: uses.reduce((sum, { area }) => sum + area, 0),
    states: CENSUS_STATES.filter((state) => places.some((place) => place.state === state)),
    pageIds: [...new Set(places.map(({ pageId }) => pageId))],
    partIds: [...new Set(places.flatMap(({ partId }) => (partId === null ? [] : [partId])))],
    places,
    declarations: [...declarations.values()]
      .map(({ source, places: count }) => ({ ...source, places: count }))
      .sort((a, b) => b.places - a.places),
  };
}

/** Near-duplicates: each colour joins the most painted one within `SAME_TO_THE_EYE` of the same opacity. */
function withGroups(colors: readonly Omit<CensusColor, 'group'>[]): CensusColor[] {
  const leaders: { readonly hex: string; readonly lab: ReturnType<typeof labOf>; readonly alpha: number }[] = [];
  return colors.map((color) => {
    const value = colorOfCss(color.hex);
    if (!value) return { ...color, group: color.hex };
    const lab = labOf(value);
    const alpha = value.alpha ?? 1;
    const leader = leaders.find(
      (other) => Math.abs(other.alpha - alpha) < 0.02 && deltaE2000OfLab(other.lab, lab) <= SAME_TO_THE_EYE,
    );
    if (!leader) leaders.push({ hex: color.hex, lab, alpha });
    return { ...color, group: leader?.hex ?? color.hex };
  });
}

function declarationOf({ decided, property }: Painting): Omit<CensusDeclaration, 'places'> {
  if (!decided) return { declaration: property, sheet: 'initial value', line: 0, selector: '' };
  const { name, value } = decided.entry.declaration;
  const source = sourceOf(decided.block, decided.entry.declaration.start);
  const sheet = {
    rule: source.sheet,
    'style-attribute': 'style attribute',
    'presentational-attribute': 'attribute',
    browser: 'browser default',
  }[source.kind];
  return {
    declaration: `${name}: ${value}${decided.important ? ' !important' : ''}`,
    sheet,
    line: source.at?.line ?? 0,
    selector: source.selector,
  };
}
