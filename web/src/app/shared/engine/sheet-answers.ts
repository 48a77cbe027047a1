import { say } from '@upper-veneer/words';
import {
  CENSUS_STATES,
  colorsInSheet,
  compileOptionsOf,
  firstMatch,
  handOverHtml,
  handOverMarkdown,
  hiddenBy,
  idleEditsSteps,
  itemHolds,
  lightSite,
  paletteLines,
  pieceAt,
  putInSnippet,
  readSheetSteps,
  rewriteStates,
  ruleAt,
  rulesOn,
  sheetDifference,
  sheetProblems,
  softened,
  sheetToEdit,
  sheetWords,
  type ItemHolds,
  type SiteModel,
} from '@upper-veneer/core';
import { inTurns } from './in-turns';
import { newId } from './new-id';
import { pictureOf } from './place-picture';
import type { SheetApi } from './sheet-api';

/** What the worker answers of the Sheet, for the site it has open. */
export function sheetAnswers(opened: () => SiteModel): SheetApi {
  const inTheLight = (): SiteModel => lightSite(opened(), 'light');
  /** Counts readings begun, so that an older one ends. */
  let reading = 0;
  /** Counts times the client's list was proved, so that an older one ends. */
  let proving = 0;
  return {
    hidden: () => hiddenBy(opened()),
    softened: (hiding, override) => softened(opened(), hiding, override),
    firstMatch: (selector) => firstMatch(opened(), selector),
    async requestHolds(items) {
      const run = (proving += 1);
      const site = opened();
      const found: [string, ItemHolds][] = [];
      for (const item of items) {
        await new Promise((done) => setTimeout(done));
        if (run !== proving) return [];
        found.push([item.id, itemHolds(site, item)]);
      }
      return found;
    },
    colorsInSheet,
    sheetDifference,
    framed: (css) => rewriteStates(css),
    spotPicture: (spot, width) =>
      pictureOf(inTheLight(), { ...spot, state: 'rest', lighting: 'light', setting: { width } }),
    handOver: (format, facts) => (format === 'html' ? handOverHtml : handOverMarkdown)(inTheLight(), facts, say),
    sheetToEdit: () => ({ text: sheetToEdit(opened()), head: paletteLines(opened()).length }),
    async readSheet(text) {
      const run = (reading += 1);
      const isWanted = (): boolean => run === reading;
      const site = opened();
      const read = await inTurns(readSheetSteps(site, text, newId), isWanted);
      const idle = read && (await inTurns(idleEditsSteps(site, text), isWanted));
      return read && idle && { ...read, idle: idle.idle, unlooked: idle.more };
    },
    sheetProblems: (text) => sheetProblems(opened(), text),
    ruleAt(text, offset, width) {
      const site = opened();
      const rule = ruleAt(site, text, offset);
      if (!rule) return null;
      const [spot] = rule.spots;
      const lighting = site.palette.lighting ?? 'light';
      // What stands on the page as it is captured needs nothing forced.
      const state = CENSUS_STATES.find((known) => known === rule.state) ?? 'rest';
      const drawn = spot && { ...spot, partId: rule.partId, state, lighting, setting: { width } };
      return { ...rule, picture: drawn ? pictureOf(site, drawn) : null };
    },
    sheetWords: () => sheetWords(opened()),
    pieceAt: (text, offset, question) => pieceAt(text, offset, question, compileOptionsOf(opened())),
    rulesOn: (text, spot) => rulesOn(opened(), text, spot),
    putInSnippet: (text, snippet) => putInSnippet(opened(), text, snippet),
  };
}
