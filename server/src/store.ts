import { createArrangements, type Arrangements } from './db/arrangement.js';
import { createAssets, type Assets } from './db/assets.js';
import { createChanges } from './db/changes.js';
import { createClientRequests, type ClientRequests } from './db/client-requests.js';
import { createExceptions, type Exceptions } from './db/exceptions.js';
import type { Db } from './db/db.js';
import { basisOf } from './draft-basis.js';
import { createSheetOptions, type SheetOptionsTable } from './db/sheet-options.js';
import { createFormerCaptures, type FormerCaptures } from './db/former-captures.js';
import { createHosting, type HostingTable } from './db/hosting.js';
import { createKits, type Kits } from './db/kits.js';
import { createLeftDrafts, type LeftDrafts } from './db/left-drafts.js';
import { createLeftOut, type LeftOut } from './db/left-out.js';
import { createLooked, type LookedTable } from './db/looked.js';
import { createMoving, type Moving } from './db/moving.js';
import { createOverrides, type Overrides } from './db/overrides.js';
import { createOwnCss, type OwnCssTable } from './db/own-css.js';
import { createPages, type Pages } from './db/pages.js';
import { createPalettes, type Palettes } from './db/palettes.js';
import { createParts, type Parts } from './db/parts.js';
import { createPlans, type Plans } from './db/plans.js';
import { createRevisions, type Revisions } from './db/revisions.js';
import { createSettingsSheets, type SettingsSheets } from './db/settings-sheets.js';
import { createMakerSettings, type MakerSettings } from './db/maker-settings.js';
import { createTrials, type Trials } from './db/trials.js';
import { createVisits, type Visits } from './db/visits.js';
import { createSites, type Sites } from './db/sites.js';

/** The tables, by what they hold. */
export interface Store {
  readonly sites: Sites;
  readonly pages: Pages;
  readonly assets: Assets;
  readonly leftOut: LeftOut;
  readonly visits: Visits;
  readonly leftDrafts: LeftDrafts;
  readonly hosting: HostingTable;
  readonly kits: Kits;
  readonly formerCaptures: FormerCaptures;
  readonly looked: LookedTable;
  readonly overrides: Overrides;
  readonly ownCss: OwnCssTable;
  readonly palettes: Palettes;
  readonly parts: Parts;
  readonly exceptions: Exceptions;
  readonly requests: ClientRequests;
  readonly plans: Plans;
  readonly settingsSheets: SettingsSheets;
  readonly makerSettings: MakerSettings;
  readonly trials: Trials;
  readonly arrangements: Arrangements;
  readonly sheetOptions: SheetOptionsTable;
  readonly changes: ReturnType<typeof createHistory>;
  readonly revisions: Revisions;
  /** What a site that moves from one database to another needs. */
  readonly moving: Moving;
  /** Copies all data to a file, while others go on. */
  copyTo(file: string): Promise<void>;
  /** Does several things in one transaction. */
  inOneStep<T>(act: () => T): T;
}

export function createStore(db: Db): Store {
  const sites = createSites(db);
  const overrides = createOverrides(db);
  const ownCss = createOwnCss(db);
  const palettes = createPalettes(db);
  const parts = createParts(db);
  const exceptions = createExceptions(db);
  const requests = createClientRequests(db);
  const plans = createPlans(db);
  const settingsSheets = createSettingsSheets(db);
  const arrangements = createArrangements(db);
  const sheetOptions = createSheetOptions(db);
  const leftDrafts = createLeftDrafts(db);
  return {
    sites,
    overrides,
    ownCss,
    palettes,
    parts,
    exceptions,
    requests,
    plans,
    settingsSheets,
    makerSettings: createMakerSettings(db),
    trials: createTrials(db),
    arrangements,
    sheetOptions,
    pages: createPages(db),
    assets: createAssets(db),
    leftOut: createLeftOut(db),
    visits: createVisits(db),
    leftDrafts,
    hosting: createHosting(db),
    kits: createKits(db),
    formerCaptures: createFormerCaptures(db),
    looked: createLooked(db),
    revisions: createRevisions(db),
    changes: createHistory(db, {
      sites,
      overrides,
      ownCss,
      requests,
      palettes,
      parts,
      exceptions,
      plans,
      settingsSheets,
      arrangements,
      sheetOptions,
      leftDrafts,
    }),
    moving: createMoving(db),
    copyTo: async (file) => {
      await db.backup(file);
    },
    inOneStep: (act) => db.transaction(act)(),
  };
}

/** The history over everything a designer can change. */
function createHistory(
  db: Db,
  {
    sites,
    overrides,
    ownCss,
    palettes,
    parts,
    exceptions,
    requests,
    plans,
    settingsSheets,
    arrangements,
    sheetOptions,
    leftDrafts,
  }: Pick<
    Store,
    | 'sites'
    | 'overrides'
    | 'ownCss'
    | 'requests'
    | 'palettes'
    | 'parts'
    | 'exceptions'
    | 'plans'
    | 'settingsSheets'
    | 'arrangements'
    | 'sheetOptions'
    | 'leftDrafts'
  >,
) {
  const subjects = {
    palette: palettes.subject,
    overrides: overrides.subject,
    ownCss: ownCss.subject,
    parts: parts.subject,
    exceptions: exceptions.subject,
    requests: requests.subject,
    plans: plans.subject,
    settings: settingsSheets.subject,
    arrangement: arrangements.subject,
    naming: sheetOptions.subject,
  };
  return createChanges(db, overrides, sites, subjects, (siteId, { at, ...left }) => {
    const all = overrides.bySite(siteId);
    leftDrafts.keep(siteId, {
      ...left,
      leftAt: at,
      count: all.length,
      overrides: JSON.stringify(all),
      basis: JSON.stringify(basisOf({ palettes, sheetOptions, parts, ownCss }, siteId)),
    });
  });
}
