import { createChanges, type Changes } from './db/changes.js';
import type { Db } from './db/open.js';
import { createOverrides, type Overrides } from './db/overrides.js';
import { createRevisions, type Revisions } from './db/revisions.js';
import { createSites, type Sites } from './db/sites.js';

/** The tables, by what they hold. */
export interface Store {
  readonly sites: Sites;
  readonly overrides: Overrides;
  readonly changes: Changes;
  readonly revisions: Revisions;
}

export function createStore(db: Db): Store {
  const sites = createSites(db);
  const overrides = createOverrides(db);
  return { sites, overrides, changes: createChanges(db, overrides, sites), revisions: createRevisions(db) };
}
