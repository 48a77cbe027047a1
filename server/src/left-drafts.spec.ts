import type { DraftDocument } from '@upper-veneer/contract';
import { startTestServer, type TestServer } from './testing/test-site.js';

const OVERRIDE = {
  partId: null,
  pageId: 1,
  element: 4,
  pseudo: '',
  reach: 'alike',
  state: 'rest',
  property: 'color',
  value: { kind: 'literal', css: 'red' },
  important: false,
};

describe('a draft left behind', () => {
  let server: TestServer;
  beforeEach(async () => {
    server = await startTestServer();
  });
  afterEach(() => server.stop());
  const post = (path: string, body: object = {}): Promise<Response> =>
    server.post(`/api/sites/${server.siteId}/${path}`, body);
  const change = (id: string): Promise<Response> =>
    post('changes', { label: `Make ${id}`, put: [{ ...OVERRIDE, id, selector: `.${id}` }], drop: [] });
  const draft = async (): Promise<DraftDocument> =>
    (await (await server.get(`/api/sites/${server.siteId}/draft`)).json()) as DraftDocument;
  const ids = async (): Promise<string[]> => (await draft()).overrides.map(({ id }) => id);

  it('by undoing and going on otherwise is found again, and can be undone once more', async () => {
    for (const id of ['a', 'b', 'c']) await change(id);
    await post('undo');
    await post('undo');
    expect((await draft()).leftDrafts).toEqual([]);
    await change('d');
    const { leftDrafts, undo, redo, overrides } = await draft();
    expect([overrides.map(({ id }) => id), undo, redo]).toEqual([['a', 'd'], 'Make d', null]);
    expect(leftDrafts).toEqual([
      { id: leftDrafts[0].id, leftAt: '2026-01-02T03:04:05.000Z', label: 'Make c', steps: 2, count: 3 },
    ]);
    expect((await post(`left-drafts/${leftDrafts[0].id}/back`)).status).toBe(200);
    expect(await ids()).toEqual(['a', 'b', 'c']);
    expect((await draft()).undo).toContain('Bring the draft left at 2026-01-02, 03:04 back');
    await post('undo');
    expect(await ids()).toEqual(['a', 'd']);
    // Undoing to look at an older state, and coming back, leaves nothing behind.
    const count = (await draft()).leftDrafts.length;
    await post('redo');
    await change('e');
    expect((await draft()).leftDrafts.length).toBe(count);
  });

  it('is kept without a step anybody sees: one version more, and the same pages', async () => {
    const options = { label: 'h', prefix: 'osier', asValues: false, names: [], hoverOnly: true };
    const response = await fetch(`${server.url}/api/sites/${server.siteId}/sheet-options`, {
      method: 'PUT',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify(options),
    });
    expect(response.status).toBe(200);
    await change('a');
    await post('undo');
    await post('undo');
    const before = await draft();
    await change('b');
    const { version, structure, leftDrafts } = await draft();
    expect(leftDrafts.length).toBe(1);
    expect([version, structure]).toEqual([before.version + 1, before.structure]);
  });

  it('has its palette and own CSS with it; twenty are kept', async () => {
    await post('changes', { label: 'Own', put: [], drop: [], ownCss: [{ partId: null, css: '.z { top: 0 }' }] });
    await post('undo');
    await change('x');
    const [left] = (await draft()).leftDrafts;
    await post(`left-drafts/${left.id}/back`);
    expect((await draft()).ownCss).toEqual([{ partId: null, css: '.z { top: 0 }' }]);
    for (let i = 0; i < 22; i += 1) {
      await change(`n${i}`);
      await post('undo');
    }
    await change('last');
    expect((await draft()).leftDrafts.length).toBe(20);
    expect((await post(`left-drafts/${left.id}/back`)).status).toBe(404);
    expect((await post('left-drafts/x/back')).status).toBeGreaterThanOrEqual(400);
  });

  it('leads to the elements of a page that was captured again', async () => {
    const form = new FormData();
    form.set('wish', JSON.stringify({ siteId: server.siteId, name: '', kind: 'files' }));
    const page = (body: string): string => `<!doctype html><link rel=stylesheet href=css/a.css><body>${body}`;
    const bring = async (body: string): Promise<void> => {
      form.set('files', new Blob([page(body)]), 'index.html');
      const answer = await fetch(`${server.url}/api/imports`, { method: 'POST', body: form });
      const { id } = (await answer.json()) as { id: number };
      await (await server.get(`/api/imports/${id}/events`)).text();
    };
    await bring('<p class=x>hi</p>');
    const before = server.store.pages.bySite(server.siteId)[0].html;
    const element = [...before.matchAll(/<([a-z]\w*)/g)].findIndex(([, name]) => name === 'p');
    await post('changes', { label: 'x', put: [{ ...OVERRIDE, id: 'left', element, selector: '.x' }], drop: [] });
    await post('undo');
    await change('other');
    await bring('<nav>new</nav><div><b>more</b></div><p class=x>hi</p>');
    const [left] = (await draft()).leftDrafts;
    await post(`left-drafts/${left.id}/back`);
    expect((await draft()).overrides.map((override) => [override.id, override.element])).toEqual([
      ['left', element + 3],
    ]);
  });
});
