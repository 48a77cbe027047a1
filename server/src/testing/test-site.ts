import { mkdtempSync, rmSync } from 'node:fs';
import { createServer, request, type IncomingMessage, type Server } from 'node:http';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { createApp } from '../app.js';
import { storeSite, type NewSite } from '../captures.js';
import type { Db } from '../db/db.js';
import { openDatabase } from '../db/open.js';
import { createHostCache } from '../host-cache.js';
import { askHostAt } from '../served.js';
import { createStandInHost, siteHostName } from '../stand-in-host.js';
import { createStore, type Store } from '../store.js';
import { createDressedTexts } from '../work/dressed-texts.js';
import { createThreadPool } from '../work/thread-pool.js';

/** A small site: one page, one sheet, one part, two swatches. */
export const SMALL_SITE: NewSite = {
  name: 'Small',
  prefix: 'brand',
  veneerPlace: 'head-end',
  pages: [
    {
      name: 'Home',
      path: 'index.html',
      html: '<!doctype html><head><link rel=stylesheet href=css/a.css></head><body><p class=x onclick="x()">hi<script>1</script></body>',
    },
  ],
  assets: [
    { path: 'css/a.css', mediaType: 'text/css', body: Buffer.from('.x:hover { color: red }') },
    { path: 'img/a.svg', mediaType: 'image/svg+xml', body: Buffer.from('<svg xmlns="http://www.w3.org/2000/svg"/>') },
  ],
  parts: [{ name: 'All', kind: 'theme', selector: 'body' }],
  swatches: [
    { name: 'Willow', css: '#b4582a' },
    { name: 'Chalk', css: '#fff' },
  ],
  roles: [{ role: 'accent', swatch: 'Willow', shade: 0 }],
};

/** An answer of the stand-in host. */
export interface Visit {
  readonly status: number;
  readonly headers: IncomingMessage['headers'];
  readonly text: string;
}

/** One for all servers of a run: threads take a while to start. */
const pool = createThreadPool();
const dressed = createDressedTexts(pool);

/** Asks under a host name that only browsers look up. */
function visit(port: number, path: string, name: string, headers: Record<string, string>): Promise<Visit> {
  return new Promise((done, failed) => {
    const asked = request(
      { host: '127.0.0.1', port, path, headers: { ...headers, host: `${name}:${port}` } },
      (response) => {
        let text = '';
        response
          .setEncoding('utf8')
          .on('data', (chunk: string) => (text += chunk))
          .on('end', () => done({ status: response.statusCode ?? 0, headers: response.headers, text }));
      },
    );
    asked.on('error', failed).end();
  });
}

/** A running server with a real SQLite file in a folder of its own. */
export interface TestServer {
  readonly db: Db;
  readonly store: Store;
  readonly file: string;
  readonly url: string;
  readonly hostUrl: string;
  readonly siteId: number;
  readonly errors: unknown[];
  /** Time as the host's cache has it, ms since the epoch. */
  readonly clock: { now: number };
  get(path: string, headers?: Record<string, string>): Promise<Response>;
  /** What the stand-in host answers a visitor of the site. */
  visit(path: string, site?: string, headers?: Record<string, string>): Promise<Visit>;
  post(path: string, body: unknown, headers?: Record<string, string>): Promise<Response>;
  /** Lets a host of this machine be fetched from, `host:port`. */
  allow(host: string): void;
  stop(): Promise<void>;
}

export async function startTestServer(): Promise<TestServer> {
  const clock = { now: Date.parse('2026-01-02T03:04:05Z') };
  const folder = mkdtempSync(join(tmpdir(), 'uv-'));
  const file = join(folder, 'test.sqlite');
  const db = openDatabase(file);
  const store = createStore(db);
  const siteId = storeSite(store, SMALL_SITE);
  const cache = createHostCache(() => clock.now);
  const errors: unknown[] = [];
  let hostUrl = '';
  let hostPort = 0;
  const allowed: string[] = [];
  const { app, close } = createApp({
    store,
    pool,
    dressed,
    cache,
    hostUrl: (id) => `http://host.test/${id}/`,
    widgetsAt: (id) => `http://widgets-${id}.localhost:${hostPort}/${id}`,
    askHost: (id, path) => askHostAt(`http://127.0.0.1:${hostPort}`, siteHostName)(id, path),
    fetchPolicy: () => ({ allowedHosts: [`*.localhost:${hostPort}`, ...allowed], allowPrivate: false }),
    now: () => new Date('2026-01-02T03:04:05Z'),
    log: (error) => errors.push(error),
  });
  const server = createServer(app);
  const host = createServer(createStandInHost({ store, dressed, cache }));
  const url = await listen(server);
  hostPort = Number(new URL(await listen(host)).port);
  hostUrl = `http://${siteHostName(siteId)}:${hostPort}`;
  return {
    db,
    store,
    file,
    url,
    hostUrl,
    siteId,
    errors,
    clock,
    visit: (path, name = siteHostName(Number(path.split('/')[1])), headers = {}) =>
      visit(hostPort, path, name, headers),
    get: (path, headers = {}) => fetch(url + path, { headers }),
    post: (path, body, headers = {}) =>
      fetch(url + path, {
        method: 'POST',
        headers: { 'content-type': 'application/json', ...headers },
        body: typeof body === 'string' ? body : JSON.stringify(body),
      }),
    allow: (host) => void allowed.push(host),
    stop: async () => {
      close();
      await Promise.all(
        [server, host].map(
          (each) =>
            new Promise((done) => {
              each.closeAllConnections();
              each.close(done);
            }),
        ),
      );
      db.close();
      rmSync(folder, { recursive: true, force: true });
    },
  };
}

function listen(server: Server): Promise<string> {
  // A spec that computes for longer would find its kept connection closed as it is used again.
  server.keepAliveTimeout = 120_000;
  return new Promise((done) => {
    server.listen(0, '127.0.0.1', () => {
      const address = server.address();
      done(`http://127.0.0.1:${typeof address === 'object' && address ? address.port : 0}`);
    });
  });
}
