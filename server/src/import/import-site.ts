import { parsePage, proposeParts, reanchorOverride } from '@upper-veneer/core';
import type { ImportRequest, ImportResult, LeftOutFile } from '@upper-veneer/contract';
import type { Store } from '../store.js';
import type { AddressPolicy } from './address-policy.js';
import { assembleSite, type AssembledSite } from './assemble-site.js';
import type { Capture, ReportProgress } from './captured.js';
import { fetchAddress } from './fetch-address.js';
import { ImportProblem } from './import-problem.js';
import { readUploads, type Upload } from './read-uploads.js';
import { readWidget } from './widget-page.js';

export interface ImportSource {
  readonly request: ImportRequest;
  readonly uploads: readonly Upload[];
}

/**
 * Brings a site in, or pages into a site. Everything is read before anything is stored, and stored in one transaction:
 * an import that is refused leaves nothing behind.
 * @throws {ImportProblem}
 */
export async function importSite(store: Store, source: ImportSource, policy: AddressPolicy, report: ReportProgress, signal: AbortSignal): Promise<ImportResult & { readonly ok: true }> {
  const { request } = source;
  const assembled = assembleSite(await capture(source, policy, report, signal), report);
  if (signal.aborted) throw new ImportProblem('stopped', 'The import was stopped');
  report('Storing', 0, 1);
  return request.siteId === null || request.siteId === undefined ? storeNew(store, assembled, request.name) : addTo(store, request.siteId, assembled);
}

async function capture({ request, uploads }: ImportSource, policy: AddressPolicy, report: ReportProgress, signal: AbortSignal): Promise<Capture> {
  if (request.kind === 'address') return fetchAddress(request.address ?? '', policy, report, signal);
  if (request.kind === 'widget') return readWidget(request.html ?? '', request.css ?? '', request.name || 'Widget');
  return readUploads(uploads, report);
}

function storeNew(store: Store, { pages, assets, leftOut }: AssembledSite, wanted: string): ImportResult & { readonly ok: true } {
  const base = wanted.trim() || pages[0].name;
  let name = base;
  for (let number = 2; store.sites.byName(name); number += 1) name = `${base} ${number}`;
  const parts = partsOf(pages, assets);
  const siteId = store.sites.insert({ name, prefix: 'brand', veneerPlace: 'head-end', pages, assets, parts, swatches: [], roles: [], leftOut });
  return { ok: true, siteId, siteName: name, pages: pages.map((page) => page.name), again: [], leftOut };
}

function addTo(store: Store, siteId: number, { pages, assets, leftOut }: AssembledSite): ImportResult & { readonly ok: true } {
  const site = store.sites.byId(siteId);
  if (!site) throw new ImportProblem('unreadable', `There is no site ${siteId}`);
  const before = store.sites.pages(siteId);
  const sheetsBefore = store.sites.stylesheets(siteId);
  const taken = new Set(before.map(({ name }) => name));
  const named = pages.map((page) => {
    if (before.some(({ path }) => path === page.path)) return page;
    let { name } = page;
    for (let number = 2; taken.has(name); number += 1) name = `${page.name} ${number}`;
    taken.add(name);
    return { ...page, name };
  });
  const lost: LeftOutFile[] = [];
  const again = store.inOneStep(() => {
    const ids = store.sites.addPages(siteId, named, assets, leftOut);
    const sheets = store.sites.stylesheets(siteId);
    for (const id of ids) {
      const old = before.find((page) => page.id === id);
      const now = store.sites.page(siteId, id);
      if (!old || !now) continue;
      const pageBefore = parsePage(old.html, { path: old.path, loadSheet: (path) => sheetsBefore[path] ?? null });
      const pageAfter = parsePage(now.html, { path: now.path, loadSheet: (path) => sheets[path] ?? null });
      for (const override of store.overrides.bySite(siteId)) {
        const moved = reanchorOverride(pageBefore, pageAfter, id, override);
        lost.push(...moved.lost.map((reason) => ({ path: now.path, reason })));
        if (moved.override !== override) store.overrides.put(siteId, moved.override);
      }
    }
    // What the history leads back to was made on the pages as they were.
    if (ids.length > 0) store.changes.forget(siteId);
    return ids;
  });
  return { ok: true, siteId, siteName: site.name, pages: named.filter(({ path }) => !before.some((page) => page.path === path)).map(({ name }) => name), again: before.filter(({ id }) => again.includes(id)).map(({ name }) => name), leftOut: [...leftOut, ...lost] };
}

/** Parts that the structure of the pages suggests, to begin with. */
function partsOf(pages: AssembledSite['pages'], assets: AssembledSite['assets']): { readonly name: string; readonly kind: string; readonly selector: string; readonly openers: readonly object[] }[] {
  const sheets = new Map(assets.filter(({ mediaType }) => mediaType === 'text/css').map(({ path, body }) => [path, body.toString('utf8')]));
  const parsed = new Map(pages.map((page, i) => [i, parsePage(page.html, { path: page.path, loadSheet: (path) => sheets.get(path) ?? null })]));
  return proposeParts(parsed).slice(0, 60).map(({ name, kind, selector, openers }) => ({ name, kind, selector, openers }));
}
