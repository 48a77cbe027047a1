import type { LeftOutFile } from '@upper-veneer/contract';
import { message } from '@upper-veneer/core';
import type { Capture, CapturedFile, ReportProgress } from './captured.js';
import { CaptureProblem } from '@upper-veneer/browser';
import { LIMITS, megabytes } from './limits.js';
import { looksLikeMhtml, readMhtml } from './read-mhtml.js';
import { readZip } from './read-zip.js';

/** A file as the browser sends it; its name may be a path within a folder. */
export interface Upload {
  readonly name: string;
  readonly body: Buffer;
}

/** Reads what was uploaded: one zip, one or more web archives, or HTML files with what they need. */
export async function readUploads(uploads: readonly Upload[], report: ReportProgress): Promise<Capture> {
  if (uploads.length === 0) throw new CaptureProblem('no-page', message('capture.no-file'));
  const captures: Capture[] = [];
  const loose: Upload[] = [];
  for (const upload of uploads) {
    if (isZip(upload.body)) captures.push(await readZip(upload.body, report));
    else if (looksLikeMhtml(upload.body)) captures.push(await readMhtml(upload.body, report));
    else loose.push(upload);
  }
  captures.push(readLoose(loose));
  const files = captures.flatMap((capture) => capture.files);
  const total = files.reduce((sum, { body }) => sum + body.length, 0);
  if (total > LIMITS.totalBytes)
    throw new CaptureProblem('too-large', message('capture.files-too-large', { size: megabytes(LIMITS.totalBytes) }));
  if (files.length > LIMITS.files)
    throw new CaptureProblem(
      'too-many',
      message('capture.too-many-files', { files: files.length, most: LIMITS.files }),
    );
  const named = captures.flatMap(({ pages }) => pages);
  // An archive names its page; HTML files beside it are pages as well.
  const pages =
    named.length === 0
      ? []
      : [...named, ...loose.filter(({ name }) => /\.x?html?$/i.test(name)).map(({ name }) => name)];
  return { files, leftOut: captures.flatMap(({ leftOut }) => leftOut), pages };
}

function readLoose(uploads: readonly Upload[]): Capture {
  const files: CapturedFile[] = [];
  const leftOut: LeftOutFile[] = [];
  for (const { name, body } of uploads) {
    const path = name.replaceAll('\\', '/').replace(/^\/+/, '');
    if (path.split('/').includes('..') || /^[a-z]:/i.test(path) || path.includes('\0'))
      throw new CaptureProblem('unsafe', message('capture.leaves-folder', { path: path.slice(0, 120) }));
    if (body.length === 0) leftOut.push({ path, reason: message('left-out.empty') });
    else if (body.length > LIMITS.fileBytes)
      leftOut.push({ path, reason: message('left-out.larger', { size: megabytes(LIMITS.fileBytes) }) });
    else files.push({ address: path, mediaType: '', charset: '', body });
  }
  return { files, leftOut, pages: [] };
}

/** Local file header of a zip, or the end record of an empty one. */
function isZip(body: Buffer): boolean {
  return body[0] === 0x50 && body[1] === 0x4b && ((body[2] === 3 && body[3] === 4) || (body[2] === 5 && body[3] === 6));
}
