import { createServer, request, type Server } from 'node:http';
import { connect, type AddressInfo } from 'node:net';
import { openGate, type Gate } from './gate.js';

/** What a proxy answers to a request for a whole address. Source: RFC 9112 §3.2.2. */
function ask(gate: Gate, target: string, method = 'GET'): Promise<{ status: number; body: string }> {
  const { hostname, port } = new URL(gate.address);
  return new Promise((done, failed) => {
    const asked = request({ hostname, port, path: target, method, headers: { host: 'x' } }, (answer) => {
      let body = '';
      answer.on('data', (chunk: Buffer) => (body += chunk.toString()));
      answer.on('end', () => done({ status: answer.statusCode ?? 0, body }));
      answer.on('error', failed);
    });
    asked.on('connect', (answer) => {
      answer.destroy();
      done({ status: answer.statusCode ?? 0, body: '' });
    });
    asked.on('error', () => done({ status: 0, body: '' }));
    asked.end();
  });
}

describe('the gate of a visit', () => {
  let server: Server;
  let allowed = '';
  let gate: Gate;
  const exceeded: string[] = [];
  beforeEach(async () => {
    server = createServer((asked, answer) => answer.end(asked.url === '/large' ? 'x'.repeat(200_000) : 'hello'));
    await new Promise<void>((done) => server.listen(0, '127.0.0.1', done));
    allowed = `localhost:${(server.address() as AddressInfo).port}`;
    exceeded.length = 0;
    gate = await openGate({
      policy: { allowedHosts: [allowed], allowPrivate: false },
      totalBytes: 100_000,
      requests: 40,
      onExceeded: (what) => exceeded.push(what),
    });
  });
  afterEach(async () => {
    await gate.close();
    server.close();
    server.closeAllConnections();
  });

  it('lets through what the policy allows, by either form', async () => {
    expect(await ask(gate, `http://${allowed}/`)).toEqual({ status: 200, body: 'hello' });
    expect((await ask(gate, allowed, 'CONNECT')).status).toBe(200);
    expect([...gate.refused]).toEqual([]);
  });

  it('refuses addresses of this machine and of private networks, however they are written', async () => {
    const port = allowed.split(':')[1];
    // Forms of IPv4 by WHATWG URL §3.5; private ranges by RFC 1918, RFC 4193, RFC 6598 and RFC 3927.
    const hosts = ['127.0.0.1', '2130706433', '0x7f.1', '0.0.0.0', '[::1]', '[::ffff:127.0.0.1]', '10.0.0.1'];
    for (const host of [...hosts, '192.168.1.1', '169.254.169.254', '100.64.0.1', '[fd00::1]', 'a.localhost'])
      for (const [target, method] of [
        [`http://${host}:${port}/`, 'GET'],
        [`${host}:${port}`, 'CONNECT'],
      ] as const)
        expect((await ask(gate, target, method)).status)
          .withContext(`${method} ${target}`)
          .toBe(403);
    expect(gate.refused.size).toBeGreaterThan(5);
    expect(exceeded.length).toBe(0);
  });

  it('is nothing for anybody but a browser that was told of it', async () => {
    for (const target of ['/', '/x', 'https://example.test/', 'file:///etc/passwd'])
      expect((await ask(gate, target)).status).toBe(400);
  });

  it('ends all once a bound is passed', async () => {
    expect((await ask(gate, `http://${allowed}/large`).catch(() => ({ status: 0 }))).status).not.toBe(403);
    expect(exceeded).toEqual(['bytes']);
    expect((await ask(gate, `http://${allowed}/`)).status).toBe(403);
  });

  it('ends all after as many requests as are let', async () => {
    for (let i = 0; i < 40; i += 1) await ask(gate, `http://${allowed}/`);
    expect(exceeded).toEqual([]);
    await ask(gate, `http://${allowed}/`);
    expect(exceeded).toEqual(['requests']);
  });

  it('closes with what is open through it', async () => {
    const { hostname, port } = new URL(gate.address);
    const socket = connect(Number(port), hostname);
    socket.on('error', () => undefined);
    const ended = new Promise<void>((done) => socket.once('close', () => done()));
    await new Promise<void>((done) => socket.once('connect', () => done()));
    socket.write('CONNECT half');
    await gate.close();
    await ended;
    expect(socket.destroyed).toBe(true);
  });
});
