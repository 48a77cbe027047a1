import { readFile, readdir, stat } from 'node:fs/promises';
import { join, posix, relative, sep } from 'node:path';
import { fromBuffer, type Entry, type ZipFile } from 'yauzl';
import { UsageProblem } from './usage-problem.js';

/** A saved site: pages and stylesheets by their path in it. */
export interface SavedSite {
  readonly pages: readonly { readonly path: string; readonly html: string }[];
  readonly stylesheets: Readonly<Record<string, string>>;
}

/** Bounds on what is read. */
const LIMITS = { pages: 200, files: 5_000, fileBytes: 20_000_000, totalBytes: 200_000_000, depth: 12 } as const;
const isPage = (path: string): boolean => /\.(?:html?|xhtml)$/i.test(path);
const isSheet = (path: string): boolean => /\.css$/i.test(path);

/**
 * Reads a folder or a zip of saved pages.
 * @throws {UsageProblem} when it is not there, is neither, holds no page, or grows past the bounds.
 */
export async function readSite(path: string): Promise<SavedSite> {
  const about = await stat(path).catch(() => null);
  if (!about) throw new UsageProblem(`${path} is not there`);
  const files = about.isDirectory() ? await readFolder(path) : await readZip(path);
  const pages = [...files].filter(([name]) => isPage(name)).sort(([a], [b]) => (a < b ? -1 : 1));
  if (pages.length === 0) throw new UsageProblem(`${path} holds no page: no file that ends in .html or .htm`);
  if (pages.length > LIMITS.pages)
    throw new UsageProblem(`${path} holds ${pages.length} pages; ${LIMITS.pages} are read at most`);
  return {
    pages: pages.map(([name, text]) => ({ path: name, html: text })),
    stylesheets: Object.fromEntries([...files].filter(([name]) => isSheet(name))),
  };
}

/** Takes files in within the bounds. */
class Taking {
  readonly files = new Map<string, string>();
  #total = 0;

  constructor(readonly of: string) {}

  add(name: string, body: Buffer): void {
    this.#total += body.length;
    if (this.files.size >= LIMITS.files) throw new UsageProblem(`${this.of} holds more than ${LIMITS.files} files`);
    if (body.length > LIMITS.fileBytes || this.#total > LIMITS.totalBytes)
      throw new UsageProblem(`${this.of} is larger than is read: ${name}`);
    this.files.set(name, new TextDecoder('utf-8').decode(body));
  }
}

async function readFolder(root: string): Promise<Map<string, string>> {
  const taking = new Taking(root);
  const walk = async (folder: string, depth: number): Promise<void> => {
    if (depth > LIMITS.depth) return;
    for (const entry of (await readdir(folder, { withFileTypes: true })).sort((a, b) => (a.name < b.name ? -1 : 1))) {
      const path = join(folder, entry.name);
      if (entry.isDirectory() && entry.name !== 'node_modules' && !entry.name.startsWith('.'))
        await walk(path, depth + 1);
      else if (entry.isFile() && (isPage(entry.name) || isSheet(entry.name)))
        taking.add(relative(root, path).split(sep).join('/'), await readFile(path));
    }
  };
  await walk(root, 0);
  return taking.files;
}

async function readZip(path: string): Promise<Map<string, string>> {
  const body = await readFile(path);
  const zip = await new Promise<ZipFile>((done, failed) =>
    fromBuffer(body, { lazyEntries: true }, (error, file) => (error ? failed(error) : done(file))),
  ).catch(() => {
    throw new UsageProblem(`${path} is neither a folder nor a zip archive`);
  });
  const taking = new Taking(path);
  await new Promise<void>((done, failed) => {
    zip.on('error', failed);
    zip.on('end', () => done());
    zip.on('entry', (entry: Entry) => {
      const name = posix.normalize(entry.fileName);
      if (!(isPage(name) || isSheet(name)) || name.startsWith('../') || entry.uncompressedSize > LIMITS.fileBytes) {
        zip.readEntry();
        return;
      }
      zip.openReadStream(entry, (error, stream) => {
        if (error) {
          failed(error);
          return;
        }
        const chunks: Buffer[] = [];
        stream.on('data', (chunk: Buffer) => chunks.push(chunk));
        stream.on('error', failed);
        stream.on('end', () => {
          try {
            taking.add(name, Buffer.concat(chunks));
            zip.readEntry();
          } catch (problem) {
            failed(problem);
          }
        });
      });
    });
    zip.readEntry();
  });
  return taking.files;
}
