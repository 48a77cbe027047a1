import type { LeftOutFile } from '@upper-veneer/contract';
import type { Opener, PartTemplate, RoleName } from '@upper-veneer/core';
import type { NewAsset } from './db/assets.js';
import type { NewPage } from './db/pages.js';
import type { Store } from './store.js';

/** A site to be stored, as the seed or an import brings it. */
export interface NewSite {
  readonly name: string;
  readonly prefix: string;
  readonly veneerPlace: 'head-end' | 'body-end';
  readonly pages: readonly NewPage[];
  readonly assets: readonly NewAsset[];
  readonly parts: readonly {
    readonly name: string;
    readonly kind: string;
    readonly selector: string;
    readonly openers?: readonly Opener[];
    readonly templates?: readonly PartTemplate[];
  }[];
  readonly swatches: readonly { readonly name: string; readonly css: string }[];
  readonly roles: readonly { readonly role: RoleName; readonly swatch: string; readonly shade: number }[];
  readonly leftOut?: readonly LeftOutFile[];
}

type Tables = Pick<Store, 'sites' | 'pages' | 'assets' | 'leftOut' | 'parts' | 'palettes' | 'inOneStep'>;

/** Stores a site whole, or nothing of it. @throws RangeError for a role of a swatch it does not have, and for two pages of one path. */
export function storeSite(
  { sites, pages, assets, leftOut, parts, palettes, inOneStep }: Tables,
  site: NewSite,
): number {
  const homeless = site.roles.find(({ swatch }) => !site.swatches.some(({ name }) => name === swatch));
  if (homeless)
    throw new RangeError(`Role ${homeless.role} names the swatch "${homeless.swatch}", which the site does not have`);
  return inOneStep(() => {
    const id = sites.insert(site);
    for (const page of site.pages) {
      if (pages.put(id, page) !== null) throw new RangeError(`Two pages of the site have the path ${page.path}`);
    }
    for (const asset of site.assets) assets.put(id, asset);
    parts.replace(
      id,
      site.parts.map(({ openers = [], ...part }) => ({ id: 0, openers, ...part })),
    );
    palettes.replace(id, { swatches: site.swatches.map((swatch) => ({ id: 0, ...swatch })), roles: site.roles });
    leftOut.replace(id, site.leftOut ?? []);
    return id;
  });
}

/** Adds pages with their files; a page of a path that is there already is captured again. Returns the ids of those. */
export function addPages(
  { sites, pages, assets, leftOut, inOneStep }: Tables,
  siteId: number,
  added: {
    readonly pages: readonly NewPage[];
    readonly assets: readonly NewAsset[];
    readonly leftOut: readonly LeftOutFile[];
  },
): number[] {
  return inOneStep(() => {
    for (const asset of added.assets) assets.put(siteId, asset);
    const again = added.pages.map((page) => pages.put(siteId, page)).filter((id) => id !== null);
    leftOut.replace(siteId, added.leftOut);
    sites.countStructure(siteId);
    sites.countVersion(siteId);
    return again;
  });
}
