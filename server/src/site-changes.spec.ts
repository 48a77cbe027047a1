import type { DraftDocument, ProblemDocument, SiteDocument } from '@upper-veneer/contract';
import type { Override } from '@upper-veneer/core';
import { storeSite } from './captures.js';
import { SMALL_SITE, startTestServer, type TestServer } from './testing/test-site.js';

describe('changes to what a site is made of', () => {
  let server: TestServer;
  let siteId: number;
  beforeEach(async () => {
    server = await startTestServer();
    siteId = storeSite(server.store, {
      ...SMALL_SITE,
      name: 'Two sheets',
      pages: [
        {
          name: 'Home',
          path: 'index.html',
          html: '<!doctype html><head><link rel=stylesheet href=css/a.css><link rel=stylesheet href=css/b.css></head><body><p class=x>hi</p></body>',
        },
        { name: 'More', path: 'more.html', html: '<!doctype html><body><p>x' },
      ],
      assets: [
        { path: 'css/a.css', mediaType: 'text/css', body: Buffer.from('p { color: red }') },
        { path: 'css/b.css', mediaType: 'text/css', body: Buffer.from('p { color: blue }') },
      ],
      parts: [
        { name: 'All', kind: 'theme', selector: 'body' },
        { name: 'Note', kind: 'theme', selector: '.x' },
      ],
    });
  });
  afterEach(() => server.stop());

  const send = (method: string, path: string, body?: unknown): Promise<Response> =>
    fetch(`${server.url}/api/sites/${siteId}${path}`, {
      method,
      headers: { 'content-type': 'application/json' },
      ...(body === undefined ? {} : { body: JSON.stringify(body) }),
    });
  const draftOf = async (response: Response): Promise<DraftDocument> => (await response.json()) as DraftDocument;
  const problemOf = async (response: Response): Promise<ProblemDocument> => (await response.json()) as ProblemDocument;
  const site = async (): Promise<SiteDocument> =>
    (await (await server.get(`/api/sites/${siteId}`)).json()) as SiteDocument;
  const override = (more: Partial<Override> = {}): Override => ({
    id: 'o1',
    partId: server.store.parts.bySite(siteId)[1].id,
    pageId: server.store.pages.bySite(siteId)[0].id,
    element: 4,
    pseudo: '',
    reach: 'one',
    state: 'rest',
    property: 'color',
    value: { kind: 'swatch', swatchId: server.store.palettes.bySite(siteId).swatches[0].id, shade: 0 },
    selector: '.x',
    important: false,
    ...more,
  });

  it('merges parts, their overrides with them, in one step of undo', async () => {
    server.store.overrides.put(siteId, override());
    const [all, note] = (await site()).parts;
    const before = (await site()).draft.structure;
    const draft = await draftOf(
      await send('PUT', '/parts', {
        label: 'Merge',
        parts: [{ ...all, selector: 'body, .x' }],
        merged: [{ from: note.id, into: all.id }],
      }),
    );
    expect([draft.overrides[0].partId, draft.structure > before, draft.undo]).toEqual([all.id, true, 'Merge']);
    const undone = await draftOf(await send('POST', '/undo', {}));
    expect(undone.structure).toBeGreaterThan(draft.structure);
    expect((await site()).parts.map(({ name }) => name)).toEqual(['All', 'Note']);
    expect(undone.overrides[0].partId).toBe(note.id);
  });

  it('keeps how a hidden part is opened, and refuses what is no selector or opens nothing', async () => {
    const [all, note] = (await site()).parts;
    const opener = { selector: '.x', act: 'set-attribute', name: 'data-open', value: '1' };
    await send('PUT', '/parts', { label: 'x', parts: [all, { ...note, openers: [opener] }], merged: [] });
    expect((await site()).parts[1].openers).toEqual([opener] as SiteDocument['parts'][number]['openers']);
    const refused: readonly (readonly [spoilt: object, field: string])[] = [
      [{ selector: '.x { color: red' }, 'parts.0.selector'],
      [{ selector: ':nope(' }, 'parts.0.selector'],
      [{ name: 'note' }, 'parts.1.name'],
      [{ id: 999 }, 'parts.0.id'],
      [{ openers: [{ ...opener, name: 'onclick' }] }, 'parts.0.openers.0.name'],
      [{ openers: [{ ...opener, name: 'style' }] }, 'parts.0.openers.0.name'],
      [{ kind: 'toaster' }, 'parts.0.kind'],
    ];
    for (const [spoilt, field] of refused) {
      const response = await send('PUT', '/parts', { label: 'x', parts: [{ ...all, ...spoilt }, note], merged: [] });
      expect(response.status).withContext(field).toBeGreaterThanOrEqual(400);
      expect((await problemOf(response)).errors?.map((error) => error.field))
        .withContext(JSON.stringify(spoilt))
        .toContain(field);
    }
    expect((await site()).parts[1].openers.length).toBe(1);
  });

  it('changes the order of sheets and the veneer’s place, for the frame and for visitors', async () => {
    const [home] = (await site()).pages;
    const draft = await draftOf(
      await send('PUT', '/arrangement', {
        label: 'Order',
        veneerPlace: 'after:css/b.css',
        sheetOrders: [{ pageId: home.id, order: [1, 0] }],
      }),
    );
    expect(draft.undo).toBe('Order');
    const hrefs = (html: string): string[] => [...html.matchAll(/href="?([^" >]+)/g)].map(([, href]) => href);
    expect(hrefs((await site()).pages[0].html)).toEqual(['css/b.css', 'css/a.css']);
    await send('POST', '/revisions', { note: '' });
    await send('POST', '/publications', { revision: 1 });
    expect(hrefs((await server.visit(`/${siteId}/index.html`)).text)).toEqual([
      'css/b.css',
      'veneer.css?r=1',
      'css/a.css',
    ]);
    // A second change is of the order as it is now.
    await send('PUT', '/arrangement', {
      label: 'Back',
      veneerPlace: 'body-end',
      sheetOrders: [{ pageId: home.id, order: [1, 0] }],
    });
    expect(hrefs((await site()).pages[0].html)).toEqual(['css/a.css', 'css/b.css']);
    await send('POST', '/undo', {});
    expect([hrefs((await site()).pages[0].html), (await site()).veneerPlace]).toEqual([
      ['css/b.css', 'css/a.css'],
      'after:css/b.css',
    ]);
    for (const order of [[0], [0, 0], [0, 2]])
      expect(
        (
          await send('PUT', '/arrangement', {
            label: 'x',
            veneerPlace: 'head-end',
            sheetOrders: [{ pageId: home.id, order }],
          })
        ).status,
      ).toBe(422);
  });

  it('keeps exceptions with their reasons', async () => {
    const exceptions = [
      { kind: 'color', target: '#a3262a', reason: 'sale red' },
      { kind: 'place', target: '.notice', reason: 'a warning' },
    ];
    expect((await draftOf(await send('PUT', '/exceptions', { label: 'Leave', exceptions }))).exceptions).toEqual(
      exceptions as DraftDocument['exceptions'],
    );
    expect((await draftOf(await send('POST', '/undo', {}))).exceptions).toEqual([]);
    for (const spoilt of [
      { kind: 'color', target: 'blurple', reason: 'x' },
      { kind: 'place', target: '[', reason: 'x' },
      { kind: 'color', target: 'red', reason: '' },
    ]) {
      expect((await send('PUT', '/exceptions', { label: 'x', exceptions: [spoilt] })).status)
        .withContext(JSON.stringify(spoilt))
        .toBeGreaterThanOrEqual(400);
    }
  });

  it('keeps what is settled of matching a scope, each step undone by itself', async () => {
    const plan = {
      label: 'Leave colours alone',
      scope: '{"kind":"parts","partIds":[1]}',
      strategy: 'stand-out',
      settled: [{ row: 'ground #fff' }, { row: 'text #333', value: { kind: 'role', role: 'ink', shade: 4 } }],
      equal: [{ rows: ['a', 'b'] }],
      mains: [{ pageId: 1, element: 3 }],
    };
    expect((await draftOf(await send('PUT', '/plan', plan))).plans).toEqual([
      {
        scope: plan.scope,
        choices: {
          strategy: 'stand-out',
          locked: {
            'ground #fff': { kind: 'leave' },
            'text #333': { kind: 'value', value: { kind: 'role', role: 'ink', shade: 4 } },
          },
          equal: [['a', 'b']],
          mains: [{ pageId: 1, element: 3 }],
        },
      },
    ]);
    await send('PUT', '/plan', { ...plan, strategy: 'blend', settled: [] });
    expect((await draftOf(await send('POST', '/undo', {}))).plans[0].choices.strategy).toBe('stand-out');
    expect((await draftOf(await send('POST', '/undo', {}))).plans).toEqual([]);
    for (const spoilt of [
      { ...plan, scope: '{"kind":"everything"}' },
      { ...plan, scope: '[' },
      { ...plan, strategy: 'loud' },
      { ...plan, settled: [{ row: '' }] },
      { ...plan, settled: [{ row: 'x', value: { kind: 'role', role: 'queen', shade: 0 } }] },
      { ...plan, equal: {} },
      { ...plan, mains: [{ pageId: 'x', element: 1 }] },
    ])
      expect((await send('PUT', '/plan', spoilt)).status)
        .withContext(JSON.stringify(spoilt).slice(0, 120))
        .toBe(422);
  });

  it('renames and removes pages, but none that overrides stand on, and not the last', async () => {
    const [home, more] = (await site()).pages;
    await send('PUT', `/pages/${more.id}/name`, { name: 'Further' });
    expect((await site()).pages[1].name).toBe('Further');
    server.store.overrides.put(siteId, override());
    const kept = await send('DELETE', `/pages/${home.id}`);
    expect([kept.status, (await problemOf(kept)).detail]).toEqual([
      409,
      '1 override was made on this page; clear them first',
    ]);
    expect((await send('DELETE', `/pages/${more.id}`)).status).toBe(200);
    server.store.overrides.drop(siteId, 'o1');
    expect((await send('DELETE', `/pages/${home.id}`)).status).toBe(409);
    expect((await send('PUT', '/pages/999/name', { name: 'x' })).status).toBe(404);
  });

  it('renames a site to a name of its own, and removes it with all it holds', async () => {
    expect((await send('PUT', '/name', { name: 'Small' })).status).toBe(422);
    expect((await send('PUT', '/name', { name: 'Withy' })).status).toBe(200);
    server.store.overrides.put(siteId, override());
    expect((await send('DELETE', '')).status).toBe(204);
    expect((await server.get(`/api/sites/${siteId}`)).status).toBe(404);
    for (const table of ['page', 'asset', 'override', 'swatch', 'role', 'part'])
      expect(
        server.db.prepare<[number], { n: number }>(`SELECT COUNT(*) AS n FROM ${table} WHERE site_id = ?`).get(siteId)
          ?.n,
      )
        .withContext(table)
        .toBe(0);
    expect((await server.get(`/api/sites/${server.siteId}`)).status).toBe(200);
  });

  it('lets a swatch go with its places in one step, and undo brings both back', async () => {
    server.store.overrides.put(siteId, override());
    const swatchOf = ({ overrides: [{ value }] }: DraftDocument): number | null =>
      value.kind === 'swatch' ? value.swatchId : null;
    const { swatches, roles } = (await site()).draft;
    const body = {
      label: 'Delete Willow',
      swatches: [swatches[1]],
      roles: roles.map(({ role, shade }) => ({ role, shade, swatch: 'Chalk' })),
    };
    expect((await send('PUT', '/palette', body)).status).toBe(422);
    const heir = { ...override(), value: { kind: 'swatch', swatchId: swatches[1].id, shade: 0 } };
    const draft = await draftOf(await send('PUT', '/palette', { ...body, overrides: [heir] }));
    expect([draft.swatches.length, swatchOf(draft), draft.undo]).toEqual([1, swatches[1].id, 'Delete Willow']);
    const undone = await draftOf(await send('POST', '/undo', {}));
    expect([undone.swatches, swatchOf(undone)]).toEqual([swatches, swatches[0].id]);
    expect((await send('PUT', '/palette', { ...body, overrides: [{ ...heir, selector: '{' }] })).status).toBe(422);
  });

  it('leads visitors of a site without an index to its first page', async () => {
    const siteId = storeSite(server.store, {
      ...SMALL_SITE,
      name: 'Elsewhere',
      pages: [{ name: 'Start', path: 'en/start page.html', html: '<!doctype html><p>start' }],
    });
    const { status, headers } = await server.visit(`/${siteId}/`);
    expect([status, headers.location]).toEqual([302, `/${siteId}/en/start%20page.html`]);
    expect((await server.visit(`/${siteId}/en/start%20page.html`)).text).toContain('start');
    expect((await server.visit(`/${siteId}/gone.html`)).status).toBe(404);
  });

  it('takes a page that goes out of what overrides are kept to, and keeps the page where nothing else would be left', async () => {
    const other = storeSite(server.store, {
      ...SMALL_SITE,
      name: 'Two',
      pages: [
        { name: 'A', path: 'a.html', html: '<p class=x>a' },
        { name: 'B', path: 'b.html', html: '<p class=x>b' },
      ],
    });
    const [a, b] = server.store.pages.bySite(other).map(({ id }) => id);
    const put = (id: string, kept: object): void =>
      server.store.overrides.put(other, {
        id,
        partId: null,
        pageId: a,
        element: 3,
        pseudo: '',
        reach: 'alike',
        state: 'rest',
        property: 'color',
        value: { kind: 'literal', css: 'red' },
        selector: '.x',
        important: false,
        ...kept,
      });
    put('both', {
      pages: [a, b],
      spared: [
        { pageId: b, element: 3 },
        { pageId: a, element: 9 },
      ],
    });
    put('alone', { pages: [b] });
    const remove = (): Promise<Response> => fetch(`${server.url}/api/sites/${other}/pages/${b}`, { method: 'DELETE' });
    const refused = await remove();
    expect(refused.status).toBe(409);
    expect(server.store.overrides.byId(other, 'both')?.pages).toEqual([a, b]);
    server.store.overrides.drop(other, 'alone');
    expect((await remove()).status).toBe(200);
    expect(server.store.overrides.byId(other, 'both')).toEqual(
      jasmine.objectContaining({ pages: [a], spared: [{ pageId: a, element: 9 }] }),
    );
  });
});
