import type { Browser, Page } from 'playwright-core';
import { takeSnapshot } from '@upper-veneer/snapshot';
import { launchBrowser } from '../support/browser.js';

const LONGHANDS = [
  'color',
  'background-color',
  'border-top-color',
  'border-right-color',
  'border-bottom-color',
  'border-left-color',
  'outline-color',
  'text-decoration-color',
  'caret-color',
  'accent-color',
  'fill',
  'column-rule-color',
  'display',
  'font-size',
  'font-weight',
  'font-family',
  'line-height',
  'margin-top',
  'padding-left',
  'border-top-width',
  'border-top-left-radius',
  'box-shadow',
  'opacity',
  'visibility',
  'text-align',
];

/** Pages whose look is made by scripts; `/theme.css` is a file. */
const PAGES: Readonly<Record<string, string>> = {
  'rules inserted by script':
    '<style id=s>p { color: red }</style><p>x<script>s.sheet.insertRule("p { color: rgb(1 2 3) }", 1)</script>',
  'rules deleted by script':
    '<style id=s>p { color: red } p { font-weight: 700 }</style><p>x<script>s.sheet.deleteRule(0)</script>',
  'a linked sheet changed by script':
    '<link rel=stylesheet href=/theme.css id=l><p class=note>x<script>addEventListener("load", () => l.sheet.insertRule(".note { background: rgb(9 8 7) }", l.sheet.cssRules.length))</script>',
  'adopted sheets on the document':
    '<style>p { color: red; margin: 3px }</style><p>x<script>const s = new CSSStyleSheet(); s.replaceSync("p { color: rgb(4 5 6) } @media (min-width: 1px) { p { padding-left: 9px } }"); document.adoptedStyleSheets = [s]</script>',
  'adopted sheets after sheets in the body':
    '<p>x</p><style>p { color: red }</style><script>const s = new CSSStyleSheet(); s.replaceSync("p { color: blue }"); document.adoptedStyleSheets = [s]</script>',
  'an open shadow tree with adopted sheets':
    '<river-level>l</river-level><script>customElements.define("river-level", class extends HTMLElement { connectedCallback() { const r = this.attachShadow({ mode: "open" }); r.innerHTML = "<style>b { color: rgb(7 7 7) } ::slotted(*) { opacity: .5 }</style><b>2 m</b><slot></slot>"; const s = new CSSStyleSheet(); s.replaceSync(":host { display: block; background: rgb(8 8 8) } b { font-size: 19px }"); r.adoptedStyleSheets = [s]; } })</script>',
  'shadow trees in shadow trees':
    '<x-a></x-a><script>for (const [n, h] of [["x-b", "<i>y</i><style>i { color: rgb(1 1 9) }</style>"], ["x-a", "<x-b></x-b><style>x-b { display: block; border: 2px solid rgb(3 3 3) }</style>"]]) customElements.define(n, class extends HTMLElement { connectedCallback() { this.attachShadow({ mode: "open" }).innerHTML = h } })</script>',
  'fields as a visitor left them':
    '<style>input:checked { outline: 3px solid rgb(1 2 3) } option:checked { color: rgb(9 9 1) } input:placeholder-shown { color: rgb(5 5 5) } textarea:placeholder-shown { color: red }</style><input type=checkbox id=a><input type=radio checked name=r><input type=radio name=r id=b><input placeholder=p id=c><textarea placeholder=q id=d></textarea><select><option>1<option id=e>2</select><script>a.checked = true; b.checked = true; c.value = "t"; d.value = "a\\n<b>"; e.selected = true</script>',
  'a consent bar put in late':
    '<link rel=stylesheet href=/theme.css><p>x<script>setTimeout(() => { const d = document.createElement("div"); d.className = "css-1x9k2"; d.innerHTML = "<button>Accept</button>"; const s = document.createElement("style"); s.textContent = ".css-1x9k2 { position: fixed; bottom: 0; background: rgb(20 20 40); color: #fff } .css-1x9k2 button { border: 0; color: rgb(1 200 3) }"; document.head.append(s); document.body.append(d) }, 50)</script>',
  'styles set element by element':
    '<p id=p>x</p><script>p.style.setProperty("color", "rgb(12 13 14)", "important"); p.style.borderTop = "3px solid rgb(1 1 1)"; document.documentElement.style.setProperty("--brand", "rgb(3 4 5)"); document.body.style.background = "var(--brand)"</script>',
  'classes and attributes put on':
    '<style>.on { color: rgb(1 9 1) } [data-theme=dark] p { background: rgb(2 2 2) } [hidden] { display: none }</style><p id=p>x</p><details id=d><summary>s</summary>t</details><script>p.className = "on"; document.documentElement.dataset.theme = "dark"; d.open = true</script>',
  'a sheet switched off':
    '<style id=a>p { color: red }</style><link rel=stylesheet href=/theme.css id=b><p class=note>x<script>a.sheet.disabled = true; addEventListener("load", () => { b.disabled = true })</script>',
  'characters that must be escaped':
    '<style>p::before { content: "<>&" } p[title="a&b<\\"c"] { color: rgb(3 2 1) }</style><p id=p></p><script>p.title = "a&b<\\"c"; p.textContent = "1 < 2 & 3 > 2\\u00a0\\"x\\""; const t = document.createElement("textarea"); t.value = "</textarea><b>"; document.body.append(t)</script>',
  'a layered and nested sheet, written by rules':
    '<style id=s></style><div class=card><p>x</p></div><script>for (const rule of ["@layer base, top", "@layer top { .card { color: rgb(1 1 1); & p { padding-left: 7px } } }", "@layer base { .card { color: red !important } }", "@supports (display: grid) { .card { display: grid } }"]) s.sheet.insertRule(rule, s.sheet.cssRules.length)</script>',
};
const THEME = '.note { color: rgb(50 60 70); background: url("pic.png") } body { font: 17px/1.4 serif }';

describe('a snapshot of a page', () => {
  let browser: Browser;
  beforeAll(async () => {
    browser = await launchBrowser();
  });
  afterAll(() => browser.close());

  const opened = async (html: string, hasScripts: boolean): Promise<Page> => {
    const context = await browser.newContext({ viewport: { width: 1000, height: 700 }, javaScriptEnabled: hasScripts });
    const page = await context.newPage();
    await page.route('**/*', async (route) => {
      const { pathname } = new URL(route.request().url());
      if (pathname === '/theme.css') await route.fulfill({ contentType: 'text/css', body: THEME });
      else if (pathname === '/') await route.fulfill({ contentType: 'text/html', body: html });
      else await route.fulfill({ status: 404, body: '' });
    });
    // What comes late has come when nothing is asked for any more, and its mark is there.
    await page.goto('http://live.test/', { waitUntil: 'load' });
    if (html.includes('css-1x9k2')) await page.locator('.css-1x9k2').first().waitFor();
    return page;
  };
  /** Computed values of every element, those in open shadow trees too, in tree order. */
  const valuesOf = (page: Page): Promise<readonly string[]> =>
    page.evaluate((longhands) => {
      const found: string[] = [];
      const visit = (root: ParentNode): void => {
        for (const element of root.querySelectorAll('*')) {
          if (element.matches('script, style, link, head, meta, title, template')) continue;
          const style = getComputedStyle(element);
          found.push(
            `${element.localName} ${longhands.map((name) => `${name}: ${style.getPropertyValue(name)}`).join('; ')}`,
          );
          if (element.shadowRoot) visit(element.shadowRoot);
        }
      };
      visit(document);
      return found;
    }, LONGHANDS);

  for (const [name, body] of Object.entries(PAGES))
    it(`has every computed value of the live page in Chromium: ${name}`, async () => {
      const live = await opened(`<!DOCTYPE html><html><head><title>t</title></head><body>${body}</body></html>`, true);
      const { html, lost } = await live.evaluate(takeSnapshot, false);
      const copy = await opened(html, false);
      const [wanted, got] = [await valuesOf(live), await valuesOf(copy)];
      await Promise.all([live.context().close(), copy.context().close()]);
      expect(got).toEqual(wanted);
      expect(wanted.length).toBeGreaterThan(2);
      expect(lost).toEqual([]);
    });

  it('says what no HTML text holds', async () => {
    const live = await opened(
      '<!DOCTYPE html><body><dialog id=d>x</dialog><div popover id=p>y</div><input type=checkbox id=c><p id=n></p><script>d.showModal(); c.indeterminate = true; n.append(document.createElement("div")); p.showPopover()</script>',
      true,
    );
    const { lost } = await live.evaluate(takeSnapshot, false);
    await live.context().close();
    expect(lost.join()).toContain('a dialog holds the page under it');
    expect(lost.join()).toContain('a popover stands open');
    expect(lost.join()).toContain('neither ticked nor unticked');
    expect(lost.join()).toContain('a tree that no HTML text gives');
  });
});
