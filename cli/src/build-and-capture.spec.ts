import { mkdtemp, readFile, rm, writeFile } from 'node:fs/promises';
import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { runHere as run, type Answer } from './testing/run-command.js';

const OVERRIDE = {
  id: 'o1',
  partId: 1,
  pageId: 1,
  element: 4,
  pseudo: '',
  reach: 'alike',
  state: 'hover',
  property: 'background-color',
  value: { kind: 'role', role: 'accent', shade: 12 },
  selector: '.qs-card button:hover',
  important: false,
};
const DRAFT = {
  version: 1,
  site: 'Osier & Reed',
  prefix: 'brand',
  asValues: false,
  hoverOnly: false,
  names: {},
  parts: [{ id: 1, name: 'Booking form' }],
  palette: {
    swatches: [{ id: 7, name: 'Willow', css: '#b4582a' }],
    roles: [{ role: 'accent', swatchId: 7, shade: 0 }],
    second: null,
    shape: {},
  },
  overrides: [OVERRIDE],
};

describe('upper-veneer', () => {
  let folder = '';
  beforeEach(async () => {
    folder = await mkdtemp(join(tmpdir(), 'uv-build-'));
  });
  afterEach(() => rm(folder, { recursive: true }));

  const built = async (draft: unknown): Promise<Answer> => {
    const file = join(folder, 'a.draft.json');
    await writeFile(file, typeof draft === 'string' ? draft : JSON.stringify(draft));
    return run('build', file);
  };

  describe('build', () => {
    it('compiles a draft to the sheet that the product shows', async () => {
      const { code, out } = await built(DRAFT);
      expect(code).toBe(0);
      // Source: the CSS of the draft as the Bench writes it, `bench.spec.ts`.
      expect(out).toContain('Booking form');
      expect(out).toMatch(/\.qs-card button:hover \{\n {2}background-color: var\(--brand-[\w-]+\);\n\}/);
      expect(out).toMatch(/--brand-accent-\w+: #[0-9a-f]{6};/);
    });

    const broken: readonly (readonly [what: string, draft: unknown, says: RegExp])[] = [
      ['what is no JSON', '{', /is no JSON/],
      ['another version', { ...DRAFT, version: 2 }, /version must be 1/],
      ['no palette', { ...DRAFT, palette: { swatches: [null], roles: 'none' } }, /palette/],
      ['a name that breaks out', { ...DRAFT, names: { accent: 'x: red } b {' } }, /names/],
      ['no overrides', { ...DRAFT, overrides: 'none' }, /overrides must be a list/],
      ['a selector that swallows', { ...DRAFT, overrides: [{ ...OVERRIDE, selector: '.x/*' }] }, /o1: /],
      [
        'a colour that is none',
        { ...DRAFT, palette: { ...DRAFT.palette, swatches: [{ id: 7, name: 'Willow', css: 'rgb(1,2' }] } },
        /swatch Willow: "rgb\(1,2" is no colour/,
      ],
      ['a role nobody fills', { ...DRAFT, palette: { ...DRAFT.palette, roles: [] } }, /o1: /],
    ];
    for (const [what, draft, says] of broken)
      it(`refuses ${what}, and says where`, async () => {
        const { code, err } = await built(draft);
        expect(code).withContext(err).toBe(2);
        expect(err).toMatch(says);
      });
  });

  describe('capture', () => {
    let server: Server;
    let origin = '';
    beforeEach(async () => {
      server = createServer((request, response) => {
        const texts: Readonly<Record<string, string>> = {
          '/book': '<!doctype html><p>Book',
          '/trips/': '<!doctype html><link rel=stylesheet href=/css/a.css><p class=t>x',
          '/css/a.css': '@import "b.css"; .t { color: #999 }',
          '/css/b.css': 'p { color: red }',
          '/late':
            '<!doctype html><title>Late</title><link rel=stylesheet href=/css/a.css><button id=go>Next</button><script>setTimeout(() => document.body.insertAdjacentHTML("beforeend", "<p class=t>late</p>"), 900); go.onclick = () => { document.body.innerHTML = "<h1>Second step</h1>"; }</script>',
        };
        const text = texts[request.url ?? ''];
        const type = (request.url ?? '').endsWith('.css') ? 'text/css' : 'text/html';
        response.writeHead(text === undefined ? 404 : 200, { 'content-type': type }).end(text ?? '');
      });
      await new Promise<void>((done) => server.listen(0, '127.0.0.1', done));
      origin = `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
    });
    afterEach(() => server.close());

    it('writes a page with its stylesheets where check reads them', async () => {
      const out = join(folder, 'saved');
      const captured = await run('capture', `${origin}/trips/`, '--as-sent', '--out', out);
      expect([captured.code, captured.err]).toEqual([0, '']);
      expect(captured.out).toContain('1 page, 2 stylesheets');
      expect(await readFile(join(out, 'css/b.css'), 'utf8')).toBe('p { color: red }');
      const checked = await run('check', out);
      // #999 on white is 2.85 : 1 by WCAG 2.2's formula.
      expect(checked.code).toBe(1);
      expect(checked.out).toContain('2.8');
    });

    it('writes a page as a visitor’s browser gets it, after steps too', async () => {
      const out = join(folder, 'late');
      const steps = join(folder, 'steps.json');
      await writeFile(steps, '{ "keep": "", "steps": [{ "act": "press", "words": "Next", "keep": "Second step" }] }');
      const captured = await run('capture', `${origin}/late`, '--steps', steps, '--out', out);
      expect([captured.code, captured.err]).toEqual([0, '']);
      expect(captured.out).toContain('2 pages, 2 stylesheets');
      expect(await readFile(join(out, 'late.html'), 'utf8')).toContain('<p class="t">late</p>');
      expect(await readFile(join(out, 'late~second-step.html'), 'utf8')).toContain('<h1>Second step</h1>');
      // What scripts put in is checked as all else is.
      expect((await run('check', out)).out).toContain('2.8');
    }, 60_000);

    it('says which step found nothing, and what is wrong with a file of steps', async () => {
      const steps = join(folder, 'steps.json');
      const said = async (text: string): Promise<string> => {
        await writeFile(steps, text);
        return (await run('capture', `${origin}/late`, '--steps', steps, '--out', join(folder, 'none'))).err;
      };
      expect(await said('{ "steps": [{ "act": "dance", "words": "x" }] }')).toMatch(/steps\.0\.act must be one of/);
      expect(await said('{ "steps": [{ "act": "press", "selector": "a >" , "keep": "x" }] }')).toMatch(
        /no CSS selector/,
      );
      expect(await said('{ "steps": [] }')).toMatch(/No page is kept/);
      expect(await said('[')).toMatch(/no JSON/);
    });

    it('names a page as pages are named, whatever its address ends in', async () => {
      const out = join(folder, 'book');
      expect((await run('capture', `${origin}/book`, '--as-sent', '--out', out)).out).toContain('book.html');
      expect((await run('check', out)).code).toBe(0);
    });

    it('says what it needs', async () => {
      await writeFile(join(folder, 'taken'), '');
      expect((await run('capture', `${origin}/book`, '--as-sent', '--out', join(folder, 'taken'))).code).toBe(2);
      expect((await run('capture', 'http://', '--out', folder)).err).toContain('is no address');
      expect((await run('capture', `${origin}/trips/`)).err).toContain('--out');
      expect((await run('capture', 'saved/', '--out', folder)).err).toContain('is no address');
      for (const how of [[], ['--as-sent']])
        expect((await run('capture', `${origin}/none`, ...how, '--out', folder)).err).toContain('404');
    });
  });
});
