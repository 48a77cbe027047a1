import { errorText } from '@upper-veneer/words';
import type { LeftOutFile } from '@upper-veneer/contract';
import {
  ARCHIVE_FORMAT,
  ARCHIVE_HEAD,
  ArchiveFormer,
  ArchiveHead,
  ArchiveHistory,
  ArchiveRevision,
  validateBody,
  type SiteArchive,
} from '@upper-veneer/contract';
import { inner, message, cleanPage, resolvePath, sheetSpans, upTo, type SheetSpan } from '@upper-veneer/core';
import { fromBufferPromise } from 'yauzl';
import type { CapturedFile, ReportProgress } from '../import/captured.js';
import { CaptureProblem } from '@upper-veneer/browser';
import { hasSignature, kindOf } from '../import/media-type.js';
import { readZip } from '../import/read-zip.js';
import { isUrl, withoutFragment } from '@upper-veneer/browser';
import { archiveProblems } from './archive-problems.js';

/** An archive that was read and found whole, with what its files hold. */
export interface ReadArchive {
  readonly archive: SiteArchive;
  /** What the archive says was left out, and what was left out of the archive. */
  readonly leftOut: readonly LeftOutFile[];
  /** By the number of the page. */
  readonly pages: ReadonlyMap<number, { readonly html: string; readonly spans: readonly SheetSpan[] | null }>;
  readonly files: readonly { readonly path: string; readonly mediaType: string; readonly body: Uint8Array }[];
}

/** Bounds of an archive, which holds a history besides a site. */
const LIMITS = {
  totalBytes: 400 * 1024 * 1024,
  files: 12_000,
  fileBytes: 60 * 1024 * 1024,
  pathLength: 440,
};

/** Whether a file is an archive of a site, and no saved site. */
export async function isArchive(body: Buffer): Promise<boolean> {
  try {
    const zip = await fromBufferPromise(body, { lazyEntries: true, autoClose: false });
    try {
      for await (const { fileName } of zip.eachEntry()) if (fileName.split('/').pop() === ARCHIVE_HEAD) return true;
    } finally {
      zip.close();
    }
  } catch {
    // What is no zip is none of ours; who reads it as a saved site says what is wrong with it.
  }
  return false;
}

/**
 * Reads an archive of a site. Its pages are cleaned as those of any import: an archive may come from anywhere.
 * @throws {CaptureProblem} that names what is wrong and where.
 */
export async function readArchive(body: Buffer, report: ReportProgress): Promise<ReadArchive> {
  const { files, leftOut } = await readZip(body, report, LIMITS);
  const byName = new Map(files.map((file) => [file.address, file]));
  const textOf = (name: string): string => {
    const file = byName.get(name);
    if (file) return file.body.toString('utf8');
    const reason = leftOut.find(({ path }) => path === name)?.reason;
    // An empty file is left out of any zip.
    if (typeof reason === 'object' && reason.code === 'left-out.empty') return '';
    throw new CaptureProblem(
      'unreadable',
      reason === undefined
        ? message('capture.not-in-archive', { name })
        : message('capture.not-in-archive-why', { name, reason: typeof reason === 'string' ? reason : inner(reason) }),
    );
  };
  const jsonOf = <T extends object>(name: string, type: new () => T): T => {
    let plain: unknown;
    try {
      plain = JSON.parse(textOf(name));
    } catch (error) {
      if (error instanceof CaptureProblem) throw error;
      throw new CaptureProblem('unreadable', message('capture.no-json', { name, error: errorText(error) }));
    }
    const read = validateBody(type, plain);
    if (read.ok) return read.value;
    const told = read.errors.slice(0, 3).map(({ field, reason }) => `${field} ${reason}`);
    throw new CaptureProblem('unreadable', message('capture.file-wrong', { name, wrong: told.join('; ') }));
  };
  const head = jsonOf(ARCHIVE_HEAD, ArchiveHead);
  report(message('stage.reading-history'), 0, head.history.length);
  const archive: SiteArchive = {
    head,
    steps: head.history.flatMap((name) => jsonOf(name, ArchiveHistory).steps),
    revisions: head.revisions.map((name) => jsonOf(name, ArchiveRevision)),
    former: head.former.map((name) => jsonOf(name, ArchiveFormer)),
  };
  const problems = archiveProblems(archive);
  if (problems.length > 0)
    throw new CaptureProblem('unreadable', message('capture.archive-damaged', { format: ARCHIVE_FORMAT, problems }));
  const runs = head.files.filter(({ mediaType }) => !['asset', 'page'].includes(kindOf(mediaType)));
  const shown = head.files.filter((file) => !runs.includes(file));
  const known = new Set([...shown, ...head.pages].map(({ path }) => path));
  const kept = shown.map(({ path, mediaType, file }) => {
    const body = assetBody(path, mediaType, byName.get(file));
    // What pages frame runs no more than they do.
    return {
      path,
      mediaType,
      body: kindOf(mediaType) === 'page' ? Buffer.from(cleaned(body.toString(), path, known)) : body,
    };
  });
  const ordered = pagesInOrder(archive);
  const pages = head.pages.map(({ id, path, file }, i) => {
    report(message('stage.cleaning'), i, head.pages.length);
    const html = cleaned(textOf(file), path, known);
    return [id, { html, spans: ordered.has(id) ? sheetSpans(html) : null }] as const;
  });
  const former = archive.former.map((capture) => {
    const page = head.pages.find(({ id }) => id === capture.pageId);
    return { ...capture, html: cleaned(capture.html, page?.path ?? '', known) };
  });
  const left = [...head.leftOut, ...runs.map(({ path }) => ({ path, reason: message('left-out.runs') }))];
  return { archive: { ...archive, former }, leftOut: left, pages: new Map(pages), files: kept };
}

function assetBody(path: string, mediaType: string, file: CapturedFile | undefined): Buffer {
  const body = file?.body ?? Buffer.alloc(0);
  if (body.length > 0 && !hasSignature(mediaType, body))
    throw new CaptureProblem('unsafe', message('capture.other-type', { path, type: mediaType }));
  return body;
}

function cleaned(html: string, path: string, known: ReadonlySet<string>): string {
  try {
    return cleanPage(html, ({ address, kind }) => {
      if (kind === 'page') return address;
      if (isUrl(address) || address.startsWith('//')) return null;
      const target = resolvePath(path, withoutFragment(address));
      return target !== null && known.has(upTo(target, '?')) ? address : null;
    }).html;
  } catch (error) {
    if (!(error instanceof RangeError)) throw error;
    throw new CaptureProblem('unsafe', message('capture.reads-otherwise', { path }));
  }
}

/** Pages whose stylesheets were ever given an order. */
function pagesInOrder({ head, steps }: SiteArchive): ReadonlySet<number> {
  return new Set(
    [head.start, ...steps].flatMap(({ arrangement }) =>
      Object.entries(arrangement?.sheetOrders ?? {}).flatMap(([id, order]) => (order === null ? [] : [Number(id)])),
    ),
  );
}
