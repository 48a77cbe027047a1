import { parsePage, withVeneer, type Page } from '../resolve/page.js';
import type { LoadSheet } from '../rules/sheet.js';
import { lightingMarks, pageOf, compileOptionsOf, type SiteModel } from '../site/site-model.js';
import { compileVeneer } from '../veneer/compile-veneer.js';
import type { Override } from '../veneer/override.js';

/** A page as it was before it was captured again, with the draft as it stood then. */
export interface FormerCapture {
  readonly id: number;
  readonly pageId: number;
  readonly html: string;
  /** Its stylesheets that have another text now, by path. */
  readonly stylesheets: Readonly<Record<string, string>>;
  readonly overrides: readonly Override[];
}

/** The page of a former capture with the veneer it had, by the palette as it is now. */
export function formerPage(site: SiteModel, { pageId, html, stylesheets, overrides }: FormerCapture): Page {
  const now = pageOf(site, pageId);
  const loadSheet: LoadSheet = (path) =>
    Object.hasOwn(stylesheets, path)
      ? stylesheets[path]
      : Object.hasOwn(site.source.stylesheets, path)
        ? site.source.stylesheets[path]
        : null;
  const options = { path: now.path, loadSheet, veneerPlace: now.veneerPlace, environment: now.environment };
  const page = parsePage(html, options);
  const amendments = lightingMarks(site, page);
  const lit = amendments.size === 0 ? page : parsePage(html, { ...options, amendments });
  return withVeneer(lit, formerCss(site, overrides));
}

/** The veneer of a former capture. */
export function formerCss(site: SiteModel, overrides: readonly Override[]): string {
  return compileVeneer(overrides, compileOptionsOf(site));
}
