import { createHash } from 'node:crypto';
import { LRUCache } from 'lru-cache';

/** A file as the host has it. */
export interface HostFile {
  readonly mediaType: string;
  readonly body: Buffer;
}

/** A file as the cache hands it on. */
export interface CachedFile extends HostFile {
  /** Strong entity tag, quotes included. */
  readonly etag: string;
  /** Whole seconds that it has been kept; 0 for one just fetched. */
  readonly age: number;
  readonly isHit: boolean;
}

/** Bytes kept, over all sites. */
const MOST_BYTES = 64 * 1024 * 1024;

interface Kept extends HostFile {
  readonly etag: string;
  readonly siteId: number;
  /** ms since the epoch. */
  readonly storedAt: number;
}

/** A cache in front of the stand-in host, as providers put one there: it answers by itself for as long as it was told to keep a file. Source: RFC 9111 §4. */
export interface HostCache {
  /**
   * A file by its address, from the cache while that is fresh.
   * @param maxAge seconds it is kept; 0 for not at all.
   * @param fetch asks the host itself; `null` for what it does not have, which is not kept.
   */
  file(siteId: number, address: string, maxAge: number, fetch: () => HostFile | null): CachedFile | null;
  /** Forgets what it keeps of a site. @returns how many files. */
  purge(siteId: number): number;
}

export function createHostCache(now: () => number = Date.now): HostCache {
  const kept = new LRUCache<string, Kept>({ maxSize: MOST_BYTES, sizeCalculation: ({ body }) => body.length + 1 });
  return {
    file(siteId, address, maxAge, fetch) {
      const key = `${siteId} ${address}`;
      const known = kept.get(key);
      const age = known ? Math.floor((now() - known.storedAt) / 1000) : 0;
      if (known && age < maxAge) return { ...known, age, isHit: true };
      const file = fetch();
      if (!file) {
        kept.delete(key);
        return null;
      }
      const etag = `"${createHash('sha256').update(file.body).digest('base64url').slice(0, 27)}"`;
      if (maxAge > 0) kept.set(key, { ...file, etag, siteId, storedAt: now() });
      return { ...file, etag, age: 0, isHit: false };
    },
    purge(siteId) {
      const own = [...kept.entries()].filter(([, file]) => file.siteId === siteId).map(([key]) => key);
      for (const key of own) kept.delete(key);
      return own.length;
    },
  };
}
