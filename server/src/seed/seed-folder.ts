import { readFileSync, readdirSync } from 'node:fs';
import { extname, join, relative, sep } from 'node:path';
import { storeSite, type NewSite } from '../captures.js';
import type { Store } from '../store.js';

const MEDIA_TYPES: Readonly<Record<string, string>> = {
  '.css': 'text/css',
  '.svg': 'image/svg+xml',
  '.png': 'image/png',
  '.jpg': 'image/jpeg',
  '.webp': 'image/webp',
  '.woff2': 'font/woff2',
  '.html': 'text/html',
  '.js': 'text/javascript',
  '.json': 'application/json',
};

/** A manifest beside a site's files. */
type Manifest = Pick<NewSite, 'name' | 'prefix' | 'veneerPlace' | 'parts' | 'swatches' | 'roles'> & {
  readonly pages: readonly { readonly name: string; readonly path: string }[];
};

/** Stores the site a folder holds, once: a site of that name is left as it is. Returns its id. */
export function seedFolder(store: Store, folder: string): number {
  const manifest = JSON.parse(readFileSync(join(folder, 'site.json'), 'utf8')) as Manifest;
  const existing = store.sites.byName(manifest.name);
  if (existing) return existing.id;
  const root = join(folder, 'site');
  const files = readdirSync(root, { recursive: true, withFileTypes: true })
    .filter((entry) => entry.isFile())
    .map((entry) => relative(root, join(entry.parentPath, entry.name)).split(sep).join('/'))
    .sort();
  return storeSite(store, {
    ...manifest,
    pages: manifest.pages.map((page) => ({ ...page, html: readFileSync(join(root, page.path), 'utf8') })),
    assets: files
      .filter((path) => MEDIA_TYPES[extname(path)] !== undefined && !manifest.pages.some((page) => page.path === path))
      .map((path) => ({ path, mediaType: MEDIA_TYPES[extname(path)], body: readFileSync(join(root, path)) })),
  });
}
