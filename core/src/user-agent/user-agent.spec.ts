import { parseHtml } from '../dom/parse-html.js';
import { expectLikeBrowser } from '../testing/expect-like-browser.js';
import { NAMED_COLORS_HINT, parseLegacyColor } from './legacy-color.js';
import { presentationalHints } from './presentational-hints.js';

const PROPERTIES = [
  'display',
  'color',
  'background-color',
  'border-top-color',
  'border-top-style',
  'border-top-width',
  'border-left-width',
  'font-size',
  'font-weight',
  'font-style',
  'font-family',
  'text-decoration-line',
  'line-height',
  'outline-style',
  'border-top-left-radius',
  'opacity',
  'text-transform',
  'letter-spacing',
];

describe('parseLegacyColor', () => {
  // Source: HTML §2.3.6, rules for parsing a legacy color value, worked through by hand.
  const rows: readonly (readonly [text: string, expected: string | null])[] = [
    ['', null],
    ['transparent', null],
    ['red', 'red'],
    ['RED', 'red'],
    ['#abc', '#abc'],
    ['#aabbcc', '#aabbcc'],
    ['aabbcc', '#aabbcc'],
    ['chucknorris', '#c00000'],
    ['abc', '#0a0b0c'],
    ['#12', '#010200'],
    ['0', '#000000'],
    ['sick', '#00c000'],
    ['  #010203  ', '#010203'],
    ['zzzzzz', '#000000'],
    ['ffffffffffff', '#ffffff'],
    ['#1234', '#123400'],
    ['12345678', '#124578'],
    ['\u{1f6f6}', '#000000'],
  ];
  for (const [text, expected] of rows)
    it(`${JSON.stringify(text)} is ${expected}`, () =>
      expect(parseLegacyColor(text, NAMED_COLORS_HINT)).toBe(expected));
});

describe('presentationalHints', () => {
  const hintsOf = (html: string, tag: string): string[] => {
    const element = parseHtml(`<!doctype html>${html}`).elements.find(({ localName }) => localName === tag);
    return element ? presentationalHints(element).map(([property, value]) => `${property}: ${value}`) : [];
  };
  // Source: HTML §15, the attributes each section maps.
  const rows: readonly (readonly [html: string, tag: string, hints: readonly string[]])[] = [
    ['<table bgcolor=red>', 'table', ['background-color: red']],
    ['<table border>', 'table', ['border-width: 1px', 'border-style: outset']],
    ['<table border=0><tr><td>', 'td', []],
    ['<table border=3><tr><td>', 'td', ['border-width: 1px', 'border-style: inset']],
    ['<table cellpadding=5><tr><td>', 'td', ['padding: 5px']],
    ['<font size=+2 color=blue>', 'font', ['color: blue', 'font-size: x-large']],
    ['<font size=9>', 'font', ['font-size: xxx-large']],
    ['<p align=center>', 'p', ['text-align: -webkit-center']],
    ['<ol type=a>', 'ol', ['list-style-type: lower-alpha']],
    ['<ol type=A>', 'ol', ['list-style-type: upper-alpha']],
    ['<img width=50% height=20>', 'img', ['width: 50%', 'height: 20px']],
    ['<p dir=rtl>', 'p', ['direction: rtl']],
    ['<svg fill=red>', 'svg', ['fill: red']],
    ['<td nowrap>', 'td', []],
    ['<body link=green><a href=x>', 'a', ['color: green']],
    ['<body link=green><a>', 'a', []],
    ['<p bgcolor=red>', 'p', []],
  ];
  for (const [html, tag, hints] of rows) it(html, () => expect(hintsOf(html, tag)).toEqual([...hints]));
});

describe('the user-agent sheets', () => {
  // Reference: in Karma, Chromium's computed values of the same elements.
  const pages: readonly (readonly [what: string, body: string])[] = [
    [
      'text',
      '<p>a<b>b</b><strong>s</strong><em>e</em><i>i</i><cite>c</cite><small>s</small><big>b</big><sub>s</sub><sup>s</sup><code>c</code><kbd>k</kbd><pre>p</pre><mark>m</mark><del>d</del><ins>i</ins><s>s</s><u>u</u><abbr title=x>a</abbr><q>q</q><var>v</var><address>a</address>',
    ],
    [
      'headings',
      '<h1>1</h1><h2>2</h2><h3>3</h3><h4>4</h4><h5>5</h5><h6>6</h6><section><h1>n</h1></section><hgroup><h2>h</h2></hgroup>',
    ],
    [
      'lists',
      '<ul><li>1<ol><li>2<ul><li>3</ul></ol></ul><dl><dt>t<dd>d</dl><menu><li>m</menu><details open><summary>s</summary>d</details>',
    ],
    [
      'tables',
      '<table border=1><caption>c</caption><colgroup><col></colgroup><thead><tr><th>h</th></tr></thead><tbody><tr><td>d</td></tr></tbody><tfoot><tr><td>f</td></tr></tfoot></table>',
    ],
    [
      'controls',
      '<form><input><input type=checkbox><input type=radio><input type=range><input type=submit><input type=color><input type=file><input type=date><input type=search><input type=hidden><button>b</button><textarea>t</textarea><select><optgroup label=g><option>o</optgroup></select><select multiple><option>m</select><fieldset><legend>l</legend></fieldset><label>l</label><progress></progress><meter></meter><output>o</output></form>',
    ],
    [
      'disabled controls',
      '<fieldset disabled><input><button>b</button><select><option>o</select><textarea></textarea><input type=checkbox><input type=submit></fieldset><option disabled>o</option>',
    ],
    [
      'dark controls',
      '<div style="color-scheme: dark"><input><button>b</button><select><option>o</select><textarea></textarea><a href="#x">l</a><mark>m</mark><dialog open>d</dialog><hr><button disabled>b</button></div>',
    ],
    [
      'embedded',
      '<img><video></video><canvas></canvas><iframe></iframe><object></object><audio></audio><svg><a href=x><text>t</text></a><path/><foreignObject><p>p</p></foreignObject></svg><math><mi>x</mi></math>',
    ],
    [
      'other',
      '<hr><center>c</center><font size=5 color=green face=Arial>f</font><dialog open>d</dialog><dialog>n</dialog><div popover>p</div><div hidden>h</div><ruby>r<rt>t</rt></ruby><marquee>m</marquee><nobr>n</nobr><bdo dir=rtl>b</bdo><template></template><slot></slot><search>s</search>',
    ],
  ];
  for (const [what, body] of pages) {
    it(`give ${what} what Chromium gives`, async () => {
      const html = `<!doctype html><html><head></head><body>${body}</body></html>`;
      expect(parseHtml(html).elements.length).toBeGreaterThan(5);
      await expectLikeBrowser(html, PROPERTIES);
    });
  }
});
