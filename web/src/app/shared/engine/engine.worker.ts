import {
  checkSelector,
  colorOfCss,
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
  pairMatrix,
  plainName,
  propertyWords,
  paletteAsSeen,
  partProgress,
  pasteLook,
  planAll,
  pointerStates,
  proposeParts,
  proposeRow,
  proposeStates,
  reachabilityOf,
  reachOffers,
  readExceptions,
  regroup,
  readPages,
  rewriteStates,
  rolePropertyNames,
  sheetsInOrder,
  shortName,
  siteWideTargets,
  staleChoices,
  StyleView,
  takeCensus,
  tidySteps,
  proposalIn,
  verifyLightings,
  withOverrides,
  shownOtherwise,
  viewIn,
  whatPaints,
  whereItShows,
  whyImportant,
  worstOverPicture,
  fedProperties,
  findColors,
  themeProperties,
  layMatch,
  leadOf,
  placesToLay,
  previewCss,
  prominences,
  proposeMatch,
  type CensusColor,
  type Follower,
  type FoundColors,
  type FedProperty,
  type Lighting,
  type ThemeProperty,
  type MatchProposal,
  type MatchScope,
  type SiteModel,
} from '@upper-veneer/core';
import { expose } from 'comlink';
import { toPageLayout } from '../frame/layout-in-slices';
import { CHECKED_PROPERTIES } from './checked-properties';
import type { EngineApi, FailingOverride, PagesRead, PropertyView } from './engine-api';

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
/** Counts looks through a scope and layings begun and stopped, so that an older one ends. */
let matchRun = 0;
/** The scope last looked through, and what was proposed for it. */
let matching: {
  readonly scope: MatchScope;
  readonly width: number;
  readonly found: FoundColors;
  /** The same with rows set apart and merged as was chosen last. */
  readonly grouped: FoundColors;
  /** Custom properties that feed what is found. */
  readonly fed: readonly FedProperty[];
  readonly proposal: MatchProposal | null;
  readonly properties: readonly ThemeProperty[];
} | null = null;

/** The site in the light, in which a match is planned: what is bound to roles follows in the other lighting. */
function inTheLight(): SiteModel {
  return lightSite(opened(), 'light');
}

function opened(): SiteModel {
  if (!site) throw new Error('No site is open');
  return site;
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
  dress(overrides, palette, exceptions) {
    site = lightSite(dressSite(opened(), overrides, palette, readExceptions(exceptions)), lighting);
    return { css: site.css, frameCss: rewriteStates(site.css) };
  },
  named: () => ({
    values: namedValues(opened().overrides, opened().palette, opened().source),
    roles: rolePropertyNames(opened().palette, opened().source),
  }),
  inspect: (target, width, scope) => inspect(opened(), target.pageId, target.element, target.pseudo, width, scope),
  reachOffers: (question) => reachOffers(opened(), question),
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
      inheritedFrom: inheritedFrom ? { element: inheritedFrom.number, label: shortName(inheritedFrom) } : null,
    };
  },
  plan: (wishes) => planAll(opened(), wishes),
  overridesOfCell: (cell) => overridesOfCell(opened(), cell),
  async judge(override, width, onProgress) {
    const run = (judgeRun += 1);
    const judged = opened();
    const findings = await inTurns(judgeLightings(judged, override, width), () => run === judgeRun, onProgress);
    return (
      findings && {
        override,
        findings,
        gloss: glossOf(judged, override),
        whyImportant: whyImportant(judged, override),
        companions: companionsOf(judged, override, width),
      }
    );
  },
  overPicture: (texts, raster) =>
    texts.map((css) => {
      const color = colorOfCss(css);
      return color ? worstOverPicture(color, raster) : null;
    }),
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
      const steps = judgeLightings(judged, override, override.widths?.max ?? override.widths?.min ?? 1280);
      for (;;) {
        const step = steps.next();
        if (step.done) {
          const fails = step.value.filter(({ standing }) => standing === 'fails').map(({ text }) => text);
          if (step.value.some(({ standing }) => standing === 'look')) open += 1;
          if (fails.length > 0) failing.push({ selector: override.selector, words: glossOf(judged, override), fails });
          break;
        }
        await new Promise((done) => setTimeout(done));
        if (run !== failingRun) return null;
      }
    }
    return { failing, open };
  },
  proposeStates: (question, only) => proposeStates(opened(), question, only),
  followers: (pageId, element, longhand, width) => followersOf(opened(), pageId, element, longhand, width),
  whereItShows: (pageId, topic, width) => whereItShows(opened(), pageId, topic, width),
  proposeRow: (question, row) => proposeRow(opened(), question, row),
  copyLook: (target, width) => copyLook(opened(), target, width),
  pasteLook: (look, target, width) => pasteLook(opened(), look, target, width),
  checkSelector: (override, text) => checkSelector(opened(), override, text),
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
  judgePalette: (palette, severity) => ({ pairs: pairMatrix(palette), seen: paletteAsSeen(palette, severity) }),
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
  async findColors(scope, width, onProgress) {
    const run = (matchRun += 1);
    const found = await inTurns(findColors(inTheLight(), scope, width), () => run === matchRun, onProgress);
    const fed = found && (await inTurns(fedProperties(inTheLight(), found, width), () => run === matchRun));
    if (found && fed) matching = { scope, width, found, grouped: found, fed, proposal: null, properties: [] };
    return fed !== null;
  },
  proposeMatch(choices, without) {
    if (!matching) return null;
    const { scope, width, fed } = matching;
    const light = inTheLight();
    const found = regroup(light, matching.found, choices);
    const proposal = proposeMatch(light, scope, found, choices);
    const properties = themeProperties(fed, proposal, light.palette, choices.properties);
    matching = { ...matching, grouped: found, proposal, properties };
    const shown = proposalIn(proposal, opened().palette.lighting ?? 'light');
    const drawn = { ...shown, rows: shown.rows.filter((row) => !without.includes(row.found.id)) };
    const lead = leadOf(light, scope);
    return {
      rows: shown.rows.map(({ found: { places, ...own }, ...row }) => ({
        ...row,
        found: { ...own, placeCount: places.filter(({ isEcho }) => !isEcho).length },
      })),
      unmet: proposal.unmet,
      ...(lead ? prominences(opened(), scope, shown, width, lead.pageId) : { arrived: [], matched: [] }),
      properties: properties.map((property) => propertyView(property, found, lead?.pageId ?? -1)),
      stale: staleChoices(
        new Set([...matching.found.rows, ...found.rows].map(({ id }) => id)),
        choices,
        light.palette,
        fed.map(({ id }) => id),
      ),
      places: placesToLay(light, proposal, width),
      mains: choices.mains ?? found.mains,
      lead,
      frameCss: lead
        ? rewriteStates(previewCss(light, drawn, lead.pageId, width, { palette: opened().palette, properties }))
        : '',
      answering: answeringOn(found, lead?.pageId ?? -1),
      measuredPages: found.measuredPages,
      pages: found.pages,
      unread: found.unread,
    };
  },
  previewMatch(choices) {
    const light = inTheLight();
    const lead = matching && leadOf(light, matching.scope);
    if (!matching || !lead) return '';
    const { scope, width } = matching;
    const proposal = proposeMatch(light, scope, regroup(light, matching.found, choices), choices);
    return rewriteStates(previewCss(light, proposal, lead.pageId, width, { palette: opened().palette }));
  },
  matchPlaces: (rowId) =>
    (matching?.grouped.rows.find(({ id }) => id === rowId)?.places ?? [])
      .filter(({ isEcho }) => !isEcho)
      .slice(0, MOST_PLACES)
      .map((place) => ({
        ...place,
        name: plainName(elementOf(pageOf(opened(), place.pageId), place.element), place.pseudo),
      })),
  async layMatch(onProgress) {
    if (!matching?.proposal) return null;
    const { scope, proposal, properties, width } = matching;
    const before = inTheLight();
    const run = (matchRun += 1);
    const laid = await inTurns(layMatch(before, proposal, width, properties), () => run === matchRun, onProgress);
    if (!laid) return null;
    const after = withOverrides(before, laid);
    const checks = verifyLightings(before, after, scope, proposal, properties);
    const proof = await inTurns(checks, () => run === matchRun);
    return proof && { ...laid, proof };
  },
  stopMatch() {
    matchRun += 1;
  },
  leadOf: (scope) => leadOf(opened(), scope),
};

const MOST_OUTSIDERS = 12;

/** Places by their words, the first of those alike. */
function firstByWords(places: readonly Follower[], site: SiteModel): Map<string, Follower> {
  const found = new Map<string, Follower>();
  for (const place of places) {
    const name = plainName(elementOf(pageOf(site, place.pageId), place.element), place.pseudo);
    const words = `${propertyWords(place.property)} of ${name}${place.state === 'rest' ? '' : `, ${place.state}`}`;
    if (!found.has(words)) found.set(words, place);
  }
  return found;
}

function propertyView({ fed, outside, ...rest }: ThemeProperty, found: FoundColors, pageId: number): PropertyView {
  const { followers, ...about } = fed;
  const named = [...firstByWords(outside, opened())];
  return {
    ...about,
    ...rest,
    outside: outside.length,
    elements: [...new Set(followers.filter((place) => place.pageId === pageId).map(({ element }) => element))],
    outsiders: named.slice(0, MOST_OUTSIDERS).map(([words, spot]) => ({ words, spot })),
    moreOutsiders: Math.max(0, named.length - MOST_OUTSIDERS),
    rowIds: found.rows
      .filter(({ homes }) => homes.some((home) => home.kind === 'custom-property' && home.property === fed.name))
      .map(({ id }) => id),
  };
}

/** Elements of a page that a state paints otherwise, by state. */
function answeringOn({ rows }: FoundColors, pageId: number): Readonly<Record<string, readonly number[]>> {
  const byState: Record<string, Set<number>> = {};
  for (const { places } of rows)
    for (const place of places)
      if (place.pageId === pageId && place.state !== 'rest' && !place.isEcho)
        (byState[place.state] ??= new Set()).add(place.element);
  return Object.fromEntries(Object.entries(byState).map(([state, elements]) => [state, [...elements]]));
}

/** Runs a generator to its end, other questions between; `null` when it is no longer wanted. */
async function inTurns<Step, Result>(
  steps: Generator<Step, Result>,
  isWanted: () => boolean,
  onProgress: (step: Step) => void = () => undefined,
): Promise<Result | null> {
  let shown = performance.now();
  for (;;) {
    const step = steps.next();
    if (step.done) return step.value;
    if (performance.now() - shown < 60) continue;
    shown = performance.now();
    onProgress(step.value);
    await new Promise((done) => setTimeout(done));
    if (!isWanted()) return null;
  }
}

/** Places of one colour that are handed over at a time. */
const MOST_PLACES = 3000;

expose(engine);
