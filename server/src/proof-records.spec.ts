import type { DraftDocument, FormerCaptureDocument, ProblemDocument, SiteDocument } from '@upper-veneer/contract';
import { startTestServer, type TestServer } from './testing/test-site.js';

const BEFORE = '<!doctype html><link rel=stylesheet href=a.css><p class=a>one</p>';
const AFTER = '<!doctype html><link rel=stylesheet href=a.css><h1>new</h1><p class=b>one</p>';

describe('what is kept of proving a site', () => {
  let server: TestServer;
  let siteId: number;
  let pageId: number;
  beforeEach(async () => {
    server = await startTestServer();
    await bring({}, { 'index.html': BEFORE, 'a.css': '.a { color: red }' });
    siteId = server.store.sites.all().at(-1)?.id ?? 0;
    pageId = server.store.pages.ids(siteId)[0];
  });
  afterEach(() => server.stop());

  const bring = async (wish: object, files: Readonly<Record<string, string>>): Promise<void> => {
    const form = new FormData();
    form.set('wish', JSON.stringify({ siteId: null, name: '', kind: 'files', ...wish }));
    for (const [name, body] of Object.entries(files)) form.append('files', new Blob([body]), name);
    const { id } = (await (await fetch(`${server.url}/api/imports`, { method: 'POST', body: form })).json()) as {
      id: number;
    };
    await (await server.get(`/api/imports/${id}/events`)).text();
  };
  const put = (path: string, body: unknown): Promise<Response> =>
    fetch(`${server.url}/api/sites/${siteId}${path}`, {
      method: 'PUT',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify(body),
    });
  const draft = async (): Promise<DraftDocument> =>
    (await (await server.get(`/api/sites/${siteId}/draft`)).json()) as DraftDocument;
  const color = async (css: string): Promise<void> => {
    const number = (await draft()).overrides[0]?.element ?? 4;
    await server.post(`/api/sites/${siteId}/changes`, {
      label: css,
      drop: [],
      put: [
        {
          id: 'o',
          partId: null,
          pageId,
          element: number,
          pseudo: '',
          reach: 'alike',
          state: 'rest',
          property: 'color',
          value: { kind: 'literal', css },
          selector: '.a',
          important: false,
        },
      ],
    });
  };
  const formers = async (): Promise<FormerCaptureDocument[]> =>
    (await (await server.get(`/api/sites/${siteId}/former-captures`)).json()) as FormerCaptureDocument[];

  describe('when a page is captured again', () => {
    it('keeps it as it was, with its sheets and its overrides, until that is settled', async () => {
      await color('blue');
      await bring({ siteId }, { 'index.html': AFTER, 'a.css': '.b { color: red }' });
      expect((await draft()).formerCaptures).toBe(1);
      const [former] = await formers();
      expect([former.pageId, former.stylesheets]).toEqual([pageId, { 'a.css': '.a { color: red }' }]);
      expect(former.html).toMatch(/class="?a\b/);
      expect(former.overrides.map(({ element, selector }) => [element, selector])).toEqual([[4, '.a']]);
      // It is drawn as it was, the sheet of then with it, and what is the same still from where it is.
      const framed = await (await server.get(`/frame/sites/${siteId}/former/${former.id}/`)).text();
      expect(framed).toContain(`/frame/sites/${siteId}/former/${former.id}/files/a.css`);
      const sheet = await server.get(`/frame/sites/${siteId}/former/${former.id}/files/a.css`);
      expect([sheet.headers.get('content-security-policy'), await sheet.text()]).toEqual([
        jasmine.stringContaining("default-src 'none'"),
        jasmine.stringContaining('.a'),
      ]);
      expect((await server.get(`/frame/sites/${siteId}/former/999/`)).status).toBe(404);
      await server.post(`/api/sites/${siteId}/former-captures/settled`, { overrides: ['other'] });
      expect((await draft()).formerCaptures).toBe(1);
      await server.post(`/api/sites/${siteId}/former-captures/settled`, { overrides: ['o'] });
      expect((await draft()).formerCaptures).toBe(0);
    });

    it('keeps nothing where nothing can have drifted', async () => {
      await bring({ siteId }, { 'index.html': AFTER, 'a.css': '.b { color: red }' });
      expect((await draft()).formerCaptures).toBe(0);
      await color('blue');
      await bring({ siteId }, { 'index.html': AFTER, 'a.css': '.b { color: red }' });
      expect((await draft()).formerCaptures).toBe(0);
    });

    it('lets the history go on: undo and redo lead to overrides on their elements as they are now', async () => {
      await color('blue');
      await color('teal');
      await bring({ siteId }, { 'index.html': AFTER });
      const value = async (): Promise<unknown> =>
        (await draft()).overrides.map((override) => [override.element, JSON.stringify(override.value)]);
      expect(await value()).toEqual([[5, '{"kind":"literal","css":"teal"}']]);
      await server.post(`/api/sites/${siteId}/undo`, {});
      expect(await value()).toEqual([[5, '{"kind":"literal","css":"blue"}']]);
      await server.post(`/api/sites/${siteId}/undo`, {});
      expect(await value()).toEqual([]);
      await server.post(`/api/sites/${siteId}/redo`, {});
      await server.post(`/api/sites/${siteId}/redo`, {});
      expect(await value()).toEqual([[5, '{"kind":"literal","css":"teal"}']]);
    });

    it('leads revisions to elements as they are now, for whoever brings one back', async () => {
      await color('blue');
      await server.post(`/api/sites/${siteId}/revisions`, { note: '' });
      await color('teal');
      await bring({ siteId }, { 'index.html': AFTER });
      await server.post(`/api/sites/${siteId}/revisions/1/back`, { part: 'all' });
      expect((await draft()).overrides.map(({ element, value }) => [element, JSON.stringify(value)])).toEqual([
        [5, '{"kind":"literal","css":"blue"}'],
      ]);
    });

    it('keeps the last five of a page, and none of a page that is taken out', async () => {
      await color('blue');
      for (let i = 0; i < 7; i += 1) await bring({ siteId }, { 'index.html': `${BEFORE}<p>${i}` });
      expect((await draft()).formerCaptures).toBe(5);
      expect((await formers())[0].html).toContain('<p>1');
      const other = (await (await server.get(`/api/sites/${server.siteId}`)).json()) as SiteDocument;
      expect(other.draft.formerCaptures).toBe(0);
    });
  });

  it('makes a specimen that visitors do not get, and leads what was overridden on it when it is made anew', async () => {
    const made = (await (await server.post(`/api/sites/${siteId}/specimen`, {})).json()) as DraftDocument;
    const site = (await (await server.get(`/api/sites/${siteId}`)).json()) as SiteDocument;
    expect(site.draft.structure).toBe(made.structure);
    expect(site.pages.map(({ name }) => name)).toContain('Specimen');
    const specimen = site.pages.find(({ name }) => name === 'Specimen');
    expect((await server.visit(`/${siteId}/${specimen?.path ?? ''}`)).status).toBe(404);
    expect((await server.get(`/frame/sites/${siteId}/pages/${specimen?.id ?? 0}/`)).status).toBe(200);
    await server.post(`/api/sites/${siteId}/specimen`, {});
    const again = (await (await server.get(`/api/sites/${siteId}`)).json()) as SiteDocument;
    expect(again.pages.filter(({ name }) => name === 'Specimen').map(({ id }) => id)).toEqual([specimen?.id ?? 0]);
    expect((await server.post('/api/sites/9999/specimen', {})).status).toBe(404);
    // The one captured page cannot go while the specimen stands by itself.
    const gone = await fetch(`${server.url}/api/sites/${siteId}/pages/${pageId}`, { method: 'DELETE' });
    expect(gone.status).toBe(409);
  });

  it('keeps what a revision’s proof came to', async () => {
    await server.post(`/api/sites/${siteId}/revisions`, { note: 'first' });
    expect((await draft()).revisions[0].proof).toBeUndefined();
    expect((await put('/revisions/1/proof', { fails: 3, toLookAt: 2 })).status).toBe(200);
    expect((await draft()).revisions[0].proof).toEqual({ fails: 3, toLookAt: 2 });
    expect((await put('/revisions/2/proof', { fails: 0, toLookAt: 0 })).status).toBe(404);
    expect((await put('/revisions/1/proof', { fails: -1, toLookAt: 0.5 })).status).toBe(422);
  });

  it('keeps what was looked at by eye, for pages and parts there are', async () => {
    const row = { partId: 0, pageId, step: 'shown', look: 'a1' };
    await put('/looked', { rows: [row], isLooked: true });
    expect((await draft()).looked).toEqual([jasmine.objectContaining(row)]);
    await put('/looked', { rows: [{ ...row, look: 'b2' }], isLooked: true });
    expect((await draft()).looked.map(({ look }) => look)).toEqual(['b2']);
    await put('/looked', { rows: [row], isLooked: false });
    expect((await draft()).looked).toEqual([]);
    const refused = await put('/looked', { rows: [{ ...row, pageId: 999, partId: 999 }], isLooked: true });
    const { errors } = (await refused.json()) as ProblemDocument;
    expect(errors?.map(({ field }) => field)).toEqual(['rows.0.pageId', 'rows.0.partId']);
    expect((await put('/looked', { rows: [{ ...row, look: '<b>' }], isLooked: true })).status).toBe(422);
  });
});
