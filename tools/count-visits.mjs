import { spawn } from 'node:child_process';
import { randomBytes } from 'node:crypto';
import { mkdtempSync, rmSync } from 'node:fs';
import { Agent, request } from 'node:http';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fail, root, say } from './setup.mjs';

/**
 * Stand-in visits of a running trial, without a browser, while the server is killed and started again: `node tools/count-visits.mjs 50000 5`.
 * Ends with what was lost, counted twice or given another look, and how long the counting call took.
 */
const [visits, kills] = [Number(process.argv[2] ?? 50_000), Number(process.argv[3] ?? 5)];
const AT_A_TIME = 40;
const folder = mkdtempSync(join(tmpdir(), 'uv-visits-'));
const hostPort = 40_000 + Math.floor(Math.random() * 20_000);
const agent = new Agent({ keepAlive: true, maxSockets: AT_A_TIME });
let server;
let url = '';

async function start() {
  server = spawn(process.execPath, [join(root, 'server/dist/main.js')], {
    env: { ...process.env, PORT: '0', HOST_PORT: String(hostPort), DATA_DIR: folder },
  });
  let output = '';
  server.stderr.on('data', (chunk) => (output += chunk));
  url = await new Promise((done, failed) => {
    server.stdout.on('data', (chunk) => {
      const found = /http:\/\/localhost:\d+/.exec((output += chunk));
      if (found) done(found[0]);
    });
    server.on('exit', () => failed(new Error(output)));
  });
  server.removeAllListeners('exit');
}

function kill() {
  return new Promise((done) => server.on('exit', done) && server.kill('SIGKILL'));
}

async function api(method, path, body) {
  const answer = await fetch(`${url}/api/sites/1/${path}`, {
    method,
    headers: { 'content-type': 'application/json' },
    ...(body ? { body: JSON.stringify(body) } : {}),
  });
  if (!answer.ok) throw new Error(`${method} ${path}: ${answer.status} ${await answer.text()}`);
  return answer.json();
}

/** Asks the host as a browser would; fails where nobody answers. */
function ask(method, path, { cookie = '', body = '' } = {}) {
  return new Promise((done, failed) => {
    const asked = request(
      {
        host: '127.0.0.1',
        port: hostPort,
        method,
        path: `/1/${path}`,
        agent,
        headers: {
          host: `site-1.localhost:${hostPort}`,
          ...(cookie === '' ? {} : { cookie }),
          ...(body === '' ? {} : { 'content-type': 'application/json', 'content-length': Buffer.byteLength(body) }),
        },
      },
      (answer) => {
        let text = '';
        answer.setEncoding('utf8').on('data', (chunk) => (text += chunk));
        answer.on('end', () => done({ status: answer.statusCode, headers: answer.headers, text }));
        answer.on('error', failed);
      },
    );
    asked.on('error', failed).end(body);
  });
}

/** Asks until somebody answers: the server may be on its way up. */
async function untilAnswered(method, path, options, took) {
  for (;;) {
    try {
      const began = performance.now();
      const answer = await ask(method, path, options);
      took?.push(performance.now() - began);
      if (answer.status < 500) return answer;
    } catch {
      // Told again until it is acknowledged, as the script in the page does.
    }
    await new Promise((done) => setTimeout(done, 30));
  }
}

await start();
const [pageId] = (await (await fetch(`${url}/api/sites/1`)).json()).pages.map(({ id }) => id);
const override = {
  id: 'v1',
  pageId,
  element: 3,
  pseudo: '',
  reach: 'one',
  state: 'rest',
  partId: null,
  property: 'color',
  value: { kind: 'literal', css: '#123456' },
  selector: 'main',
  important: false,
};
await api('POST', 'variations', { name: 'Other', put: [override], drop: [] });
const { variations } = await api('GET', 'trials');
await api('POST', 'trials', {
  name: 'Visits',
  variations: [{ variationId: null }, { variationId: variations[0].id }],
  plan: { base: 0.04, smallest: 0.01, alpha: 0.05, power: 0.8 },
  conversions: [{ kind: 'press', target: 'main' }],
  seen: '',
});
const trialId = (await api('GET', 'trials')).trials[0].id;
await api('PUT', `trials/${trialId}/state`, {
  isRunning: true,
  proofs: ['A', 'B'].map((variation) => ({ variation, fails: 0, looks: 1 })),
});

const acknowledged = { A: [0, 0], B: [0, 0] };
const took = [];
let changed = 0;
let begun = 0;
let isEnded = false;
async function visitor() {
  while (begun < visits) {
    begun += 1;
    const pressed = Math.random() < 0.05;
    const first = await untilAnswered('GET', 'index.html', {});
    const cookie = String(first.headers['set-cookie'] ?? '').split(';')[0];
    const look = cookie.slice(-1);
    for (const kind of pressed ? [-1, 0] : [-1]) {
      const body = JSON.stringify({ id: randomBytes(16).toString('hex'), trial: trialId, look, kind });
      const { status } = await untilAnswered('POST', 'look/events', { cookie, body }, took);
      if (status === 204) acknowledged[look][kind === -1 ? 0 : 1] += 1;
      // Some tell what was acknowledged already once more.
      if (Math.random() < 0.1) await untilAnswered('POST', 'look/events', { cookie, body });
    }
    if (Math.random() < 0.2) {
      const again = await untilAnswered('GET', 'index.html', { cookie });
      if (!again.text.includes(`veneer.css?look=${look}`)) changed += 1;
    }
  }
}
const killing = (async () => {
  for (let done = 0; done < kills; done += 1) {
    const at = ((done + 1) * visits) / (kills + 1);
    while (begun < at && !isEnded) await new Promise((next) => setTimeout(next, 20));
    if (isEnded) return;
    await kill();
    await start();
  }
})();
const startedAt = performance.now();
await Promise.all(Array.from({ length: AT_A_TIME }, visitor));
isEnded = true;
await killing;
const seconds = (performance.now() - startedAt) / 1000;
const { counts } = (await api('GET', 'trials')).trials[0];
const counted = Object.fromEntries(
  ['A', 'B'].map((name) => [
    name,
    counts
      .filter(({ variation }) => variation === name)
      .reduce(([seen, pressed], own) => [seen + own.seen, pressed + own.pressed], [0, 0]),
  ]),
);
await kill();
rmSync(folder, { recursive: true, force: true });
const sorted = took.sort((a, b) => a - b);
const at = (share) => sorted[Math.floor(share * (sorted.length - 1))].toFixed(1);
say(
  `${visits} visits in ${seconds.toFixed(0)} s with ${kills} kills; acknowledged ${JSON.stringify(acknowledged)}, counted ${JSON.stringify(counted)}`,
);
say(`counting call: p50 ${at(0.5)} ms, p99 ${at(0.99)} ms, most ${at(1)} ms; ${AT_A_TIME} at a time`);
const off = ['A', 'B'].flatMap((name) => [0, 1].map((i) => counted[name][i] - acknowledged[name][i]));
say(
  `lost ${off.filter((own) => own < 0).reduce((sum, own) => sum - own, 0)}, twice ${off.filter((own) => own > 0).reduce((sum, own) => sum + own, 0)}, given another look ${changed}`,
);
if (off.some((own) => own !== 0) || changed > 0) fail('Counting is not right.');
