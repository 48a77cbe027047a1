import type { DraftDocument, ProblemDocument } from '@upper-veneer/contract';
import { startTestServer, type TestServer } from './testing/test-site.js';

const PLACE = { surface: 'bubble', job: 'action', state: 'rest', selector: 'html', property: '--tk-bubble' };
const SHEET = {
  fields: [
    { id: 'f1', name: 'Bubble', notation: 'hex', presets: [], present: '#6C3CE9', places: [PLACE] },
    { id: 'f2', name: 'Rounding', notation: 'px', presets: [], present: '0', places: [{ ...PLACE, job: 'corner' }] },
  ],
  fixed: [],
  document: 'widgets/chat.html',
  address: 'https://widgets.osier.example/settings/chat',
  strategy: 'blend',
  settled: [{ field: 'f1', value: { kind: 'role', role: 'accent', shade: 0 } }],
  equal: [],
};
const OFFERED = {
  settings: [
    { name: 'Bubble', notation: 'hex', value: '#6C3CE9', affects: [PLACE] },
    { name: 'Rounding', notation: 'px', value: '0', affects: [{ ...PLACE, job: 'corner', property: '--tk-round' }] },
  ],
};
const WIDGET =
  '<!doctype html><html><head><title>Chat</title></head><body><script>x()</script><button>?</button></body></html>';

describe('settings sheets', () => {
  let server: TestServer;
  let partId: number;
  beforeEach(async () => {
    server = await startTestServer();
    partId = server.store.parts.bySite(server.siteId)[0].id;
    const put = (path: string, mediaType: string, text: string): void =>
      server.store.assets.put(server.siteId, { path, mediaType, body: Buffer.from(text) });
    put('widgets/chat.html', 'text/html', WIDGET);
    put('widgets/chat.settings.json', 'application/json', JSON.stringify(OFFERED));
  });
  afterEach(() => server.stop());
  const send = (method: string, path: string, body: object): Promise<Response> =>
    fetch(`${server.url}/api/sites/${server.siteId}/parts/${partId}/${path}`, {
      method,
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify(body),
    });
  const putSheet = (changes: object = {}): Promise<Response> =>
    send('PUT', 'settings', { label: 'x', sheet: { ...SHEET, partId, ...changes } });
  const draft = async (): Promise<DraftDocument> =>
    (await (await server.get(`/api/sites/${server.siteId}/draft`)).json()) as DraftDocument;
  const reasonOf = async (response: Response): Promise<string> =>
    `${response.status} ${((await response.json()) as ProblemDocument).detail ?? ''}`;

  it('are stored as one step of undo; what was handed over stays a fact', async () => {
    expect((await putSheet()).status).toBe(200);
    await send('PUT', 'handed', { fields: [{ field: 'f1', text: '#B4582A' }] });
    await putSheet({ strategy: 'stand-out' });
    await server.post(`/api/sites/${server.siteId}/undo`, {});
    const [sheet] = (await draft()).settings;
    expect(sheet.strategy).toBe('blend');
    expect(sheet.settled).toEqual({ f1: { kind: 'value', value: { kind: 'role', role: 'accent', shade: 0 } } });
    expect(sheet.handed['f1'].text).toBe('#B4582A');
    await send('PUT', 'handed', { fields: [{ field: 'f1' }] });
    expect((await draft()).settings[0].handed).toEqual({});
    await send('PUT', 'settings', { label: 'away' });
    expect((await draft()).settings).toEqual([]);
  });

  it('are refused with what and where, and cost nothing stored', async () => {
    await putSheet();
    const rows: readonly (readonly [object, string])[] = [
      [{ fields: [{ ...SHEET.fields[0], present: 'red' }] }, 'Bubble: "red" is no hex colour'],
      [{ fields: [SHEET.fields[0], { ...SHEET.fields[1], id: 'f1' }] }, '"f1" is another field'],
      [
        { fields: [{ ...SHEET.fields[0], places: [{ ...PLACE, selector: 'a } b {' }] }] },
        'closes with "}" what it does not open',
      ],
      [{ address: 'file:///etc/passwd' }, 'is no http or https address'],
      [{ settled: [{ field: 'f9' }] }, '"f9" is no field'],
      [{ partId: partId + 1 }, 'another part'],
    ];
    for (const [changes, reason] of rows) {
      const response = await putSheet(changes);
      expect(response.status).withContext(reason).toBe(422);
      expect(await reasonOf(response)).toContain(reason);
    }
    expect((await send('PUT', 'handed', { fields: [{ field: 'f1', text: 'mauve' }] })).status).toBe(422);
    expect((await draft()).settings[0].fields.length).toBe(2);
  });

  it('draws a framed part by its own captured document, in which nothing runs', async () => {
    const page =
      '<!doctype html><body><iframe src="https://elsewhere.test/a/widgets/chat.html?x=1"></iframe><iframe src="https://elsewhere.test/other.html"></iframe>';
    const [pageId] = server.store.pages.ids(server.siteId);
    server.db.prepare('UPDATE page SET html = ? WHERE id = ?').run(page, pageId);
    const framed = await (await server.get(`/frame/sites/${server.siteId}/pages/${pageId}/`)).text();
    expect(framed).toContain(
      `src="/frame/sites/${server.siteId}/framed/widgets/chat.html" data-uv-framed="widgets/chat.html"`,
    );
    expect(framed).not.toContain('elsewhere.test');
    const response = await server.get(`/frame/sites/${server.siteId}/framed/widgets/chat.html`);
    expect(response.headers.get('content-security-policy')).toContain("script-src 'none'");
    expect(await response.text()).not.toContain('x()');
    expect((await server.get(`/frame/sites/${server.siteId}/framed/css/a.css`)).status).toBe(404);
  });

  describe('sent to the maker', () => {
    let makers: string;
    beforeEach(() => {
      makers = server.hostUrl.replace('site-', 'widgets-');
    });
    const askMaker = (method: string, body?: string): Promise<Response> =>
      fetch(`http://127.0.0.1:${new URL(makers).port}/${server.siteId}/settings/chat`, {
        method,
        // fetch sets the host by itself; this machine's own names answer for makers too.
        headers: { 'content-type': 'application/json' },
        ...(body === undefined ? {} : { body }),
      });
    const sendAll = (): Promise<Response> =>
      send('POST', 'sends', {
        fields: [
          { field: 'f1', text: '#B4582A' },
          { field: 'f2', text: '3' },
        ],
      });

    it('are what visitors see in the frame, and what the maker says stands there', async () => {
      await putSheet();
      expect((await sendAll()).status).toBe(200);
      const shown = await server.visit(`/${server.siteId}/widgets/chat.html`, `widgets-${server.siteId}.localhost`);
      expect(shown.text).toContain(':root { --tk-bubble: #B4582A; --tk-round: 3px; }');
      const offers = (await (await send('POST', 'offers', { address: SHEET.address })).json()) as { text: string };
      expect((JSON.parse(offers.text) as typeof OFFERED).settings.map(({ value }) => value)).toEqual(['#B4582A', '3']);
      expect(Object.keys((await draft()).settings[0].handed)).toEqual(['f1', 'f2']);
    });

    it('lose nothing and say so where the maker refuses, puts them off, or is gone', async () => {
      await putSheet({ fields: [{ ...SHEET.fields[0], name: 'Balloon' }, SHEET.fields[1]] });
      const refused = await send('POST', 'sends', { fields: [{ field: 'f1', text: '#B4582A' }] });
      expect(await reasonOf(refused)).toContain('422 The maker answered 422: there is no setting "Balloon"');
      await putSheet();
      for (let i = 0; i < 9; i += 1) await askMaker('PUT', '{"values":{"Bubble":"#000000"}}');
      const late = await sendAll();
      expect(await reasonOf(late)).toMatch(/^429 .*ask again in \d+ s/);
      await putSheet({ address: 'http://localhost:1/settings' });
      expect((await sendAll()).status).toBe(422);
      await putSheet({ address: 'https://widgets.osier.example/settings/none' });
      expect(await reasonOf(await sendAll())).toContain('404: no widget of that name');
      expect((await draft()).settings[0].handed).toEqual({});
      await putSheet({ address: '' });
      expect((await sendAll()).status).toBe(409);
    });

    it('refuses what is no value, without keeping it', async () => {
      for (const body of [
        '{',
        '[]',
        '{"values":{}}',
        '{"values":{"Bubble":"red; } body { display: none"}}',
        '{"values":{"Bubble":7}}',
      ])
        expect((await askMaker('PUT', body)).status)
          .withContext(body)
          .toBeGreaterThanOrEqual(400);
      const shown = await server.visit(`/${server.siteId}/widgets/chat.html`, `widgets-${server.siteId}.localhost`);
      expect(shown.text).toBe(WIDGET);
    });
  });
});
