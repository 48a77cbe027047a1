import type { DraftDocument, ProblemDocument } from '@upper-veneer/contract';
import { startTestServer, type TestServer } from './testing/test-site.js';

const ITEM = {
  id: 'i1',
  words: 'Menus in green',
  partIds: [],
  pageIds: [],
  keep: '',
  question: '',
  standing: 'to do',
  reason: '',
  looks: [],
  overrides: [],
};

describe('what the client asked for', () => {
  let server: TestServer;
  beforeEach(async () => {
    server = await startTestServer();
  });
  afterEach(() => server.stop());
  const put = (items: readonly object[]): Promise<Response> =>
    fetch(`${server.url}/api/sites/${server.siteId}/requests`, {
      method: 'PUT',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ label: 'x', requests: [{ id: 'r1', text: 'Menus…', cameAt: '2026-01-01', items }] }),
    });
  const draft = async (): Promise<DraftDocument> =>
    (await (await server.get(`/api/sites/${server.siteId}/draft`)).json()) as DraftDocument;

  it('is stored as one step of undo, and changes nothing of the sheet', async () => {
    expect((await put([ITEM])).status).toBe(200);
    expect((await draft()).requests[0].items as unknown[]).toEqual([ITEM]);
    await put([{ ...ITEM, standing: 'refused', reason: 'the client changed their mind' }]);
    await server.post(`/api/sites/${server.siteId}/undo`, {});
    expect((await draft()).requests[0].items[0].standing).toBe('to do');
    await server.post(`/api/sites/${server.siteId}/undo`, {});
    expect((await draft()).requests).toEqual([]);
  });

  it('notes what is made for an item, and nothing for one that is gone', async () => {
    await put([ITEM]);
    const pageId = server.store.pages.ids(server.siteId)[0];
    const change = (id: string, forItem: string): Promise<Response> =>
      server.post(`/api/sites/${server.siteId}/changes`, {
        label: 'x',
        drop: [],
        forItem,
        put: [
          {
            id,
            partId: null,
            pageId,
            element: 4,
            pseudo: '',
            reach: 'alike',
            state: 'rest',
            property: 'color',
            value: { kind: 'literal', css: 'red' },
            selector: '.x',
            important: false,
          },
        ],
      });
    await change('o1', 'i1');
    await change('o1', 'i1');
    expect((await change('o2', 'gone')).status).toBe(201);
    const { requests, overrides } = await draft();
    expect([requests[0].items[0].overrides, overrides.length]).toEqual([['o1'], 2]);
    await server.post(`/api/sites/${server.siteId}/undo`, {});
    await server.post(`/api/sites/${server.siteId}/undo`, {});
    await server.post(`/api/sites/${server.siteId}/undo`, {});
    expect((await draft()).requests[0].items[0].overrides).toEqual([]);
  });

  it('is refused where an id stands twice, or a look cannot be', async () => {
    const reason = async (items: readonly object[]): Promise<string> => {
      const response = await put(items);
      expect(response.status).toBe(422);
      const [error] = ((await response.json()) as ProblemDocument).errors ?? [];
      return `${error.field} ${error.reason}`;
    };
    expect(await reason([ITEM, ITEM])).toBe('requests.0.items.1.id is the id of another');
    const look = { selector: 'a {', property: 'color', state: null, value: { kind: 'literal', css: 'red' } };
    expect(await reason([{ ...ITEM, looks: [look] }])).toContain('looks.0.selector');
    expect(
      await reason([{ ...ITEM, looks: [{ ...look, selector: 'a', value: { kind: 'literal', css: 'reddish' } }] }]),
    ).toContain('is no colour');
    expect(await reason([{ ...ITEM, standing: 'holds' }])).toContain('standing must be one of');
  });
});
