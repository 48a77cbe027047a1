import { createHash } from 'node:crypto';
import { LRUCache } from 'lru-cache';
import type { VeneerPlace } from '@upper-veneer/core';
import type { FrameInput } from './dress-page.js';
import type { WorkPool } from './work-pool.js';

/** Texts kept, in UTF-16 units. */
const MOST_KEPT = 64 * 1024 * 1024;

/** Pages and sheets as they are served, made away from the thread that answers. Kept by what they were made from, so that nothing is served of what is gone. */
export interface DressedTexts {
  /** A page as the preview frame shows it. */
  framePage(input: FrameInput): Promise<string>;
  /** A stylesheet as the preview frame reads it. */
  frameSheet(css: string): Promise<string>;
  /** A page with its link to the published veneer. */
  linkedPage(html: string, path: string, href: string, place: VeneerPlace): Promise<string>;
}

export function createDressedTexts(pool: WorkPool): DressedTexts {
  const kept = new LRUCache<string, string>({ maxSize: MOST_KEPT, sizeCalculation: (text) => text.length + 1 });
  const through = async (parts: readonly string[], make: (key: string) => Promise<string>): Promise<string> => {
    const hash = createHash('sha256');
    for (const part of parts) hash.update(`${part.length}:`).update(part);
    const key = hash.digest('base64');
    const known = kept.get(key);
    if (known !== undefined) return known;
    const made = await make(key);
    kept.set(key, made);
    return made;
  };
  return {
    framePage: (input) => {
      const { html, path, filesAt, framed, acts = [] } = input;
      return through(
        ['frame-page', html, path, filesAt, framed?.at ?? '', JSON.stringify(acts), ...(framed?.paths ?? [])],
        (key) => pool.run('frame-page', input, { key }),
      );
    },
    frameSheet: (css) => through(['frame-sheet', css], (key) => pool.run('frame-sheet', css, { key })),
    linkedPage: (html, path, href, place) =>
      through(['link-veneer', html, path, href, place], (key) =>
        pool.run('link-veneer', { html, path, href, place }, { key }),
      ),
  };
}
