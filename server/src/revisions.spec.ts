import type { BroughtBackDocument, DraftDocument, RevisionDocument } from '@upper-veneer/contract';
import { askServed, type HostAnswer } from './served.js';
import { startTestServer, type TestServer } from './testing/test-site.js';

const at = {
  partId: null,
  pageId: 1,
  element: 3,
  pseudo: '',
  reach: 'alike',
  state: 'rest',
  important: false,
} as const;
const override = {
  ...at,
  id: 'a',
  property: 'color',
  value: { kind: 'role', role: 'accent', shade: 0 },
  selector: '.x',
};

describe('a revision', () => {
  let server: TestServer;
  beforeEach(async () => {
    server = await startTestServer();
  });
  afterEach(() => server.stop());

  const send = (path: string, body: unknown, method = 'POST'): Promise<Response> =>
    fetch(`${server.url}/api/sites/${server.siteId}${path}`, {
      method,
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify(body),
    });
  const draft = async (): Promise<DraftDocument> =>
    (await (await fetch(`${server.url}/api/sites/${server.siteId}/draft`)).json()) as DraftDocument;
  const revision = async (number: number): Promise<RevisionDocument> =>
    (await (await fetch(`${server.url}/api/sites/${server.siteId}/revisions/${number}`)).json()) as RevisionDocument;
  const back = async (number: number, part: number | null | 'all' = 'all'): Promise<BroughtBackDocument> =>
    (await (await send(`/revisions/${number}/back`, { part })).json()) as BroughtBackDocument;
  const change = (put: unknown[], drop: string[] = []): Promise<Response> =>
    send('/changes', { label: 'x', put, drop });

  async function afterMuch(): Promise<void> {
    const { pages, parts } = (await (await fetch(`${server.url}/api/sites/${server.siteId}`)).json()) as {
      pages: { id: number }[];
      parts: { id: number; name: string }[];
    };
    const own = { ...override, pageId: pages[0].id };
    const inPart = { ...own, id: 'b', property: 'background-color', partId: parts[0].id };
    expect((await change([own, inPart])).status).toBe(201);
    await send('/revisions', { note: 'first' });
    const { swatches, roles } = await draft();
    // Another palette, another name, a part renamed, an override changed and one more.
    const palette = {
      label: 'y',
      swatches: [
        { ...swatches[0], name: 'Reed', css: '#6d8a35' },
        { id: 0, name: 'New', css: '#123456' },
      ],
      roles: roles.map(({ role, shade }) => ({ role, shade, swatch: 'New' })),
    };
    expect((await send('/palette', palette, 'PUT')).status).toBe(200);
    expect(
      (await send('/sheet-options', { label: 'z', prefix: 'reed', asValues: false, names: [], hoverOnly: true }, 'PUT'))
        .status,
    ).toBe(200);
    expect(
      (
        await change([
          { ...own, value: { kind: 'literal', css: '#010203' } },
          { ...own, id: 'c', property: 'outline-color' },
        ])
      ).status,
    ).toBe(201);
  }

  it('comes back whole: its own bytes, in one step of undo', async () => {
    await afterMuch();
    const before = await draft();
    const sheet = (): string => server.store.revisions.byNumber(server.siteId, 1)?.plainCss ?? '';
    expect(before.equalsRevision).toBeNull();
    const { draft: after, stranded, isWhole } = await back(1);
    expect([after.equalsRevision, stranded, isWhole, after.undo]).toEqual([1, 0, true, 'Bring revision 1 back']);
    await send('/revisions', { note: 'again' });
    const [one, two] = [await revision(1), await revision(2)];
    expect(two.css).toBe(one.css);
    expect(server.store.revisions.byNumber(server.siteId, 2)?.plainCss).toBe(sheet());
    const undone = (await (await send('/undo', {})).json()) as DraftDocument;
    expect([undone.overrides, undone.swatches, undone.roles]).toEqual([
      before.overrides,
      before.swatches,
      before.roles,
    ]);
  });

  it('gives one part back, and leaves the others as they are', async () => {
    await afterMuch();
    const { overrides } = await draft();
    const { partId } = overrides.find(({ id }) => id === 'b') ?? { partId: null };
    await change([], ['b']);
    const { draft: after, isWhole } = await back(1, partId);
    expect(after.overrides.map(({ id, value }) => `${id} ${value.kind}`).sort()).toEqual([
      'a literal',
      'b role',
      'c role',
    ]);
    expect([isWhole, after.swatches.length]).toEqual([false, 2]);
  });

  it('of before its palette was kept brings its overrides alone, which it says', async () => {
    await afterMuch();
    server.db.prepare('UPDATE revision SET basis = NULL').run();
    expect((await revision(1)).hasBasis).toBeFalse();
    const { draft: after, isWhole } = await back(1);
    expect([isWhole, after.overrides.length, after.swatches.some(({ name }) => name === 'New')]).toEqual([
      false,
      2,
      true,
    ]);
  });

  it('comes back, and goes again, over parts that were made and taken away since', async () => {
    await afterMuch();
    const { parts, pages } = (await (await fetch(`${server.url}/api/sites/${server.siteId}`)).json()) as {
      parts: { id: number; name: string; kind: string; selector: string; openers: [] }[];
      pages: { id: number }[];
    };
    // The part of then goes, another comes with an override of its own.
    const other = { id: 0, name: 'Other', kind: 'theme', selector: '.x', openers: [] };
    expect((await send('/parts', { label: 'parts', parts: [other], merged: [] }, 'PUT')).status).toBe(200);
    const made = server.store.parts.bySite(server.siteId)[0].id;
    await change([{ ...override, id: 'd', pageId: pages[0].id, partId: made, property: 'fill' }]);
    const before = await draft();
    const { draft: after } = await back(1);
    expect(after.equalsRevision).toBe(1);
    const undone = (await (await send('/undo', {})).json()) as DraftDocument;
    expect(undone.overrides).toEqual(before.overrides);
    expect(server.store.parts.bySite(server.siteId).map(({ name }) => name)).toEqual(['Other']);
    const redone = (await (await send('/redo', {})).json()) as DraftDocument;
    expect(redone.equalsRevision).toBe(1);
    await send('/undo', {});
    // Without what was kept with it, its overrides stand outside of parts that are gone; a part that is gone is refused.
    server.db.prepare('UPDATE revision SET basis = NULL').run();
    expect((await send('/revisions/1/back', { part: parts[0].id })).status).toBe(422);
    const { draft: loose } = await back(1);
    expect(loose.overrides.map(({ id, partId }) => [id, partId])).toEqual([
      ['a', null],
      ['b', null],
    ]);
  });

  it('of before its palette was kept leaves overrides away whose colour nobody can tell', async () => {
    await afterMuch();
    server.db
      .prepare('UPDATE revision SET basis = NULL, overrides = replace(overrides, \'"accent"\', \'"second"\')')
      .run();
    const { draft: after, colorless } = await back(1);
    expect([after.overrides.length, colorless]).toEqual([0, 2]);
  });

  it('once published is what visitors get, by its hash, on every page', async () => {
    type Served = { published: number | null; pages: { standing: string; revision: number | null }[] };
    const served = async (): Promise<Served> =>
      (await (await fetch(`${server.url}/api/sites/${server.siteId}/served`)).json()) as Served;
    expect(await served()).toEqual(
      jasmine.objectContaining({ published: null, pages: [jasmine.objectContaining({ standing: 'none' })] }) as never,
    );
    await afterMuch();
    await send('/publications', { revision: 1 });
    const { published, pages } = await served();
    expect([published, pages.map(({ standing, revision: number }) => [standing, number])]).toEqual([1, [['it', 1]]]);
    // A cache in front that keeps the old sheet, the old page, or nothing at all.
    const standings = async (answer: (path: string) => HostAnswer): Promise<string[]> => {
      const asked = await askServed(server.store, server.siteId, (_, path) => Promise.resolve(answer(path)), 'now');
      return asked.pages.map(({ standing, revision: number }) => `${standing} ${number}`);
    };
    const page = (body: string): HostAnswer => ({ status: 200, body, age: null, maxAge: null });
    const linked = page('<link rel="stylesheet" href="veneer.css?r=7">');
    expect(await standings((path) => (path.startsWith('veneer') ? page('.old { top: 0 }') : linked))).toEqual([
      'other null',
    ]);
    expect(await standings((path) => (path.startsWith('veneer') ? { ...page(''), status: 404 } : linked))).toEqual([
      'lost null',
    ]);
    expect(await standings(() => page('<p>as it arrived'))).toEqual(['none null']);
    expect(await standings(() => ({ ...page(''), status: 503 }))).toEqual(['lost null']);
  });

  it('that is not there, and a part that is none, are refused', async () => {
    expect((await send('/revisions/9/back', { part: 'all' })).status).toBe(404);
    await send('/revisions', { note: '' });
    expect((await send('/revisions/1/back', { part: 'some' })).status).toBeGreaterThanOrEqual(400);
  });
});
