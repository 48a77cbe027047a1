import { createServer, type Server } from 'node:http';
import express from 'express';
import { listeningAt } from '../listening.js';
import { accessOnly } from './access.js';
import { problemHandler } from './problem.js';

describe('a server that others can reach', () => {
  let server: Server;
  let url = '';
  beforeEach(async () => {
    const app = express();
    app.use(
      accessOnly('reed and willow', 30),
      (_request: express.Request, response: express.Response) => void response.send('inside'),
      problemHandler(() => undefined),
    );
    server = createServer(app);
    await new Promise<void>((done) => server.listen(0, '127.0.0.1', done));
    const address = server.address();
    url = `http://127.0.0.1:${typeof address === 'object' && address ? address.port : 0}`;
  });
  afterEach(() => new Promise((done) => server.close(done)));
  const signIn = (token: string): Promise<Response> =>
    fetch(`${url}/sign-in`, {
      method: 'POST',
      redirect: 'manual',
      headers: { 'content-type': 'application/x-www-form-urlencoded' },
      body: new URLSearchParams({ token }),
    });

  it('asks for its token, and lets in who has it', async () => {
    const asked = await fetch(`${url}/bench`, { headers: { accept: 'text/html' } });
    expect([asked.status, (await asked.text()).includes('<label for="token">Token</label>')]).toEqual([401, true]);
    const api = await fetch(`${url}/api/sites`, { headers: { accept: 'application/json' } });
    expect([api.status, api.headers.get('content-type')]).toEqual([401, 'application/problem+json; charset=utf-8']);
    const welcomed = await signIn('reed and willow');
    const cookie = welcomed.headers.get('set-cookie') ?? '';
    expect([welcomed.status, welcomed.headers.get('location')]).toEqual([303, '/']);
    expect(cookie).toMatch(/^uv-access=[\w-]{43};.*HttpOnly; SameSite=Strict/);
    expect(cookie).not.toContain('willow');
    expect(await (await fetch(url, { headers: { cookie: cookie.split(';')[0] } })).text()).toBe('inside');
  });

  it('looks at one token after another, so that many at a time are no faster', async () => {
    const answers = await Promise.all(Array.from({ length: 48 }, (_, i) => signIn(`guess ${i}`)));
    expect(answers.filter(({ status }) => status === 429).length).toBeGreaterThanOrEqual(4);
    expect(answers.filter(({ status }) => status === 401).length).toBeGreaterThanOrEqual(20);
  });

  it('keeps out who has another', async () => {
    const refused = await signIn('reed and willows');
    expect([
      refused.status,
      refused.headers.get('set-cookie'),
      (await refused.text()).includes('That is not the token'),
    ]).toEqual([401, null, true]);
    for (const cookie of ['uv-access=', 'uv-access=x', 'uv-access', `uv-access=${'a'.repeat(43)}`])
      expect((await fetch(url, { headers: { cookie } })).status)
        .withContext(cookie)
        .toBe(401);
  });
});

describe('listeningAt', () => {
  it('knows who can reach an address', () => {
    expect(
      ['127.0.0.1', '::1', 'localhost', '127.1.2.3'].map((address) => listeningAt(address, undefined).isOpen),
    ).toEqual([false, false, false, false]);
    const open = listeningAt('192.0.2.7', undefined);
    expect(
      ['127.0.0.1', '::1', '0.0.0.0', '192.0.2.7'].map((address) => listeningAt(address, undefined).itself),
    ).toEqual(['127.0.0.1', '[::1]', '127.0.0.1', '192.0.2.7']);
    expect([open.isOpen, open.names, open.token.length]).toEqual([true, ['192.0.2.7'], 16]);
    expect(listeningAt('2001:db8::1', 'reed and willow')).toEqual(
      jasmine.objectContaining({ names: ['[2001:db8::1]'], token: 'reed and willow' }),
    );
    expect(() => listeningAt('0.0.0.0', 'short')).toThrowError(/8 characters/);
  });
});
