import type { DraftDocument } from '@upper-veneer/contract';
import { startTestServer, type TestServer } from './testing/test-site.js';

describe('the draft for a page elsewhere', () => {
  let server: TestServer;
  beforeEach(async () => {
    server = await startTestServer();
  });
  afterEach(() => server.stop());

  const turn = async (isOn: boolean): Promise<string | null> => {
    const response = await fetch(`${server.url}/api/sites/${server.siteId}/live`, {
      method: 'PUT',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ isOn }),
    });
    return ((await response.json()) as DraftDocument).live;
  };
  const sheet = (secret: string | null): Promise<Response> =>
    server.get(`/live/${secret ?? ''}/veneer.css`, { origin: 'https://shop.example' });

  it('is off until it is switched on, and gone for good once it is ended', async () => {
    expect((await sheet('null')).status).toBe(404);
    const first = await turn(true);
    expect(first?.length).toBeGreaterThanOrEqual(24);
    const answer = await sheet(first);
    expect([answer.status, answer.headers.get('content-type')]).toEqual([200, 'text/css; charset=utf-8']);
    // Fetch standard, 3.2: any origin may read it, and no credentials go with it.
    expect(answer.headers.get('access-control-allow-origin')).toBe('*');
    expect(answer.headers.get('cache-control')).toBe('no-store');
    expect(await turn(false)).toBeNull();
    expect((await sheet(first)).status).toBe(404);
    const second = await turn(true);
    expect(second).not.toBe(first);
  });

  it('is the stylesheet of the draft as it is now, and nothing else', async () => {
    const secret = await turn(true);
    const { pages } = (await (await server.get(`/api/sites/${server.siteId}`)).json()) as { pages: { id: number }[] };
    const at = {
      partId: null,
      pageId: pages[0].id,
      element: 3,
      pseudo: '',
      reach: 'alike',
      state: 'rest',
      important: false,
    };
    const put = [
      { ...at, id: 'a', property: 'color', value: { kind: 'literal', css: '#010203' }, selector: '.x' },
      {
        ...at,
        id: 'b',
        property: 'background-image',
        value: { kind: 'literal', css: 'url(img/a.svg)' },
        selector: '.x',
      },
    ];
    expect((await server.post(`/api/sites/${server.siteId}/changes`, { label: 'x', put, drop: [] })).status).toBe(201);
    const css = await (await sheet(secret)).text();
    expect(css).toContain('#010203');
    expect(css).toContain('url(/img/a.svg)');
    for (const path of ['', '/', '/draft']) expect((await server.get(`/live/${secret}${path}`)).status).not.toBe(200);
  });
});
