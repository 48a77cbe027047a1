import { hexOf } from '../color/read-notation.js';
import type { ElementNode } from '../dom/tree.js';
import type { Page } from '../resolve/page.js';
import { StyleShare } from '../resolve/style-share.js';
import { StyleView } from '../resolve/style-view.js';
import { partOf, type SiteModel } from '../site/site-model.js';
import { unreadPages, type UnreadPage } from '../site/unread.js';
import { CENSUS_STATES, allInState } from './census-states.js';
import { createFontCounter, type FontUse } from './fonts.js';
import { boxIn, type PageMeasure } from './page-measure.js';
import { looksAlike, paintingsOf, type Painting } from './paintings.js';
import { listSheets, type SheetSummary } from './sheets.js';
import type { CensusColor, FeedingProperty } from './census-color.js';
import { createCounter } from './color-counter.js';
import { areasOf, pointsPerPage } from './painted-areas.js';

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
