import type { DraftDocument, ProblemDocument, TrialDocument, TrialsDocument } from '@upper-veneer/contract';
import { startTestServer, type TestServer, type Visit } from './testing/test-site.js';

const PLAN = { base: 0.04, smallest: 0.01, alpha: 0.05, power: 0.8 };
const PROOFS = ['A', 'B'].map((variation) => ({ variation, fails: 0, looks: 4 }));

describe('trials', () => {
  let server: TestServer;
  beforeEach(async () => {
    server = await startTestServer();
  });
  afterEach(() => server.stop());
  const send = (method: string, path: string, body: object = {}): Promise<Response> =>
    fetch(`${server.url}/api/sites/${server.siteId}/${path}`, {
      method,
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify(body),
    });
  const all = async (): Promise<TrialsDocument> =>
    (await (await server.get(`/api/sites/${server.siteId}/trials`)).json()) as TrialsDocument;
  const draft = async (): Promise<DraftDocument> =>
    (await (await server.get(`/api/sites/${server.siteId}/draft`)).json()) as DraftDocument;
  const reasonOf = async (response: Response): Promise<string> =>
    `${response.status} ${((await response.json()) as ProblemDocument).detail ?? ''}`;
  const override = (id: string, css: string): object => ({
    id,
    pageId: server.store.pages.ids(server.siteId)[0],
    element: 3,
    pseudo: '',
    reach: 'one',
    state: 'rest',
    partId: null,
    property: 'color',
    value: { kind: 'literal', css },
    selector: '.x',
    important: false,
  });
  /** A trial of the draft against a fork of it. */
  const planned = async (): Promise<TrialDocument> => {
    await send('POST', 'changes', { label: 'x', put: [override('o1', '#111111')], drop: [] });
    expect(
      (await send('POST', 'variations', { name: 'Rust', put: [override('o1', '#b4582a')], drop: [] })).status,
    ).toBe(201);
    const [{ id }] = (await all()).variations;
    const response = await send('POST', 'trials', {
      name: 'Ink or rust',
      variations: [{ variationId: null }, { variationId: id }],
      plan: PLAN,
      conversions: [{ kind: 'press', target: '.x' }],
      seen: '.x',
    });
    expect(response.status).toBe(201);
    return (await all()).trials[0];
  };
  const start = (trial: TrialDocument, proofs: object[] = PROOFS): Promise<Response> =>
    send('PUT', `trials/${trial.id}/state`, { isRunning: true, proofs });
  const page = (headers: Record<string, string> = {}): Promise<Visit> =>
    server.visit(`/${server.siteId}/index.html`, undefined, headers);
  const lookIn = ({ text }: Visit): string => /veneer\.css\?look=([A-F])/.exec(text)?.[1] ?? '';
  const tell = (body: object | string): Promise<Response> =>
    fetch(`http://127.0.0.1:${new URL(server.hostUrl).port}/${server.siteId}/look/events`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: typeof body === 'string' ? body : JSON.stringify(body),
    });
  const event = (n: number, trial: number, look: string, kind: number): object => ({
    id: n.toString(16).padStart(32, '0'),
    trial,
    look,
    kind,
  });

  it('fork the draft without changing it; each look is a revision', async () => {
    const trial = await planned();
    const { overrides, revisions } = await draft();
    expect(overrides.map(({ value }) => value)).toEqual([{ kind: 'literal', css: '#111111' }]);
    expect(trial.looks.map(({ variation, name, revision }) => [variation, name, revision])).toEqual([
      ['A', 'As the draft is', 2],
      ['B', 'Rust', 1],
    ]);
    expect(revisions.map(({ note }) => note)).toEqual(['Trial: Ink or rust', 'Variation: Rust']);
    const sheets = trial.looks.map(
      ({ revision }) => server.store.revisions.byNumber(server.siteId, revision)?.css ?? '',
    );
    expect(sheets[0]).toContain('#111');
    expect(sheets[1]).toContain('#b4582a');
  });

  it('run only what was proved to be readable, one at a time', async () => {
    const trial = await planned();
    expect(await reasonOf(await start(trial, []))).toContain('A · As the draft is was not proved');
    expect(await reasonOf(await start(trial, [PROOFS[0], { ...PROOFS[1], fails: 2 }]))).toContain(
      '2 things cannot be read',
    );
    expect((await start(trial)).status).toBe(200);
    const second = await planned();
    expect(await reasonOf(await start(second))).toContain('Another trial runs');
    expect(await reasonOf(await send('DELETE', `trials/${trial.id}`))).toContain('pause it first');
  });

  it('give each visitor one look and keep to it; who opts out gets what is published, without a script', async () => {
    const trial = await planned();
    expect((await page()).text).not.toContain('count.js');
    await start(trial);
    const drawn = new Map<string, number>();
    for (let i = 0; i < 60; i += 1) {
      const first = await page();
      const look = lookIn(first);
      drawn.set(look, (drawn.get(look) ?? 0) + 1);
      const cookie = String(first.headers['set-cookie']).split(';')[0];
      expect(cookie).toBe(`look=${trial.id}.${look}`);
      const again = await page({ cookie });
      expect(lookIn(again)).toBe(look);
      expect(again.headers['set-cookie']).toBeUndefined();
    }
    // A fair draw leaves fewer than 10 of 60 in either with a chance of under one in ten million (binomial).
    expect(Math.min(drawn.get('A') ?? 0, drawn.get('B') ?? 0)).toBeGreaterThanOrEqual(10);
    const outs: readonly Record<string, string>[] = [{ cookie: 'look=off' }, { 'sec-gpc': '1' }, { dnt: '1' }];
    for (const headers of outs) {
      const out = await page(headers);
      expect(lookIn(out)).toBe('');
      expect(out.text).not.toContain('count.js');
      expect(out.headers['set-cookie']).toBeUndefined();
      expect(out.headers['content-security-policy']).toContain("script-src 'none'");
    }
    const css = await server.visit(`/${server.siteId}/veneer.css?look=B`);
    expect(css.text).toContain('#b4582a');
    expect((await server.visit(`/${server.siteId}/look/off`)).headers['set-cookie']?.[0]).toContain('look=off');
  });

  it('let nothing that was captured run beside the script that counts', async () => {
    const trial = await planned();
    await start(trial);
    const [one, two] = [await page(), await page()];
    const nonces = [one, two].map(
      ({ headers }) => /'nonce-([^']+)'/.exec(String(headers['content-security-policy']))?.[1],
    );
    expect(nonces[0]).not.toBe(nonces[1]);
    expect(one.headers['content-security-policy']).not.toMatch(/script-src[^;]*(?:unsafe|self)/);
    expect(one.text.split(`nonce="${nonces[0]}"`).length).toBe(2);
  });

  it('count each event once, however often it is told, and refuse what is none', async () => {
    const trial = await planned();
    expect((await tell(event(1, trial.id, 'A', -1))).status).toBe(410);
    await start(trial);
    for (let again = 0; again < 3; again += 1)
      for (const [n, look, kind] of [
        [1, 'A', -1],
        [2, 'A', 0],
        [3, 'B', -1],
      ] as const)
        expect((await tell(event(n, trial.id, look, kind))).status).toBe(204);
    for (const body of [
      '{',
      '[]',
      event(4, trial.id, 'C', -1),
      event(5, trial.id, 'A', 1),
      { ...event(6, trial.id, 'A', 0), id: 'x' },
      { ...event(7, trial.id, 'A', 0), kind: 'NaN' },
      `{"id":"${'0'.repeat(3000)}"}`,
    ])
      expect((await tell(body)).status)
        .withContext(JSON.stringify(body).slice(0, 60))
        .toBeGreaterThanOrEqual(400);
    const { counts } = (await all()).trials[0];
    expect(counts.map(({ variation, seen, pressed, source }) => [variation, seen, pressed, source])).toEqual([
      ['A', 1, 1, 'counted'],
      ['B', 1, 0, 'counted'],
    ]);
  });

  it('take made-up traffic and counts from elsewhere, each told apart', async () => {
    const trial = await planned();
    const traffic = {
      from: '2026-05-04',
      days: 7,
      visitors: 100,
      rates: [0.1, 0.2],
      weekdays: [1, 1, 1, 1, 1, 1, 0],
      seed: 4,
    };
    expect((await send('POST', `trials/${trial.id}/traffic`, traffic)).status).toBe(200);
    const made = (await all()).trials[0].counts;
    await send('POST', `trials/${trial.id}/traffic`, traffic);
    expect((await all()).trials[0].counts).toEqual(made);
    expect(made.reduce((sum, { seen }) => sum + seen, 0)).toBe(600);
    await send('PUT', `trials/${trial.id}/counts`, {
      counts: [{ day: '2026-05-04', variation: 'A', seen: 9, pressed: 1 }],
    });
    expect((await all()).trials[0].counts.filter(({ source }) => source === 'brought-in').length).toBe(1);
    const wrong = [
      { day: '2026-05-04', variation: 'C', seen: 9, pressed: 1 },
      { day: '2026-05-04', variation: 'A', seen: 1, pressed: 9 },
      { day: '2026-13-41', variation: 'A', seen: 1, pressed: 0 },
    ];
    for (const count of wrong)
      expect((await send('PUT', `trials/${trial.id}/counts`, { counts: [count] })).status).toBe(422);
    expect((await send('POST', `trials/${trial.id}/traffic`, { ...traffic, visitors: 20_000, days: 120 })).status).toBe(
      422,
    );
    await send('DELETE', `trials/${trial.id}/traffic`);
    expect((await all()).trials[0].counts.map(({ source }) => source)).toEqual(['brought-in']);
  });

  it('are decided in one step of undo, and keep their figures', async () => {
    const trial = await planned();
    await send('PUT', `trials/${trial.id}/counts`, {
      counts: [
        { day: '2026-05-04', variation: 'A', seen: 3000, pressed: 100 },
        { day: '2026-05-04', variation: 'B', seen: 3000, pressed: 220 },
      ],
    });
    expect((await send('POST', `trials/${trial.id}/decision`, { winner: 'B', who: 'Mara', why: 'clear' })).status).toBe(
      201,
    );
    expect((await draft()).overrides[0].value).toEqual({ kind: 'literal', css: '#b4582a' });
    const { decision, state } = (await all()).trials[0];
    expect(state).toBe('decided');
    expect([decision?.winner, decision?.who, decision?.why]).toEqual(['B', 'Mara', 'clear']);
    expect(decision?.figures.call).toEqual({ kind: 'better', variation: 'B' });
    expect((await send('POST', `trials/${trial.id}/decision`, { winner: 'A', who: 'x', why: 'y' })).status).toBe(409);
    expect((await send('PUT', `trials/${trial.id}/counts`, { counts: [] })).status).toBe(409);
    await server.post(`/api/sites/${server.siteId}/undo`, {});
    expect((await draft()).overrides[0].value).toEqual({ kind: 'literal', css: '#111111' });
  });

  it('are refused between looks that another palette was laid under: they would differ in what nobody named', async () => {
    await send('POST', 'changes', { label: 'x', put: [override('o1', '#111111')], drop: [] });
    await send('POST', 'variations', { name: 'Rust', put: [override('o1', '#b4582a')], drop: [] });
    const swatches = [{ name: 'Willow', css: '#123456' }];
    const palette = { label: 'x', swatches: swatches.map((own) => ({ id: 0, ...own })), roles: [] };
    expect((await send('PUT', 'palette', palette)).status).toBe(200);
    const [{ id }] = (await all()).variations;
    const refused = await send('POST', 'trials', {
      name: 'x',
      variations: [{ variationId: null }, { variationId: id }],
      plan: PLAN,
      conversions: [{ kind: 'press', target: '.x' }],
      seen: '',
    });
    expect(await reasonOf(refused)).toContain('keep Rust anew');
  });

  it('are refused with what and where', async () => {
    const trial = await planned();
    const [{ id }] = (await all()).variations;
    const request = {
      name: 'x',
      variations: [{ variationId: null }, { variationId: id }],
      plan: PLAN,
      conversions: [{ kind: 'press', target: '.x' }],
      seen: '',
    };
    const rows: readonly (readonly [object, string])[] = [
      [{ variations: [{ variationId: id }, { variationId: id }] }, 'names one variation twice'],
      [{ variations: [{ variationId: null }, { variationId: 99 }] }, '99 is no variation'],
      [{ conversions: [{ kind: 'press', target: '.x {' }] }, 'conversions.0.target'],
      [{ conversions: [{ kind: 'reached', target: 'gone.html' }] }, 'is no page of this site'],
      [{ plan: { ...PLAN, base: 0.9, smallest: 0.2 } }, 'leads beyond 100 %'],
      [{ variations: [{ variationId: null }] }, 'two variations or more'],
    ];
    for (const [changes, reason] of rows)
      expect(await reasonOf(await send('POST', 'trials', { ...request, ...changes }))).toContain(reason);
    expect(await reasonOf(await send('POST', 'variations', { name: 'x', put: [], drop: [] }))).toContain(
      'names nothing',
    );
    expect((await send('PUT', `trials/${trial.id + 9}/state`, { isRunning: true })).status).toBe(404);
    expect((await all()).trials.length).toBe(1);
  });
});
