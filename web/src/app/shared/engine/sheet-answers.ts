import {
  colorsInSheet,
  handOverHtml,
  handOverMarkdown,
  lightSite,
  rewriteStates,
  sheetDifference,
  type SiteModel,
} from '@upper-veneer/core';
import { pictureOf } from './place-picture';
import type { SheetApi } from './sheet-api';

/** What the worker answers of the Sheet, for the site it has open. */
export function sheetAnswers(opened: () => SiteModel): SheetApi {
  const inTheLight = (): SiteModel => lightSite(opened(), 'light');
  return {
    colorsInSheet,
    sheetDifference,
    framed: (css) => rewriteStates(css),
    spotPicture: (spot, width) =>
      pictureOf(inTheLight(), { ...spot, state: 'rest', lighting: 'light', setting: { width } }),
    handOver: (format, facts) => (format === 'html' ? handOverHtml : handOverMarkdown)(inTheLight(), facts),
  };
}
