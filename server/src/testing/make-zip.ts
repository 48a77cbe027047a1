import { ZipFile } from 'yazl';

/** One entry of a test archive. */
export interface ZipEntry {
  readonly path: string;
  readonly body: Buffer | string;
  /** Unix mode, e.g. `0o120777` for a symbolic link. */
  readonly mode?: number;
}

/** A zip with these entries. */
export function makeZip(entries: readonly ZipEntry[]): Promise<Buffer> {
  const zip = new ZipFile();
  for (const { path, body, mode } of entries)
    zip.addBuffer(Buffer.from(body), path, { mtime: new Date('2026-01-01'), ...(mode === undefined ? {} : { mode }) });
  zip.end();
  return new Promise((done, failed) => {
    const chunks: Buffer[] = [];
    zip.outputStream.on('data', (chunk: Buffer) => chunks.push(chunk));
    zip.outputStream.on('end', () => done(Buffer.concat(chunks)));
    zip.outputStream.on('error', failed);
  });
}

/** The archive with one name written over another of the same length, as a hostile tool would. */
export function renameInZip(zip: Buffer, from: string, to: string): Buffer {
  if (Buffer.byteLength(from) !== Buffer.byteLength(to)) throw new RangeError('Names must be of one length');
  return Buffer.from(zip.toString('latin1').replaceAll(from, to), 'latin1');
}
