import type { LeftOutFile } from '@upper-veneer/contract';
import { errorText } from '@upper-veneer/words';
import { Writable, type Duplex, type Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { createBrotliDecompress, createGunzip, createUnzip } from 'node:zlib';
import { message, cssAddresses, pageAddresses, type PageAddress } from '@upper-veneer/core';
import { Agent, request, type Dispatcher } from 'undici';
import {
  checkAddress,
  innerLookup,
  isAllowed,
  narrowedTo,
  publicLookup,
  type AddressPolicy,
} from '@upper-veneer/browser';
import { resolveAddress } from './assemble-site.js';
import type { Capture, CapturedFile, ReportProgress } from './captured.js';
import { decodeCss, decodeHtml } from './decode-text.js';
import { CaptureProblem } from '@upper-veneer/browser';
import { LIMITS, megabytes } from './limits.js';
import { isUrl } from '@upper-veneer/browser';

/** Requests under way at a time. */
const AT_A_TIME = 4;

/**
 * Fetches a page with its stylesheets, what those import, and the pictures and fonts they need.
 * @throws {CaptureProblem} when the page itself is refused, does not answer, or grows past the bounds.
 */
export function fetchAddress(address: string, policy: AddressPolicy, report: ReportProgress): Promise<Capture> {
  return fetching(address, policy, async (fetchFile, within) => {
    report(message('stage.fetching-page'), 0, 1);
    const page = await fetchFile(address);
    if (!isHtml(page))
      throw new CaptureProblem(
        'no-page',
        page.mediaType
          ? message('capture.not-html', { address, type: page.mediaType })
          : message('capture.not-html-no-type', { address }),
      );
    return { ...(await fetchNeeded([page], fetchFile, within, report)), pages: [page.address] };
  });
}

/**
 * Documents that are there already, with what they refer to: files that came with them, and for the others the address is asked.
 * @throws {CaptureProblem} past the bounds.
 */
export function fetchFor(
  documents: readonly CapturedFile[],
  files: readonly CapturedFile[],
  policy: AddressPolicy,
  report: ReportProgress,
): Promise<Pick<Capture, 'files' | 'leftOut'>> {
  const known = new Map(files.map((file) => [file.address, file]));
  return fetching(documents[0]?.address ?? '', policy, (fetchFile, within) =>
    fetchNeeded(
      documents,
      (target) => {
        const file = known.get(target);
        // What it refers to is found from where it came from in the end.
        return file ? Promise.resolve({ ...file, address: file.base ?? file.address }) : fetchFile(target);
      },
      within,
      report,
    ),
  );
}

async function fetching<T>(
  address: string,
  given: AddressPolicy,
  work: (fetchFile: FetchFile, within: AbortSignal) => Promise<T>,
): Promise<T> {
  const policy = narrowedTo(address, given);
  const within = AbortSignal.timeout(LIMITS.fetchTotalMs);
  const publicAgent = new Agent({ connect: { lookup: publicLookup }, connectTimeout: LIMITS.fetchMs });
  const innerAgent = new Agent({ connect: { lookup: innerLookup }, connectTimeout: LIMITS.fetchMs });
  const agentFor = (url: URL): Dispatcher => (isAllowed(url, policy) ? innerAgent : publicAgent);
  try {
    return await work((target) => fetchOne(target, policy, agentFor, within), within);
  } catch (error) {
    if (error instanceof CaptureProblem) throw error;
    if (within.aborted)
      throw new CaptureProblem(
        'not-fetched',
        message('capture.fetch-too-long', { address, seconds: LIMITS.fetchTotalMs / 1000 }),
      );
    throw new CaptureProblem('not-fetched', message('capture.not-fetched', { address, error: errorText(error) }));
  } finally {
    await Promise.all([publicAgent.destroy(), innerAgent.destroy()]);
  }
}

type FetchFile = (address: string) => Promise<CapturedFile>;

/** An address as a file refers to it. */
interface Reference {
  readonly from: string;
  readonly reference: string;
}

/** All that documents refer to and what that refers to in turn, a few at a time. @throws {CaptureProblem} past the bounds. */
async function fetchNeeded(
  documents: readonly CapturedFile[],
  fetchFile: FetchFile,
  within: AbortSignal,
  report: ReportProgress,
): Promise<Pick<Capture, 'files' | 'leftOut'>> {
  const texts = documents.map(({ body, charset }) => decodeHtml(body, charset));
  const encoding = texts[0]?.encoding ?? '';
  const gathered = new Gathered(documents);
  const leftOut: LeftOutFile[] = [];
  const referred = (kinds: readonly PageAddress['kind'][]): Reference[] =>
    documents.flatMap((page, i) => referencesOf(page, texts[i].text, kinds));
  const waiting = referred(['stylesheet', 'file', 'frame']);
  const frames = new Set(referred(['frame']).map(({ from, reference }) => resolveAddress(from, reference)));
  const asked = new Set(documents.map(({ address }) => address));
  while (waiting.length > 0) {
    const batch = waiting.splice(0, AT_A_TIME).flatMap((next) => newTarget(next, asked));
    report(message('stage.fetching-needed'), gathered.count, gathered.count + waiting.length + batch.length);
    const answers = await Promise.all(
      batch.map((target) =>
        fetchFile(target).then(
          (file) => ({ target, file, error: null }),
          (error: unknown) => ({ target, file: null, error }),
        ),
      ),
    );
    for (const { target, file, error } of answers) {
      if (within.aborted) throw error;
      if (!file) {
        leftOut.push({
          path: target,
          reason: error instanceof CaptureProblem ? error.told : errorText(error),
        });
        continue;
      }
      gathered.add(target, file);
      // What a framed document needs comes along, but not what it frames itself.
      if (isHtml(file) && frames.has(target))
        waiting.push(...referencesOf(file, decodeHtml(file.body, file.charset).text, ['stylesheet', 'file']));
      if (file.mediaType === 'text/css')
        for (const { address } of cssAddresses(decodeCss(file.body, file.charset, encoding).text))
          waiting.push({ from: file.address, reference: address });
    }
  }
  return { files: gathered.files(), leftOut };
}

function isHtml({ mediaType }: CapturedFile): boolean {
  return /^(?:text\/html|application\/xhtml\+xml)$/.test(mediaType);
}

/** What of some kinds a page refers to, from its base. */
function referencesOf(page: CapturedFile, html: string, kinds: readonly PageAddress['kind'][]): Reference[] {
  const { base, addresses } = pageAddresses(html);
  const own = page.base ?? page.address;
  const from = base !== '' && URL.canParse(base, own) ? new URL(base, own).href : own;
  return addresses.filter(({ kind }) => kinds.includes(kind)).map(({ address: reference }) => ({ from, reference }));
}

/** Where a reference leads, once, and only where there is something to fetch. */
function newTarget({ from, reference }: Reference, asked: Set<string>): string[] {
  const target = resolveAddress(from, reference);
  if (target === null || asked.has(target) || !isUrl(target) || /^(?:data|about|blob):/i.test(target)) return [];
  asked.add(target);
  return [target];
}

/** What has come so far, within the bounds. */
class Gathered {
  private readonly found = new Map<string, CapturedFile>();
  private total = 0;

  constructor(documents: readonly CapturedFile[]) {
    for (const document of documents) {
      this.found.set(document.address, document);
      this.total += document.body.length;
    }
  }

  get count(): number {
    return this.found.size;
  }

  /** @throws {CaptureProblem} `too-large`, `too-many`. */
  add(target: string, file: CapturedFile): void {
    this.total += file.body.length;
    if (this.total > LIMITS.totalBytes)
      throw new CaptureProblem('too-large', message('capture.page-too-large', { size: megabytes(LIMITS.totalBytes) }));
    if (this.found.size >= LIMITS.files)
      throw new CaptureProblem('too-many', message('capture.page-too-many-files', { files: LIMITS.files }));
    this.found.set(target, { ...file, address: target, ...(file.address === target ? {} : { base: file.address }) });
  }

  files(): CapturedFile[] {
    return [...this.found.values()];
  }
}

/** Follows redirects by hand, each checked like the first. */
async function fetchOne(
  address: string,
  policy: AddressPolicy,
  agentFor: (url: URL) => Dispatcher,
  signal: AbortSignal,
): Promise<CapturedFile> {
  let url = checkAddress(address, policy);
  for (let hop = 0; hop <= LIMITS.redirects; hop += 1) {
    const answer = await request(url, {
      dispatcher: agentFor(url),
      signal: AbortSignal.any([signal, AbortSignal.timeout(LIMITS.fetchMs)]),
      headers: { accept: 'text/html,text/css,image/*,font/*,*/*;q=0.5', 'accept-encoding': 'gzip, deflate, br' },
    });
    const location = single(answer.headers['location']);
    if (answer.statusCode >= 300 && answer.statusCode < 400 && location !== '') {
      await answer.body.dump();
      url = checkAddress(URL.canParse(location, url.href) ? new URL(location, url).href : location, policy);
      continue;
    }
    if (answer.statusCode !== 200) {
      await answer.body.dump();
      throw new CaptureProblem(
        'not-fetched',
        message('capture.answered', { address: url.href, status: answer.statusCode }),
      );
    }
    const encodings = single(answer.headers['content-encoding'])
      .toLowerCase()
      .split(',')
      .map((name) => name.trim())
      .filter((name) => name !== '' && name !== 'identity');
    const unknown = encodings.find((name) => !DECODERS.has(name));
    if (unknown !== undefined || encodings.length > 2) {
      await answer.body.dump();
      throw new CaptureProblem('not-fetched', message('capture.other-compression', { address: url.href, encodings }));
    }
    const body = await readBody(answer.body, encodings, url.href);
    const type = single(answer.headers['content-type']);
    return {
      address: url.href,
      mediaType: type.split(';')[0].trim().toLowerCase(),
      charset: /charset\s*=\s*"?([^";\s]+)/i.exec(type)?.[1] ?? '',
      body,
    };
  }
  throw new CaptureProblem('not-fetched', message('capture.redirects', { address, times: LIMITS.redirects }));
}

/** How answers come compressed. Source: RFC 9110 §8.4.1; `deflate` with or without its wrapper is common practice. */
const DECODERS: ReadonlyMap<string, () => Duplex> = new Map<string, () => Duplex>([
  ['gzip', createGunzip],
  ['x-gzip', createGunzip],
  ['br', createBrotliDecompress],
  ['deflate', createUnzip],
]);

/** The body as it was before it was compressed, whatever it grows to bounded. @throws {CaptureProblem} `too-large`, `not-fetched`. */
async function readBody(from: Readable, encodings: readonly string[], name: string): Promise<Buffer> {
  const chunks: Buffer[] = [];
  let size = 0;
  const taking = new Writable({
    write(chunk: Buffer, _encoding, done) {
      size += chunk.length;
      chunks.push(chunk);
      done(
        size > LIMITS.fileBytes
          ? new CaptureProblem(
              'too-large',
              message('capture.file-too-large', { name, size: megabytes(LIMITS.fileBytes) }),
            )
          : null,
      );
    },
  });
  try {
    // Applied in the order they are listed, so undone from the last.
    await pipeline([
      from,
      ...[...encodings].reverse().map((encoding) => (DECODERS.get(encoding) ?? createGunzip)()),
      taking,
    ]);
  } catch (error) {
    if (error instanceof CaptureProblem) throw error;
    if (
      error instanceof Error &&
      'code' in error &&
      /^(?:Z_|ERR_.*(?:BROTLI|ZLIB)|ERR__ERROR)/.test(String(error.code))
    )
      throw new CaptureProblem('not-fetched', message('capture.broken-compression', { name }));
    throw error;
  }
  return Buffer.concat(chunks);
}

function single(value: string | string[] | undefined): string {
  return Array.isArray(value) ? (value[0] ?? '') : (value ?? '');
}
