import { parseSelectorList } from '../selectors/parse-selector.js';
import { parsePage } from '../resolve/page.js';
import { framePage } from './frame-page.js';
import { rewriteStates } from './rewrite-states.js';

describe('rewriteStates', () => {
  const rows: readonly (readonly [css: string, expected: string])[] = [
    ['a:hover { color: red }', 'a:is(:hover, [data-uv-hover]) { color: red }'],
    [
      'a:hover:focus-visible b:active { top: 0 }',
      'a:is(:hover, [data-uv-hover]):is(:focus-visible, [data-uv-focus-visible]) b:is(:active, [data-uv-active]) { top: 0 }',
    ],
    ['a:not(:hover) { top: 0 }', 'a:not(:is(:hover, [data-uv-hover])) { top: 0 }'],
    ['a:link { top: 0 }', 'a:link:where(:not([data-uv-visited])) { top: 0 }'],
    ['::-webkit-scrollbar-thumb:hover { top: 0 }', '::-webkit-scrollbar-thumb:hover { top: 0 }'],
    ['a::before, b:hover { top: 0 }', 'a::before, b:is(:hover, [data-uv-hover]) { top: 0 }'],
    ['a[title=":hover"] { content: ":hover" }', 'a[title=":hover"] { content: ":hover" }'],
    [
      '@media print { a:hover { &:focus { top: 0 } } }',
      '@media print { a:is(:hover, [data-uv-hover]) { &:is(:focus, [data-uv-focus]) { top: 0 } } }',
    ],
    ['@keyframes k { from { top: 0 } }', '@keyframes k { from { top: 0 } }'],
    [
      'a:visited { color: red; font-size: 9px; background: blue }',
      'a:visited { color: red; font-size: 9px; background: blue }\na[data-uv-visited] { color: red; background-color: blue }',
    ],
    ['a:visited { font-size: 9px }', 'a:visited { font-size: 9px }'],
    ['a:hovercraft { top: 0 } /* a:hover */', 'a:hovercraft { top: 0 } /* a:hover */'],
  ];
  for (const [css, expected] of rows) {
    it(css.slice(0, 70), () => {
      expect(rewriteStates(css)).toBe(expected);
    });
  }

  it('keeps every specificity', () => {
    for (const selector of ['a:hover', '#i .c:focus > b:active', 'a:link', 'a:not(:focus-within)']) {
      const rewritten = rewriteStates(`${selector} { top: 0 }`).split(' {')[0];
      expect(parseSelectorList(rewritten)[0].specificity)
        .withContext(selector)
        .toEqual(parseSelectorList(selector)[0].specificity);
    }
  });
});

describe('framePage', () => {
  const options = { path: 'shop/index.html', filesAt: '/frame/sites/1/files/' };

  it('drops whatever could run or call out', () => {
    const hostile =
      '<!doctype html><html><head><base href="//evil.test/"><meta http-equiv=refresh content="0;url=//evil.test"><script>alert(1)</script><script src=//evil.test/x.js></script>' +
      '<link rel=stylesheet href="//evil.test/a.css"></head><body onload="alert(1)"><img src="//evil.test/p.png" onerror=alert(1) srcset="//evil.test/2x.png 2x"><iframe src="//evil.test" srcdoc="<script>"></iframe>' +
      '<object data="//evil.test"></object><form action="//evil.test"><button formaction="//evil.test" autofocus>x</button></form><a href="javascript:alert(1)" ping="//evil.test">x</a>' +
      '<style>a{}</style></body></html>';
    const framed = framePage(hostile, options);
    expect(framed).not.toMatch(
      /<script(?![^>]*type="text\/plain")|onload|onerror|alert\(1\)<|srcset="\/\/|evil\.test\/(?!")|formaction="\/\/|http-equiv="refresh"|srcdoc(?!="&lt;!doctype html&gt;&lt;title&gt;Framed part)/,
    );
    expect(framed).not.toContain('src="//evil.test');
    expect(framed).not.toContain('autofocus');
  });

  it('numbers elements as the core does, shadow trees included', () => {
    const html =
      '<!doctype html><p><script>x</script><b>b</b><x-a><template shadowrootmode=open><i></i></template><u></u></x-a><template><s></s></template>';
    const framed = framePage(html, options);
    for (const { number, localName } of parsePage(html).document.elements) {
      expect(framed)
        .withContext(localName)
        .toMatch(new RegExp(`<${localName}[^>]*data-uv-n="${number}"`));
    }
  });

  it('leads addresses to the stored files, and keeps those of links for selectors to ask about', () => {
    const framed = framePage(
      '<link rel=stylesheet href="../css/a b.css"><img src="p.png"><a href="next.html">x</a><p data-uv-hover data-uv-n=7>',
      options,
    );
    expect(framed).toContain('href="/frame/sites/1/files/css/a%20b.css"');
    expect(framed).toContain('src="/frame/sites/1/files/shop/p.png"');
    expect(framed).toContain('href="next.html"');
    expect(framed).not.toContain('data-uv-hover');
    expect(framed).not.toContain('data-uv-n="7" data-uv-n');
  });
});
