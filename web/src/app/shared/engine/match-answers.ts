import { stateWords } from '../ui/state-words';
import { say, wordsOf } from '@upper-veneer/words';
import {
  elementOf,
  colorsBeside,
  ShapeGathering,
  fedProperties,
  findColors,
  layMatch,
  leadOf,
  lightSite,
  meltingAreas,
  neutralTasks,
  neutralise,
  otherLighting as otherLightingThan,
  pageOf,
  paletteIn,
  pictureFiles,
  placesToLay,
  nameTold,
  previewCss,
  previewOfTasks,
  prominences,
  proposalIn,
  propertyTold,
  proposeMatch,
  proposeShapes,
  regroup,
  rewriteStates,
  shownOtherwise,
  staleChoices,
  themeProperties,
  verifyLightings,
  withOverrides,
  type FedProperty,
  type Follower,
  type FoundColors,
  type LaidMatch,
  type FoundShapes,
  type MatchProposal,
  type MatchScope,
  type ProposedShape,
  type SiteModel,
  type ThemeProperty,
} from '@upper-veneer/core';
import { inTurns } from './in-turns';
import type { MatchApi, PropertyView } from './match-api';

/** Places of one row that are handed over at a time. */
const MOST_PLACES = 3000;
const MOST_OUTSIDERS = 12;

/** What the worker answers of Match, for the site it has open. */
export function matchAnswers(opened: () => SiteModel): MatchApi {
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
    readonly foundShapes: FoundShapes;
    readonly shapes: readonly ProposedShape[];
  } | null = null;
  /** The site in the light, in which a match is planned: what is bound to roles follows in the other lighting. */
  const inTheLight = (): SiteModel => lightSite(opened(), 'light');
  return {
    async findColors(scope, width, onProgress) {
      const run = (matchRun += 1);
      const gathered = new ShapeGathering(inTheLight(), scope);
      const found = await inTurns(findColors(inTheLight(), scope, width, gathered), () => run === matchRun, onProgress);
      const fed = found && (await inTurns(fedProperties(inTheLight(), found, width), () => run === matchRun));
      if (found && fed)
        matching = {
          scope,
          width,
          found,
          grouped: found,
          fed,
          proposal: null,
          properties: [],
          foundShapes: gathered.result(),
          shapes: [],
        };
      return fed !== null;
    },
    proposeMatch(choices, without) {
      if (!matching) return null;
      const { scope, width, fed } = matching;
      const light = inTheLight();
      const found = regroup(light, matching.found, choices);
      const proposal = proposeMatch(light, scope, found, choices);
      const properties = themeProperties(fed, proposal, light.palette, choices.properties);
      const shapes = proposeShapes(matching.foundShapes, scope, light.palette, choices);
      matching = { ...matching, grouped: found, proposal, properties, shapes };
      const shown = proposalIn(proposal, opened().palette.lighting ?? 'light');
      const drawn = { ...shown, rows: shown.rows.filter((row) => !without.includes(row.found.id)) };
      const lead = leadOf(light, scope);
      return {
        rows: shown.rows.map(({ found: { places, ...own }, ...row }) => ({
          ...row,
          found: { ...own, placeCount: places.filter(({ isEcho }) => !isEcho).length },
        })),
        shapes: shapes.map(({ found: { places, ...shape }, ...row }) => ({
          ...row,
          found: { ...shape, places: places.length },
          shown: places.filter(({ pageId }) => pageId === lead?.pageId).map(({ element }) => element),
        })),
        unmet: proposal.unmet,
        ...(lead ? prominences(opened(), scope, shown, width, lead.pageId) : { arrived: [], matched: [] }),
        properties: properties.map((property) => propertyView(opened(), property, found, lead?.pageId ?? -1)),
        stale: staleChoices(
          new Set([...matching.found.rows, ...found.rows, ...matching.foundShapes.rows].map(({ id }) => id)),
          choices,
          light.palette,
          fed.map(({ id }) => id),
        ),
        places:
          placesToLay(light, colorsBeside(proposal, shapes), width) +
          shapes.reduce((sum, { found: own, value }) => sum + (value ? own.places.length : 0), 0),
        mains: choices.mains ?? found.mains,
        lead,
        frameCss: lead
          ? rewriteStates(
              previewCss(light, drawn, lead.pageId, width, { palette: opened().palette, properties, shapes }),
            )
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
      const shapes = proposeShapes(matching.foundShapes, scope, light.palette, choices);
      return rewriteStates(previewCss(light, proposal, lead.pageId, width, { palette: opened().palette, shapes }));
    },
    otherLighting(without, openedParts) {
      const light = inTheLight();
      const lead = matching && leadOf(light, matching.scope);
      if (!matching?.proposal || !lead || !light.palette.second) return null;
      const { proposal, properties, shapes, width } = matching;
      const other = otherLightingThan(opened().palette.lighting ?? 'light');
      const drawn = { ...proposal, rows: proposal.rows.filter((row) => !without.includes(row.found.id)) };
      const palette = paletteIn(light.palette, other);
      return {
        frameCss: rewriteStates(previewCss(light, drawn, lead.pageId, width, { palette, properties, shapes })),
        amendments: [...shownOtherwise(lightSite(opened(), other), lead.pageId, openedParts)],
      };
    },
    async besidesRows() {
      if (!matching?.proposal) return null;
      const { scope, width, proposal } = matching;
      const isWanted = (): boolean => matching?.proposal === proposal;
      const shown = proposalIn(proposal, opened().palette.lighting ?? 'light');
      const melting = await inTurns(meltingAreas(opened(), scope, shown, width), isWanted);
      const pictures = melting && (await inTurns(pictureFiles(opened(), scope, shown, width), isWanted));
      return melting && pictures && { melting, pictures };
    },
    matchPlaces: (rowId) =>
      (matching?.grouped.rows.find(({ id }) => id === rowId)?.places ?? [])
        .filter(({ isEcho }) => !isEcho)
        .slice(0, MOST_PLACES)
        .map((place) => ({
          ...place,
          name: say(nameTold(elementOf(pageOf(opened(), place.pageId), place.element), place.pseudo)),
        })),
    async layMatch(onProgress) {
      if (!matching?.proposal) return null;
      const { scope, proposal, properties, shapes, width } = matching;
      const before = inTheLight();
      const run = (matchRun += 1);
      const laid = await inTurns(
        layMatch(before, proposal, width, properties, shapes),
        () => run === matchRun,
        onProgress,
      );
      if (!laid) return null;
      const after = withOverrides(before, laid);
      const checks = verifyLightings(before, after, scope, proposal, { properties, shapes });
      const proof = await inTurns(checks, () => run === matchRun);
      return proof && { ...overridesOf(laid), proof };
    },
    previewNeutral() {
      const light = inTheLight();
      const lead = matching && leadOf(light, matching.scope);
      if (!matching || !lead) return '';
      const { tasks } = neutralTasks(light, matching.scope, matching.width);
      return rewriteStates(previewOfTasks(tasks, lead.pageId, opened().palette));
    },
    async neutralise(onProgress) {
      if (!matching) return null;
      const { scope, width } = matching;
      const run = (matchRun += 1);
      const laid = await inTurns(neutralise(inTheLight(), scope, width), () => run === matchRun, onProgress);
      if (!laid) return null;
      const { themes, hardToRead, proof } = laid;
      return { ...overridesOf(laid), themes, hardToRead, proof };
    },
    stopMatch() {
      matchRun += 1;
    },
    leadOf: (scope) => leadOf(opened(), scope),
  };
}

/** What crosses to another thread: the overrides, without the site they were laid on. */
function overridesOf({ put, drop, laid, refused }: LaidMatch): LaidMatch {
  return { put, drop, laid, refused };
}

/** Places by their words, the first of those alike. */
function firstByWords(places: readonly Follower[], site: SiteModel): Map<string, Follower> {
  const found = new Map<string, Follower>();
  for (const place of places) {
    const name = say(nameTold(elementOf(pageOf(site, place.pageId), place.element), place.pseudo));
    const words = wordsOf('screen.property-of', {
      what: say(propertyTold(place.property)),
      name,
      state: place.state,
      words: stateWords(place.state),
    });
    if (!found.has(words)) found.set(words, place);
  }
  return found;
}

function propertyView(
  site: SiteModel,
  { fed, outside, ...rest }: ThemeProperty,
  found: FoundColors,
  pageId: number,
): PropertyView {
  const { followers, ...about } = fed;
  const named = [...firstByWords(outside, site)];
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
