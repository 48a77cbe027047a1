import type { DraftDocument, PartBody, SiteDocument } from '@upper-veneer/contract';
import { startTestServer, type TestServer } from './testing/test-site.js';

const ACT = { selector: '.x', act: 'set-attribute', name: 'data-form', value: 'dark' };
const DARK = { name: 'Dark', acts: [ACT] };

describe('templates of a part', () => {
  let server: TestServer;
  beforeEach(async () => {
    server = await startTestServer();
  });
  afterEach(() => server.stop());
  const site = async (): Promise<SiteDocument> =>
    (await (await server.get(`/api/sites/${server.siteId}`)).json()) as SiteDocument;
  const put = async (changes: Partial<PartBody>): Promise<Response> => {
    const { parts } = await site();
    return fetch(`${server.url}/api/sites/${server.siteId}/parts`, {
      method: 'PUT',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ label: 'x', merged: [], parts: parts.map((part) => ({ ...part, ...changes })) }),
    });
  };
  const framed = async (): Promise<string> => {
    const [pageId] = server.store.pages.ids(server.siteId);
    return (await server.get(`/frame/sites/${server.siteId}/pages/${pageId}/`)).text();
  };

  it('are shown in the frame while they are chosen, as one step of undo; visitors get the page as it was captured', async () => {
    const before = (await site()).draft.structure;
    expect((await put({ templates: [DARK] as PartBody['templates'] })).status).toBe(200);
    expect(await framed()).not.toContain('data-form');
    const response = await put({ template: 'Dark' });
    expect(response.status).toBe(200);
    expect(((await response.json()) as DraftDocument).structure).toBeGreaterThan(before);
    expect(await framed()).toMatch(/<p [^>]*data-form="dark"/);
    expect((await server.visit(`/${server.siteId}/index.html`)).text).not.toContain('data-form');
    await server.post(`/api/sites/${server.siteId}/undo`, {});
    expect(await framed()).not.toContain('data-form');
    expect((await site()).parts[0].templates?.map(({ name }) => name)).toEqual(['Dark']);
  });

  it('are refused with what and where', async () => {
    const rows: readonly (readonly [object, number])[] = [
      [{ templates: [DARK, DARK] }, 422],
      [{ templates: [DARK], template: 'Light' }, 422],
      [{ templates: [{ ...DARK, acts: [{ ...ACT, selector: '.x {' }] }] }, 422],
      [{ templates: [{ ...DARK, acts: [{ ...ACT, name: 'onclick' }] }] }, 422],
      [{ templates: [{ ...DARK, acts: [{ ...ACT, act: 'run' }] }] }, 422],
    ];
    for (const [changes, status] of rows)
      expect((await put(changes)).status)
        .withContext(JSON.stringify(changes))
        .toBe(status);
    expect((await site()).parts[0].templates).toBeUndefined();
  });
});
