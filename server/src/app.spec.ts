import type { DraftDocument, ProblemDocument, SiteDocument } from '@upper-veneer/contract';
import { openDatabase } from './db/open.js';
import { createStore } from './store.js';
import { storeSite } from './captures.js';
import { SMALL_SITE, startTestServer, type TestServer } from './testing/test-site.js';
import type { Override } from '@upper-veneer/core';
import { MOST_CHANGES } from './db/changes.js';

describe('the server', () => {
  let server: TestServer;
  let override: Record<string, unknown>;
  beforeEach(async () => {
    server = await startTestServer();
    const page = server.store.pages.bySite(server.siteId)[0];
    override = {
      id: 'o1',
      partId: server.store.parts.bySite(server.siteId)[0].id,
      pageId: page.id,
      element: 3,
      pseudo: '',
      reach: 'alike',
      state: 'hover',
      property: 'color',
      value: { kind: 'role', role: 'accent', shade: -12 },
      selector: '.x:hover',
      important: false,
    };
  });
  afterEach(() => server.stop());

  const change = async (body: unknown): Promise<Response> => server.post(`/api/sites/${server.siteId}/changes`, body);
  const draftOf = async (response: Response): Promise<DraftDocument> => (await response.json()) as DraftDocument;
  const problemOf = async (response: Response): Promise<ProblemDocument> => (await response.json()) as ProblemDocument;

  it('opens a site with its pages, sheets, parts and palette', async () => {
    const site = (await (await server.get(`/api/sites/${server.siteId}`)).json()) as SiteDocument;
    expect(site.name).toBe('Small');
    expect(site.stylesheets).toEqual({ 'css/a.css': '.x:hover { color: red }' });
    expect(site.draft.swatches.map(({ name }) => name)).toEqual(['Willow', 'Chalk']);
    expect(site.draft.roles[0].role).toBe('accent');
    expect(site.draft.overrides).toEqual([]);
  });

  // Source: RFC 9457 §3.2, extension members; what is told has no words of its own, so that it can be said in any language.
  it('tells a refusal by its code beside its words', async () => {
    const response = await server.get('/api/sites/4711');
    expect(await problemOf(response)).toEqual({
      type: 'about:blank',
      title: 'Not found',
      status: 404,
      detail: 'There is no site 4711',
      told: { title: { code: 'refused.not-found' }, detail: { code: 'refusal.no-site', values: { site: 4711 } } },
    });
  });

  it('stores a change, undoes and redoes it, over a restart', async () => {
    const stored = await draftOf(await change({ label: 'Hover text', put: [override], drop: [] }));
    expect(stored.overrides.map(({ id }) => id)).toEqual(['o1']);
    expect([stored.undo, stored.redo]).toEqual(['Hover text', null]);
    const reopened = createStore(openDatabase(server.file));
    expect(reopened.overrides.bySite(server.siteId)[0].value).toEqual({ kind: 'role', role: 'accent', shade: -12 });
    const undone = await draftOf(await server.post(`/api/sites/${server.siteId}/undo`, {}));
    expect([undone.overrides.length, undone.undo, undone.redo]).toEqual([0, null, 'Hover text']);
    const redone = await draftOf(await server.post(`/api/sites/${server.siteId}/redo`, {}));
    expect(redone.overrides.length).toBe(1);
    expect(redone.version).toBeGreaterThan(undone.version);
    expect((await server.post(`/api/sites/${server.siteId}/redo`, {})).status).toBe(409);
  });

  it('forgets what was undone once something new is done', async () => {
    await change({ label: 'one', put: [override], drop: [] });
    await server.post(`/api/sites/${server.siteId}/undo`, {});
    const draft = await draftOf(await change({ label: 'two', put: [{ ...override, id: 'o2' }], drop: [] }));
    expect([draft.undo, draft.redo]).toEqual(['two', null]);
  });

  it('undoes a replacement to what was there before', async () => {
    await change({ label: 'one', put: [override], drop: [] });
    await change({
      label: 'two',
      put: [
        { ...override, id: 'o2', selector: '.y' },
        { ...override, value: { kind: 'literal', css: 'red' } },
      ],
      drop: [],
    });
    await change({ label: 'three', put: [], drop: ['o1', 'o2'] });
    const steps: string[] = [];
    for (let i = 0; i < 3; i += 1)
      steps.push(
        (await draftOf(await server.post(`/api/sites/${server.siteId}/undo`, {}))).overrides
          .map(({ id, value }) => `${id} ${value.kind}`)
          .join(),
      );
    expect(steps).toEqual(['o1 literal,o2 role', 'o1 role', '']);
  });

  describe('refuses, naming field and reason, and stores nothing', () => {
    const rows: readonly (readonly [
      what: string,
      change: (good: Record<string, unknown>) => unknown,
      status: number,
      field: string,
    ])[] = [
      ['no body', () => 'null', 400, ''],
      ['no JSON', () => '{', 400, ''],
      ['a list', () => [], 422, ''],
      ['no label', (good) => ({ put: [good], drop: [] }), 422, 'label'],
      ['a label too long', (good) => ({ label: 'x'.repeat(201), put: [good], drop: [] }), 422, 'label'],
      ['an unknown field', (good) => ({ label: 'x', put: [good], drop: [], extra: 1 }), 422, 'extra'],
      ['an unknown field inside', (good) => ({ label: 'x', put: [{ ...good, site: 2 }], drop: [] }), 422, 'put.0.site'],
      [
        'a property not offered',
        (good) => ({ label: 'x', put: [{ ...good, property: 'position' }], drop: [] }),
        422,
        'put.0.property',
      ],
      [
        'an unknown state',
        (good) => ({ label: 'x', put: [{ ...good, state: 'asleep' }], drop: [] }),
        422,
        'put.0.state',
      ],
      [
        'a broken selector',
        (good) => ({ label: 'x', put: [{ ...good, selector: 'a >' }], drop: [] }),
        422,
        'put.0.selector',
      ],
      [
        'a selector that ends the rule',
        (good) => ({ label: 'x', put: [{ ...good, selector: '[a="}"]' }], drop: [] }),
        422,
        'put.0.selector',
      ],
      ...[
        ['a value left open', { property: '--x', value: { kind: 'literal', css: '(' } }, 'value.css'],
        [
          'an address left open',
          { property: 'background-image', value: { kind: 'literal', css: 'url(abc' } },
          'value.css',
        ],
        ['a colour left open', { value: { kind: 'literal', css: 'rgb(1,2,3' } }, 'value.css'],
        [
          'two colours for one',
          {
            property: 'background-image',
            value: {
              kind: 'composite',
              css: 'linear-gradient({0}, {1})',
              colors: [
                { kind: 'literal', css: 'red, blue' },
                { kind: 'literal', css: 'red' },
              ],
            },
          },
          'value.css',
        ],
        ['a comment left open', { selector: '.x/*' }, 'selector'],
        ['a NUL', { selector: '.x\0' }, 'selector'],
      ].map(
        ([what, spoil, field]) =>
          [
            what as string,
            (good: Record<string, unknown>) => ({ label: 'x', put: [{ ...good, ...(spoil as object) }], drop: [] }),
            422,
            `put.0.${field as string}`,
          ] as const,
      ),
      ['a list for a value', (good) => ({ label: 'x', put: [{ ...good, value: [] }], drop: [] }), 422, 'put.0.value'],
      ['a list for an override', () => ({ label: 'x', put: [[]], drop: [] }), 422, 'put.0'],
      ['an override for a list', (good) => ({ label: 'x', put: good, drop: [] }), 422, 'put'],
      ['nothing for an override', () => ({ label: 'x', put: [null], drop: [] }), 422, 'put.0'],
      [
        '20,000 lists in one another',
        () => `{"label":"x","put":${'['.repeat(20_000)}${']'.repeat(20_000)},"drop":[]}`,
        422,
        'put.0',
      ],
      [
        '50 objects in one another',
        () => `{"label":"x","put":[${'{"value":'.repeat(50)}1${'}'.repeat(50)}],"drop":[]}`,
        422,
        '',
      ],
      [
        'a number past the whole ones',
        (good) => ({ label: 'x', put: [{ ...good, element: 1e300 }], drop: [] }),
        422,
        'put.0.element',
      ],
      ['a name of the language', () => '{"label":"x","put":[],"drop":[],"__proto__":{"label":"y"}}', 422, '__proto__'],
      [
        'no colour',
        (good) => ({
          label: 'x',
          put: [{ ...good, value: { kind: 'literal', css: 'red; } body { display: none' } }],
          drop: [],
        }),
        422,
        'put.0.value.css',
      ],
      [
        'a lost swatch',
        (good) => ({ label: 'x', put: [{ ...good, value: { kind: 'swatch', swatchId: 99, shade: 0 } }], drop: [] }),
        422,
        'put.0.value.swatchId',
      ],
      ['a lost page', (good) => ({ label: 'x', put: [{ ...good, pageId: 99 }], drop: [] }), 422, 'put.0.pageId'],
      ['a lost part', (good) => ({ label: 'x', put: [{ ...good, partId: 99 }], drop: [] }), 422, 'put.0.partId'],
      [
        'a shade off the scale',
        (good) => ({ label: 'x', put: [{ ...good, value: { kind: 'role', role: 'accent', shade: 101 } }], drop: [] }),
        422,
        'put.0.value.shade',
      ],
      [
        'an unknown role',
        (good) => ({ label: 'x', put: [{ ...good, value: { kind: 'role', role: 'king', shade: 0 } }], drop: [] }),
        422,
        'put.0.value.role',
      ],
      [
        'a negative element',
        (good) => ({ label: 'x', put: [{ ...good, element: -1 }], drop: [] }),
        422,
        'put.0.element',
      ],
      ['one bad among good', (good) => ({ label: 'x', put: [good, { ...good, id: '' }], drop: [] }), 422, 'put.1.id'],
    ];
    for (const [what, make, status, field] of rows) {
      it(what, async () => {
        const response = await change(make(override));
        expect(response.status).toBe(status);
        // Source: RFC 9457 §3, media type and members.
        expect(response.headers.get('content-type')).toContain('application/problem+json');
        const problem = await problemOf(response);
        expect(problem.status).toBe(status);
        expect(problem.title).toBeTruthy();
        if (field !== '') expect(problem.errors?.map((error) => error.field)).toContain(field);
        expect(server.store.overrides.bySite(server.siteId)).toEqual([]);
        expect(server.store.changes.labels(server.siteId)).toEqual({ undo: null, redo: null });
      });
    }
  });

  describe('keeps the palette', () => {
    const put = (body: unknown): Promise<Response> =>
      fetch(`${server.url}/api/sites/${server.siteId}/palette`, {
        method: 'PUT',
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify(body),
      });
    const current = (): {
      label: string;
      swatches: { id: number; name: string; css: string }[];
      roles: { role: string; swatch: string; shade: number }[];
    } => {
      const palette = server.store.palettes.bySite(server.siteId);
      return {
        label: 'x',
        swatches: palette.swatches.map((swatch) => ({ ...swatch })),
        roles: palette.roles.map(({ role, swatchId, shade }) => ({
          role,
          shade,
          swatch: palette.swatches.find(({ id }) => id === swatchId)?.name ?? '',
        })),
      };
    };

    it('with its second lighting, where it came from and what was noted, until they are told otherwise', async () => {
      const body = current();
      const [first] = body.swatches;
      const told = { kind: 'marker', on: 'body', attribute: 'class', value: 'night' };
      const second = { told, roles: [{ role: 'accent', swatch: first.name, shade: 12 }] };
      const noted = {
        ...body,
        swatches: body.swatches.map((swatch) => ({ ...swatch, origin: 'logo.svg', note: 'from Ines' })),
      };
      expect((await put({ ...noted, second })).status).toBe(200);
      const stored = server.store.palettes.bySite(server.siteId);
      expect(stored.second).toEqual({
        told,
        roles: [{ role: 'accent', swatchId: first.id, shade: 12 }],
      } as typeof stored.second);
      expect(stored.swatches[0]).toEqual(jasmine.objectContaining({ origin: 'logo.svg', note: 'from Ines' }));
      // A client that knows of neither leaves both as they are.
      expect(
        (await put({ ...body, swatches: body.swatches.map(({ id, name, css }) => ({ id, name, css })) })).status,
      ).toBe(200);
      expect(server.store.palettes.bySite(server.siteId)).toEqual(stored);
      expect((await put({ ...body, second: null })).status).toBe(200);
      expect(server.store.palettes.bySite(server.siteId).second).toBeNull();
      await server.post(`/api/sites/${server.siteId}/undo`, {});
      expect(server.store.palettes.bySite(server.siteId)).toEqual(stored);
    });

    it('with its house shape and roles of the designer’s own, until they are told otherwise; what they cannot be is said', async () => {
      const body = current();
      const shape = { corner: '3px', shadow: '0 2px 6px #0003', 'text-family': '"Atkinson Next", Georgia, serif' };
      const own = [...body.roles, { role: 'own-überschrift', swatch: body.swatches[0].name, shade: -4 }];
      expect((await put({ ...body, roles: own, shape })).status).toBe(200);
      const stored = server.store.palettes.bySite(server.siteId);
      expect(stored.shape).toEqual(shape);
      expect(stored.roles.some(({ role, shade }) => role === 'own-überschrift' && shade === -4)).toBeTrue();
      // A client that knows of no shape leaves it as it is.
      expect((await put({ ...body, roles: own })).status).toBe(200);
      expect(server.store.palettes.bySite(server.siteId)).toEqual(stored);
      for (const [wrong, field] of [
        [{ ...body, shape: { corner: '1em' } }, 'shape.corner'],
        [{ ...body, shape: { shadow: '0 0 3px red; } body {' } }, 'shape.shadow'],
        [{ ...body, shape: { corner: 3 } }, 'shape.corner'],
        [{ ...body, roles: [{ role: 'own-a;b', swatch: body.swatches[0].name, shade: 0 }] }, 'roles.0.role'],
        [{ ...body, roles: [{ role: 'heading', swatch: body.swatches[0].name, shade: 0 }] }, 'roles.0.role'],
      ] as const) {
        const response = await put(wrong);
        expect([400, 422]).toContain(response.status);
        expect((await problemOf(response)).errors?.map((error) => error.field))
          .withContext(field)
          .toContain(field);
      }
      const house = { ...override, id: 'h', property: 'border-radius', value: { kind: 'house', part: 'corner' } };
      expect((await change({ label: 'x', put: [house], drop: [] })).status).toBe(201);
      expect((await put({ ...body, roles: own, shape: {} })).status).toBe(422);
      expect((await put({ ...body, roles: own, shape: { ...shape, corner: '5px' } })).status).toBe(200);
      await server.post(`/api/sites/${server.siteId}/undo`, {});
      expect(server.store.palettes.bySite(server.siteId)).toEqual(stored);
    });

    it('with the colours of an older brand that are to go, which undo brings back', async () => {
      const body = current();
      expect((await draftOf(await put({ ...body, former: ['#0a5c8a', 'teal'] }))).former).toEqual(['#0a5c8a', 'teal']);
      expect((await draftOf(await put(body))).former).toEqual(['#0a5c8a', 'teal']);
      const wrong = await put({ ...body, former: ['teal', 'tealish'] });
      expect([wrong.status, (await problemOf(wrong)).errors?.map(({ field }) => field)]).toEqual([422, ['former.1']]);
      expect((await put({ ...body, former: 'teal' })).status).toBe(422);
      expect((await draftOf(await put({ ...body, former: [] }))).former).toEqual([]);
      const undone = await draftOf(await server.post(`/api/sites/${server.siteId}/undo`, {}));
      expect(undone.former).toEqual(['#0a5c8a', 'teal']);
    });

    it('but no lighting that nothing could tell', async () => {
      const body = current();
      const of = (told: unknown, roles: unknown = []): unknown => ({ ...body, second: { told, roles } });
      for (const [wrong, field] of [
        [of({ kind: 'moon' }), 'second.told.kind'],
        [of({ kind: 'marker', on: 'main', attribute: 'class', value: 'x' }), 'second.told.on'],
        [of({ kind: 'marker', on: 'html', attribute: 'data-x"]{}', value: '' }), 'second.told.attribute'],
        [of({ kind: 'marker', on: 'html', attribute: 'class', value: '' }), 'second.told'],
        [of({ kind: 'scheme' }, [{ role: 'accent', swatch: 'Nobody', shade: 0 }]), 'second.roles.0.swatch'],
      ] as const) {
        const response = await put(wrong);
        expect([400, 422]).toContain(response.status);
        expect((await problemOf(response)).errors?.map((error) => error.field))
          .withContext(field)
          .toContain(field);
      }
      expect(server.store.palettes.bySite(server.siteId).second).toBeNull();
    });

    it('and ripples an edit through the sheet, in one step of undo', async () => {
      await change({ label: 'x', put: [override], drop: [] });
      await server.post(`/api/sites/${server.siteId}/revisions`, { note: '' });
      const body = current();
      body.swatches[0].css = 'oklch(0.4 0.1 200)';
      body.swatches.push({ id: 0, name: 'Reed', css: '#6d8a35' });
      body.swatches.reverse();
      body.roles.push({ role: 'second', swatch: 'Reed', shade: -4 });
      const draft = await draftOf(await put({ ...body, label: 'Reed and accent' }));
      expect(draft.swatches.map(({ name }) => name)).toEqual(['Reed', 'Chalk', 'Willow']);
      expect(draft.roles.map(({ role }) => role)).toEqual(['accent', 'second']);
      expect([draft.undo, draft.equalsRevision]).toEqual(['Reed and accent', null]);
      const undone = await draftOf(await server.post(`/api/sites/${server.siteId}/undo`, {}));
      expect([undone.swatches.map(({ name, css }) => name + css), undone.equalsRevision]).toEqual([
        ['Willow#b4582a', 'Chalk#fff'],
        1,
      ]);
      const redone = await draftOf(await server.post(`/api/sites/${server.siteId}/redo`, {}));
      expect(redone.swatches).toEqual(draft.swatches);
    });

    const refused: readonly (readonly [
      what: string,
      spoil: (body: ReturnType<typeof current>) => void,
      field: string,
    ])[] = [
      [
        'two swatches of one name',
        (body) => body.swatches.push({ id: 0, name: 'willow', css: 'red' }),
        'swatches.2.name',
      ],
      ['a colour that is none', (body) => body.swatches.push({ id: 0, name: 'X', css: 'blurple' }), 'swatches.2.css'],
      ['a name without a letter', (body) => body.swatches.push({ id: 0, name: '--', css: 'red' }), 'swatches.2.name'],
      ['a role on no swatch', (body) => body.roles.push({ role: 'ink', swatch: 'Nobody', shade: 0 }), 'roles.1.swatch'],
      ['a role filled twice', (body) => body.roles.push({ role: 'accent', swatch: 'Chalk', shade: 0 }), 'roles.1.role'],
      ['a swatch of nowhere', (body) => body.swatches.push({ id: 77, name: 'X', css: 'red' }), 'swatches.2.id'],
      ['a role in use left out', (body) => body.roles.splice(0), 'roles'],
    ];
    for (const [what, spoil, field] of refused) {
      it(`and refuses ${what}, storing nothing`, async () => {
        await change({ label: 'x', put: [override], drop: [] });
        const before = server.store.palettes.bySite(server.siteId);
        const body = current();
        spoil(body);
        const response = await put(body);
        expect(response.status).toBe(422);
        expect((await problemOf(response)).errors?.map((error) => error.field)).toContain(field);
        expect(server.store.palettes.bySite(server.siteId)).toEqual(before);
      });
    }
  });

  it('answers what is not there with a problem document', async () => {
    for (const path of [
      '/api/sites/99',
      '/api/sites/x',
      '/api/nothing',
      '/frame/sites/1/pages/99/',
      '/frame/sites/1/files/gone.css',
    ]) {
      const response = await server.get(path);
      expect(response.status).withContext(path).toBe(404);
      expect(response.headers.get('content-type')).withContext(path).toContain('problem+json');
    }
  });

  it('refuses foreign names and foreign origins', async () => {
    expect((await server.post(`/api/sites/${server.siteId}/undo`, {}, { origin: 'http://evil.test' })).status).toBe(
      403,
    );
    expect((await server.post(`/api/sites/${server.siteId}/undo`, {}, { origin: 'null' })).status).toBe(403);
    expect((await server.post(`/api/sites/${server.siteId}/undo`, {}, { origin: server.url })).status).toBe(409);
  });

  it('keeps 5xx texts in the log', async () => {
    server.db.exec('DROP TABLE change');
    const response = await change({ label: 'x', put: [override], drop: [] });
    const problem = await problemOf(response);
    expect(response.status).toBe(500);
    expect(JSON.stringify(problem)).not.toContain('no such table');
    expect(server.errors.length).toBe(1);
    expect(server.store.overrides.bySite(server.siteId)).toEqual([]);
  });

  it('saves revisions and publishes them to the stand-in host, linked last in the head', async () => {
    await change({ label: 'x', put: [override], drop: [] });
    expect((await server.visit(`/${server.siteId}/`)).text).not.toContain('veneer.css');
    expect((await server.post(`/api/sites/${server.siteId}/publications`, { revision: 1 })).status).toBe(422);
    const saved = await draftOf(await server.post(`/api/sites/${server.siteId}/revisions`, { note: 'First' }));
    expect(saved.revisions).toEqual([{ number: 1, note: 'First', savedAt: '2026-01-02T03:04:05.000Z', rules: 2 }]);
    expect(saved.equalsRevision).toBe(1);
    const published = await draftOf(await server.post(`/api/sites/${server.siteId}/publications`, { revision: 1 }));
    expect(published.publishedRevision).toBe(1);
    const html = (await server.visit(`/${server.siteId}/`)).text;
    expect(html).toMatch(/a\.css"><link rel="stylesheet" href="veneer\.css\?r=1"><\/head>/);
    const css = await server.visit(`/${server.siteId}/veneer.css`);
    expect(css.headers['content-type']).toContain('text/css');
    expect(css.text).toContain('.x:hover {\n  color: var(--brand-accent-d12);\n}');
  });

  it('gives each site an origin of its own on the stand-in host, on which nothing runs and nothing is asked of others', async () => {
    const other = storeSite(server.store, { ...SMALL_SITE, name: 'Other' });
    const { headers } = await server.visit(`/${server.siteId}/img/a.svg`);
    expect(headers['content-security-policy']).toMatch(
      /^default-src 'none'; script-src 'none';.* sandbox allow-same-origin /,
    );
    expect(headers['content-security-policy']).not.toMatch(/allow-scripts|https?:\/\/(?!widgets-1\.localhost)/);
    expect((await server.visit(`/${other}/`, `site-${server.siteId}.localhost`)).status).toBe(404);
    expect((await server.visit(`/${other}/`)).status).toBe(200);
    // Names of no site lead to the site's own; foreign ones are refused (DNS rebinding).
    const named = await server.visit(`/${other}/index.html?a`, 'localhost');
    expect([named.status, named.headers.location]).toEqual([
      302,
      `${server.hostUrl.replace(`site-${server.siteId}`, `site-${other}`)}/${other}/index.html?a`,
    ]);
    expect((await server.visit(`/${server.siteId}/`, 'rebound.test')).status).toBe(403);
  });

  it('serves the frame without scripts, under a policy of its own', async () => {
    const [page] = server.store.pages.bySite(server.siteId);
    const response = await server.get(`/frame/sites/${server.siteId}/pages/${page.id}/`);
    const policy = response.headers.get('content-security-policy') ?? '';
    expect(policy).toContain("default-src 'none'");
    expect(policy).toContain("script-src 'none'");
    expect(policy).toContain("form-action 'none'");
    const html = await response.text();
    expect(html).not.toContain('onclick');
    expect(html).toContain('data-uv-n="4"');
    const css = await server.get(`/frame/sites/${server.siteId}/files/css/a.css`);
    expect(await css.text()).toBe('.x:is(:hover, [data-uv-hover]) { color: red }');
    expect(
      (await server.get(`/frame/sites/${server.siteId}/files/img/a.svg`)).headers.get('content-security-policy'),
    ).toContain("script-src 'none'");
    expect((await server.get(`/frame/sites/${server.siteId}/files/..%2f..%2fetc/passwd`)).status).toBe(404);
  });

  // RFC 9111, 5.2.2, and RFC 8246: what is said to last may be shown without asking again.
  it('lets frames keep the files of a site until one of them is written', async () => {
    const [page] = server.store.pages.bySite(server.siteId);
    const sheetOf = async (): Promise<string> => {
      const html = await (await server.get(`/frame/sites/${server.siteId}/pages/${page.id}/`)).text();
      return /href="([^"]+a\.css)"/.exec(html)?.[1] ?? '';
    };
    const read = async (path: string): Promise<[string | null, string]> => {
      const answer = await server.get(path);
      return [answer.headers.get('cache-control'), await answer.text()];
    };
    const before = await sheetOf();
    expect(await read(before)).toEqual([
      'private, max-age=31536000, immutable',
      '.x:is(:hover, [data-uv-hover]) { color: red }',
    ]);
    const body = Buffer.from('.x { color: blue }');
    server.store.assets.put(server.siteId, { path: 'css/a.css', mediaType: 'text/css', body });
    const after = await sheetOf();
    expect(after).not.toBe(before);
    expect(await read(after)).toEqual(['private, max-age=31536000, immutable', '.x { color: blue }']);
    expect(await read(before)).toEqual(['private, no-cache', '.x { color: blue }']);
  });

  it('keeps what a change changed, of the last thousand changes, and every revision', async () => {
    await change({ label: 'first', put: [override], drop: [] });
    await server.post(`/api/sites/${server.siteId}/revisions`, { note: 'early' });
    const { store } = server;
    store.inOneStep(() => {
      for (let i = 0; i < MOST_CHANGES; i += 1)
        store.changes.apply(
          server.siteId,
          `step ${i}`,
          [{ ...override, element: i } as unknown as Override],
          [],
          '2026-01-02T03:04:05Z',
        );
    });
    const rows = server.db
      .prepare<[], { label: string; before: string }>('SELECT label, before FROM change ORDER BY id')
      .all();
    expect([rows.length, rows[0].label]).toEqual([MOST_CHANGES, 'step 0']);
    expect(
      (await draftOf(await server.get(`/api/sites/${server.siteId}/draft`))).revisions.map(({ note }) => note),
    ).toEqual(['early']);
    const palette = store.palettes.bySite(server.siteId);
    const [willow, chalk] = palette.swatches;
    const body = {
      label: 'rebind',
      swatches: [{ ...willow, css: '#123456' }, chalk].map(({ id, name, css }) => ({ id, name, css })),
      roles: palette.roles.map(({ role, shade }) => ({ role, shade, swatch: 'Willow' })),
      overrides: [{ ...override, value: { kind: 'literal', css: 'red' } }],
    };
    await change({ label: 'another', put: [{ ...override, id: 'o2', selector: '.y' }], drop: [] });
    expect(
      (
        await fetch(`${server.url}/api/sites/${server.siteId}/palette`, {
          method: 'PUT',
          headers: { 'content-type': 'application/json' },
          body: JSON.stringify(body),
        })
      ).status,
    ).toBe(200);
    const [last] = server.db
      .prepare<[], { before: string }>('SELECT before FROM change ORDER BY id DESC LIMIT 1')
      .all();
    expect(last.before).toContain('#b4582a');
    expect(last.before).not.toContain('o2');
    const undone = await draftOf(await server.post(`/api/sites/${server.siteId}/undo`, {}));
    expect([undone.swatches[0].css, undone.overrides.map(({ id, value }) => `${id} ${value.kind}`)]).toEqual([
      '#b4582a',
      ['o1 role', 'o2 role'],
    ]);
    const redone = await draftOf(await server.post(`/api/sites/${server.siteId}/redo`, {}));
    expect([redone.swatches[0].css, redone.overrides.map(({ id, value }) => `${id} ${value.kind}`)]).toEqual([
      '#123456',
      ['o1 literal', 'o2 role'],
    ]);
  });

  it('tells other tabs that the draft has changed', async () => {
    const abort = new AbortController();
    const response = await fetch(`${server.url}/api/events`, { signal: abort.signal });
    const reader = (response.body as ReadableStream<Uint8Array>).getReader();
    await change({ label: 'x', put: [override], drop: [] });
    let text = '';
    while (!text.includes('"version":1')) text += new TextDecoder().decode((await reader.read()).value);
    // What a stream may have missed while it was away comes first.
    expect(text).toMatch(
      /event:draft\nid:[\w-]+\ndata:\{"siteId":1,"version":0\}\n\nevent:draft\nid:[\w-]+\ndata:\{"siteId":1,"version":1\}/,
    );
    abort.abort();
  });
});
