import { spawnSync } from 'node:child_process';
import { randomUUID } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { availableParallelism } from 'node:os';
import { ensureBuilt, ensureDependencies, requireNode, say } from './setup.mjs';

/**
 * What the server bears: a full disk, kills under writers, many clients on one site, changes without end.
 *
 *   npm run endure [disk|kills|clients|changes]
 */
requireNode();
await ensureDependencies();
await ensureBuilt(['core', 'contract', 'snapshot', 'browser', 'server', 'e2e']);
const { startProduct, temporaryFolder } = await import('../e2e/dist/support/product.js');

const KILLS = Number(process.env.KILLS ?? 200);
const WRITERS = 6;
const CLIENTS = 50;
const READS = 40;
const CHANGES = 5000;

const PARTS = { disk, kills, clients, changes };
const wanted = process.argv.slice(2);
let failed = 0;
for (const [name, part] of Object.entries(PARTS)) {
  if (wanted.length > 0 && !wanted.includes(name)) continue;
  const { words, holds } = await part();
  if (!holds) failed += 1;
  say(`${holds ? 'holds' : 'FAILS'}  ${name}: ${words}`);
}
process.exit(failed > 0 ? 1 : 0);

function override(id, css) {
  return {
    id,
    partId: null,
    pageId: 1,
    element: 12,
    pseudo: '',
    reach: 'alike',
    state: 'rest',
    property: 'color',
    value: { kind: 'literal', css },
    selector: '.endured',
    important: false,
  };
}

async function send(url, method, path, body) {
  const response = await fetch(`${url}/api/sites/1${path}`, {
    method,
    headers: { 'content-type': 'application/json' },
    ...(body ? { body: JSON.stringify(body) } : {}),
  });
  return response.ok ? response.json() : Promise.reject(new Error(`${method} ${path}: ${response.status}`));
}

/** Writers store overrides without pause while the server is killed again and again: what was acknowledged is there after. */
async function kills() {
  const folder = temporaryFolder();
  const acknowledged = new Map();
  let lost = 0;
  let cut = 0;
  let answered = 0;
  for (let kill = 0; kill < KILLS; kill += 1) {
    const product = await startProduct(folder.path);
    const draft = await send(product.url, 'GET', '/draft');
    const there = new Map(draft.overrides.map(({ id, value }) => [id, value.css]));
    // A writer whose answer was cut off may have stored one more than it knows.
    for (const [id, { at, next }] of acknowledged) {
      if (there.get(id) !== at && there.get(id) !== next) lost += 1;
      // Whichever of the two it is, it is what must be there from now on.
      acknowledged.set(id, { at: there.get(id), next: there.get(id) });
    }
    let isRunning = true;
    const writers = Array.from({ length: WRITERS }, async (_, i) => {
      const id = `writer-${i}`;
      while (isRunning) {
        const css = `#${randomUUID().slice(0, 6)}`;
        const before = acknowledged.get(id)?.at ?? there.get(id);
        acknowledged.set(id, { at: before, next: css });
        try {
          await send(product.url, 'POST', '/changes', { label: css, put: [override(id, css)], drop: [] });
          acknowledged.set(id, { at: css, next: css });
          answered += 1;
        } catch {
          cut += 1;
          return;
        }
      }
    });
    await new Promise((done) => setTimeout(done, 40 + ((kill * 37) % 160)));
    await product.kill();
    isRunning = false;
    await Promise.all(writers);
  }
  folder.remove();
  return {
    words: `${KILLS} kills under ${WRITERS} writers, ${answered} changes acknowledged, ${cut} cut off, ${lost} lost`,
    holds: lost === 0,
  };
}

/** Changes until the disk has no more room: they are refused by its own words, nothing stored is lost, and room lets them go on. */
async function disk() {
  const folder = temporaryFolder();
  const mounted = spawnSync('mount', ['-t', 'tmpfs', '-o', 'size=3m', 'tmpfs', folder.path]).status === 0;
  if (!mounted) {
    folder.remove();
    return { words: 'not looked at: it takes the right to mount', holds: true };
  }
  const product = await startProduct(folder.path);
  const post = (i) =>
    fetch(`${product.url}/api/sites/1/changes`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({
        label: `Change ${i}`,
        put: Array.from({ length: 100 }, (_, k) => ({
          ...override(`o-${i}-${k}`, '#123456'),
          selector: `.${'long'.repeat(50)}-${k}`,
        })),
        drop: [],
      }),
    });
  let stored = 0;
  let refused = null;
  while (refused === null && stored < 400) {
    const response = await post(stored);
    if (response.ok) stored += 1;
    else refused = { status: response.status, ...(await response.json()) };
  }
  const kept = (await send(product.url, 'GET', '/draft')).overrides.length;
  spawnSync('mount', ['-o', 'remount,size=64m', folder.path]);
  const again = await post(stored);
  await product.kill();
  const after = await startProduct(folder.path);
  const there = (await send(after.url, 'GET', '/draft')).overrides.length;
  await after.kill();
  spawnSync('umount', [folder.path]);
  folder.remove();
  return {
    words: `${stored} changes stored, then ${refused?.status} "${refused?.detail}"; ${kept} of ${stored * 100} overrides kept; with room again ${again.status}, ${there} after a kill`,
    holds: refused?.status === 507 && kept === stored * 100 && again.status === 201 && there === (stored + 1) * 100,
  };
}

/** Many clients read one site at once, some write: the slowest hundredth against the middle, in one run. */
async function clients() {
  const folder = temporaryFolder();
  const product = await startProduct(folder.path);
  const times = [];
  await Promise.all(
    Array.from({ length: CLIENTS }, async (_, client) => {
      // Each opens the site first, which is not measured: connecting is no read.
      for (const path of ['', '/draft']) await send(product.url, 'GET', path);
      for (let i = 0; i < READS; i += 1) {
        // As people do: not all at the same moment.
        await new Promise((done) => setTimeout(done, ((client * 53 + i * 29) % 450) + 225));
        if (client % 10 === 0 && i % 4 === 0)
          await send(product.url, 'POST', '/changes', {
            label: 'one of many',
            put: [override(`client-${client}`, `#0000${String(i).padStart(2, '0')}`)],
            drop: [],
          });
        const from = performance.now();
        // Taken in whole, but not read: fifty clients share this process, not the server's.
        await (await fetch(`${product.url}/api/sites/1${i % 3 === 0 ? '' : '/draft'}`)).arrayBuffer();
        times.push(performance.now() - from);
      }
    }),
  );
  await product.kill();
  folder.remove();
  times.sort((a, b) => a - b);
  const [p50, p99] = [0.5, 0.99].map((share) => times[Math.floor(times.length * share)]);
  return {
    words: `${times.length} reads of ${CLIENTS} clients that have the site open, on ${availableParallelism()} cores, p50 ${p50.toFixed(1)} ms, p99 ${p99.toFixed(1)} ms, ${(p99 / p50).toFixed(1)} times`,
    holds: p99 < 10 * p50,
  };
}

/** Resident memory of a process, MB. Source: proc(5), VmRSS. */
function residentOf(pid) {
  const found = readFileSync(`/proc/${pid}/status`, 'utf8')
    .split('\n')
    .find((line) => line.startsWith('VmRSS:'));
  return Number(found.split(':')[1].trim().split(' ')[0]) / 1024;
}

/** Changes without end, each with its undo now and then: memory after the first fifth against the end. */
async function changes() {
  const folder = temporaryFolder();
  const product = await startProduct(folder.path);
  const seen = [];
  for (let i = 0; i < CHANGES; i += 1) {
    await send(product.url, 'POST', '/changes', {
      label: `Change ${i}`,
      put: [override(`o-${i % 40}`, `#${((i * 977) % 0xffffff).toString(16).padStart(6, '0')}`)],
      drop: [],
    });
    if (i % 50 === 49) await send(product.url, 'POST', '/undo', {});
    if (i % 100 === 99) seen.push(residentOf(product.process.pid));
  }
  await product.kill();
  folder.remove();
  const mean = (list) => list.reduce((sum, value) => sum + value, 0) / list.length;
  const fifth = Math.floor(seen.length / 5);
  const [before, after] = [mean(seen.slice(fifth, 2 * fifth)), mean(seen.slice(-fifth))];
  return {
    words: `${CHANGES} changes, ${before.toFixed(0)} MB in the second fifth of them, ${after.toFixed(0)} MB in the last, ${Math.max(...seen).toFixed(0)} MB at most`,
    holds: Math.abs(after - before) <= 0.2 * before,
  };
}
