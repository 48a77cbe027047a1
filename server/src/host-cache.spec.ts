import type { ServedDocument } from '@upper-veneer/contract';
import { createHostCache } from './host-cache.js';
import { startTestServer, type TestServer } from './testing/test-site.js';

// RFC 9111 §4.2 and §5.1 (freshness, Age), §4.3.2 (validation by ETag), RFC 9211 §2 (Cache-Status).
describe('the cache in front of the host', () => {
  let server: TestServer;
  beforeEach(async () => {
    server = await startTestServer();
  });
  afterEach(() => server.stop());

  const put = (body: object): Promise<Response> =>
    fetch(`${server.url}/api/sites/${server.siteId}/hosting`, {
      method: 'PUT',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify(body),
    });
  const post = (path: string, body: object = {}): Promise<Response> =>
    server.post(`/api/sites/${server.siteId}/${path}`, body);
  const served = async (): Promise<ServedDocument> =>
    (await (await server.get(`/api/sites/${server.siteId}/served`)).json()) as ServedDocument;
  async function publish(css: string): Promise<void> {
    await post('changes', { label: 'x', put: [], drop: [], ownCss: [{ partId: null, css }] });
    await post('revisions', { note: css });
    const number = server.store.revisions.newest(server.siteId);
    await post('publications', { revision: number });
    // Threads start slowly beside much else: the page is linked before anybody is held to a time.
    await server.visit(`/${server.siteId}/index.html`);
  }
  const sheet = (query = ''): ReturnType<TestServer['visit']> => server.visit(`/${server.siteId}/veneer.css${query}`);

  it('keeps what it was told to keep, says how old it is, and asks again once that is over', async () => {
    await put({ hasNewName: false, maxAge: 600 });
    await publish('.a { top: 1px }');
    const first = await sheet();
    expect([first.headers['cache-control'], first.headers['age'], first.headers['cache-status']]).toEqual([
      'public, max-age=600',
      '0',
      'stand-in; fwd=miss',
    ]);
    await publish('.a { top: 2px }');
    server.clock.now += 599_000;
    const kept = await sheet();
    expect([kept.text, kept.headers['age'], kept.headers['cache-status']]).toEqual([
      first.text,
      '599',
      'stand-in; hit; ttl=1',
    ]);
    server.clock.now += 1000;
    expect((await sheet()).text).toContain('2px');
  });

  it('tells a stale copy by its bytes, with its age; a purge or a name of its own cures it', async () => {
    await put({ hasNewName: false, maxAge: 3600 });
    await publish('.a { top: 1px }');
    await sheet();
    await publish('.a { top: 2px }');
    server.clock.now += 720_000;
    const stale = await served();
    expect([stale.published, stale.hasNewName, stale.maxAge]).toEqual([2, false, 3600]);
    expect(stale.pages[0]).toEqual(
      jasmine.objectContaining({ standing: 'other', revision: 1, age: 720, maxAge: 3600 }),
    );
    expect(await (await post('purge')).json()).toEqual({ purged: 1 });
    expect((await served()).pages[0]).toEqual(jasmine.objectContaining({ standing: 'it', revision: 2, age: 0 }));
    await publish('.a { top: 3px }');
    expect((await served()).pages[0].standing).toBe('other');
    await put({ hasNewName: true, maxAge: 3600 });
    expect((await served()).pages[0]).toEqual(jasmine.objectContaining({ standing: 'it', revision: 3 }));
    await publish('.a { top: 4px }');
    expect((await served()).pages[0].standing).toBe('it');
  });

  it('answers who has it already without its bytes, and asks each time where nothing may be kept', async () => {
    await put({ hasNewName: true, maxAge: 0 });
    await publish('.a { top: 1px }');
    const { headers } = await sheet('?r=1');
    expect([headers['cache-control'], typeof headers.etag]).toEqual(['no-cache', 'string']);
    const path = `/${server.siteId}/veneer.css`;
    const again = await server.visit(path, undefined, { 'if-none-match': String(headers.etag) });
    expect([again.status, again.text, again.headers.etag]).toEqual([304, '', headers.etag]);
    expect((await server.visit(path, undefined, { 'if-none-match': '"other"' })).status).toBe(200);
    await publish('.a { top: 2px }');
    expect((await sheet('?r=1')).text).toContain('2px');
    expect((await put({ hasNewName: true, maxAge: -1 })).status).toBe(422);
    expect((await post('purge')).status).toBe(200);
  });

  it('keeps sites apart, forgets nothing that is not there, and is bounded', () => {
    const cache = createHostCache(() => 0);
    const file = (text: string) => () => ({ mediaType: 'text/css', body: Buffer.from(text) });
    cache.file(1, 'a', 60, file('one'));
    cache.file(2, 'a', 60, file('two'));
    expect(cache.file(1, 'a', 60, file('new'))?.body.toString()).toBe('one');
    expect([cache.purge(1), cache.purge(1)]).toEqual([1, 0]);
    expect(cache.file(2, 'a', 60, file('new'))?.body.toString()).toBe('two');
    expect(cache.file(2, 'none', 60, () => null)).toBeNull();
    const large = Buffer.alloc(30 * 1024 * 1024);
    for (const name of ['b', 'c', 'd']) cache.file(3, name, 60, () => ({ mediaType: 'x/y', body: large }));
    expect(cache.file(3, 'b', 60, file('again'))?.isHit).toBeFalse();
  });
});
