import { say } from '@upper-veneer/words';
import { createServer, type Server } from 'node:http';
import { brotliCompressSync, deflateSync, gzipSync } from 'node:zlib';
import type { ImportResult, SiteDocument } from '@upper-veneer/contract';
import { makeZip, renameInZip } from '../testing/make-zip.js';
import { startTestServer, type TestServer } from '../testing/test-site.js';
import { endOf } from '../testing/read-events.js';
import { decodeCss, decodeHtml } from './decode-text.js';
import { looksLikeHtml } from './media-type.js';

const PNG = Buffer.from(
  'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==',
  'base64',
);

describe('bringing a site in', () => {
  let server: TestServer;
  beforeEach(async () => {
    server = await startTestServer();
  });
  afterEach(() => server.stop());

  type Part = readonly [name: string, body: Buffer | string];
  /** Sends an import and waits for its end; the job's events as they came. */
  const bring = async (
    wish: object,
    files: readonly Part[] = [],
  ): Promise<{ readonly result: ImportResult; readonly events: string }> => {
    const form = new FormData();
    form.set('wish', JSON.stringify({ siteId: null, name: '', ...wish }));
    for (const [name, body] of files) form.append('files', new Blob([Buffer.from(body)]), name);
    const answer = await fetch(`${server.url}/api/imports`, { method: 'POST', body: form });
    if (answer.status !== 202)
      return {
        result: { ok: false, problem: (await answer.json()) as (ImportResult & { ok: false })['problem'] },
        events: '',
      };
    const { id } = (await answer.json()) as { id: number };
    const events = await (await server.get(`/api/imports/${id}/events`)).text();
    return { result: endOf(events), events };
  };
  const siteOf = async (result: ImportResult): Promise<SiteDocument> => {
    if (!result.ok) throw new Error(JSON.stringify(result.problem));
    return (await (await server.get(`/api/sites/${result.siteId}`)).json()) as SiteDocument;
  };
  const countSites = (): number => server.store.sites.all().length;
  const refusal = (result: ImportResult): string =>
    result.ok ? 'brought in' : `${result.problem.status} ${result.problem.detail}`;

  describe('from a zip', () => {
    it('stores pages, sheets, pictures and fonts; scripts and the rest are listed with the reason', async () => {
      const zip = await makeZip([
        {
          path: 'saved/trips/index.html',
          body: '<!doctype html><title>Trips – Osier</title><link rel=stylesheet href="/css/a.css"><img src="../img/logo.png"><img src="../img/none.png"><script>x()</script><a href="../index.html#top">h</a>',
        },
        {
          path: 'saved/index.html',
          body: '<!doctype html><title>Home</title><link rel=stylesheet href="css/a.css"><link rel=stylesheet href="https://fonts.example/f.css"><p onclick="x()">p',
        },
        { path: 'saved/css/a.css', body: '@import "b.css"; p { background: url(../img/logo.png) }' },
        { path: 'saved/css/b.css', body: '@font-face { font-family: F; src: url("https://fonts.example/f.woff2") }' },
        { path: 'saved/img/logo.png', body: PNG },
        { path: 'saved/img/fake.png', body: '<script>alert(1)</script>' },
        { path: 'saved/js/app.js', body: 'x' },
        { path: 'saved/notes.pdf', body: '%PDF' },
        { path: 'saved/empty.css', body: '' },
        { path: '__MACOSX/._index.html', body: 'x' },
      ]);
      const { result, events } = await bring({ kind: 'files', name: 'Osier' }, [['saved.zip', zip]]);
      const site = await siteOf(result);
      expect([site.name, ...site.pages.map(({ name, path }) => `${name} ${path}`)]).toEqual([
        'Osier',
        'Home index.html',
        'Trips trips/index.html',
      ]);
      expect(Object.keys(site.stylesheets)).toEqual(['css/a.css', 'css/b.css']);
      expect(site.pages[1].html).toContain('href="../css/a.css"');
      expect(site.pages[1].html).toContain('href="../index.html#top"');
      expect(site.pages.map(({ html }) => html).join('')).not.toMatch(/x\(\)|fonts\.example|none\.png/);
      expect(site.stylesheets['css/b.css']).toContain('about:invalid');
      const left = Object.fromEntries(site.leftOut.map(({ path, reason }) => [path, say(reason)]));
      expect(left['js/app.js'] ?? left['saved/js/app.js']).toBe('A script');
      expect(
        Object.keys(left).filter((path) => /fake\.png|notes\.pdf|none\.png|f\.css|f\.woff2|empty\.css/.test(path))
          .length,
      ).toBe(6);
      expect(left['trips/index.html']).toContain('1 script');
      expect(events).toContain('event:progress');
      expect(site.pictures.map(({ path }) => path)).toEqual(['img/logo.png']);
    });

    // Attacks by name and by size that archives are known for (common practice).
    it('refuses what leaves its folder, grows past its bounds or is broken, and leaves nothing behind', async () => {
      const good = await makeZip([
        { path: 'aa/index.html', body: '<p>x' },
        { path: 'aa/x.css', body: 'p{}' },
      ]);
      const bomb = await makeZip(
        Array.from({ length: 8 }, (_, i) => ({ path: `${i}.css`, body: Buffer.alloc(9 * 1024 * 1024, 32) })).concat([
          { path: 'index.html', body: Buffer.from('<p>x') },
        ]),
      );
      const many = await makeZip(Array.from({ length: 2001 }, (_, i) => ({ path: `${i}.css`, body: 'p{}' })));
      const rows: readonly (readonly [string, Buffer, RegExp])[] = [
        [
          'up and out',
          renameInZip(good, 'aa/x.css', '../x.css'),
          /^422 The archive is refused: invalid relative path: \.\.\/x\.css/,
        ],
        ['from the root', renameInZip(good, 'aa/x.css', '/a/x.css'), /^422 The archive is refused: absolute path/],
        ['a bomb', bomb, /^413 Unpacked, the archive is larger than 50 MB; it grew past that in "\d\.css"/],
        ['too many', many, /^413 The archive holds 2,001 entries; 2,000 are the most/],
        ['cut off', good.subarray(0, good.length - 30), /^422 The zip archive cannot be read/],
        ['no page', await makeZip([{ path: 'x.css', body: 'p{}' }]), /^422 No HTML page is among the files/],
        ['nothing', await makeZip([]), /^422 No HTML page/],
      ];
      for (const [name, zip, message] of rows) {
        const { result } = await bring({ kind: 'files' }, [['x.zip', zip]]);
        expect(refusal(result)).withContext(name).toMatch(message);
      }
      expect(bomb.length).toBeLessThan(1024 * 1024);
      expect(countSites()).toBe(1);
      expect(server.errors).toEqual([]);
    });

    it('leaves out what is not what was packed, and the second file of a name', async () => {
      const zip = await makeZip([
        { path: 'bad.css', body: 'p { color: red }' },
        { path: 'index.html', body: '<p>first' },
        { path: 'indey.html', body: '<p>second' },
        { path: 'good.css', body: 'p {}' },
      ]);
      const twice = renameInZip(zip, 'indey.html', 'index.html');
      // The checksum in the directory: APPNOTE.TXT 4.3.12, 16 bytes into the first entry.
      twice[twice.indexOf('PK\u0001\u0002') + 16] ^= 0xff;
      const { result } = await bring({ kind: 'files' }, [['x.zip', twice]]);
      const site = await siteOf(result);
      expect(site.leftOut.map(({ path, reason }) => `${path}: ${say(reason)}`)).toEqual([
        'bad.css: Damaged: it is not what the archive says was packed',
        'index.html: Another file of the archive has that name; the first was taken',
      ]);
      expect([site.pages.length, site.pages[0].html.includes('first'), Object.keys(site.stylesheets)]).toEqual([
        1,
        true,
        ['good.css'],
      ]);
    });

    it('bounds what is sent without saying how long it is', async () => {
      const head = '--b\r\ncontent-disposition: form-data; name="wish"\r\n\r\n{"kind":"files","name":""}\r\n';
      const file = (i: number): string =>
        `--b\r\ncontent-disposition: form-data; name="files"; filename="${i}.html"\r\ncontent-type: text/html\r\n\r\n`;
      async function* body(): AsyncGenerator<Uint8Array> {
        yield Buffer.from(head);
        for (let i = 0; i < 4; i += 1) {
          yield Buffer.from(file(i));
          for (let k = 0; k < 15; k += 1) yield Buffer.alloc(1024 * 1024, 97);
          yield Buffer.from('\r\n');
        }
        yield Buffer.from('--b--\r\n');
      }
      const answer = await fetch(`${server.url}/api/imports`, {
        method: 'POST',
        headers: { 'content-type': 'multipart/form-data; boundary=b' },
        body: ReadableStream.from(body()) as never,
        duplex: 'half',
      } as RequestInit).then(
        (response) => response.status,
        () => 413,
      );
      expect(answer).toBe(413);
      expect(countSites()).toBe(1);
    });

    it('does not follow links, and does not believe a directory that understates a size', async () => {
      const zip = await makeZip([
        { path: 'index.html', body: '<p>x' },
        { path: 'link.css', body: '/etc/passwd', mode: 0o120777 },
        { path: 'big.css', body: Buffer.alloc(11 * 1024 * 1024, 32) },
      ]);
      const { result } = await bring({ kind: 'files' }, [['x.zip', zip]]);
      const site = await siteOf(result);
      expect(site.leftOut.map(({ path, reason }) => `${path}: ${say(reason)}`)).toEqual([
        'link.css: A link to another file',
        'big.css: Larger than 10 MB',
      ]);
      expect(Object.keys(site.stylesheets)).toEqual([]);
    });
  });

  it('takes loose HTML files with their paths, and one of them in another encoding', async () => {
    const latin = Buffer.from(
      '<!doctype html><meta charset="iso-8859-1"><title>Fl\xf6\xdfe</title><link rel=stylesheet href=k.css><p>\xe9',
      'latin1',
    );
    const css = Buffer.concat([
      Buffer.from('@charset "windows-1252"; p::before { content: "'),
      Buffer.from([0x80]),
      Buffer.from('" }'),
    ]);
    const site = await siteOf(
      (
        await bring({ kind: 'files' }, [
          ['a/fluss.html', latin],
          ['a/k.css', css],
          ['b.htm', '\ufeff<!doctype html><title>B</title>'],
        ])
      ).result,
    );
    expect(site.pages.map(({ name }) => name)).toEqual(['B', 'Flöße']);
    expect(site.pages[1].html).toContain('<p>é');
    expect(site.stylesheets['a/k.css']).toBe('p::before { content: "€" }');
    expect(refusal((await bring({ kind: 'files' }, [['../x.html', '<p>']])).result)).toMatch(
      /leaves its folder|brought in/,
    );
    expect(refusal((await bring({ kind: 'files' })).result)).toBe('422 No file was sent');
    expect(refusal((await bring({ kind: 'files' }, [['x.html', '']])).result)).toContain('No HTML page');
  });

  it('takes a pasted widget', async () => {
    const site = await siteOf(
      (
        await bring({
          kind: 'widget',
          name: 'Chat bubble',
          html: '<div class=cb><script>1</script>Hi</div>',
          css: '.cb { color: red }',
        })
      ).result,
    );
    expect([site.name, Object.values(site.stylesheets)[0]]).toEqual(['Chat bubble', '.cb { color: red }']);
    expect(site.pages[0].html).toContain('<link rel="stylesheet" href="widget.css">');
    expect(refusal((await bring({ kind: 'widget', html: '', css: '' })).result)).toContain('html must have 1 to');
  });

  describe('from an MHTML archive', () => {
    // Layout as RFC 2557 §9.5 has it: multipart/related, Content-Location, Content-ID for frames.
    const mhtml = [
      'From: <Saved by a browser>',
      'Subject: =?utf-8?Q?Osier?=',
      'MIME-Version: 1.0',
      'Content-Type: multipart/related; type="text/html"; boundary="----x"',
      '',
      '',
      '------x',
      'Content-Type: text/html; charset=utf-8',
      'Content-ID: <frame-1@mhtml>',
      'Content-Transfer-Encoding: quoted-printable',
      'Content-Location: https://osier.example/trips/?p=2',
      '',
      '<!doctype html><title>Trips =E2=80=93 Osier</title><link rel=3D"stylesheet" hre=',
      'f=3D"https://osier.example/css/a.css"><link rel=3Dstylesheet href=3D"cid:css-1@mhtml"><img src=3D"/img/l.png"><iframe src=3D"cid:frame-2@mhtml"></iframe><p>t</p>',
      '',
      '------x',
      'Content-Type: text/css',
      'Content-Transfer-Encoding: quoted-printable',
      'Content-Location: https://osier.example/css/a.css',
      '',
      'p { background: url("../img/l.png") }',
      '',
      '------x',
      'Content-Type: text/css',
      'Content-ID: <css-1@mhtml>',
      '',
      'p { color: red }',
      '',
      '------x',
      'Content-Type: image/png',
      'Content-Transfer-Encoding: base64',
      'Content-Location: https://osier.example/img/l.png',
      '',
      PNG.toString('base64'),
      '',
      '------x',
      'Content-Type: text/html',
      'Content-ID: <frame-2@mhtml>',
      '',
      '<p>ad</p>',
      '',
      '------x--',
      '',
    ].join('\r\n');

    it('stores its page with everything that came in it, addresses led to the stored files', async () => {
      const site = await siteOf((await bring({ kind: 'files' }, [['page.mhtml', mhtml]])).result);
      expect(site.pages.map(({ name, path, source }) => `${name} | ${path} | ${source}`)).toEqual([
        jasmine.stringMatching(/^Trips \| trips\/index-[0-9a-f]{8}\.html \| https:\/\/osier\.example\/trips\/\?p=2$/),
      ]);
      expect(
        Object.values(site.stylesheets)
          .map((css) => css.trim())
          .sort(),
      ).toEqual(['p { background: url("../img/l.png") }', 'p { color: red }']);
      expect(site.pages[0].html).toContain('href="../css/a.css"');
      expect(site.pages[0].html).toContain('src="../img/l.png"');
      // What a frame shows is no page: its part is drawn by it, as it came.
      expect(site.leftOut).toEqual([]);
      expect(site.documents.length).toBe(1);
      const [path] = site.documents;
      const framed = await (await server.get(`/frame/sites/${site.id}/pages/${site.pages[0].id}/`)).text();
      expect(framed).toContain(`data-uv-framed="${path}"`);
      expect(await (await server.get(`/frame/sites/${site.id}/framed/${path}`)).text()).toContain('ad</p>');
    });

    it('refuses a message that holds no page', async () => {
      expect(
        refusal((await bring({ kind: 'files' }, [['x.mht', mhtml.replaceAll('text/html', 'text/plain')]])).result),
      ).toMatch(/no HTML page|No HTML page/);
    });
  });

  describe('from an address', () => {
    it('fetches a page of the stand-in host with what it needs', async () => {
      const { result } = await bring({ kind: 'address', address: `${server.hostUrl}/${server.siteId}/` });
      const site = await siteOf(result);
      expect(site.pages.map(({ source }) => source)).toEqual([`${server.hostUrl}/${server.siteId}/`]);
      expect(Object.values(site.stylesheets)).toEqual(['.x:hover { color: red }']);
    });

    it('refuses addresses of this machine and of private networks, by number, by name and in disguise', async () => {
      for (const address of [
        'http://127.0.0.1:1/',
        'http://localhost:9/',
        'http://[::1]/',
        'http://10.1.2.3/',
        'http://192.168.0.1/',
        'http://169.254.169.254/latest/',
        'http://[::ffff:127.0.0.1]/',
        'http://2130706433/',
        'http://0x7f.1/',
        'http://printer.local/',
        'http://user:pw@example.com/',
        'http://0.0.0.0/',
        'http://[fd00::1]/',
      ]) {
        expect(refusal((await bring({ kind: 'address', address })).result))
          .withContext(address)
          .toMatch(/^422 .*(?:private network|name and password)/);
      }
      expect(refusal((await bring({ kind: 'address', address: 'file:///etc/passwd' })).result)).toContain(
        'must begin with http',
      );
      expect(countSites()).toBe(1);
    });

    describe('that another host answers', () => {
      let other: Server;
      let origin = '';
      const page =
        '<!doctype html><title>T</title><link rel=stylesheet href=/old/theme.css><link rel=stylesheet href=/packed.css><p>x';
      const bomb = gzipSync(Buffer.alloc(80 * 1024 * 1024, 32));
      beforeEach(async () => {
        other = createServer((request, response) => {
          const send = (type: string, body: Buffer | string, headers: Record<string, string> = {}): void =>
            void response.writeHead(200, { 'content-type': type, ...headers }).end(body);
          switch (request.url) {
            case '/':
              return send('text/html', brotliCompressSync(page), { 'content-encoding': 'br' });
            case '/packed.css':
              return send('text/css', deflateSync('p { color: teal }'), { 'content-encoding': 'deflate' });
            case '/old/theme.css':
              return void response.writeHead(302, { location: '/v2/css/theme.css' }).end();
            case '/v2/css/theme.css':
              return send('text/css', gzipSync('p { background: url(../img/l.png) }'), { 'content-encoding': 'gzip' });
            case '/v2/img/l.png':
              return send('image/png', PNG);
            case '/bomb':
              return send('text/html', bomb, { 'content-encoding': 'gzip' });
            case '/torn':
              return send('text/html', gzipSync(page).subarray(0, 40), { 'content-encoding': 'gzip' });
            case '/odd':
              return send('text/html', page, { 'content-encoding': 'zstd' });
            default:
              return void response.writeHead(404).end();
          }
        });
        await new Promise<void>((done) => other.listen(0, '127.0.0.1', done));
        const address = other.address();
        origin = `127.0.0.1:${typeof address === 'object' && address ? address.port : 0}`;
        server.allow(origin);
      });
      afterEach(
        () =>
          new Promise((done) => {
            other.closeAllConnections();
            other.close(done);
          }),
      );

      it('reads compressed answers, and keeps the pictures of a sheet that a redirect leads to', async () => {
        const { result } = await bring({ kind: 'address', address: `http://${origin}/` });
        const site = await siteOf(result);
        expect(site.leftOut).toEqual([]);
        expect(Object.values(site.stylesheets)).toContain('p { color: teal }');
        const theme = Object.values(site.stylesheets).find((css) => css.includes('url('));
        const picture = /url\("?([^")]+)/.exec(theme ?? '')?.[1] ?? '';
        const [path] = Object.entries(site.stylesheets).find(([, css]) => css === theme) ?? [''];
        const asked = new URL(picture, `${server.hostUrl}/${result.ok ? result.siteId : 0}/${path}`);
        expect((await server.visit(asked.pathname)).headers['content-type']).toBe('image/png');
      });

      it('bounds what an answer grows to, and says what is broken', async () => {
        expect(refusal((await bring({ kind: 'address', address: `http://${origin}/bomb` })).result)).toMatch(
          /larger than \d+ MB/,
        );
        expect(refusal((await bring({ kind: 'address', address: `http://${origin}/torn` })).result)).toContain(
          'came compressed, and broken',
        );
        expect(refusal((await bring({ kind: 'address', address: `http://${origin}/odd` })).result)).toContain(
          'compressed by zstd',
        );
      });
    });

    it('says what an address answered that is no page', async () => {
      expect(refusal((await bring({ kind: 'address', address: `${server.hostUrl}/99/` })).result)).toContain(
        'answered 404',
      );
      expect(
        refusal((await bring({ kind: 'address', address: `${server.hostUrl}/${server.siteId}/css/a.css` })).result),
      ).toContain('is text/css, not an HTML page');
    });
  });

  it('adds pages to a site, captures one again, and leads its overrides to where their elements are now', async () => {
    const first = await siteOf(
      (
        await bring({ kind: 'files' }, [
          ['index.html', '<!doctype html><link rel=stylesheet href=a.css><p class=a>one</p>'],
          ['a.css', '.a { color: red }'],
        ])
      ).result,
    );
    const { id: pageId } = first.pages[0];
    const element = 4;
    await server.post(`/api/sites/${first.id}/changes`, {
      label: 'x',
      drop: [],
      put: [
        {
          id: 'o',
          partId: null,
          pageId,
          element,
          pseudo: '',
          reach: 'alike',
          state: 'rest',
          property: 'color',
          value: { kind: 'literal', css: 'blue' },
          selector: '.a',
          important: false,
        },
      ],
    });
    const { result } = await bring({ kind: 'files', siteId: first.id }, [
      ['index.html', '<!doctype html><link rel=stylesheet href=a.css><h1>new</h1><p class=a>one</p>'],
      ['more.html', '<!doctype html><title>More</title>'],
    ]);
    const site = await siteOf(result);
    expect(result.ok && [result.pages, result.again]).toEqual([['More'], [first.pages[0].name]]);
    expect(site.pages.map(({ id }) => id)[0]).toBe(pageId);
    expect(site.draft.overrides.map((override) => override.element)).toEqual([5]);
    expect(site.draft.structure).toBeGreaterThan(first.draft.structure);
    expect(refusal((await bring({ kind: 'files', siteId: 999 }, [['x.html', '<p>']])).result)).toContain(
      'There is no site 999',
    );
  });
});

describe('what looks like a page', () => {
  it('is told in one look, however many comments stand before it', () => {
    const comments = '<!---->'.repeat(60);
    expect(looksLikeHtml(Buffer.from(`${comments} <!DOCTYPE html>`))).toBe(true);
    expect(looksLikeHtml(Buffer.from(`${comments}<p>`))).toBe(false);
    expect(looksLikeHtml(Buffer.from(`${comments}<!--`))).toBe(false);
    expect(looksLikeHtml(Buffer.from(`${'<!-- -->'.repeat(400)}<html>`))).toBe(false);
  });
});

describe('decoding', () => {
  // Sources: HTML §13.2.3.2 (mark before transport before meta), CSS Syntax 3 §3.2.
  it('reads pages and sheets as browsers do', () => {
    const utf16 = Buffer.from('\ufeff<p>é', 'utf16le');
    expect(decodeHtml(utf16, 'utf-8').text).toBe('<p>é');
    expect(decodeHtml(Buffer.from('<meta charset=utf-8><p>é', 'latin1'), '')).toEqual(
      jasmine.objectContaining({ encoding: 'utf-8', unreadable: 1 }),
    );
    expect(decodeHtml(Buffer.from('<p>\x80', 'latin1'), '').text).toBe('<p>€');
    expect(decodeCss(Buffer.from('@charset "utf-16"; a{}'), '').encoding).toBe('utf-8');
    expect(decodeCss(Buffer.from('a{content:"\xe9"}', 'latin1'), '', 'iso-8859-1').text).toBe('a{content:"é"}');
    expect(decodeCss(Buffer.from('@charset "nonsense"; a{}'), 'made-up').text).toBe('a{}');
  });
});
