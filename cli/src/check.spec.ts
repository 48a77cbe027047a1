import { mkdtemp, readFile, rm, writeFile } from 'node:fs/promises';
import { createServer, type Server } from 'node:http';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Log } from 'sarif';
import { runHere as run, runInShell } from './testing/run-command.js';

const TOKENS = JSON.stringify({
  role: { $type: 'color', ground: { $value: '#ffffff' }, ink: { $value: '#1d2b2a' }, accent: { $value: '#104a47' } },
});
const PAGE =
  '<!doctype html><title>x</title><link rel=stylesheet href=css/a.css><p class=t>Pale</p><button>Go</button>';
const SHEET =
  'body { background: #fff; color: #1d2b2a } .t { color: #999999 } button { background: #104a47; color: #fff; border: 0 } button:hover { background: #1d2b2a }';

interface Found {
  readonly version: number;
  readonly looks: number;
  readonly findings: readonly (Readonly<Record<string, unknown>> & {
    readonly kind: string;
    readonly level: string;
    readonly places: readonly unknown[];
  })[];
  readonly unseen: readonly { readonly what: string; readonly reason: string }[];
}

describe('upper-veneer check', () => {
  let folder = '';
  let tokens = '';
  beforeAll(async () => {
    folder = await mkdtemp(join(tmpdir(), 'uv-check-'));
    tokens = join(folder, 'brand.tokens.json');
    await Promise.all([
      writeFile(tokens, TOKENS),
      writeFile(join(folder, 'index.html'), PAGE.replace('css/a.css', 'a.css')),
      writeFile(join(folder, 'a.css'), SHEET),
      writeFile(join(folder, 'good.css'), '.t { color: var(--brand-ink) } :root { --brand-ink: #1d2b2a }'),
      writeFile(join(folder, 'bad.css'), '.t { color: #bbbbbb } .gone { color: #104a47 }'),
    ]);
  });
  afterAll(() => rm(folder, { recursive: true }));

  const json = async (...args: string[]): Promise<Found & { code: number }> => {
    const { code, out } = await run('check', folder, '--palette', tokens, '--json', ...args);
    return { ...(JSON.parse(out) as Found), code };
  };

  it('ends with 1 where something fails, with its figure and its places, and 0 where a veneer mends it', async () => {
    const bare = await json();
    expect([bare.code, bare.version]).toEqual([1, 1]);
    const [first] = bare.findings.filter(({ kind }) => kind === 'reads');
    // #999999 on white is 2.84 : 1 by WCAG 2.2's formula, here cut to two places.
    expect(first).toEqual(
      jasmine.objectContaining({
        level: 'fails',
        page: 'index.html',
        element: 5,
        pseudo: '',
        state: 'rest',
        width: 1280,
        lighting: 'light',
        figure: 2.84,
        needed: 4.5,
      }),
    );
    expect(first['selector']).toBe('html > body > p');
    expect(first.places.length).toBe(1);
    const good = await json('--veneer', join(folder, 'good.css'));
    expect([good.code, good.findings.filter(({ level }) => level === 'fails')]).toEqual([0, []]);
    const bad = await json('--veneer', join(folder, 'bad.css'));
    expect([bad.code, bad.findings.filter(({ level }) => level === 'fails').map(({ kind }) => kind)]).toEqual([
      1,
      ['reads', 'ours', 'holds'],
    ]);
  });

  it('tries mends where it is asked to', async () => {
    const found = await json('--mend');
    const { findings } = found;
    // What is told is said: words, not codes.
    expect(JSON.stringify(found)).not.toContain('{"code":');
    expect(findings.find(({ kind }) => kind === 'reads')?.['mend']).toMatch(/ΔE \d+\.\d away: \d+\.\d : 1$/);
  });

  it('looks at the widths and in the lighting it is given, and says what it did not look at', async () => {
    const { out } = await run('check', folder, '--width', '700,400', '--lighting', 'both');
    expect(out).toContain('700, 400 px, light and inverted');
    expect(out).toContain('colours that are not the brand’s: the palette has none');
  });

  // Reference: the types of SARIF 2.1.0 that DefinitelyTyped keeps, and what OASIS's text requires of a log, a run and a result.
  it('writes SARIF 2.1.0', async () => {
    const path = join(folder, 'out.sarif');
    expect((await run('check', folder, '--palette', tokens, '--sarif', '--out', path)).code).toBe(1);
    const log = JSON.parse(await readFile(path, 'utf8')) as Log;
    const [{ tool, results = [] }] = log.runs;
    expect([log.version, tool.driver.name]).toEqual(['2.1.0', 'upper-veneer']);
    const rules = tool.driver.rules ?? [];
    for (const { ruleId, ruleIndex = -1, level, message, locations = [] } of results) {
      expect(rules[ruleIndex].id).toBe(ruleId ?? '');
      expect(['error', 'warning']).toContain(level ?? '');
      expect(message.text).toBeTruthy();
      expect(locations[0].physicalLocation?.artifactLocation?.uri).toBe('index.html');
    }
    expect(results.some(({ level }) => level === 'error')).toBeTrue();
  });

  it('fetches a page by its address with the sheets of its origin', async () => {
    const server: Server = createServer(({ url }, response) => {
      if (url === '/shop/') response.end(PAGE);
      else if (url === '/shop/css/a.css') response.end('@import "b.css";');
      else if (url === '/shop/css/b.css') response.end(SHEET);
      else response.writeHead(404).end();
    });
    await new Promise<void>((done) => server.listen(0, '127.0.0.1', done));
    const address = server.address();
    const port = typeof address === 'object' && address ? address.port : 0;
    const { code, out } = await run('check', `http://127.0.0.1:${port}/shop/`, '--palette', tokens, '--json');
    const gone = await run('check', `http://127.0.0.1:${port}/nothing`);
    server.close();
    expect(code).toBe(1);
    expect((JSON.parse(out) as Found).findings.find(({ kind }) => kind === 'reads')?.['figure']).toBe(2.84);
    expect([gone.code, gone.err]).toEqual([2, jasmine.stringContaining('answers with 404')]);
  });

  it('says what it does not understand', async () => {
    for (const [args, words] of [
      [['check', folder, '--width', 'wide'], '--width wide'],
      [['check', folder, '--lighting', 'dim'], '--lighting dim: it is light or inverted or both'],
      [['check', folder, '--veneer', join(folder, 'none.css')], 'none.css is not there'],
      [['tokens', tokens, '--to', 'xls'], '--to xls: it is .tokens.json, .gpl, .css'],
    ] as const) {
      const { code, err } = await run(...args);
      expect([code, err]).toEqual([2, jasmine.stringContaining(words)]);
    }
  });

  it('turns one palette format into another and back', async () => {
    const gpl = join(folder, 'brand.gpl');
    expect((await run('tokens', tokens, '--to', 'gpl', '--out', gpl)).code).toBe(0);
    expect(await readFile(gpl, 'utf8')).toMatch(/^GIMP Palette\n/);
    const { out } = await run('tokens', gpl, '--to', '.css');
    expect(out).toContain('#104a47');
  });

  it('says the same in a shell, and ends as it says', async () => {
    for (const args of [
      ['check', folder, '--palette', tokens, '--veneer', join(folder, 'bad.css')],
      ['grow', folder],
      ['--help'],
    ])
      expect(await runInShell(...args))
        .withContext(args.join(' '))
        .toEqual(await run(...args));
  });
});
