import type { BrowserContext, Request } from 'playwright-core';
import { BOUNDS } from './bounds.js';

/** A file as the browser got it. */
export interface RecordedFile {
  readonly address: string;
  /** Where it came from in the end, when redirects led elsewhere. */
  readonly base?: string;
  readonly mediaType: string;
  readonly charset: string;
  readonly body: Buffer;
}

/** What a page looks by; all else of it is in its own text, or not needed. */
const KEPT = new Set(['stylesheet', 'image', 'font']);

const UNENDING = new Set(['eventsource', 'websocket', 'ping', 'media']);
/** How long a request is waited for, ms. */
const PATIENCE_MS = 3000;

/** Keeps the files that a page looks by as its browser gets them, so that nothing is asked for a second time. */
export class Recorder {
  readonly #files = new Map<string, RecordedFile>();
  readonly #reading = new Set<Promise<void>>();
  /** Requests under way, with when they began. */
  readonly #asking = new Map<Request, number>();
  #bytes = 0;

  /** Requests under way that an end can be waited for: what stays open, such as a stream of events, has none. */
  get asking(): number {
    const since = Date.now() - PATIENCE_MS;
    return [...this.#asking.values()].filter((begun) => begun > since).length;
  }

  listen(context: BrowserContext): void {
    context.on('request', (request) => {
      if (!UNENDING.has(request.resourceType())) this.#asking.set(request, Date.now());
    });
    context.on('requestfailed', (request) => this.#asking.delete(request));
    context.on('requestfinished', (request) => {
      this.#asking.delete(request);
      if (!KEPT.has(request.resourceType())) return;
      const reading: Promise<void> = this.#read(request)
        .catch(() => undefined)
        .finally(() => this.#reading.delete(reading));
      this.#reading.add(reading);
    });
  }

  async files(): Promise<RecordedFile[]> {
    await Promise.all(this.#reading);
    return [...this.#files.values()];
  }

  async #read(request: Request): Promise<void> {
    const response = await request.response();
    const address = request.url();
    if (!response?.ok() || !/^https?:/.test(address) || this.#bytes > BOUNDS.totalBytes) return;
    const body = await response.body();
    if (body.length > BOUNDS.fileBytes) return;
    this.#bytes += body.length;
    const type = response.headers()['content-type'] ?? '';
    const [mediaType = ''] = type.split(';');
    const charset = /charset\s*=\s*"?([^";\s]+)/i.exec(type)?.[1] ?? '';
    const file = { mediaType: mediaType.trim().toLowerCase(), charset, body };
    this.#files.set(address, { address, ...file });
    for (let from = request.redirectedFrom(); from; from = from.redirectedFrom())
      this.#files.set(from.url(), { address: from.url(), base: address, ...file });
  }
}
