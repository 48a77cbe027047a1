import { SPECIMEN_PATH, isSpecimen } from '@upper-veneer/core';
import type { Store } from './store.js';
import type { WorkPool } from './work/work-pool.js';

/** Times it is made anew where the site went on meanwhile. */
const MOST_TRIES = 3;

/** Makes a site's specimen, or makes it anew; overrides made on it are led to their elements. @returns whether it was stored before the site went on. */
export async function makeSpecimen(store: Store, pool: WorkPool, siteId: number): Promise<boolean> {
  for (let tries = 0; tries < MOST_TRIES; tries += 1) {
    const site = store.sites.byId(siteId);
    if (!site) return false;
    const stylesheets = store.assets.stylesheets(siteId);
    const pages = store.pages.bySite(siteId);
    const html = await pool.run('specimen', {
      pages: pages.filter((page) => !isSpecimen(page)),
      stylesheets,
      parts: store.parts.bySite(siteId),
      veneerPlace: site.veneerPlace,
      ...store.sheetOptions.bySite(siteId),
    });
    const old = pages.find(isSpecimen);
    const overrides = store.overrides.bySite(siteId).filter(({ pageId }) => pageId === old?.id);
    const moved =
      old && overrides.length > 0
        ? await pool.run('reanchor', {
            pages: [
              { id: old.id, before: { path: SPECIMEN_PATH, html: old.html }, after: { path: SPECIMEN_PATH, html } },
            ],
            sheetsBefore: stylesheets,
            sheetsAfter: stylesheets,
            overrides,
          })
        : [];
    const isStored = store.inOneStep(() => {
      if (store.sites.byId(siteId)?.version !== site.version) return false;
      store.pages.put(siteId, { name: 'Specimen', path: SPECIMEN_PATH, html });
      for (const { override } of moved) store.overrides.put(siteId, override);
      store.sites.countStructure(siteId);
      store.sites.countVersion(siteId);
      return true;
    });
    if (isStored) return true;
  }
  return false;
}
