import type { LeftOutFile } from '@upper-veneer/contract';
import { errorText } from '@upper-veneer/words';
import { message, type Message } from '@upper-veneer/core';
import { crc32 } from 'node:zlib';
import { fromBufferPromise, type Entry, type ZipFile } from 'yauzl';
import type { Capture, CapturedFile, ReportProgress } from './captured.js';
import { CaptureProblem } from '@upper-veneer/browser';
import { LIMITS, megabytes } from './limits.js';

/** Bits of a Unix file mode. */
const FILE_KIND = 0o170000;
const SYMLINK = 0o120000;
const REGULAR = 0o100000;

/** What of an archive is read. */
type ZipLimits = Readonly<Record<'totalBytes' | 'files' | 'fileBytes' | 'pathLength', number>>;

/** Files that systems put into archives by themselves (common practice). */
const SYSTEM_FILE = /(?:^|\/)(?:__MACOSX\/|\.DS_Store$|Thumbs\.db$|desktop\.ini$|\._)/i;

/**
 * Reads a zip of a saved site. Sizes are counted while it is unpacked, whatever its directory claims.
 * @throws {CaptureProblem} for archives that are broken, leave their folder, or grow past the bounds.
 */
export async function readZip(archive: Buffer, report: ReportProgress, limits: ZipLimits = LIMITS): Promise<Capture> {
  let zip: ZipFile;
  try {
    zip = await fromBufferPromise(archive, { lazyEntries: true, autoClose: false, validateEntrySizes: true });
  } catch (error) {
    throw new CaptureProblem('unreadable', message('capture.zip-unreadable', { error: errorText(error) }));
  }
  if (zip.entryCount > limits.files)
    throw new CaptureProblem(
      'too-many',
      message('capture.zip-entries', { entries: zip.entryCount, most: limits.files }),
    );
  const files: CapturedFile[] = [];
  const leftOut: LeftOutFile[] = [];
  const names = new Set<string>();
  let total = 0;
  try {
    for await (const entry of zip.eachEntry()) {
      report(message('stage.unpacking'), files.length + leftOut.length, zip.entryCount);
      const path = entry.fileName;
      if (path.endsWith('/') || SYSTEM_FILE.test(path)) continue;
      const reason = refusalOf(entry, limits);
      if (reason !== null) {
        leftOut.push({ path: path.slice(0, limits.pathLength), reason });
        continue;
      }
      // Which of two a reader takes differs from reader to reader.
      if (names.has(path)) {
        leftOut.push({ path, reason: message('left-out.double-name') });
        continue;
      }
      names.add(path);
      const body = await unpack(zip, entry, total, limits);
      total += body.length;
      if (crc32(body) !== entry.crc32) {
        leftOut.push({ path, reason: message('left-out.damaged') });
        continue;
      }
      files.push({ address: path, mediaType: '', charset: '', body });
    }
  } catch (error) {
    if (error instanceof CaptureProblem) throw error;
    const text = errorText(error);
    const isOutside = /invalid relative path|absolute path|invalid characters in fileName/i.test(text);
    throw new CaptureProblem(
      isOutside ? 'unsafe' : 'unreadable',
      message(isOutside ? 'capture.zip-refused' : 'capture.zip-unreadable', { error: text }),
    );
  } finally {
    zip.close();
  }
  return { files: withoutSharedFolder(files), leftOut, pages: [] };
}

/** Why one entry is passed over; `null` when it is not. */
function refusalOf(entry: Entry, limits: ZipLimits): Message | null {
  const mode = (entry.externalFileAttributes >>> 16) & FILE_KIND;
  if (mode === SYMLINK) return message('left-out.link');
  if (mode !== 0 && mode !== REGULAR) return message('left-out.not-regular');
  if ((entry.generalPurposeBitFlag & 1) !== 0) return message('left-out.encrypted');
  if (entry.fileName.length > limits.pathLength)
    return message('left-out.long-path', { characters: limits.pathLength });
  if (entry.uncompressedSize > limits.fileBytes)
    return message('left-out.larger', { size: megabytes(limits.fileBytes) });
  return entry.uncompressedSize === 0 ? message('left-out.empty') : null;
}

async function unpack(zip: ZipFile, entry: Entry, before: number, limits: ZipLimits): Promise<Buffer> {
  const stream = await zip.openReadStreamPromise(entry);
  const chunks: Buffer[] = [];
  let size = 0;
  for await (const chunk of stream as AsyncIterable<Buffer>) {
    size += chunk.length;
    if (before + size > limits.totalBytes)
      throw new CaptureProblem(
        'too-large',
        message('capture.zip-too-large', { size: megabytes(limits.totalBytes), name: entry.fileName.slice(0, 120) }),
      );
    if (size > limits.fileBytes)
      throw new CaptureProblem(
        'too-large',
        message('capture.zip-file-too-large', {
          name: entry.fileName.slice(0, 120),
          size: megabytes(limits.fileBytes),
        }),
      );
    chunks.push(chunk);
  }
  return Buffer.concat(chunks);
}

/** Archives often hold one folder with everything in it; the site's paths begin inside. */
function withoutSharedFolder(files: readonly CapturedFile[]): CapturedFile[] {
  const [first] = files;
  const folder = first?.address.includes('/') ? first.address.slice(0, first.address.indexOf('/') + 1) : '';
  if (folder === '' || !files.every(({ address }) => address.startsWith(folder))) return [...files];
  return withoutSharedFolder(files.map((file) => ({ ...file, address: file.address.slice(folder.length) })));
}
