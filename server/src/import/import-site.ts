import { message } from '@upper-veneer/core';
import type { Override } from '@upper-veneer/core';
import type { ImportRequest, ImportResult, LeftOutFile } from '@upper-veneer/contract';
import { storeArchive } from '../archive/store-archive.js';
import { addPages, storeSite } from '../captures.js';
import type { PageRow } from '../db/pages.js';
import type { Store } from '../store.js';
import type { TellProgress } from '../work/progress.js';
import { WorkError, type WorkPool } from '../work/work-pool.js';
import { CaptureProblem, type AddressPolicy, type PlanResult } from '@upper-veneer/browser';
import type { AssembledSite } from './assemble-site.js';
import type { ProposedPart } from './bring-in.js';
import type { ReportProgress } from './captured.js';
import type { Upload } from './read-uploads.js';
import { visitsFor, type WantedVisit, type WantedVisits } from './wanted-visits.js';
import type { Visiting } from '../visits/visiting.js';

export interface ImportSource {
  readonly request: ImportRequest;
  readonly uploads: readonly Upload[];
}

type Imported = ImportResult & { readonly ok: true };

export interface ImportTools {
  readonly store: Store;
  readonly pool: WorkPool;
  readonly visiting: Visiting;
  readonly policy: AddressPolicy;
  readonly now: () => Date;
}

/**
 * Brings a site in, or pages into a site. Everything is read before anything is stored, and stored in one transaction:
 * an import that is refused leaves nothing behind.
 * @throws {CaptureProblem}
 */
export async function importSite(
  { store, pool, visiting, policy, now }: ImportTools,
  { request, uploads }: ImportSource,
  report: ReportProgress,
  signal: AbortSignal,
): Promise<Imported> {
  const { kind, address, html, css, name } = request;
  const siteId = request.siteId ?? null;
  const onProgress: TellProgress = ({ stage, done, total }) => report(stage, done, total);
  try {
    const wanted = visitsFor(store, request);
    // Read while the browser is started.
    if (wanted) void pool.run('ready', null).catch(() => undefined);
    const visited = wanted && (await goThrough(visiting, wanted, report, signal));
    const brought = await pool.run(
      'bring-in',
      {
        request: { kind, address, html, css, name },
        uploads,
        policy,
        isNew: siteId === null,
        ...(visited && { visited: visited.done.map(({ result }) => result), addresses: visited.addresses }),
      },
      { signal, onProgress },
    );
    if (!brought.ok) throw new CaptureProblem(brought.code, brought.told);
    if ('whole' in brought) {
      const stored = await storeArchive(
        store,
        brought.whole,
        (done, total) => report(message('stage.going-through-history'), done, total),
        () => !signal.aborted,
      );
      if (!stored) throw new CaptureProblem('stopped', message('capture.import-stopped'));
      const { head } = brought.whole.archive;
      return {
        ok: true,
        siteId: stored.siteId,
        siteName: stored.name,
        pages: head.pages.map((page) => page.name),
        again: [],
        changed: [],
        changedSheets: [],
        leftOut: brought.whole.leftOut,
      };
    }
    const again = kind === 'again' && siteId !== null ? store.pages.bySite(siteId) : null;
    const site = {
      ...brought.site,
      // What is captured again is what the site has; a page that was removed stays away.
      pages: brought.site.pages.filter((page) => again?.some(({ path }) => path === page.path) ?? true),
      leftOut: [
        ...brought.site.leftOut,
        ...(visited?.failed ?? []),
        ...(again && visited ? goneFrom(again, visited, brought) : []),
      ],
      assets: brought.site.assets.map((asset) => ({
        ...asset,
        body: Buffer.from(asset.body.buffer, asset.body.byteOffset, asset.body.byteLength),
      })),
    };
    report(message('stage.storing'), 0, 1);
    const stored =
      siteId === null
        ? storeNew(store, site, brought.parts, name)
        : await addTo({ store, pool, now }, siteId, site, signal);
    // What a visit brings is settled when it is planned; where it leads elsewhere later, its pages are still those.
    if (!again)
      visited?.done.forEach(({ plan, id }, i) =>
        store.visits.keep(stored.siteId, { id, plan, paths: brought.visitPaths[i] ?? [] }),
      );
    return stored;
  } catch (error) {
    if (!(error instanceof WorkError)) throw error;
    if (error.fault === 'stopped') throw new CaptureProblem('stopped', message('capture.import-stopped'));
    if (error.fault === 'too-long')
      throw new CaptureProblem('unreadable', message('capture.given-up', { problem: error.told }));
    if (error.fault === 'too-large')
      throw new CaptureProblem('too-large', message('capture.too-much', { problem: error.told }));
    if (error.fault === 'busy') throw new CaptureProblem('busy', error.told);
    throw error;
  }
}

interface GoneThrough {
  readonly done: readonly (WantedVisit & { readonly result: PlanResult })[];
  readonly failed: readonly LeftOutFile[];
  readonly addresses: readonly string[];
}

/** Goes through the visits that are wanted. @throws {CaptureProblem} when none of them comes to its end. */
async function goThrough(
  visiting: Visiting,
  { visits, addresses, others }: WantedVisits,
  report: ReportProgress,
  signal: AbortSignal,
): Promise<GoneThrough> {
  const visited = await visiting.goThroughAll(
    visits.map(({ plan }) => plan),
    report,
    signal,
  );
  const failed = [
    ...visited.flatMap((own) =>
      own.ok ? [] : [{ path: own.plan.address, reason: message('left-out.not-captured', { problem: own.told }) }],
    ),
    ...others.map((path) => ({ path, reason: message('left-out.no-address') })),
  ];
  const done = visited.flatMap((own, i) => (own.ok ? [{ ...visits[i], result: own.result }] : []));
  if (done.length === 0 && addresses.length === 0) {
    const [first] = visited;
    throw new CaptureProblem('not-fetched', first && !first.ok ? first.told : message('capture.no-address-of-any'));
  }
  return { done, failed, addresses };
}

/** Pages that their visits did not come to again, such as where an address leads elsewhere by now. */
function goneFrom(
  pages: readonly PageRow[],
  { done }: GoneThrough,
  { visitPaths }: { readonly visitPaths: readonly (readonly string[])[] },
): LeftOutFile[] {
  return done.flatMap(({ paths }, i) =>
    pages
      .filter(({ path }) => paths.includes(path) && !visitPaths[i]?.includes(path))
      .map(({ name }) => ({
        path: name,
        reason: visitPaths[i]?.length
          ? message('left-out.leads-to', { paths: visitPaths[i] })
          : message('left-out.leads-elsewhere'),
      })),
  );
}

function storeNew(
  store: Store,
  { pages, assets, leftOut }: AssembledSite,
  parts: readonly ProposedPart[],
  wanted: string,
): Imported {
  const base = wanted.trim() || pages[0].name;
  let name = base;
  for (let number = 2; store.sites.byName(name); number += 1) name = `${base} ${number}`;
  const siteId = storeSite(store, {
    name,
    prefix: 'brand',
    veneerPlace: 'head-end',
    pages,
    assets,
    parts,
    swatches: [],
    roles: [],
    leftOut,
  });
  return {
    ok: true,
    siteId,
    siteName: name,
    pages: pages.map((page) => page.name),
    again: [],
    changed: [],
    changedSheets: [],
    leftOut,
  };
}

/** Times the overrides are led to their elements again where the draft went on meanwhile. */
const MOST_TRIES = 3;

async function addTo(
  { store, pool, now }: Omit<ImportTools, 'policy' | 'visiting'>,
  siteId: number,
  { pages, assets, leftOut }: AssembledSite,
  signal: AbortSignal,
): Promise<Imported> {
  for (let tries = 0; tries < MOST_TRIES; tries += 1) {
    const site = store.sites.byId(siteId);
    if (!site) throw new CaptureProblem('unreadable', message('refusal.no-site', { site: siteId }));
    const before = store.pages.bySite(siteId);
    const sheetsBefore = store.assets.stylesheets(siteId);
    const sheetsAfter = {
      ...sheetsBefore,
      ...Object.fromEntries(
        assets
          .filter(({ mediaType }) => mediaType === 'text/css')
          .map(({ path, body }) => [path, body.toString('utf8')]),
      ),
    };
    const current = store.overrides.bySite(siteId);
    // What the history, revisions and drafts left behind lead back to is led to its elements as well, so that both go on.
    const kept = [store.changes, store.revisions, store.leftDrafts].flatMap((table) => table.overridesIn(siteId));
    const overrides = [...current, ...kept];
    const again = pages.flatMap(({ path, html }) => {
      const old = before.find((page) => page.path === path);
      return old ? [{ id: old.id, before: { path, html: old.html }, after: { path, html } }] : [];
    });
    const moved =
      again.length === 0 || overrides.length === 0
        ? []
        : await pool.run('reanchor', { pages: again, sheetsBefore, sheetsAfter, overrides }, { signal });
    const changed = changedIn(sheetsBefore, sheetsAfter);
    // Only what overrides were made on can drift, and only where something is other than it was.
    const differing = again.filter(
      ({ before: old, after }) => old.html !== after.html || Object.keys(changed).length > 0,
    );
    const isStale = (): boolean => store.sites.byId(siteId)?.version !== site.version;
    const stored = store.inOneStep(() => {
      if (isStale()) return null;
      for (const { id, before: old } of current.length > 0 ? differing : [])
        store.formerCaptures.keep(
          siteId,
          { pageId: id, html: old.html, stylesheets: changed, overrides: current },
          now().toISOString(),
        );
      const ids = addPages(store, siteId, { pages: named(pages, before), assets, leftOut });
      const next = new Map<string, Override>();
      moved.forEach(({ override }, i) => {
        const old = JSON.stringify(overrides[i]);
        if (JSON.stringify(override) === old) return;
        if (i < current.length) store.overrides.put(siteId, override);
        next.set(old, override);
      });
      if (ids.length > 0) {
        store.changes.rewrite(siteId, next);
        store.revisions.rewrite(siteId, next);
        store.leftDrafts.rewrite(siteId, next);
      }
      return ids;
    });
    if (stored === null) continue;
    const lost: LeftOutFile[] = moved.slice(0, current.length).flatMap((each) => each.lost);
    const added = named(pages, before).filter(({ path }) => !before.some((page) => page.path === path));
    const recaptured = before.filter(({ id }) => stored.includes(id));
    return {
      ok: true,
      siteId,
      siteName: site.name,
      pages: added.map(({ name }) => name),
      again: recaptured.map(({ name }) => name),
      changed: again.flatMap(({ id, before: old, after }) =>
        old.html === after.html ? [] : (before.find((page) => page.id === id)?.name ?? []),
      ),
      changedSheets: Object.keys(changed),
      leftOut: [...leftOut, ...lost],
    };
  }
  throw new CaptureProblem('busy', message('capture.draft-changed'));
}

/** Texts of sheets that are others now, as they were. */
function changedIn(
  before: Readonly<Record<string, string>>,
  after: Readonly<Record<string, string>>,
): Record<string, string> {
  return Object.fromEntries(Object.entries(before).filter(([path, css]) => after[path] !== css));
}

/** New pages under names that no page of the site has. */
function named(pages: AssembledSite['pages'], before: readonly PageRow[]): AssembledSite['pages'] {
  const taken = new Set(before.map(({ name }) => name));
  return pages.map((page) => {
    if (before.some(({ path }) => path === page.path)) return page;
    let { name } = page;
    for (let number = 2; taken.has(name); number += 1) name = `${page.name} ${number}`;
    taken.add(name);
    return { ...page, name };
  });
}
