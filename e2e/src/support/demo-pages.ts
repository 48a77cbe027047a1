import { readFileSync, readdirSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { root } from './product.js';

/** The demo's pages, each with its stylesheets written into it, so that it stands alone. */
export function demoPages(): { readonly name: string; readonly html: string }[] {
  const folder = join(root, 'demo/site');
  const { pages } = JSON.parse(readFileSync(join(root, 'demo/site.json'), 'utf8')) as {
    readonly pages: readonly { readonly name: string; readonly path: string }[];
  };
  return pages.map(({ name, path }) => ({
    name,
    html: readFileSync(join(folder, path), 'utf8').replace(
      /<link rel="stylesheet" href="([^"]+)"[^>]*>/g,
      (_, href: string) => `<style>${readFileSync(join(folder, dirname(path), href), 'utf8')}</style>`,
    ),
  }));
}

/** Every document of the demo as it stands, those in frames among them. */
export function demoDocuments(): string[] {
  const folder = join(root, 'demo/site');
  return readdirSync(folder, { recursive: true, encoding: 'utf8' })
    .filter((path) => path.endsWith('.html'))
    .map((path) => readFileSync(join(folder, path), 'utf8'));
}
