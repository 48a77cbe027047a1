import type { ArchiveBasis, ArchiveStep, PaletteBody, SiteArchive, TrialDocument } from '@upper-veneer/contract';
import type { LightingSignal, Override, Palette, Part, SheetOptions, VeneerPlace } from '@upper-veneer/core';
import type { NewPalette } from '../db/palettes.js';
import { choicesOf } from '../plan.js';
import { sheetRow } from '../settings.js';
import { toPart } from '../site-checks.js';
import type { BasisRow } from '../draft-basis.js';
import type { Store } from '../store.js';
import type { ReadArchive } from './read-archive.js';
import { renumbered, type Numbers } from './renumber.js';

/** Steps of the history that are taken at once, between which others are answered. */
const AT_ONCE = 20;

/**
 * Stores a site that an archive holds, as a new one, and leads it through its history again.
 * What fails leaves nothing behind.
 * @param tell hears how many steps are taken.
 * @returns the number and the name it has here.
 */
export async function storeArchive(
  store: Store,
  { archive: as, leftOut, pages, files }: ReadArchive,
  tell: (done: number, total: number) => void,
  isWanted: () => boolean,
): Promise<{ readonly siteId: number; readonly name: string } | null> {
  let name = as.head.name;
  for (let number = 2; store.sites.byName(name); number += 1) name = `${as.head.name} ${number}`;
  const { siteId, steps, undone } = store.inOneStep(() => {
    const { archive, numbers } = withNumbersOf(store, as);
    const { head, revisions, former } = archive;
    const id = store.sites.insert({ name, prefix: 'brand', veneerPlace: 'head-end' });
    const positions = new Map(head.pages.map((page, position) => [page.id, position]));
    for (const { id: old, name: pageName, path, source } of [...as.head.pages].sort((a, b) => a.id - b.id)) {
      const page = pages.get(old);
      const pageId = numbers.page(old);
      if (page)
        store.moving.putPage(id, {
          id: pageId,
          position: positions.get(pageId) ?? 0,
          name: pageName,
          path,
          source,
          ...page,
        });
    }
    for (const { path, mediaType, body } of files)
      store.assets.put(id, { path, mediaType, body: Buffer.from(body.buffer, body.byteOffset, body.byteLength) });
    store.leftOut.replace(id, leftOut);
    for (const visit of head.visits ?? []) store.visits.keep(id, { id: null, ...visit });
    take(store, id, head.start);
    for (const { isUntidied, overrides, basis, ...revision } of revisions)
      store.moving.putRevision(id, {
        ...revision,
        untidied: isUntidied ? 1 : 0,
        overrides: JSON.stringify(overrides),
        basis: basis && JSON.stringify(basisRow(basis)),
      });
    for (const { revision, at } of head.publications) store.revisions.publish(id, revision, at);
    for (const { at, ...row } of head.looked) store.looked.put(id, { ...row, at });
    for (const { partId, field, text, at } of head.handed ?? [])
      store.settingsSheets.hand(id, partId, field, { text, at });
    // The newest comes first in an archive, and is the last that was made.
    for (const own of [...(head.variations ?? [])].reverse()) store.trials.keepVariation(id, own);
    for (const own of [...(head.trials ?? [])].reverse()) store.trials.restore(id, own as Omit<TrialDocument, 'id'>);
    for (const { capturedAt, ...capture } of former) store.formerCaptures.keep(id, capture, capturedAt);
    return { siteId: id, steps: archive.steps, undone: head.undone };
  });
  try {
    for (let done = 0; done < steps.length; done += AT_ONCE) {
      tell(done, steps.length);
      await new Promise((next) => setImmediate(next));
      if (!isWanted()) {
        store.sites.drop(siteId);
        return null;
      }
      store.inOneStep(() => {
        for (const step of steps.slice(done, done + AT_ONCE)) takeStep(store, siteId, step);
      });
    }
    store.inOneStep(() => {
      for (let i = 0; i < undone; i += 1) store.changes.undo(siteId);
      store.sites.countStructure(siteId);
    });
  } catch (error) {
    store.sites.drop(siteId);
    throw error;
  }
  return { siteId, name };
}

/** The archive with numbers that this database has not given yet, in the order they had. */
function withNumbersOf(
  store: Store,
  archive: SiteArchive,
): { readonly archive: SiteArchive; readonly numbers: Numbers } {
  const seen = { page: new Set<number>(), part: new Set<number>(), swatch: new Set<number>() };
  const noting =
    (kind: keyof typeof seen) =>
    (id: number): number => {
      seen[kind].add(id);
      return id;
    };
  renumbered(archive, { page: noting('page'), part: noting('part'), swatch: noting('swatch') });
  const given = (kind: keyof typeof seen): ((id: number) => number) => {
    const old = [...seen[kind]].sort((a, b) => a - b);
    const first = old.length > 0 ? store.moving.reserve(kind, old.length) : 0;
    const next = new Map(old.map((id, i) => [id, first + i]));
    return (id) => next.get(id) ?? id;
  };
  const numbers: Numbers = { page: given('page'), part: given('part'), swatch: given('swatch') };
  return { archive: renumbered(archive, numbers), numbers };
}

function takeStep(store: Store, siteId: number, step: ArchiveStep): void {
  const { label, madeAt, put, drop } = step;
  const whole = (
    ['palette', 'parts', 'ownCss', 'exceptions', 'requests', 'plans', 'settings', 'arrangement', 'naming'] as const
  ).filter((name) => step[name] !== undefined);
  if (whole.length === 0) store.changes.apply(siteId, label, inParts(store, siteId, put), drop, madeAt);
  else store.changes.applyTo(siteId, label, [...whole, 'overrides'], () => take(store, siteId, step), madeAt);
}

/** Makes the draft what a step says. */
function take(store: Store, siteId: number, step: ArchiveStep): void {
  const { put, drop, palette, parts, ownCss, exceptions, requests, plans, settings, arrangement, naming } = step;
  for (const id of drop) store.overrides.drop(siteId, id);
  if (palette) store.palettes.replace(siteId, newPalette(palette));
  if (parts) store.parts.replace(siteId, parts.map(toPart));
  for (const override of inParts(store, siteId, put)) store.overrides.put(siteId, override);
  if (ownCss)
    store.ownCss.put(
      siteId,
      ownCss.map(({ partId, css }) => ({ partId, css })),
    );
  if (exceptions) store.exceptions.replace(siteId, exceptions);
  if (requests) store.requests.put(siteId, requests);
  if (plans)
    store.plans.subject.put(
      siteId,
      plans.map((plan) => ({ scope: plan.scope, choices: choicesOf(plan) })),
    );
  if (settings) store.settingsSheets.put(siteId, settings.map(sheetRow));
  if (arrangement)
    store.arrangements.put(siteId, {
      veneerPlace: arrangement.veneerPlace as VeneerPlace,
      sheetOrders: arrangement.sheetOrders,
    });
  if (naming) store.sheetOptions.put(siteId, naming as SheetOptions);
}

/** Overrides as they are stored; those of a part that is not there are in none. */
function inParts(store: Store, siteId: number, overrides: readonly Override[]): Override[] {
  const parts = new Set(store.parts.bySite(siteId).map(({ id }) => id));
  return overrides.map((own) => ({ ...own, partId: own.partId !== null && parts.has(own.partId) ? own.partId : null }));
}

function newPalette({ swatches, roles, second, shape, former }: PaletteBody): NewPalette {
  return {
    swatches,
    roles,
    shape: shape ?? {},
    former: former ?? [],
    second: second ? { told: second.told as LightingSignal, roles: second.roles } : null,
  };
}

function basisRow({ palette, naming, parts, partOf, ownCss }: ArchiveBasis): BasisRow {
  const { swatches, roles, second, shape, former } = palette;
  const filled = (list: PaletteBody['roles']): Palette['roles'] =>
    list.flatMap(({ swatch, ...fill }) => {
      const found = swatches.find(({ name }) => name === swatch);
      return found ? [{ ...fill, swatchId: found.id }] : [];
    });
  return {
    palette: {
      swatches,
      roles: filled(roles),
      second: second ? { told: second.told as LightingSignal, roles: filled(second.roles) } : null,
      shape: shape ?? {},
      former: former ?? [],
    },
    naming: naming as BasisRow['naming'],
    parts: { parts: parts as unknown as readonly Part[], overrides: partOf },
    ownCss,
  };
}
