import { crc32 } from 'node:zlib';
import { fromBufferPromise, type Entry, type ZipFile } from 'yauzl';
import type { Capture, CapturedFile, LeftOut, ReportProgress } from './captured.js';
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
    throw new CaptureProblem(
      'unreadable',
      `The zip archive cannot be read: ${error instanceof Error ? error.message : String(error)}`,
    );
  }
  if (zip.entryCount > limits.files)
    throw new CaptureProblem(
      'too-many',
      `The archive holds ${zip.entryCount.toLocaleString('en')} entries; ${limits.files.toLocaleString('en')} are the most`,
    );
  const files: CapturedFile[] = [];
  const leftOut: LeftOut[] = [];
  const names = new Set<string>();
  let total = 0;
  try {
    for await (const entry of zip.eachEntry()) {
      report('Unpacking', files.length + leftOut.length, zip.entryCount);
      const path = entry.fileName;
      if (path.endsWith('/') || SYSTEM_FILE.test(path)) continue;
      const reason = refusalOf(entry, limits);
      if (reason !== null) {
        leftOut.push({ path: path.slice(0, limits.pathLength), reason });
        continue;
      }
      // Which of two a reader takes differs from reader to reader.
      if (names.has(path)) {
        leftOut.push({ path, reason: 'Another file of the archive has that name; the first was taken' });
        continue;
      }
      names.add(path);
      const body = await unpack(zip, entry, total, limits);
      total += body.length;
      if (crc32(body) !== entry.crc32) {
        leftOut.push({ path, reason: 'Damaged: it is not what the archive says was packed' });
        continue;
      }
      files.push({ address: path, mediaType: '', charset: '', body });
    }
  } catch (error) {
    if (error instanceof CaptureProblem) throw error;
    const message = error instanceof Error ? error.message : String(error);
    const isOutside = /invalid relative path|absolute path|invalid characters in fileName/i.test(message);
    throw new CaptureProblem(
      isOutside ? 'unsafe' : 'unreadable',
      isOutside ? `The archive is refused: ${message}` : `The zip archive cannot be read: ${message}`,
    );
  } finally {
    zip.close();
  }
  return { files: withoutSharedFolder(files), leftOut, pages: [] };
}

/** Why one entry is passed over; `null` when it is not. */
function refusalOf(entry: Entry, limits: ZipLimits): string | null {
  const mode = (entry.externalFileAttributes >>> 16) & FILE_KIND;
  if (mode === SYMLINK) return 'A link to another file';
  if (mode !== 0 && mode !== REGULAR) return 'No regular file';
  if ((entry.generalPurposeBitFlag & 1) !== 0) return 'Encrypted';
  if (entry.fileName.length > limits.pathLength) return `Its path is longer than ${limits.pathLength} characters`;
  if (entry.uncompressedSize > limits.fileBytes) return `Larger than ${megabytes(limits.fileBytes)}`;
  return entry.uncompressedSize === 0 ? 'Empty' : null;
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
        `Unpacked, the archive is larger than ${megabytes(limits.totalBytes)}; it grew past that in "${entry.fileName.slice(0, 120)}"`,
      );
    if (size > limits.fileBytes)
      throw new CaptureProblem(
        'too-large',
        `"${entry.fileName.slice(0, 120)}" unpacks to more than ${megabytes(limits.fileBytes)}`,
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
