import type { ArchiveHead, DraftDocument, ImportResult, SiteDocument, TrialsDocument } from '@upper-veneer/contract';
import { fromBufferPromise } from 'yauzl';
import { makeZip, type ZipEntry } from '../testing/make-zip.js';
import { startTestServer, type TestServer } from '../testing/test-site.js';
import { endOf } from '../testing/read-events.js';

const OVERRIDE = {
  id: 'o1',
  partId: null,
  pageId: 1,
  element: 4,
  pseudo: '',
  reach: 'alike',
  state: 'rest',
  property: 'color',
  value: { kind: 'role', role: 'accent', shade: -12 },
  selector: '.x',
  important: false,
};

describe('a site with its history as one file', () => {
  let here: TestServer;
  let there: TestServer;
  beforeEach(async () => {
    [here, there] = await Promise.all([startTestServer(), startTestServer()]);
  });
  afterEach(async () => {
    await Promise.all([here.stop(), there.stop()]);
  });

  const act = async (server: TestServer, siteId: number, path: string, body: object = {}, method = 'POST') => {
    const response = await fetch(`${server.url}/api/sites/${siteId}/${path}`, {
      method,
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify(body),
    });
    if (!response.ok) throw new Error(await response.text());
  };
  const draft = async (server: TestServer, siteId: number): Promise<DraftDocument> =>
    (await (await server.get(`/api/sites/${siteId}/draft`)).json()) as DraftDocument;
  const site = async (server: TestServer, siteId: number): Promise<SiteDocument> =>
    (await (await server.get(`/api/sites/${siteId}`)).json()) as SiteDocument;
  const archive = async (server: TestServer, siteId: number): Promise<Buffer> => {
    const response = await server.get(`/api/sites/${siteId}/archive`);
    expect(response.headers.get('content-disposition')).toContain('.upper-veneer.zip');
    return Buffer.from(await response.arrayBuffer());
  };
  const bring = async (server: TestServer, zip: Buffer, siteId: number | null = null): Promise<ImportResult> => {
    const form = new FormData();
    form.set('wish', JSON.stringify({ siteId, name: '', kind: 'files' }));
    form.append('files', new Blob([new Uint8Array(zip)]), 'site.zip');
    const { id } = (await (await fetch(`${server.url}/api/imports`, { method: 'POST', body: form })).json()) as {
      id: number;
    };
    return endOf(await (await server.get(`/api/imports/${id}/events`)).text());
  };
  const entriesOf = async (zip: Buffer): Promise<(ZipEntry & { body: Buffer })[]> => {
    const read = await fromBufferPromise(zip, { lazyEntries: true, autoClose: false });
    const entries: (ZipEntry & { body: Buffer })[] = [];
    for await (const entry of read.eachEntry()) {
      const chunks: Buffer[] = [];
      for await (const chunk of await read.openReadStreamPromise(entry)) chunks.push(chunk as Buffer);
      entries.push({ path: entry.fileName, body: Buffer.concat(chunks) });
    }
    return entries;
  };

  it('carries settings sheets, what was handed over, templates, variations and trials with their figures', async () => {
    const id = here.siteId;
    const [part] = (await site(here, id)).parts;
    const act1 = { selector: '.x', act: 'add-class', name: 'dark', value: '' };
    await act(
      here,
      id,
      'parts',
      { label: 'x', merged: [], parts: [{ ...part, templates: [{ name: 'Dark', acts: [act1] }], template: 'Dark' }] },
      'PUT',
    );
    const place = { surface: 'button', job: 'action', state: 'rest', selector: '', property: '' };
    const fields = [{ id: 'f1', name: 'Button', notation: 'hex', presets: [], present: '', places: [place] }];
    const { swatches } = await draft(here, id);
    const settled = [{ field: 'f1', value: { kind: 'swatch', swatchId: swatches[0].id, shade: 0 } }];
    const sheet = {
      partId: part.id,
      fields,
      fixed: [],
      document: '',
      address: '',
      strategy: 'blend',
      settled,
      equal: [],
    };
    await act(here, id, `parts/${part.id}/settings`, { label: 'x', sheet }, 'PUT');
    await act(here, id, `parts/${part.id}/handed`, { fields: [{ field: 'f1', text: '#b4582a' }] }, 'PUT');
    const settings = [{ partId: part.id, strategy: 'stand-out', settled, equal: [], values: { Button: '#ffffff' } }];
    await act(here, id, 'variations', { name: 'Chalk', put: [], drop: [], settings });
    const { variations } = (await (await here.get(`/api/sites/${id}/trials`)).json()) as TrialsDocument;
    await act(here, id, 'trials', {
      name: 'Rust or chalk',
      variations: [{ variationId: null }, { variationId: variations[0].id }],
      plan: { base: 0.1, smallest: 0.05, alpha: 0.05, power: 0.8 },
      conversions: [{ kind: 'press', target: '.x' }],
      seen: '',
    });
    const [{ id: trialId }] = here.store.trials.bySite(id);
    here.store.trials.note([{ id: 'a'.repeat(32), trialId, variation: 'A', kind: -1, day: '2026-01-02' }]);
    await act(here, id, `trials/${trialId}/decision`, { winner: 'B', who: 'Mara', why: 'clear' });
    const result = await bring(there, await archive(here, id));
    const moved = result.ok ? result.siteId : 0;
    const [movedPart] = (await site(there, moved)).parts;
    expect([movedPart.template, movedPart.templates?.[0].acts.length]).toEqual(['Dark', 1]);
    const after = await draft(there, moved);
    expect(after.settings[0].partId).toBe(movedPart.id);
    expect(after.settings[0].handed['f1'].text).toBe('#b4582a');
    expect(after.settings[0].strategy).toBe('stand-out');
    expect(after.settings[0].settled['f1']).toEqual({
      kind: 'value',
      value: { kind: 'swatch', swatchId: after.swatches[0].id, shade: 0 },
    });
    const [trial] = there.store.trials.bySite(moved);
    expect(trial.looks[1].settings[0].partId).toBe(movedPart.id);
    expect([trial.state, trial.decision?.winner, trial.decision?.why]).toEqual(['decided', 'B', 'clear']);
    expect(trial.counts.map(({ variation, seen, source }) => [variation, seen, source])).toEqual([['A', 1, 'counted']]);
    expect(there.store.trials.variations(moved).map(({ name }) => name)).toEqual(['Chalk']);
  });

  /** A site that has been worked on: everything a draft can have, a revision published, changes undone. */
  async function worked(): Promise<number> {
    const id = here.siteId;
    const pageId = (await site(here, id)).pages[0].id;
    const { swatches, parts } = { ...(await draft(here, id)), parts: (await site(here, id)).parts };
    const put = (some: object): Promise<void> =>
      act(here, id, 'changes', {
        label: 'Put',
        put: [{ ...OVERRIDE, pageId, partId: parts[0].id, ...some }],
        drop: [],
      });
    await put({});
    await put({
      id: 'o2',
      property: 'background-color',
      value: { kind: 'swatch', swatchId: swatches[1].id, shade: 0 },
    });
    await put({
      id: 'o3',
      property: 'background-image',
      selector: '.y',
      value: {
        kind: 'composite',
        css: 'linear-gradient({0}, red)',
        colors: [{ kind: 'swatch', swatchId: swatches[0].id, shade: 4 }],
      },
      spared: [{ pageId, element: 7 }],
      pages: [pageId],
    });
    await act(here, id, 'revisions', { note: 'First' });
    await act(here, id, 'publications', { revision: 1 });
    await act(here, id, 'changes', {
      label: 'Own',
      put: [],
      drop: ['o3'],
      ownCss: [{ partId: parts[0].id, css: '@page { margin: 0 }' }],
    });
    await act(
      here,
      id,
      'parts',
      {
        label: 'Parts',
        merged: [],
        parts: [{ id: 0, name: 'New', kind: 'form', selector: 'p', openers: [] }, ...parts],
      },
      'PUT',
    );
    await act(
      here,
      id,
      'exceptions',
      { label: 'Leave', exceptions: [{ kind: 'place', target: '.z', reason: 'theirs' }] },
      'PUT',
    );
    await act(
      here,
      id,
      'requests',
      {
        label: 'Wishes',
        requests: [
          {
            id: 'r1',
            text: 'The form in willow',
            cameAt: '2026-01-01',
            items: [
              {
                id: 'i1',
                words: 'The form in willow',
                partIds: [parts[0].id],
                pageIds: [pageId],
                keep: '',
                question: '',
                standing: 'done',
                reason: '',
                overrides: ['o1'],
                looks: [
                  {
                    selector: 'form',
                    property: 'color',
                    state: null,
                    value: { kind: 'swatch', swatchId: swatches[0].id, shade: 0 },
                  },
                ],
              },
            ],
          },
        ],
      },
      'PUT',
    );
    await act(here, id, 'changes', {
      label: 'For it',
      put: [{ ...OVERRIDE, id: 'o9', pageId, partId: parts[0].id, selector: '.w' }],
      drop: [],
      forItem: 'i1',
    });
    await act(
      here,
      id,
      'plan',
      {
        label: 'Plan',
        scope: JSON.stringify({ kind: 'parts', partIds: [parts[0].id] }),
        strategy: 'blend',
        settled: [
          { row: 'text #111', value: { kind: 'swatch', swatchId: swatches[1].id, shade: 0 } },
          { row: 'text #222' },
        ],
        equal: [],
        mains: [{ pageId, element: 4 }],
        apart: [{ row: 'r', places: [`${pageId}:4::color:0:rest`] }],
      },
      'PUT',
    );
    await act(
      here,
      id,
      'palette',
      {
        label: 'Palette',
        swatches: [
          ...swatches.map(({ id: own, name, css }) => ({ id: own, name, css })),
          { id: 0, name: 'Heron', css: '#5a3f5c' },
        ],
        roles: [{ role: 'accent', swatch: 'Heron', shade: -2 }],
        second: { told: { kind: 'scheme' }, roles: [{ role: 'accent', swatch: 'Chalk', shade: 0 }] },
        shape: { corner: '4px' },
        former: ['#ff0000'],
      },
      'PUT',
    );
    await act(
      here,
      id,
      'sheet-options',
      { label: 'Names', prefix: 'osier', asValues: false, names: [], hoverOnly: true },
      'PUT',
    );
    await act(here, id, 'revisions', { note: 'Second' });
    await act(here, id, 'undo');
    return id;
  }

  it('has the same sheets and the same history where it is brought in', async () => {
    const id = await worked();
    const zip = await archive(here, id);
    const result = await bring(there, zip);
    if (!result.ok) throw new Error(result.problem.detail);
    // The small site of that server has the name.
    expect(result.siteName).toBe('Small 2');
    const other = result.siteId;
    const told = async (server: TestServer, siteId: number): Promise<unknown> => {
      const { undo, redo, equalsRevision, publishedRevision, revisions, exceptions, second, shape, former, ownCss } =
        await draft(server, siteId);
      const live = (await site(server, siteId)).parts.map(({ name }) => name);
      return {
        undo,
        redo,
        equalsRevision,
        publishedRevision,
        revisions,
        exceptions,
        shape,
        former,
        live,
        second: second?.told,
        own: ownCss.map(({ css }) => css),
        css: await (
          await server.get(`/api/sites/${siteId}/archive`)
        )
          .arrayBuffer()
          .then((body) => entriesOf(Buffer.from(body)))
          .then((entries) =>
            entries
              .filter(({ path }) => path.startsWith('revisions/'))
              .map(({ body }) => JSON.parse(body.toString()) as { css: string; plainCss: string })
              .map(({ css, plainCss }) => [css, plainCss]),
          ),
      };
    };
    expect(await told(there, other)).toEqual(await told(here, id));
    // Through the whole history, to its beginning and back, both compile to the same revisions.
    const walk = async (path: 'undo' | 'redo'): Promise<void> => {
      for (;;) {
        const [a, b] = await Promise.all([draft(here, id), draft(there, other)]);
        expect([b.undo, b.redo, b.equalsRevision, b.overrides.map(({ id: own, selector }) => [own, selector])]).toEqual(
          [a.undo, a.redo, a.equalsRevision, a.overrides.map(({ id: own, selector }) => [own, selector])],
        );
        if (a[path] === null) return;
        await act(here, id, path);
        await act(there, other, path);
      }
    };
    await walk('undo');
    await walk('redo');
    // What speaks of pages, parts and swatches speaks of those that are here.
    const { overrides, swatches, plans } = await draft(there, other);
    const { pages, parts } = await site(there, other);
    for (const { pageId, partId, value } of overrides) {
      expect(pages.map((page) => page.id)).toContain(pageId);
      expect(parts.map((part) => part.id)).toContain(partId ?? -1);
      if (value.kind === 'swatch') expect(swatches.map((swatch) => swatch.id)).toContain(value.swatchId);
    }
    const [item] = (await draft(there, other)).requests[0].items;
    expect([item.partIds, item.pageIds, item.overrides]).toEqual([[parts[1].id], [pages[0].id], ['o1', 'o9']]);
    expect(item.looks[0].value).toEqual({ kind: 'swatch', swatchId: swatches[0].id, shade: 0 });
    expect(plans[0].choices.apart?.[0].places[0]).toBe(`${pages[0].id}:4::color:0:rest`);
    expect(JSON.parse(plans[0].scope)).toEqual({ kind: 'parts', partIds: [parts[1].id] });
    await act(there, other, 'revisions/1/back', { part: 'all' });
    expect((await draft(there, other)).equalsRevision).toBe(1);
    // What runs is made inert wherever an archive comes from, and keeps its place.
    const html = there.store.pages.bySite(other)[0].html;
    expect([html.includes('onclick'), html.includes('>1<'), html.includes('<script')]).toEqual([false, false, true]);
    expect(there.errors).toEqual([]);
  });

  it('is the same file each time, and once more when it has moved, but for its numbers', async () => {
    const id = await worked();
    const [one, again] = [await archive(here, id), await archive(here, id)];
    expect(one.equals(again)).toBeTrue();
    const result = await bring(there, one);
    if (!result.ok) throw new Error(result.problem.detail);
    const names = async (zip: Buffer): Promise<string[]> =>
      (await entriesOf(zip)).map(({ path }) => path.replace(/\d+\.html$/, 'n.html'));
    expect(await names(await archive(there, result.siteId))).toEqual(await names(one));
  });

  it('keeps the names that swatches are published under, whenever those were added', async () => {
    const id = here.siteId;
    const { swatches } = await draft(here, id);
    const [accent] = swatches;
    await act(
      here,
      id,
      'palette',
      {
        label: 'Heron',
        swatches: [
          ...swatches.map(({ id: own, name, css }) => ({ id: own, name, css })),
          { id: 0, name: 'Heron', css: '#5a3f5c' },
        ],
        roles: [{ role: 'accent', swatch: accent.name, shade: 0 }],
      },
      'PUT',
    );
    await act(here, id, 'revisions', { note: '' });
    await act(here, id, 'publications', { revision: 1 });
    const tokens = async (server: TestServer, siteId: number): Promise<unknown> =>
      (await draft(server, siteId)).swatches.map(({ name, token }) => [name, token]);
    const result = await bring(there, await archive(here, id));
    if (!result.ok) throw new Error(result.problem.detail);
    expect(await tokens(there, result.siteId)).toEqual(await tokens(here, id));
    expect(JSON.stringify(await tokens(here, id))).toContain('heron');
  });

  it('leaves what is open as it is, and is refused over an open site', async () => {
    const id = await worked();
    const before = await draft(here, id);
    const zip = await archive(here, id);
    expect(await draft(here, id)).toEqual(before);
    const result = await bring(here, zip, id);
    expect(result.ok ? '' : result.problem.detail).toContain('bring it in as a new one');
  });

  it('is refused with what is wrong and where, and leaves nothing behind', async () => {
    const entries = await entriesOf(await archive(here, await worked()));
    const count = there.store.sites.all().length;
    const spoilt = async (path: string, change: (text: string) => string | null): Promise<string> => {
      const next = entries.flatMap((entry) => {
        const body = entry.path === path ? change(entry.body.toString()) : entry.body;
        return body === null ? [] : [{ ...entry, body }];
      });
      const result = await bring(there, await makeZip(next));
      expect(there.store.sites.all().length).withContext(path).toBe(count);
      return result.ok ? 'brought in' : (result.problem.detail ?? '');
    };
    const head =
      (change: (own: { -readonly [K in keyof ArchiveHead]: ArchiveHead[K] }) => void) =>
      (text: string): string => {
        const own = JSON.parse(text) as ArchiveHead;
        change(own);
        return JSON.stringify(own);
      };
    const HEAD = 'upper-veneer-site.json';
    expect(
      await spoilt(
        HEAD,
        head((own) => (own.version = 2)),
      ),
    ).toContain('version must be 1');
    expect(await spoilt(HEAD, () => '{')).toContain('upper-veneer-site.json is no JSON');
    expect(
      await spoilt(
        HEAD,
        head((own) => (own.pages = [{ ...own.pages[0], path: '../x.html' }])),
      ),
    ).toContain('leads out of the site');
    expect(await spoilt('history/1.json', (text) => text.replaceAll('".x"', '".x {"'))).toContain('history, step 1');
    expect(await spoilt('history/1.json', () => null)).toContain('history/1.json is not in the archive');
    expect(
      await spoilt('revisions/1.json', (text) =>
        text.replace('"linear-gradient({0}, red)"', '"red; } * { color: blue"'),
      ),
    ).toContain('revision 1');
    expect(await spoilt('files/img/a.svg', () => 'GIF89a')).toContain('img/a.svg is no image/svg+xml file');
  });
});
