import { mkdtemp, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { runHere as run, runInShell } from './testing/run-command.js';

/** Tokens by the Design Tokens format: colours, and roles as aliases of them. */
const TOKENS = JSON.stringify({
  swatch: {
    $type: 'color',
    willow: { $value: '#b4582a' },
    paper: { $value: '#f7f3e9' },
    night: { $value: '#1d2b2a' },
  },
  role: {
    $type: 'color',
    ground: { $value: '{swatch.paper}' },
    ink: { $value: '{swatch.night}' },
    accent: { $value: '{swatch.willow}' },
  },
});

interface Proposed {
  readonly version: number;
  readonly rows: readonly {
    readonly color: string;
    readonly places: readonly { readonly page: string; readonly element: number; readonly property: string }[];
    readonly becomes: { readonly role?: string; readonly css: string };
  }[];
}

describe('the command line', () => {
  let folder = '';
  let tokens = '';
  beforeAll(async () => {
    folder = await mkdtemp(join(tmpdir(), 'uv-cli-'));
    tokens = join(folder, 'brand.tokens.json');
    await writeFile(tokens, TOKENS);
    await writeFile(
      join(folder, 'index.html'),
      '<!doctype html><link rel=stylesheet href=a.css><form class=w><button>Go</button></form><p class=out>Out</p>',
    );
    await writeFile(join(folder, 'a.css'), '.w button { background: #7a2bd6; color: #fff } .out { color: #7a2bd6 }');
  });
  afterAll(() => rm(folder, { recursive: true }));

  it('proposes as JSON, elements by their place in the document', async () => {
    const { code, out } = await run('propose', folder, '--palette', tokens, '--json');
    const { version, rows } = JSON.parse(out) as Proposed;
    expect([code, version]).toEqual([0, 1]);
    const fill = rows.find(({ color, places }) => color === '#7a2bd6' && places[0].property === 'background-color');
    // html, head, link, body, form, button: the sixth in document order (HTML's tree construction adds html, head and body).
    expect(fill?.places[0]).toEqual(jasmine.objectContaining({ page: 'index.html', element: 5 }));
    expect(fill?.becomes).toEqual(jasmine.objectContaining({ role: 'accent', css: '#b4582a' }));
  });

  it('keeps to the scope', async () => {
    const { out } = await run('propose', folder, '--palette', tokens, '--json', '--scope', '.w');
    const { rows } = JSON.parse(out) as Proposed;
    expect(rows.some(({ places }) => places.some(({ property }) => property === 'background-color'))).toBeTrue();
    expect(rows.some(({ places }) => places.some(({ element }) => element === 6))).toBeFalse();
  });

  it('lays the proposal on as a stylesheet that leaves what is outside the scope', async () => {
    const { code, out } = await run('lay', folder, '--palette', tokens, '--scope', '.w');
    expect(code).toBe(0);
    expect(out).toMatch(/\.w button \{[^}]*background-color: var\(--brand-accent\)/);
    expect(out).not.toContain('.out');
  });

  it('reads a zip', async () => {
    const { code, out } = await run(
      'propose',
      fileURLToPath(new URL('../../demo/imports/osier-and-reed.zip', import.meta.url)),
      '--palette',
      tokens,
      '--scope',
      '.qs-root',
      '--strategy',
      'stand-out',
      '--lighting',
      'inverted',
    );
    expect(code).toBeLessThan(2);
    expect(out).toContain('fill of Hold my place');
  });

  it('says what it does not understand, and where', async () => {
    for (const [args, words] of [
      [['propose', join(folder, 'gone'), '--palette', tokens], 'gone is not there'],
      [['propose', folder, '--palette', join(folder, 'index.html')], 'It is not JSON'],
      [['propose', folder, '--palette', tokens, '--scope', '..a'], '--scope ..a'],
      [['propose', folder, '--palette', tokens, '--strategy', 'loud'], 'it is blend or stand-out'],
      [['grow', folder], 'grow is no command'],
      [['propose', folder], 'needs --palette'],
      [['propose', tokens, '--palette', tokens], 'neither a folder nor a zip archive'],
    ] as const) {
      const { code, err } = await run(...args);
      expect([code, err]).toEqual([2, jasmine.stringContaining(words)]);
    }
    expect((await run('--help')).code).toBe(0);
  });

  it('says the same in a shell, and ends as it says', async () => {
    for (const args of [['propose', folder, '--palette', tokens], ['grow', folder], ['--help']])
      expect(await runInShell(...args))
        .withContext(args.join(' '))
        .toEqual(await run(...args));
  });
});
