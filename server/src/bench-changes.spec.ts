import type { DraftDocument, ProblemDocument, SiteDocument } from '@upper-veneer/contract';
import { compileVeneer, type Override, type Palette } from '@upper-veneer/core';
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
  value: { kind: 'role', role: 'accent', shade: 0 },
  selector: '.x',
  important: false,
};

describe('what the Bench stores', () => {
  let server: TestServer;
  beforeEach(async () => {
    server = await startTestServer();
  });
  afterEach(() => server.stop());
  const change = (put: readonly object[], drop: readonly string[] = []): Promise<Response> =>
    server.post(`/api/sites/${server.siteId}/changes`, { label: 'x', put, drop });
  const draft = async (): Promise<DraftDocument> =>
    (await (await server.get(`/api/sites/${server.siteId}/draft`)).json()) as DraftDocument;
  const site = async (): Promise<SiteDocument> =>
    (await (await server.get(`/api/sites/${server.siteId}`)).json()) as SiteDocument;
  const putOptions = (body: object): Promise<Response> =>
    fetch(`${server.url}/api/sites/${server.siteId}/sheet-options`, {
      method: 'PUT',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify(body),
    });

  it('keeps what an override is kept to, through undo and redo', async () => {
    const kept = {
      ...OVERRIDE,
      state: 'parent-hover',
      parent: 3,
      widths: { min: 768, max: null },
      pages: [1],
      spared: [{ pageId: 1, element: 9 }],
      isByHand: true,
    };
    expect((await change([kept])).status).toBe(201);
    expect((await draft()).overrides as unknown[]).toEqual([kept]);
    await change([], ['o1']);
    await server.post(`/api/sites/${server.siteId}/undo`, {});
    expect((await draft()).overrides as unknown[]).toEqual([kept]);
  });

  it('takes values of every kind for every property the Bench offers', async () => {
    const rows = [
      [
        'background-image',
        {
          kind: 'composite',
          css: 'linear-gradient({0}, {1} 60%)',
          colors: [
            { kind: 'role', role: 'accent', shade: -6 },
            { kind: 'literal', css: '#fff' },
          ],
        },
      ],
      ['border-radius', { kind: 'literal', css: '4px 2px' }],
      ['font-family', { kind: 'literal', css: '"Atkinson Hyperlegible Next", sans-serif' }],
      ['box-shadow', { kind: 'composite', css: '0 2px 6px {0}', colors: [{ kind: 'role', role: 'accent', shade: 0 }] }],
      ['--level', { kind: 'literal', css: '#123' }],
      ['display', { kind: 'literal', css: 'none' }],
      ['color', { kind: 'literal', css: 'inherit' }],
    ] as const;
    for (const [property, value] of rows)
      expect((await change([{ ...OVERRIDE, id: property, property, value }])).status)
        .withContext(property)
        .toBe(201);
    expect((await draft()).overrides.length).toBe(rows.length);
  });

  const refused: readonly (readonly [what: string, some: object, field: string])[] = [
    [
      'a measure that is none',
      { property: 'border-radius', value: { kind: 'literal', css: 'round' } },
      'put.0.value.css',
    ],
    [
      'a value that ends the rule',
      { property: 'font-family', value: { kind: 'literal', css: 'x; } body { display: none' } },
      'put.0.value.css',
    ],
    [
      'a comment that swallows the rest',
      { property: '--a', value: { kind: 'literal', css: '1 /*' } },
      'put.0.value.css',
    ],
    [
      'a lost swatch among stops',
      {
        property: 'background-image',
        value: {
          kind: 'composite',
          css: 'linear-gradient({0}, #fff)',
          colors: [{ kind: 'swatch', swatchId: 77, shade: 0 }],
        },
      },
      'put.0.value.swatchId',
    ],
    ['a width below one', { widths: { min: 0, max: null } }, 'put.0.widths.min'],
    ['a lost page', { pages: [99] }, 'put.0.pages'],
    [
      'a composite inside a composite',
      { value: { kind: 'composite', css: '{0}', colors: [{ kind: 'composite', css: 'red' }] } },
      'put.0.value.colors.0.kind',
    ],
  ];
  for (const [what, some, field] of refused) {
    it(`refuses ${what}, and stores nothing`, async () => {
      const response = await change([{ ...OVERRIDE, ...some }]);
      expect(response.status).toBe(422);
      expect(((await response.json()) as ProblemDocument).errors?.map((error) => error.field)).toContain(field);
      expect((await draft()).overrides).toEqual([]);
    });
  }

  it('says how far the sheet is tidied, and saves nothing where the asking is given up', async () => {
    await change(
      Array.from({ length: 30 }, (_, i) => ({ ...OVERRIDE, id: `o${i}`, selector: `.x${':not(.y)'.repeat(i)}` })),
    );
    const events = await fetch(`${server.url}/api/events`);
    const given = new AbortController();
    const asked = fetch(`${server.url}/api/sites/${server.siteId}/revisions`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: '{"note":"x"}',
      signal: given.signal,
    });
    setTimeout(() => given.abort(), 20);
    await expectAsync(asked).toBeRejected();
    await server.post(`/api/sites/${server.siteId}/revisions`, { note: 'whole' });
    expect((await draft()).revisions.map(({ note }) => note)).toEqual(['whole']);
    const reader = events.body?.getReader();
    const told: string[] = [];
    while (reader && !told.join('').includes('event:tidied'))
      told.push(new TextDecoder().decode((await reader.read()).value));
    expect(told.join('')).toMatch(/event:tidied\nid:[\w-]+\ndata:\{"siteId":1,"done":\d+,"total":\d+\}/);
    await reader?.cancel();
  });

  it('saves revisions tidied, and still knows the draft that equals them', async () => {
    // The page has `.x:hover { color: red }`: a second rule that says so again changes nothing.
    await change([
      OVERRIDE,
      {
        ...OVERRIDE,
        id: 'o2',
        state: 'hover',
        selector: '.x:hover',
        property: 'background-color',
        value: { kind: 'literal', css: 'transparent' },
      },
    ]);
    await server.post(`/api/sites/${server.siteId}/revisions`, { note: 'tidy' });
    const saved = server.store.revisions.byNumber(server.siteId, 1);
    expect(saved?.plainCss).toContain('transparent');
    expect(saved?.css).not.toContain('transparent');
    expect(saved?.css).toContain('var(--brand-accent)');
    expect((await draft()).equalsRevision).toBe(1);
  });

  it('names colours as the site wants them, in one step of undo', async () => {
    await change([OVERRIDE]);
    expect(
      (
        await putOptions({
          label: 'n',
          prefix: 'osier',
          asValues: false,
          names: [{ role: 'accent', name: 'bark' }],
          hoverOnly: false,
        })
      ).status,
    ).toBe(200);
    await server.post(`/api/sites/${server.siteId}/revisions`, { note: '' });
    expect(server.store.revisions.byNumber(server.siteId, 1)?.css).toContain('--osier-bark: #b4582a;');
    await putOptions({ label: 'v', prefix: 'osier', asValues: true, names: [], hoverOnly: false });
    await server.post(`/api/sites/${server.siteId}/revisions`, { note: '' });
    expect(server.store.revisions.byNumber(server.siteId, 2)?.css).toBe(
      '/* Everywhere */\n.x {\n  color: #b4582a;\n}\n',
    );
    await server.post(`/api/sites/${server.siteId}/undo`, {});
    expect(await site()).toEqual(
      jasmine.objectContaining({ prefix: 'osier', asValues: false, names: { accent: 'bark' }, hoverOnly: false }),
    );
    for (const bad of [
      { prefix: 'Two words' },
      { prefix: '' },
      { names: [{ role: 'king', name: 'a' }] },
      { names: [{ role: 'ink', name: 'a b' }] },
      {
        names: [
          { role: 'ink', name: 'a' },
          { role: 'line', name: 'a' },
        ],
      },
      { hoverOnly: 'yes' },
    ]) {
      expect(
        (await putOptions({ label: 'n', prefix: 'x', asValues: false, names: [], hoverOnly: false, ...bad })).status,
      )
        .withContext(JSON.stringify(bad))
        .toBe(422);
    }
  });

  it('keeps hover rules to devices that hover where the site says so, and keeps what a rule was made for', async () => {
    const through = { element: 4, pseudo: '', state: 'hover', property: 'background-color' };
    await change([{ ...OVERRIDE, id: 'o3', state: 'hover', selector: 'a.x:hover', through }]);
    expect(server.store.overrides.byId(server.siteId, 'o3')?.through).toEqual(jasmine.objectContaining(through));
    expect((await putOptions({ label: 'h', prefix: 'brand', asValues: true, names: [], hoverOnly: true })).status).toBe(
      200,
    );
    await server.post(`/api/sites/${server.siteId}/revisions`, { note: '' });
    expect(server.store.revisions.byNumber(server.siteId, 1)?.plainCss).toContain(
      '@media (hover: hover) {\n  a.x:hover {',
    );
    await server.post(`/api/sites/${server.siteId}/undo`, {});
    expect(await site()).toEqual(jasmine.objectContaining({ hoverOnly: false }));
  });

  it('keeps the name a swatch was published under, through renaming and undo', async () => {
    const css = async (): Promise<string> => compileVeneerOf(await site());
    const swatch = { kind: 'swatch', swatchId: (await draft()).swatches[0].id, shade: 0 };
    await change([{ ...OVERRIDE, value: swatch }]);
    const [published] = /--brand-[a-z0-9-]+/.exec(await css()) ?? [];
    await server.post(`/api/sites/${server.siteId}/revisions`, { note: '' });
    await server.post(`/api/sites/${server.siteId}/publications`, { revision: 1 });
    const { swatches, roles } = await draft();
    const palette = {
      label: 'Rename',
      swatches: swatches.map(({ id, name, css: color }, i) => ({ id, name: i === 0 ? '川' : name, css: color })),
      roles: roles.map(({ role, swatchId, shade }) => ({
        role,
        swatch: swatchId === swatches[0].id ? '川' : swatches.find(({ id }) => id === swatchId)?.name,
        shade,
      })),
    };
    expect(
      (
        await fetch(`${server.url}/api/sites/${server.siteId}/palette`, {
          method: 'PUT',
          headers: { 'content-type': 'application/json' },
          body: JSON.stringify(palette),
        })
      ).status,
    ).toBe(200);
    expect(await css()).toContain(`${published ?? 'nothing'}:`);
    const token = (await draft()).swatches[0].token;
    expect(
      (
        await putOptions({
          label: 'x',
          prefix: 'brand',
          asValues: false,
          names: [{ role: 'ink', name: token }],
          hoverOnly: false,
        })
      ).status,
    ).toBe(422);
    await server.post(`/api/sites/${server.siteId}/undo`, {});
    expect((await draft()).swatches[0].token).toBe(token);
  });
});

/** CSS of a site's draft, by the core. */
function compileVeneerOf({ draft, prefix, names, parts }: SiteDocument): string {
  return compileVeneer(draft.overrides as readonly Override[], {
    palette: draft as unknown as Palette,
    prefix,
    names,
    parts,
  });
}
