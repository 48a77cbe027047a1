import { createHash } from 'node:crypto';
import { Agent, request } from 'undici';
import { isSpecimen } from '@upper-veneer/core';
import type { ServedDocument } from '@upper-veneer/contract';
import type { Store } from './store.js';

/** What a host answered a visitor. */
export interface HostAnswer {
  readonly status: number;
  readonly body: string;
  /** Seconds that a cache has kept it, and may keep it; `null` where it does not say. */
  readonly age: number | null;
  readonly maxAge: number | null;
}

/** Asks the host of a site as a visitor would. @param path under the site's root, with its query. */
export type AskHost = (siteId: number, path: string) => Promise<HostAnswer>;

/** Pages that are asked for, at most. */
const MOST_PAGES = 12;
/** An answer that has not come by then does not come, ms. */
const PATIENCE_MS = 5_000;
/** Longest answer that is read, bytes. */
const MOST_BYTES = 20 * 1024 * 1024;
const LINKED = 'veneer.css';

/** What visitors are really served: each page is fetched, the veneer it links too, and that is compared by its hash with what was published. */
export async function askServed(store: Store, siteId: number, ask: AskHost, at: string): Promise<ServedDocument> {
  const published = store.revisions.published(siteId);
  const wanted = published === null ? null : hashOf(store.revisions.byNumber(siteId, published)?.css ?? '');
  const captured = store.pages.bySite(siteId).filter((page) => !isSpecimen(page));
  const sheets = new Map<string, Promise<HostAnswer>>();
  const numbers = new Map(store.revisions.sheets(siteId).map(({ number, css }) => [hashOf(css), number]));
  const numberOf = (hash: string): number | null => (hash === wanted ? published : (numbers.get(hash) ?? null));
  const pages: ServedDocument['pages'][number][] = [];
  for (const { id, name, path } of captured.slice(0, MOST_PAGES)) {
    const page = await ask(siteId, path.split('/').map(encodeURIComponent).join('/'));
    const linked = page.status === 200 ? linkIn(page.body) : null;
    if (linked === null) {
      pages.push({
        id,
        name,
        standing: page.status === 200 ? 'none' : 'lost',
        revision: null,
        age: null,
        maxAge: null,
      });
      continue;
    }
    let sheet = sheets.get(linked);
    if (!sheet) sheets.set(linked, (sheet = ask(siteId, linked)));
    const { status, body, age, maxAge } = await sheet;
    const hash = hashOf(body);
    const standing = status !== 200 ? 'lost' : hash === wanted ? 'it' : 'other';
    pages.push({ id, name, standing, revision: standing === 'lost' ? null : numberOf(hash), age, maxAge });
  }
  return { askedAt: at, published, pages, left: captured.length - pages.length, ...store.hosting.bySite(siteId) };
}

/** The veneer's address as a page links it, from the site's root; `null` where it links none. */
function linkIn(html: string): string | null {
  const from = html.indexOf(LINKED);
  // Its own link alone, not a file whose name ends like it.
  if (from === -1 || !['"', '/'].includes(html[from - 1])) return null;
  const end = html.indexOf('"', from);
  return html.slice(from, end === -1 || end > from + 60 ? from + 60 : end);
}

function hashOf(text: string): string {
  return createHash('sha256').update(text).digest('base64');
}

/** Asks the stand-in host where it listens, under the name that visitors know it by. @param origin such as `http://127.0.0.1:4311`. */
export function askHostAt(origin: string, nameOf: (siteId: number) => string): AskHost {
  const { port } = new URL(origin);
  const dispatcher = new Agent({
    maxResponseSize: MOST_BYTES,
    headersTimeout: PATIENCE_MS,
    bodyTimeout: PATIENCE_MS,
  });
  return async (siteId, path) => {
    const { statusCode, headers, body } = await request(`${origin}/${siteId}/${path}`, {
      dispatcher,
      headers: { host: `${nameOf(siteId)}:${port}` },
      reset: true,
    });
    return {
      status: statusCode,
      body: await body.text(),
      age: secondsIn(headers['age'], /^(\d{1,9})$/),
      maxAge: secondsIn(headers['cache-control'], /(?:^|[ ,])max-age=(\d{1,9})(?:$|[ ,])/),
    };
  };
}

function secondsIn(header: string | string[] | undefined, seconds: RegExp): number | null {
  const found = typeof header === 'string' ? seconds.exec(header) : null;
  return found ? Number(found[1]) : null;
}
