import { parsePage } from '../resolve/page.js';
import { StyleView } from '../resolve/style-view.js';
import { cleanPage, pageAddresses } from './clean-page.js';
import { cssAddresses, withCssAddresses } from '../syntax/css-addresses.js';
import { parseSrcset } from './page-addresses.js';
import { linkVeneer } from './link-veneer.js';
import { sheetSpans, sheetsInOrder, withSheetOrder } from './sheet-order.js';
import { framePage } from '../frame/frame-page.js';

describe('cssAddresses', () => {
  // Forms of <url> and @import: CSS Values 4 §4.5, CSS Cascading 5 §2.
  const rows: readonly (readonly [css: string, found: readonly string[]])[] = [
    ['@import "a.css";', ['stylesheet a.css']],
    ['@import url(a.css) layer(x) print;', ['stylesheet a.css']],
    ["@IMPORT url( 'a b.css' );", ['stylesheet a b.css']],
    ['a { background: url(x.png), URL("y.png") }', ['file x.png', 'file y.png']],
    ['a { background: url( x\\).png ) }', ['file x).png']],
    ['@font-face { src: url(f.woff2) format("woff2"), local("X") }', ['file f.woff2']],
    ['a { background: image-set("x.png" 1x, url(y.png) 2x) }', ['file x.png', 'file y.png']],
    ['a { content: "url(no.png)" } /* url(no.png) */', []],
    ['a { background: url(broken', ['file broken']],
    ['a { color: red }', []],
    // Escapes in names: CSS Syntax 3 §4.3.4 and §4.3.7.
    ['a { background: u\\72l(http://x.test/a.png), \\75rl("b.png") }', ['file http://x.test/a.png', 'file b.png']],
    ['@\\69mport "a.css"; a { background: im\\61ge-set("c.png" 1x) }', ['stylesheet a.css', 'file c.png']],
    ['@import @import "a.css";', []],
  ];
  for (const [css, found] of rows) {
    it(css, () => {
      expect(cssAddresses(css).map(({ kind, address }) => `${kind} ${address}`)).toEqual(found);
    });
  }

  it('are found in a statement of 40,000 words without an end', () => {
    expect(cssAddresses('@import '.repeat(40_000))).toEqual([]);
  });

  it('are replaced where they stand, and nothing else is touched', () => {
    const css =
      '@import "a.css"; /* url(c.png) */ b { background: url("a.css") no-repeat, url(c.png); content: "a.css" }';
    expect(withCssAddresses(css, ({ address }) => (address === 'a.css' ? 'x/é "1".css' : null))).toBe(
      '@import "x/é \\"1\\".css"; /* url(c.png) */ b { background: url(x/é\\ \\"1\\".css) no-repeat, url(c.png); content: "a.css" }',
    );
  });
});

describe('parseSrcset', () => {
  // Candidates as in the examples of HTML §4.8.4.2.1, and the comma cases of its parser.
  it('reads candidates with and without descriptors', () => {
    expect(parseSrcset('a.png 1x, b.png 2x')).toEqual([
      { address: 'a.png', descriptor: '1x' },
      { address: 'b.png', descriptor: '2x' },
    ]);
    expect(parseSrcset('a,b.png,  c.png 100w,')).toEqual([
      { address: 'a,b.png', descriptor: '' },
      { address: 'c.png', descriptor: '100w' },
    ]);
    expect(parseSrcset('data:image/png;base64,AA== 1x')).toEqual([
      { address: 'data:image/png;base64,AA==', descriptor: '1x' },
    ]);
    expect(parseSrcset(' , ')).toEqual([]);
    expect(parseSrcset('a.png (x, y) 2x, b.png')).toEqual([
      { address: 'a.png', descriptor: '(x, y) 2x' },
      { address: 'b.png', descriptor: '' },
    ]);
    expect(
      parseSrcset(`a${','.repeat(200_000)}b, ${','.repeat(200_000)}`).map(({ address }) => address.length),
    ).toEqual([200_002]);
  });
});

describe('cleanPage', () => {
  const hostile =
    '<!doctype html><html onclick=x><head><base href="http://a.test/b/"><title> A  page </title><meta http-equiv=Refresh content="0;url=//x"><script src=s.js></script><link rel=stylesheet href=a.css integrity=x>' +
    '<style>p { background: url(p.png) }</style></head><body onload="go()"><script>document.write("<b>")</script><a href=" java\nscript:go()">x</a><a href="next.html">n</a><img src=i.png srcset="i.png 1x, j.png 2x" onerror=go()>' +
    '<svg><a xlink:href="javascript:go()"><image href="v.png"/></a><script>x</script></svg><iframe srcdoc="<script>"></iframe><template shadowrootmode=open><img src=t.png><script>y</script></template><p style="background: url(q.png)" data-uv-n=3>t</p></body></html>';

  it('drops all that runs, keeps every element in its place', () => {
    const { html, title, scripts, handlers } = cleanPage(hostile, ({ address }) => address);
    expect(html).not.toMatch(
      /go\(\)|document\.write|onload|onclick|srcdoc|integrity|Refresh|base href|data-uv-n|src="s\.js"/i,
    );
    expect([title, scripts, handlers]).toEqual(['A page', 4, 5]);
    expect(parsePage(html).document.elements.map(({ localName }) => localName)).toEqual(
      parsePage(hostile).document.elements.map(({ localName }) => localName),
    );
    // Clean is clean: a second pass changes nothing.
    expect(cleanPage(html, ({ address }) => address).html).toBe(html);
  });

  it('asks where every address leads, and takes away what leads nowhere', () => {
    const { base, addresses } = pageAddresses(hostile);
    expect(base).toBe('http://a.test/b/');
    expect(
      addresses
        .filter(({ kind }) => kind !== 'script' && kind !== 'page')
        .map(({ kind, address }) => `${kind} ${address}`),
    ).toEqual([
      'stylesheet a.css',
      'file p.png',
      'file i.png',
      'file i.png',
      'file j.png',
      'file v.png',
      'file t.png',
      'file q.png',
    ]);
    const { html } = cleanPage(hostile, ({ address }) => (address === 'a.css' ? 'css/a.css' : null));
    expect(html).toContain('href="css/a.css"');
    expect(html).not.toMatch(/[ijptqv]\.png|next\.html/);
  });

  // Each is read otherwise once it has been written out, or runs by a way that is not a handler. Sources: HTML §13.2 and §13.3, SVG 2 §6.6 and SVG Animations 2 §2.
  const turning: readonly string[] = [
    '<svg><style>&lt;/style>&lt;img src=x onerror=go()></style></svg>',
    '<noscript><p title="</noscript><img src=x onerror=go()>"></noscript>',
    '<form><math><mtext></form><form><mglyph><style></math><img src=x onerror=go()>',
    '<svg></p><style><a id="</style><img src=1 onerror=go()>">',
    '<math><annotation-xml encoding="text/html"><style><img title="</style><img src=x onerror=go()>">',
    '<svg><a><animate attributeName=href values="x;javascript:go()"/></a></svg>',
    '<svg><a><set attributeName="xlink:href" to="javascript:go()"/></a></svg>',
    '<iframe src="data:text/html,<script>go()</script>"></iframe>',
  ];
  for (const html of turning) {
    it(`leaves nothing that runs of ${html}`, () => {
      const clean = cleanPage(html, () => null).html;
      expect(cleanPage(clean, () => null).html).toBe(clean);
      const elements = parsePage(clean).document.elements;
      expect(
        elements.filter(({ attributes }) =>
          [...attributes].some(([name, value]) => name.startsWith('on') || /javascript:|data:text/.test(value)),
        ),
      ).toEqual([]);
    });
  }

  it('leads presentation attributes and backgrounds of tables nowhere else', () => {
    const html =
      '<svg><rect fill="url(http://x.test/a)" filter="u\\72l(http://x.test/b)"/></svg><table><tbody background="http://x.test/c"><tr background="//x.test/d"><td>';
    expect(cleanPage(html, () => null).html).not.toContain('x.test');
  });

  it('reads deep nesting and empty text', () => {
    expect(cleanPage('', () => null).title).toBe('');
    // As Chromium's Page.captureSnapshot writes shadow roots into MHTML.
    expect(cleanPage('<x-a><template shadowmode="open"><p>x</p></template></x-a>', () => null).html).toContain(
      '<template shadowrootmode="open"><p>x</p></template>',
    );
    const deep = `<!doctype html><link rel=stylesheet href=a.css><body>${'<div>'.repeat(60_000)}<script>x</script>`;
    expect(cleanPage(deep, () => null).scripts).toBe(1);
    expect(linkVeneer(deep, 'a.html', 'v.css', 'after:a.css')).toContain(
      'href="a.css"><link rel="stylesheet" href="v.css">',
    );
    expect(withSheetOrder(deep, [0]).length).toBeGreaterThan(60_000);
    expect(framePage(deep, { path: 'a.html', filesAt: '/f/' })).toContain('data-uv-n="60003"');
  });
});

describe('withSheetOrder', () => {
  const html =
    '<!doctype html><head><link rel=stylesheet href=a.css><meta name=x><style>b{}</style></head><body><p>t</p><link rel=stylesheet href=c.css></body>';
  const sheetsOf = (text: string) =>
    parsePage(text, { loadSheet: (path) => path }).sheets.map(({ name, text: css }) =>
      name.includes('<style>') ? css : name,
    );

  it('moves sheets among their places, and no other element', () => {
    const moved = withSheetOrder(html, [2, 0, 1]);
    expect(sheetsOf(html)).toEqual(['a.css', 'b{}', 'c.css']);
    expect(sheetsOf(moved)).toEqual(['c.css', 'a.css', 'b{}']);
    const numbers = (text: string) =>
      parsePage(text)
        .document.elements.filter(({ localName }) => localName !== 'link' && localName !== 'style')
        .map(({ number, localName }) => `${number} ${localName}`);
    expect(numbers(moved)).toEqual(numbers(html));
    expect(sheetsOf(withSheetOrder(moved, [1, 2, 0]))).toEqual(sheetsOf(html));
  });

  it('takes a style within the style of a picture for a part of it', () => {
    // HTML §13.2.6.5: in foreign content `style` is an element like others, and may hold elements.
    const nested = '<!doctype html><style>a{}</style><svg><style>b{}<style>c{}</style></style></svg>';
    expect(sheetSpans(nested).map(({ start, end }) => nested.slice(start, end))).toEqual([
      '<style>a{}</style>',
      '<style>b{}<style>c{}</style></style>',
    ]);
  });

  it('refuses an order that loses or doubles a sheet', () => {
    for (const order of [[0, 1], [0, 1, 1], [0, 1, 3], []])
      expect(() => withSheetOrder(html, order)).toThrowError(RangeError);
  });
});

describe('linkVeneer', () => {
  const html =
    '<!doctype html><head><link rel=stylesheet href=../css/a.css><style>b{}</style></head><body><p>t</p><link rel="stylesheet" href="../css/c.css"><p>u</p></body>';
  const orderOf = (place: Parameters<typeof linkVeneer>[3]) =>
    parsePage(linkVeneer(html, 'x/index.html', '../v.css?r=1', place), {
      path: 'x/index.html',
      loadSheet: (path) => path,
    }).sheets.map(({ name }) => name);

  it('stands at the end of head or body, or right after a sheet', () => {
    expect(orderOf('head-end')).toEqual(['css/a.css', 'x/index.html <style> 1', 'v.css', 'css/c.css']);
    expect(orderOf('body-end')).toEqual(['css/a.css', 'x/index.html <style> 1', 'css/c.css', 'v.css']);
    expect(orderOf('after:css/a.css')).toEqual(['css/a.css', 'v.css', 'x/index.html <style> 1', 'css/c.css']);
    expect(orderOf('after:css/c.css')).toEqual(['css/a.css', 'x/index.html <style> 1', 'css/c.css', 'v.css']);
    expect(orderOf('after:nowhere.css')).toEqual(orderOf('head-end'));
  });
});

describe('a veneer after a named sheet', () => {
  // CSS Cascading 5 §6.1: of equal specificity the later declaration wins.
  it('ties as its place in the order says', () => {
    const sheets: Readonly<Record<string, string>> = { 'a.css': 'p { color: red }', 'b.css': 'p { color: green }' };
    const html = '<!doctype html><link rel=stylesheet href=a.css><link rel=stylesheet href=b.css><p>t';
    const colorWith = (veneerPlace: Parameters<typeof linkVeneer>[3]) => {
      const page = parsePage(html, {
        loadSheet: (path) => sheets[path] ?? null,
        veneer: 'p { color: blue }',
        veneerPlace,
      });
      return new StyleView(page).styleAt(page.document.elements.length - 1).resolved('color');
    };
    expect([
      colorWith('after:a.css'),
      colorWith('after:b.css'),
      colorWith('head-end'),
      colorWith('after:gone.css'),
    ]).toEqual(['rgb(0, 128, 0)', 'rgb(0, 0, 255)', 'rgb(0, 0, 255)', 'rgb(0, 0, 255)']);
  });
});

describe('sheetsInOrder', () => {
  it('lists what brings stylesheets in, as withSheetOrder counts them', () => {
    const html =
      '<!doctype html><link rel=stylesheet href=../css/a.css media=print><link rel=icon href=i.svg><style>p{}</style><body><link rel="alternate stylesheet" href=b.css><style type="text/plain">x</style>';
    const sheets = sheetsInOrder(html, 'trips/index.html');
    expect(sheets).toEqual([
      { path: 'css/a.css', media: 'print', isInBody: false },
      { path: '', media: '', isInBody: false },
      { path: 'trips/b.css', media: '', isInBody: true },
    ]);
    expect(sheetsInOrder(withSheetOrder(html, [2, 0, 1]), 'trips/index.html').map(({ path }) => path)).toEqual([
      'trips/b.css',
      'css/a.css',
      '',
    ]);
  });
});
