import { readFileSync, readdirSync, statSync } from 'node:fs';
import { join } from 'node:path';
import {
  dressSite,
  foundColors,
  layMatch,
  openSite,
  proposeMatch,
  toEnd,
  withOverrides,
  type Palette,
  type Part,
  type SiteModel,
  type SiteSource,
} from '@upper-veneer/core';
import { root } from './product.js';

const folder = join(root, 'demo/site');

interface DemoData {
  readonly prefix: string;
  readonly pages: readonly { readonly name: string; readonly path: string }[];
  readonly parts: readonly (Omit<Part, 'id' | 'openers'> & { readonly openers?: Part['openers'] })[];
  readonly swatches: readonly { readonly name: string; readonly css: string }[];
  readonly roles: readonly { readonly role: string; readonly swatch: string; readonly shade: number }[];
}

/** The demo's site as it is seeded, and its palette. */
export function demoSource(): { readonly source: SiteSource; readonly palette: Palette } {
  const data = JSON.parse(readFileSync(join(root, 'demo/site.json'), 'utf8')) as DemoData;
  const walk = (path: string): string[] =>
    readdirSync(join(folder, path)).flatMap((name) =>
      statSync(join(folder, path, name)).isDirectory() ? walk(`${path}${name}/`) : [`${path}${name}`],
    );
  return {
    source: {
      pages: data.pages.map(({ name, path }, i) => ({
        id: i + 1,
        name,
        path,
        html: readFileSync(join(folder, path), 'utf8'),
      })),
      stylesheets: Object.fromEntries(
        walk('')
          .filter((name) => name.endsWith('.css'))
          .map((name) => [name, readFileSync(join(folder, name), 'utf8')]),
      ),
      parts: data.parts.map((part, i) => ({ openers: [], ...part, id: i + 1 })),
      veneerPlace: 'head-end',
      prefix: data.prefix,
    },
    palette: {
      swatches: data.swatches.map((swatch, i) => ({ id: i + 1, ...swatch })),
      roles: data.roles.map(({ role, shade, swatch }) => ({
        role: role as Palette['roles'][number]['role'],
        shade,
        swatchId: data.swatches.findIndex(({ name }) => name === swatch) + 1,
      })),
    },
  };
}

/** The demo's whole site with the proposal of Match laid on. */
export function matchedDemo(): SiteModel {
  const { source, palette } = demoSource();
  return matched(source, palette);
}

/** A whole site with the proposal of Match laid on. */
export function matched(source: SiteSource, palette: Palette): SiteModel {
  const site = dressSite(openSite(source), [], palette);
  const scope = { kind: 'site' } as const;
  const found = foundColors(site, scope, 1280);
  const proposal = proposeMatch(site, scope, found, { strategy: 'blend', locked: {}, equal: [] });
  return withOverrides(site, toEnd(layMatch(site, proposal, 1280)));
}
