import type { KitDocument, ProblemDocument } from '@upper-veneer/contract';
import { startTestServer, type TestServer } from './testing/test-site.js';

const KIT = {
  format: 'upper-veneer kit',
  version: 1,
  name: 'Booking',
  madeOn: 'Osier',
  root: '.qs-root',
  classes: ['qs-root', 'qs-go'],
  markup: 'form.qs-root',
  roles: { accent: '#b4582a' },
  rules: [
    {
      elements: '.qs-go',
      selector: '.qs-go:hover',
      pseudo: '',
      state: 'hover',
      property: 'color',
      value: { kind: 'role', role: 'accent', shade: -12 },
      important: false,
      widths: null,
    },
  ],
};

describe('kits', () => {
  let server: TestServer;
  beforeEach(async () => {
    server = await startTestServer();
  });
  afterEach(() => server.stop());
  const kits = async (): Promise<KitDocument[]> => (await (await server.get('/api/kits')).json()) as KitDocument[];

  it('are kept for all sites, outlive the one they were made on, and go when told', async () => {
    expect((await server.post('/api/kits', KIT)).status).toBe(201);
    await fetch(`${server.url}/api/sites/${server.siteId}`, { method: 'DELETE' });
    const [kept] = await kits();
    expect(kept.kit as unknown).toEqual(KIT);
    expect((await fetch(`${server.url}/api/kits/${kept.id}`, { method: 'DELETE' })).status).toBe(200);
    expect(await kits()).toEqual([]);
    expect((await fetch(`${server.url}/api/kits/${kept.id}`, { method: 'DELETE' })).status).toBe(404);
  });

  it('from a file that is none, or not whole, are refused with what is wrong', async () => {
    const reason = async (kit: object): Promise<string> => {
      const response = await server.post('/api/kits', kit);
      expect(response.status).toBe(422);
      const [error] = ((await response.json()) as ProblemDocument).errors ?? [];
      return `${error.field} ${error.reason}`;
    };
    expect(await reason({})).toContain('must be');
    expect(await reason({ ...KIT, version: 2 })).toContain('version must be 1');
    expect(await reason({ ...KIT, rules: [] })).toBe('rules must hold a rule');
    const [rule] = KIT.rules;
    expect(await reason({ ...KIT, rules: [{ ...rule, selector: 'a {' }] })).toContain('rules.0.selector');
    expect(await reason({ ...KIT, rules: [{ ...rule, property: 'behavior' }] })).toContain('rules.0.property');
    expect(await reason({ ...KIT, more: 1 })).toBe('more is not known');
    expect(await kits()).toEqual([]);
  });
});
