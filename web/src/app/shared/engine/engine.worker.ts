import {
  dressSite, elementOf, explain, glossOf, inspect, judgeOverride, openSite, overridesOfCell, pageOf, pairMatrix, paletteAsSeen, partProgress, planOverride, pointerStates, rewriteStates, shortName, viewIn,
  type SiteModel,
} from '@upper-veneer/core';
import { expose } from 'comlink';
import { CHECKED_PROPERTIES } from './checked-properties';
import type { EngineApi } from './engine-api';

let site: SiteModel | null = null;

function opened(): SiteModel {
  if (!site) throw new Error('No site is open');
  return site;
}

const engine: EngineApi = {
  open(source) {
    site = openSite(source);
  },
  dress(overrides, palette) {
    site = dressSite(opened(), overrides, palette);
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
  judgePalette: (palette) => ({ pairs: pairMatrix(palette), seen: paletteAsSeen(palette) }),
  colors(pageId, width) {
    const page = pageOf(opened(), pageId);
    const view = viewIn(page, page.document.rootElement, 'rest', width);
    return { properties: CHECKED_PROPERTIES, values: page.document.elements.map((element) => CHECKED_PROPERTIES.map((property) => view.style(element).resolved(property))) };
  },
};

/** Word for a kind of element in a sentence. */
function kindWord(localName: string): string {
  const words: Readonly<Record<string, string>> = { a: 'link', button: 'button', input: 'field', p: 'paragraph', h1: 'heading', h2: 'heading', h3: 'heading', label: 'label', s: 'struck-through price' };
  return words[localName] ?? 'element';
}

expose(engine);
