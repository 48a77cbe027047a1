import { createChanges, type Changes } from './db/changes.js';
import type { Db } from './db/open.js';
import { createOverrides, type Overrides } from './db/overrides.js';
import { createPalettes, type Palettes } from './db/palettes.js';
import { createRevisions, type Revisions } from './db/revisions.js';
import { createSites, type Sites } from './db/sites.js';

/** The tables, by what they hold. */
export interface Store {
  readonly sites: Sites;
  readonly overrides: Overrides;
  readonly palettes: Palettes;
  readonly changes: Changes;
  readonly revisions: Revisions;
}

export function createStore(db: Db): Store {
  const sites = createSites(db);
  const overrides = createOverrides(db);
  const palettes = createPalettes(db);
  return { sites, overrides, palettes, changes: createChanges(db, overrides, palettes, sites), revisions: createRevisions(db) };
}
