import { createWriteStream } from 'node:fs';
import { finished } from 'node:stream/promises';
import {
  ARCHIVE_FORMAT,
  ARCHIVE_HEAD,
  ARCHIVE_VERSION,
  type ArchiveBasis,
  type ArchiveHead,
  type ArchiveRevision,
  type ArchiveStep,
  type ArchiveTrial,
  type TrialDocument,
} from '@upper-veneer/contract';
import { message, type Override, type Palette } from '@upper-veneer/core';
import { say } from '@upper-veneer/words';
import { ZipFile } from 'yazl';
import { openDatabase } from '../db/open.js';
import type { MovedRevision } from '../db/moving.js';
import type { BasisRow } from '../draft-basis.js';
import { createStore, type Store } from '../store.js';
import type { TellProgress } from '../work/progress.js';
import { draftState, firstStep, paletteBody, stepBetween } from './draft-state.js';

/** What an archive is taken of. */
export interface TakeInput {
  /** A copy of the database that nobody else uses; it is changed. */
  readonly database: string;
  readonly siteId: number;
  /** Where the archive is written. */
  readonly file: string;
  /** ISO 8601. */
  readonly takenAt: string;
}

/** About so long are files of steps, UTF-16 units. */
const STEPS_LENGTH = 2_000_000;

/** Writes a site with its history into a zip of open JSON. The same database gives the same site, whenever it is taken. */
export async function takeArchive(
  { database, siteId, file, takenAt }: TakeInput,
  tell: TellProgress,
): Promise<boolean> {
  const db = openDatabase(database);
  try {
    const store = createStore(db);
    const site = store.sites.byId(siteId);
    if (!site) return false;
    const zip = new ZipFile();
    const written = createWriteStream(file);
    zip.outputStream.pipe(written);
    const add = (name: string, body: unknown): string => {
      zip.addBuffer(
        Buffer.isBuffer(body) ? body : Buffer.from(typeof body === 'string' ? body : JSON.stringify(body)),
        name,
        // The same bytes whenever it is taken.
        { mtime: new Date(takenAt) },
      );
      return name;
    };
    const now = draftState(store, siteId);
    const { start, steps, undone } = historyOf(store, siteId, takenAt, tell);
    if (JSON.stringify(draftState(store, siteId)) !== JSON.stringify(now))
      throw new Error('The history does not lead to the draft as it stands');
    const pages = store.pages.ids(siteId).map((id) => store.pages.byId(siteId, id));
    const head: ArchiveHead = {
      format: ARCHIVE_FORMAT,
      version: ARCHIVE_VERSION,
      takenAt,
      name: site.name,
      pages: pages.flatMap((page) => {
        const captured = page && store.pages.captured(siteId, page.id);
        if (!page || !captured) return [];
        const { id, name, path, source } = page;
        return [{ id, name, path, source, file: add(`pages/${id}.html`, captured.html) }];
      }),
      files: store.moving.files(siteId).map(({ path, mediaType }) => ({
        path,
        mediaType,
        file: add(`files/${path}`, store.assets.byPath(siteId, path)?.body ?? Buffer.alloc(0)),
      })),
      leftOut: store.leftOut
        .bySite(siteId)
        .map(({ path, reason }) => ({ path: path.slice(0, 1000), reason: say(reason).slice(0, 1000) })),
      visits: store.visits.bySite(siteId).map(({ plan, paths }) => ({
        plan: { ...plan, steps: [...plan.steps] },
        paths: [...paths],
      })),
      start,
      history: inPieces(steps).map((piece, i) => add(`history/${i + 1}.json`, { steps: piece })),
      undone,
      revisions: store.moving.revisions(siteId).map((row) => add(`revisions/${row.number}.json`, revisionBody(row))),
      publications: store.moving.publications(siteId),
      looked: store.looked.bySite(siteId),
      handed: store.settingsSheets.handed(siteId),
      variations: store.trials
        .variations(siteId)
        .map(({ name, revision, settings, madeAt }) => ({ name, revision, settings, madeAt })),
      trials: store.trials.bySite(siteId).map(archivedTrial),
      former: store.formerCaptures
        .bySite(siteId)
        .map(({ pageId, html, stylesheets, overrides, capturedAt }, i) =>
          add(`former/${i + 1}.json`, { pageId, html, stylesheets, overrides, capturedAt }),
        ),
    };
    add(ARCHIVE_HEAD, `${JSON.stringify(head, null, 2)}\n`);
    zip.end();
    await finished(written);
    return true;
  } finally {
    db.close();
  }
}

function archivedTrial(trial: TrialDocument): ArchiveTrial {
  const { name, state, looks, plan, conversions, seen, proofs, madeAt, startedAt, decision, counts } = trial;
  return { name, state, looks, plan, conversions, seen, proofs, madeAt, startedAt, decision, counts };
}

/** Steps through the history from its beginning. Leaves the draft as it was. */
function historyOf(
  store: Store,
  siteId: number,
  takenAt: string,
  tell: TellProgress,
): { readonly start: ArchiveStep; readonly steps: readonly ArchiveStep[]; readonly undone: number } {
  const log = store.changes.log(siteId);
  const undone = log.filter(({ isUndone }) => isUndone).length;
  while (store.changes.undo(siteId));
  let state = draftState(store, siteId);
  const start = firstStep(state, takenAt);
  const steps = log.map((entry, i) => {
    tell({ stage: message('stage.reading-history'), done: i, total: log.length });
    store.changes.redo(siteId);
    const next = draftState(store, siteId);
    const step = stepBetween(state, next, entry);
    state = next;
    return step;
  });
  for (let i = 0; i < undone; i += 1) store.changes.undo(siteId);
  return { start, steps, undone };
}

function inPieces(steps: readonly ArchiveStep[]): ArchiveStep[][] {
  const pieces: ArchiveStep[][] = [];
  let length = Infinity;
  for (const step of steps) {
    const own = JSON.stringify(step).length;
    if (length + own > STEPS_LENGTH) {
      pieces.push([]);
      length = 0;
    }
    pieces[pieces.length - 1].push(step);
    length += own;
  }
  return pieces;
}

function revisionBody({ untidied, overrides, basis, ...row }: MovedRevision): ArchiveRevision {
  return {
    ...row,
    isUntidied: untidied === 1,
    overrides: JSON.parse(overrides) as Override[],
    basis: basis === null ? null : basisBody(JSON.parse(basis) as BasisRow),
  };
}

function basisBody({ palette, naming, parts, ownCss }: BasisRow): ArchiveBasis {
  return {
    palette: paletteBody(palette as Palette),
    parts: parts.parts as unknown as ArchiveBasis['parts'],
    partOf: parts.overrides,
    naming: naming as ArchiveBasis['naming'],
    ownCss: ownCss ?? [],
  };
}
