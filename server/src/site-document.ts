import { createHash } from 'node:crypto';
import { LRUCache } from 'lru-cache';
import type { SiteDocument } from '@upper-veneer/contract';
import { describeDraft } from './draft.js';
import type { SiteRow } from './db/sites.js';
import type { Store } from './store.js';

/** A site as JSON, and what tells it from any other state of it. */
export interface WrittenSite {
  readonly body: Buffer;
  /** Source: RFC 9110 §8.8.3. */
  readonly etag: string;
}

/** Sites written last are kept up to so many bytes: many tabs and people open the same one. */
const MOST_BYTES = 64 * 2 ** 20;

/** Writes sites as the web client opens them; each state once. */
export function createSiteDocuments(store: Store, hostUrl: (siteId: number) => string): (site: SiteRow) => WrittenSite {
  const written = new LRUCache<string, WrittenSite>({
    maxSize: MOST_BYTES,
    sizeCalculation: ({ body }) => body.length,
  });
  return (site) => {
    const { id } = site;
    // Saving and publishing leave the draft as it is.
    const key = JSON.stringify([
      id,
      site.version,
      site.structure,
      store.revisions.newest(id),
      store.revisions.published(id),
    ]);
    let answer = written.get(key);
    if (!answer) {
      const body = Buffer.from(JSON.stringify(documentOf(store, site, hostUrl(id))));
      answer = { body, etag: `"${createHash('sha256').update(body).digest('base64url').slice(0, 27)}"` };
      written.set(key, answer);
    }
    return answer;
  };
}

function documentOf(store: Store, { id, name, veneerPlace }: SiteRow, hostUrl: string): SiteDocument {
  return {
    id,
    name,
    ...store.sheetOptions.bySite(id),
    veneerPlace,
    hostUrl,
    pages: store.pages.bySite(id),
    stylesheets: store.assets.stylesheets(id),
    parts: store.parts.bySite(id),
    pictures: store.assets.pictures(id),
    documents: store.assets.documents(id),
    leftOut: store.leftOut.bySite(id),
    visits: store.visits.bySite(id),
    draft: describeDraft(store, id),
  };
}
