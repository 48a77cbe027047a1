import { readFileSync } from 'node:fs';
import { extname, join, resolve, sep } from 'node:path';
import type { BrowserContext } from 'playwright-core';
import { parsePage, type Page } from '@upper-veneer/core';

const TYPES: Readonly<Record<string, string>> = {
  '.html': 'text/html',
  '.css': 'text/css',
  '.svg': 'image/svg+xml',
  '.png': 'image/png',
};

/** A folder served to a browser as `http://site.test/`, and read by the core. */
export interface SiteFolder {
  readonly origin: string;
  /** Makes the folder answer in a browser context. */
  serve(context: BrowserContext): Promise<void>;
  /** Parses one of its pages. */
  parse(path: string): Page;
}

/**
 * Opens a folder.
 * @param extra files by path that the folder does not hold, such as generated pages.
 */
export function openSiteFolder(folder: string, extra: ReadonlyMap<string, string> = new Map()): SiteFolder {
  const root = resolve(folder);
  const read = (path: string): Buffer | null => {
    const given = extra.get(path);
    if (given !== undefined) return Buffer.from(given);
    const file = resolve(join(root, path));
    if (!file.startsWith(root + sep)) return null;
    try {
      return readFileSync(file);
    } catch {
      return null;
    }
  };
  const origin = 'http://site.test';
  return {
    origin,
    serve: async (context) => {
      await context.route(`${origin}/**`, async (route) => {
        const path = decodeURIComponent(new URL(route.request().url()).pathname.slice(1));
        const body = read(path);
        if (body) await route.fulfill({ body, contentType: TYPES[extname(path)] ?? 'application/octet-stream' });
        else await route.fulfill({ status: 404, body: '' });
      });
    },
    parse: (path) =>
      parsePage(read(path)?.toString('utf8') ?? '', {
        path,
        loadSheet: (href) => read(href)?.toString('utf8') ?? null,
      }),
  };
}
