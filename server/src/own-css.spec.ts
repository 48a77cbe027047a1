import type { DraftDocument, ProblemDocument } from '@upper-veneer/contract';
import { startTestServer, type TestServer } from './testing/test-site.js';

const OVERRIDE = {
  id: 'o1',
  partId: null,
  pageId: 1,
  element: 4,
  pseudo: '',
  reach: 'alike',
  state: 'rest',
  property: 'color',
  value: { kind: 'literal', css: 'red' },
  selector: '.x',
  important: false,
};

describe('CSS of the designer’s own', () => {
  let server: TestServer;
  beforeEach(async () => {
    server = await startTestServer();
  });
  afterEach(() => server.stop());
  const change = (body: object): Promise<Response> =>
    server.post(`/api/sites/${server.siteId}/changes`, { label: 'x', put: [], drop: [], ...body });
  const draft = async (): Promise<DraftDocument> =>
    (await (await server.get(`/api/sites/${server.siteId}/draft`)).json()) as DraftDocument;
  const act = (path: string): Promise<Response> => server.post(`/api/sites/${server.siteId}/${path}`, {});
  const OWN = [{ partId: null, css: '/* slow */\n@keyframes s { to { opacity: 0 } }' }];

  it('is stored with overrides in one step of undo, and left alone where a change does not speak of it', async () => {
    expect((await change({ put: [OVERRIDE], ownCss: OWN })).status).toBe(201);
    expect((await draft()).ownCss).toEqual(OWN);
    await change({ drop: ['o1'] });
    expect((await draft()).ownCss).toEqual(OWN);
    await act('undo');
    await act('undo');
    expect(await draft()).toEqual(jasmine.objectContaining({ overrides: [], ownCss: [] }));
    await act('redo');
    expect((await draft()).ownCss).toEqual(OWN);
    expect((await draft()).overrides.length).toBe(1);
  });

  it('is published byte for byte, alone too, and comes back with its revision', async () => {
    await change({ ownCss: OWN });
    expect((await server.post(`/api/sites/${server.siteId}/revisions`, { note: 'Own' })).status).toBe(201);
    const saved = (await (await server.get(`/api/sites/${server.siteId}/revisions/1`)).json()) as { css: string };
    expect(saved.css).toBe(`/* Everywhere */\n${OWN[0].css}\n`);
    await change({ ownCss: [] });
    expect((await draft()).equalsRevision).toBeNull();
    await server.post(`/api/sites/${server.siteId}/revisions/1/back`, { part: 'all' });
    expect(await draft()).toEqual(jasmine.objectContaining({ ownCss: OWN, equalsRevision: 1 }));
  });

  // What would swallow or precede the sections after it: CSS Syntax 3 §5.4, CSS Cascade 5 §2.
  it('is refused where it would tell on what follows it, or is for no part', async () => {
    for (const [css, words] of [
      ['.a { color: red', 'open'],
      ['/* never closed', 'comment'],
      ['@import "x.css";', '@import'],
      ['.a { content: "x', 'open'],
    ]) {
      const response = await change({ ownCss: [{ partId: null, css }] });
      expect(response.status).withContext(css).toBe(422);
      expect(((await response.json()) as ProblemDocument).errors?.[0])
        .withContext(css)
        .toEqual({ field: 'ownCss.0.css', reason: jasmine.stringContaining(words) });
    }
    expect((await change({ ownCss: [{ partId: 99, css: '.a{}' }] })).status).toBe(422);
    expect((await change({ ownCss: [...OWN, ...OWN] })).status).toBe(422);
    expect((await change({ ownCss: 'all' })).status).toBe(422);
    expect((await draft()).ownCss).toEqual([]);
  });
});
