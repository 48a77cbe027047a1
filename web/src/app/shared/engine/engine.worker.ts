import {
  amendmentsOf, dressSite, elementOf, explain, glossOf, inspect, judgeOverride, openParts, openSite, overridesOfCell, pageOf, pairMatrix, paletteAsSeen, partProgress, planOverride, pointerStates, proposeParts, reachabilityOf, readExceptions, rewriteStates, matchingElements, sheetsInOrder, shortName, viewIn,
  takeCensus, type CensusColor, type SiteModel,
} from '@upper-veneer/core';
import { expose } from 'comlink';
import { CHECKED_PROPERTIES } from './checked-properties';
import type { EngineApi } from './engine-api';

let site: SiteModel | null = null;
let counted: readonly CensusColor[] = [];
/** Counts censuses begun and stopped, so that an older one ends. */
let censusRun = 0;

function opened(): SiteModel {
  if (!site) throw new Error('No site is open');
  return site;
}

const engine: EngineApi = {
  open(source) {
    site = openSite(source);
  },
  openParts(partIds) {
    site = openParts(opened(), partIds);
  },
  amendments(pageId, partIds) {
    const closed = opened().closed.get(pageId);
    const openers = opened().source.parts.filter(({ id }) => partIds.includes(id)).flatMap((part) => part.openers);
    return closed ? [...amendmentsOf(closed, openers)] : [];
  },
  sheetsInOrder(pageId) {
    const page = opened().source.pages.find(({ id }) => id === pageId);
    return page ? sheetsInOrder(page.html, page.path) : [];
  },
  reachabilities: () => opened().parts.flatMap(({ part, selectors }) => {
    const found = [...opened().closed].map(([pageId, page]) => ({ pageId, element: matchingElements(page, selectors).at(0) })).filter(({ element }) => element !== undefined);
    return found[0]?.element ? [[part.id, reachabilityOf(found[0].element), found.map(({ pageId }) => pageId)] as const] : [];
  }),
  async takeCensus(measures, width, onProgress) {
    const run = (censusRun += 1);
    const steps = takeCensus(opened(), measures, width);
    for (;;) {
      const step = steps.next();
      if (step.done) {
        counted = step.value.colors;
        return { ...step.value, colors: counted.map(({ places, ...color }) => ({ ...color, placeCount: places.length })) };
      }
      onProgress(step.value);
      // Lets other questions in, and the wish to stop.
      await new Promise((done) => setTimeout(done));
      if (run !== censusRun) return null;
    }
  },
  stopCensus() {
    censusRun += 1;
  },
  censusPlaces: (hex) => (counted.find((color) => color.hex === hex)?.places ?? []).slice(0, MOST_PLACES),
  proposeParts: () => proposeParts(opened().closed),
  dress(overrides, palette, exceptions) {
    site = dressSite(opened(), overrides, palette, readExceptions(exceptions));
    return { css: site.css, frameCss: rewriteStates(site.css) };
  },
  inspect: (target, width) => inspect(opened(), target.pageId, target.element, target.pseudo, width),
  explain(target, property, state, width) {
    const page = pageOf(opened(), target.pageId);
    const element = elementOf(page, target.element);
    const { inheritedFrom, ...rest } = explain(viewIn(page, element, state, width), element, property, target.pseudo);
    return { ...rest, inheritedFrom: inheritedFrom ? { element: inheritedFrom.number, label: shortName(inheritedFrom) } : null };
  },
  plan: (wish) => planOverride(opened(), wish),
  overridesOfCell: (cell) => overridesOfCell(opened(), cell),
  judge(override, width) {
    const element = elementOf(pageOf(opened(), override.pageId), override.element);
    return { findings: judgeOverride(opened(), override, width), gloss: glossOf(opened(), override, kindWord(element.localName)) };
  },
  progress: (pageId, width) => partProgress(opened(), pageId, width),
  forcedStates(target, state) {
    const page = pageOf(opened(), target.pageId);
    return [...pointerStates(page.document, elementOf(page, target.element), state)].map(([element, names]) => ({ element: element.number, names: [...names] }));
  },
  judgePalette: (palette, severity) => ({ pairs: pairMatrix(palette), seen: paletteAsSeen(palette, severity) }),
  colors(pageId, width) {
    const page = pageOf(opened(), pageId);
    const view = viewIn(page, page.document.rootElement, 'rest', width);
    return { properties: CHECKED_PROPERTIES, values: page.document.elements.map((element) => CHECKED_PROPERTIES.map((property) => view.style(element).resolved(property))) };
  },
};

/** Places of one colour that are handed over at a time. */
const MOST_PLACES = 3000;

/** Word for a kind of element in a sentence. */
function kindWord(localName: string): string {
  const words: Readonly<Record<string, string>> = { a: 'link', button: 'button', input: 'field', p: 'paragraph', h1: 'heading', h2: 'heading', h3: 'heading', label: 'label', s: 'struck-through price' };
  return words[localName] ?? 'element';
}

expose(engine);
