import { say } from '@upper-veneer/words';
import { createSocket } from 'node:dgram';
import { readFileSync, readdirSync } from 'node:fs';
import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { CaptureProblem, findBrowser, startVisitProcess } from '@upper-veneer/browser';
import type { ImportResult, SiteDocument } from '@upper-veneer/contract';
import { cleanPage } from '@upper-veneer/core';
import type { Browser } from 'playwright-core';
import { launchBrowser } from '../support/browser.js';
import { OUTSIDE, hostileCorpus } from '../support/hostile-corpus.js';
import { runImport } from '../support/run-import.js';
import { startProduct, temporaryFolder, type Product } from '../support/product.js';
import { watchPages } from '../support/watch-pages.js';
import { isWhole } from '../support/whole-run.js';

/** Pages of the corpus, and captures of which a fifth hang or crash. */
const [PAGES, CAPTURES] = isWhole ? [120, 100] : [4, 5];

/** Ways to ask for what is inside. `IN` stands for it, `UDP` for a port that listens there. Sources: HTML §4.2.4, §7.4 and §10; Fetch §5; WebSockets §3; WebRTC 1.0 §4; WebTransport §6; Beacon §3; CSS Values 4 §4.5. */
const ASKING: readonly string[] = [
  '<img src="IN/img"><link rel=stylesheet href="IN/css"><script src="IN/js"></script><iframe src="IN/frame"></iframe>',
  '<link rel=preconnect href="IN"><link rel=dns-prefetch href="IN"><link rel=prefetch href="IN/pre"><link rel=preload as=image href="IN/load">',
  '<style>@import "IN/import"; body { background: url("IN/bg"); } @font-face { font-family: x; src: url("IN/font"); } p { font-family: x; }</style><p>x',
  '<script>fetch("IN/fetch", { mode: "no-cors" }).catch(() => 0); new Image().src = "IN/image"; navigator.sendBeacon("IN/beacon", "x"); const x = new XMLHttpRequest(); x.open("GET", "IN/xhr"); x.onerror = () => 0; x.send();</script>',
  '<script>new WebSocket("IN/ws".replace("http", "ws")); new EventSource("IN/events");</script>',
  '<script>new Worker(URL.createObjectURL(new Blob([`fetch("IN/worker", { mode: "no-cors" }); new WebSocket("IN/wws".replace("http", "ws"))`])));</script>',
  '<script>const peers = new RTCPeerConnection({ iceServers: [{ urls: "stun:127.0.0.1:UDP" }] }); peers.createDataChannel("x"); peers.createOffer().then((o) => peers.setLocalDescription(o));</script>',
  '<script>new WebTransport("https://127.0.0.1:UDP/x").ready.catch(() => 0);</script>',
  '<iframe srcdoc="<script>const p = new RTCPeerConnection({ iceServers: [{ urls: `stun:127.0.0.1:UDP` }] }); p.createDataChannel(`x`); p.createOffer().then((o) => p.setLocalDescription(o)); fetch(`IN/inner`, { mode: `no-cors` })</script>"></iframe>',
  '<img src="/to-inside"><iframe src="/to-inside"></iframe><script>fetch("/to-inside", { mode: "no-cors" }).catch(() => 0)</script>',
  '<form id=f method=post action="IN/form" target=t><input name=a></form><iframe name=t></iframe><script>f.submit()</script>',
  '<script>open("IN/open"); const a = document.createElement("a"); a.href = "IN/download"; a.download = "x"; document.body.append(a); a.click();</script>',
  '<iframe src="file:///etc/passwd"></iframe><object data="IN/object"></object><embed src="IN/embed"><video src="IN/video" autoplay></video>',
  '<script>navigator.serviceWorker?.register("/worker.js")</script>',
];
/** Names of this machine that a page may try. */
const NAMES = ['127.0.0.1', 'localhost', '[::1]', '0.0.0.0', '2130706433', '127.1', 'x.localhost'];
/** Pages that do not come to an end, or that end their browser. */
const STUCK: readonly string[] = [
  '<script>for (;;) {}</script>',
  '<script>const all = []; for (;;) all.push(new Array(1e6).fill(all.length));</script>',
  '<script>addEventListener("load", () => { for (;;) {} })</script>',
  '<script>setInterval(() => { for (let i = 0; i < 4000; i += 1) document.body.append(document.createElement("p")); }, 1)</script>',
  '<script>for (;;) alert("again")</script>',
];

describe('pages visited that mean harm', () => {
  const servers: Server[] = [];
  const asked: string[] = [];
  const udp = createSocket('udp4');
  const bodies = new Map<string, { readonly type: string; readonly body: string }>();
  let [inner, outer] = [0, 0];

  beforeAll(async () => {
    const serve = async (host: string, answer: Parameters<typeof createServer>[1]): Promise<number> => {
      const server = createServer(answer);
      servers.push(server);
      await new Promise<void>((done) => server.listen(0, host, done));
      return (server.address() as AddressInfo).port;
    };
    inner = await serve('::', (request, response) => {
      asked.push(request.url ?? '');
      response.setHeader('access-control-allow-origin', '*').end('inside');
    });
    outer = await serve('127.0.0.1', (request, response) => {
      const url = request.url ?? '';
      if (url === '/to-inside') response.writeHead(302, { location: `http://127.0.0.1:${inner}/redirected` }).end();
      else if (url === '/worker.js')
        response
          .setHeader('content-type', 'text/javascript')
          .end(`self.oninstall = () => fetch("http://127.0.0.1:${inner}/service", { mode: "no-cors" })`);
      else {
        const page = bodies.get(url);
        if (page) response.setHeader('content-type', page.type).end(page.body);
        else response.writeHead(404).end();
      }
    });
    await new Promise<void>((done) => udp.bind(0, '127.0.0.1', done));
    udp.on('message', () => asked.push('udp'));
    const port = udp.address().port;
    ASKING.forEach((html, i) => {
      const inside = `http://${NAMES[i % NAMES.length]}:${inner}`;
      const body = html.replaceAll('IN', inside).replaceAll('UDP', String(port));
      bodies.set(`/asking-${i}`, { type: 'text/html', body: `<!doctype html><title>t</title><body>${body}` });
    });
    STUCK.forEach((body, i) => bodies.set(`/stuck-${i}`, { type: 'text/html', body: `<!doctype html><body>${body}` }));
    bodies.set('/plain', { type: 'text/html', body: '<!doctype html><title>Plain</title><p>plain' });
    const typeOf = (path: string): string =>
      path.endsWith('.css') ? 'text/css' : path.endsWith('.svg') ? 'image/svg+xml' : 'text/html';
    for (const { path, body } of hostileCorpus(20261128, PAGES))
      bodies.set(`/${path}`, { type: typeOf(path), body: body.replaceAll(OUTSIDE, `http://127.0.0.1:${inner}`) });
  });
  afterAll(() => {
    for (const server of servers) server.close();
    for (const server of servers) server.closeAllConnections();
    udp.close();
  });

  // Without it, finding nothing would say nothing.
  it('reach what is inside where nothing guards', async () => {
    const browser = await launchBrowser();
    const page = await browser.newPage();
    asked.length = 0;
    for (let i = 0; i < ASKING.length; i += 1) {
      await page
        .goto(`http://localhost:${outer}/asking-${i}`, { waitUntil: 'networkidle', timeout: 3000 })
        .catch(() => undefined);
    }
    await browser.close();
    expect(asked).toContain('udp');
    expect(new Set(asked).size).withContext(asked.join(' ')).toBeGreaterThan(15);
  }, 60_000);

  it('reach nothing inside from a visit, by any way, and say what was not asked', async () => {
    asked.length = 0;
    let told = '';
    await atATime(3, ASKING.length, async (at) => {
      const visit = await startVisitProcess({
        program: findBrowser() ?? '',
        policy: { allowedHosts: [`localhost:${outer}`], allowPrivate: false },
        width: 1000,
      });
      await visit.open(`http://localhost:${outer}/asking-${at}`);
      const taken = await visit.take('').catch((error: unknown) => error);
      if (!(taken instanceof CaptureProblem)) expect((taken as { html: string }).html).toContain('<title>t</title>');
      told += (await visit.notes()).map(say).join(' ');
      await visit.close();
    });
    expect(asked).toEqual([]);
    expect(told).toMatch(/not asked: .*127\.0\.0\.1/);
    expect(told).toContain('window was not opened');
  }, 120_000);

  describe('in the product', () => {
    const folder = temporaryFolder();
    let product: Product;
    let browser: Browser;
    beforeAll(async () => {
      [product, browser] = await Promise.all([startProduct(folder.path, { FETCH_PRIVATE: '1' }), launchBrowser()]);
    });
    afterAll(async () => {
      await browser.close();
      await product.kill();
      folder.remove();
    });
    const visit = (path: string): Promise<ImportResult> =>
      runImport(product.url, {
        kind: 'visit',
        siteId: null,
        name: path,
        visit: { address: `http://localhost:${outer}/${path}`, width: 1000, keep: '', steps: [] },
      });

    it('leave no script in what is kept of them', async () => {
      const pages: [string, string][] = [];
      let kept = 0;
      await atATime(2, PAGES, async (i) => {
        const result = await visit(`h${i}.html`);
        if (!result.ok) {
          expect(result.problem.detail).toMatch(/went on to|answered|opened|crashed|ended|took/);
          return;
        }
        kept += 1;
        const site = (await (await fetch(`${product.url}/api/sites/${result.siteId}`)).json()) as SiteDocument;
        for (const { id, html, path } of site.pages) {
          expect(cleanPage(html, ({ address }) => address).scripts).toBe(0);
          pages.push([path, `/frame/sites/${result.siteId}/pages/${id}/`]);
        }
      });
      expect(kept).toBeGreaterThan(PAGES / 4);
      expect(await watchPages(browser, product.url, pages, 'frame')).toEqual([]);
    }, 1_200_000);

    it('are given up at once when they are stopped', async () => {
      const form = new FormData();
      const plan = { address: `http://localhost:${outer}/stuck-0`, width: 1000, keep: '', steps: [] };
      form.append('wish', JSON.stringify({ kind: 'visit', siteId: null, name: '', visit: plan }));
      const { id } = (await (await fetch(`${product.url}/api/imports`, { method: 'POST', body: form })).json()) as {
        id: number;
      };
      const events = fetch(`${product.url}/api/imports/${id}/events`).then((answer) => answer.text());
      await new Promise((done) => setTimeout(done, 2500));
      await fetch(`${product.url}/api/imports/${id}`, { method: 'DELETE' });
      expect(await events).toContain('"title":"Stopped"');
      await left(product);
    }, 30_000);

    it('are ended when they hang or crash, and leave no process and no profile behind', async () => {
      await visit('plain');
      const before = memoryOf(product);
      const answers: string[] = [];
      for (let i = 0; i < CAPTURES; i += 1) {
        const isStuck = i % 5 === 4;
        const result = await visit(isStuck ? `stuck-${Math.floor(i / 5) % STUCK.length}` : 'plain');
        answers.push(result.ok ? 'ok' : (result.problem.detail ?? ''));
        if (!isStuck) expect(result.ok).toBe(true);
      }
      const refused = answers.filter((answer) => answer !== 'ok');
      expect(refused.length).withContext(answers.join('; ')).toBeGreaterThan(0);
      await left(product);
      // What a tenth of a gigabyte leaves for caches; a browser's pages would be more.
      expect(memoryOf(product) - before).toBeLessThan(100);
    }, 1_200_000);
  });
});

/** Does something for each number, a few at a time. */
async function atATime(count: number, total: number, act: (i: number) => Promise<void>): Promise<void> {
  let next = 0;
  const run = async (): Promise<void> => {
    for (let i = next++; i < total; i = next++) await act(i);
  };
  await Promise.all(Array.from({ length: count }, run));
}

/** Resident memory of the server, MB. Source: proc(5), VmRSS. */
function memoryOf({ process: { pid } }: Product): number {
  return Number(/VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${pid}/status`, 'utf8'))?.[1] ?? 0) / 1024;
}

/** Waits until nothing of any visit is there any more: no process under the server's, no folder of a profile. @throws when it stays. */
async function left({ process: { pid } }: Product): Promise<void> {
  const remains = (): string[] => [
    ...readdirSync(tmpdir()).filter((name) => name.startsWith(`upper-veneer-visit-${pid}-`)),
    ...readdirSync('/proc').filter((name) => {
      if (!/^\d+$/.test(name)) return false;
      try {
        const [, state, parent] = /\) (\S) (\d+)/.exec(readFileSync(`/proc/${name}/stat`, 'utf8')) ?? [];
        const command = readFileSync(`/proc/${name}/cmdline`, 'utf8');
        return state !== 'Z' && (Number(parent) === pid || command.includes(`upper-veneer-visit-${pid}-`));
      } catch {
        return false;
      }
    }),
  ];
  for (let tries = 0; remains().length > 0; tries += 1) {
    if (tries > 100) throw new Error(`Left behind: ${remains().join(', ')}`);
    await new Promise((done) => setTimeout(done, 100));
  }
}
