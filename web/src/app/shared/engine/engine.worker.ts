import '../language/speak-in-worker';
import {
  asPainted,
  checkSelector,
  colorOfCss,
  coverPicture,
  companionsOf,
  copyLook,
  dressSite,
  elementOf,
  explain,
  familiesOf,
  findElements,
  flashOfPly,
  flashOfRole,
  flashOfStep,
  followersOf,
  glossOf,
  hexOf,
  inspect,
  judgeLightings,
  layOut,
  lightSite,
  matchingElements,
  namedValues,
  openParts,
  openSite,
  overridesOfCell,
  pageOf,
  partProgress,
  pasteLook,
  planAll,
  pointerStates,
  proposeParts,
  proposeRow,
  proposeStates,
  reachabilityOf,
  reachOffers,
  readyGrounds,
  readExceptions,
  readPages,
  rewriteStates,
  rolePropertyNames,
  sheetsInOrder,
  shortName,
  siteWideTargets,
  StyleView,
  takeCensus,
  tidySteps,
  shownOtherwise,
  viewIn,
  withSpecimen,
  whatPaints,
  whereItShows,
  usualShape,
  whyImportant,
  rangeOverPicture,
  worstOverPicture,
  type CensusColor,
  type Lighting,
  type SiteModel,
} from '@upper-veneer/core';
import { expose } from 'comlink';
import { toPageLayout } from '../frame/measured-layout';
import { CHECKED_PROPERTIES } from './checked-properties';
import type { EngineApi, FailingOverride, PagesRead } from './engine-api';
import { driftAnswers } from './drift-answers';
import { inTurns } from './in-turns';
import { kitAnswers } from './kit-answers';
import { matchAnswers } from './match-answers';
import { paletteAnswers } from './palette-answers';
import { proofAnswers } from './proof-answers';
import { settingsAnswers } from './settings-answers';
import { templateAnswers } from './template-answers';
import { trialAnswers } from './trial-answers';
import { say, spoken, wordsOf } from '@upper-veneer/words';
import { inWords } from './in-words';
import { sheetAnswers } from './sheet-answers';

let site: SiteModel | null = null;
/** The lighting that is looked at, where the site has it. */
let lighting: Lighting = 'light';
let counted: readonly CensusColor[] = [];
/** Counts verdicts begun, so that an older one ends. */
let judgeRun = 0;
/** Counts tidyings begun, so that an older one ends. */
let tidyRun = 0;
/** Counts rounds over all overrides, so that an older one ends. */
let failingRun = 0;
/** Counts censuses begun and stopped, so that an older one ends. */
let censusRun = 0;
function opened(): SiteModel {
  if (!site) throw new Error(wordsOf('screen.no-site-open'));
  return site;
}

/** The site as what is done on some pages is to see it: the specimen among its pages where it is one of them. */
function openedAt(...pageIds: readonly number[]): SiteModel {
  const own = opened();
  return own.pages.aside.some((id) => pageIds.includes(id)) ? withSpecimen(own) : own;
}

/** Reads the pages nobody has asked for yet, other questions between; those of another site where one is opened meanwhile. */
async function readAll(onProgress: (progress: PagesRead) => void = () => undefined): Promise<void> {
  const { closed } = opened();
  let shown = 0;
  for (const step of readPages(opened())) {
    if (performance.now() - shown > 60) {
      shown = performance.now();
      onProgress(step);
    }
    await new Promise((done) => setTimeout(done));
    if (site?.closed !== closed) return readAll(onProgress);
  }
}

const engine: EngineApi = {
  open(source) {
    site = openSite(source);
  },
  read: (onProgress) => readAll(onProgress),
  lay(pageId, layout) {
    if (opened().pages.has(pageId)) site = layOut(opened(), pageId, toPageLayout(layout));
  },
  readyGrounds(pageId, width) {
    if (opened().pages.has(pageId)) readyGrounds(pageOf(opened(), pageId), width);
  },
  openParts(partIds) {
    site = openParts(opened(), partIds);
  },
  light(wanted) {
    lighting = wanted;
    if (site) site = lightSite(site, wanted);
  },
  amendments: (pageId, partIds) => [...shownOtherwise(opened(), pageId, partIds)],
  sheetsInOrder(pageId) {
    const page = opened().source.pages.find(({ id }) => id === pageId);
    return page ? sheetsInOrder(page.html, page.path) : [];
  },
  async reachabilities() {
    await readAll();
    return opened().parts.flatMap(({ part, selectors }) => {
      const found = [...opened().closed]
        .map(([pageId, page]) => ({ pageId, element: matchingElements(page, selectors).at(0) }))
        .filter(({ element }) => element !== undefined);
      return found[0]?.element
        ? [[part.id, reachabilityOf(found[0].element), found.map(({ pageId }) => pageId)] as const]
        : [];
    });
  },
  async takeCensus(measures, width, onProgress) {
    const run = (censusRun += 1);
    const steps = takeCensus(lightSite(opened(), 'light'), measures, width);
    for (;;) {
      const step = steps.next();
      if (step.done) {
        counted = step.value.colors;
        return {
          ...step.value,
          colors: counted.map(({ places, ...color }) => ({ ...color, placeCount: places.length })),
        };
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
  async proposeParts() {
    await readAll();
    return proposeParts(opened().closed);
  },
  dress({ overrides, palette, ownCss, exceptions }) {
    const dressed = dressSite(opened(), overrides, palette, { ownCss, exceptions: readExceptions(exceptions) });
    site = lightSite(dressed, lighting);
    return { css: site.css, frameCss: rewriteStates(site.css) };
  },
  named: () => ({
    values: new Map(
      [...namedValues(opened().overrides, opened().palette, opened().source)].map(([css, own]) => [css, spoken(own)]),
    ),
    roles: rolePropertyNames(opened().palette, opened().source),
  }),
  inspect: (target, width, scope) =>
    inspect(openedAt(target.pageId), target.pageId, target.element, target.pseudo, width, scope),
  reachOffers: (question) => reachOffers(openedAt(question.pageId), question),
  explain(target, property, { state, parent, pseudoState }, width) {
    const page = pageOf(opened(), target.pageId);
    const element = elementOf(page, target.element);
    const states = pointerStates(page.document, element, state, parent === null ? null : elementOf(page, parent));
    const view = new StyleView(page, {
      states,
      environment: { width },
      ...(pseudoState ? { pseudoStates: new Set([pseudoState]) } : {}),
    });
    const { inheritedFrom, ...rest } = explain(view, element, property, target.pseudo);
    return {
      ...rest,
      painted: asPainted(view, element, target.pseudo, property),
      inheritedFrom: inheritedFrom ? { element: inheritedFrom.number, label: shortName(inheritedFrom) } : null,
    };
  },
  plan: (wishes) => planAll(openedAt(...wishes.map(({ pageId }) => pageId)), wishes),
  overridesOfCell: (cell) => overridesOfCell(opened(), cell),
  async judge(override, width, onProgress) {
    const run = (judgeRun += 1);
    const judged = openedAt(override.pageId);
    const findings = await inTurns(judgeLightings(judged, override, width), () => run === judgeRun, onProgress);
    return (
      findings && {
        override,
        findings: spoken(findings),
        gloss: say(glossOf(judged, override)),
        whyImportant: say(whyImportant(judged, override) ?? ''),
        companions: companionsOf(judged, override, width),
      }
    );
  },
  overPicture: (texts, uncovered, cover = null) => {
    const between = cover === null ? null : colorOfCss(cover);
    const raster = between ? coverPicture(uncovered, between) : uncovered;
    return texts.map((css) => {
      const color = colorOfCss(css);
      const ratio = color && worstOverPicture(color, raster);
      const range = color && rangeOverPicture(color, raster);
      return ratio && range ? { ratio, range: [hexOf(range[0]), hexOf(range[1])] as const } : null;
    });
  },
  stopJudging() {
    judgeRun += 1;
  },
  async failing(onProgress) {
    const run = (failingRun += 1);
    const judged = opened();
    const failing: FailingOverride[] = [];
    let open = 0;
    for (const [i, override] of judged.overrides.entries()) {
      onProgress(i, judged.overrides.length);
      const steps = judgeLightings(
        openedAt(override.pageId),
        override,
        override.widths?.max ?? override.widths?.min ?? 1280,
      );
      for (;;) {
        const step = steps.next();
        if (step.done) {
          const fails = step.value.filter(({ standing }) => standing === 'fails').map(({ text }) => say(text));
          if (step.value.some(({ standing }) => standing === 'look')) open += 1;
          if (fails.length > 0)
            failing.push({ selector: override.selector, words: say(glossOf(judged, override)), fails });
          break;
        }
        await new Promise((done) => setTimeout(done));
        if (run !== failingRun) return null;
      }
    }
    return { failing, open };
  },
  proposeStates: (question, only) => proposeStates(openedAt(question.pageId), question, only),
  followers: (pageId, element, longhand, width) => followersOf(opened(), pageId, element, longhand, width),
  whereItShows: (pageId, topic, width) => whereItShows(opened(), pageId, topic, width),
  proposeRow: (question, row) => proposeRow(openedAt(question.pageId), question, row),
  copyLook: (target, width) => copyLook(opened(), target, width),
  pasteLook: (look, target, width) => pasteLook(openedAt(target.pageId), look, target, width),
  checkSelector: (override, text) => checkSelector(openedAt(override.pageId), override, text),
  whatPaints: (pageId, stack, width) => whatPaints(opened(), pageId, stack, width),
  find: (pageId, text) => findElements(opened(), pageId, text),
  async tidy(onProgress) {
    const run = (tidyRun += 1);
    return inTurns(tidySteps(opened()), () => run === tidyRun, onProgress);
  },
  async families() {
    await readAll();
    return familiesOf(opened());
  },
  async usualShape() {
    const { closed } = opened();
    return (await inTurns(usualShape(opened(), 1280), () => site?.closed === closed)) ?? [];
  },
  siteWide: (pageId) => siteWideTargets(opened(), pageId),
  flash(question) {
    switch (question.kind) {
      case 'step':
        return flashOfStep(opened(), question.pageId, question.element, question.pseudo, question.width);
      case 'ply':
        return flashOfPly(opened(), question.pageId, question.selector, question.property);
      case 'role':
        return flashOfRole(opened(), question.role);
    }
  },
  progress: (pageId, width) => partProgress(opened(), pageId, width),
  forcedStates(target, { state, parent }) {
    const page = pageOf(opened(), target.pageId);
    const states = pointerStates(
      page.document,
      elementOf(page, target.element),
      state,
      parent === null ? null : elementOf(page, parent),
    );
    return [...states].map(([element, names]) => ({ element: element.number, names: [...names] }));
  },
  colors(pageId, width) {
    const page = pageOf(opened(), pageId);
    const view = viewIn(page, page.document.rootElement, 'rest', width);
    return {
      properties: CHECKED_PROPERTIES,
      values: page.document.elements.map((element) =>
        CHECKED_PROPERTIES.map((property) => view.style(element).resolved(property)),
      ),
    };
  },
  ...matchAnswers(opened),
  ...paletteAnswers(),
  ...proofAnswers(opened),
  ...sheetAnswers(opened),
  ...kitAnswers(opened),
  ...settingsAnswers(opened),
  ...templateAnswers(opened),
  ...trialAnswers(opened),
  ...driftAnswers(opened),
};

/** Places of one colour that are handed over at a time. */
const MOST_PLACES = 3000;

expose(inWords(engine));
