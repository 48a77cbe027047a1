import { existsSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import type { Browser, Page } from 'playwright-core';
import { openTopLayer, takeSnapshot } from '@upper-veneer/snapshot';
import { say, type Message } from '@upper-veneer/words';
import { launchBrowser } from '../support/browser.js';
import { root } from '../support/product.js';
import { random } from '../support/random.js';

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
  'a modal dialog over its backdrop':
    '<style>dialog { color: rgb(9 1 1) } dialog:modal { border: 3px solid rgb(2 2 9) } dialog::backdrop { background: rgb(20 20 60 / .4) } dialog:not(:modal) { padding-left: 40px }</style><p>under</p><dialog id=d><button>Close</button></dialog><script>d.showModal()</script>',
  'popovers that stand open':
    '<style>[popover] { color: rgb(9 1 1); margin-top: 4px } [popover]:popover-open { border: 3px solid rgb(2 2 9) } [popover]::backdrop { background: rgb(3 20 60 / .2) }</style><div popover=manual id=a>one</div><div popover=manual id=b>two</div><x-p></x-p><script>a.showPopover(); customElements.define("x-p", class extends HTMLElement { connectedCallback() { this.attachShadow({ mode: "open" }).innerHTML = "<style>i:popover-open { color: rgb(7 7 200) }</style><i popover=manual>three</i>"; this.shadowRoot.querySelector("i").showPopover(); } })</script>',
  'a picture and a sheet that the page made for itself':
    '<p class=made>x</p><img id=i width=20><script>const l = document.createElement("link"); l.rel = "stylesheet"; l.href = URL.createObjectURL(new Blob([".made { color: rgb(4 90 4) }"], { type: "text/css" })); l.onload = () => document.body.classList.add("css-1x9k2"); document.head.append(l); i.src = URL.createObjectURL(new Blob(["<svg xmlns=\'http://www.w3.org/2000/svg\' width=\'20\' height=\'9\'/>"], { type: "image/svg+xml" }))</script>',
  'a layered and nested sheet, written by rules':
    '<style id=s></style><div class=card><p>x</p></div><script>for (const rule of ["@layer base, top", "@layer top { .card { color: rgb(1 1 1); & p { padding-left: 7px } } }", "@layer base { .card { color: red !important } }", "@supports (display: grid) { .card { display: grid } }"]) s.sheet.insertRule(rule, s.sheet.cssRules.length)</script>',
};
/** Pages whose looks packages make by script, of files under `node_modules/`, each with what it waits for. */
const PACKAGES: Readonly<Record<string, readonly [body: string, mark: string]>> = {
  'sweetalert2: a dialog of its own': [
    '<p>under</p><script src=/npm/sweetalert2/dist/sweetalert2.all.min.js></script><script>Swal.fire({ title: "Held", text: "Two canoes", icon: "success", showCancelButton: true, animation: false })</script>',
    '.swal2-popup .swal2-confirm',
  ],
  'vanilla-cookieconsent: a consent bar': [
    '<link rel=stylesheet href=/npm/vanilla-cookieconsent/dist/cookieconsent.css><p>under</p><script src=/npm/vanilla-cookieconsent/dist/cookieconsent.umd.js></script><script>CookieConsent.run({ hideFromBots: false, categories: { needed: { readOnly: true, enabled: true }, film: {} }, language: { default: "en", translations: { en: { consentModal: { title: "Cookies", description: "A few", acceptAllBtn: "Accept", acceptNecessaryBtn: "Only needed" }, preferencesModal: { title: "p", sections: [{ title: "s", description: "d" }] } } } } })</script>',
    '.show--consent #cc-main .cm',
  ],
  'choices.js: a list drawn anew': [
    '<link rel=stylesheet href=/npm/choices.js/public/assets/styles/choices.min.css><select id=s multiple><option selected>One<option selected>Two<option>Three</select><script src=/npm/choices.js/public/assets/scripts/choices.min.js></script><script>new Choices(s, { removeItemButton: true }).showDropdown(true)</script>',
    '.choices__list--dropdown',
  ],
  'flatpickr: a calendar': [
    '<link rel=stylesheet href=/npm/flatpickr/dist/flatpickr.min.css><input id=d><script src=/npm/flatpickr/dist/flatpickr.min.js></script><script>flatpickr(d, { inline: true, defaultDate: "2026-06-14" })</script>',
    '.flatpickr-day.selected',
  ],
  'uikit: a modal, an off-canvas and icons': [
    '<link rel=stylesheet href=/npm/uikit/dist/css/uikit.min.css><button class="uk-button uk-button-primary">Book</button><span uk-icon="icon: check"></span><div id=m uk-modal><div class="uk-modal-dialog uk-modal-body">Two canoes</div></div><script src=/npm/uikit/dist/js/uikit.min.js></script><script src=/npm/uikit/dist/js/uikit-icons.min.js></script><script>UIkit.modal("#m").show().then(() => document.body.classList.add("shown"))</script>',
    'body.shown .uk-open',
  ],
};
/** The demo's live pages, each with what it waits for. */
const LIVE: Readonly<Record<string, string>> = {
  'index.html': '#cb-holder .cb-bar',
  'book.html': '#cb-holder .cb-bar',
  'gear.html': '.bk-open',
  'checkout.html': '#cb-holder .cb-bar',
};
const MEDIA_TYPES: Readonly<Record<string, string>> = {
  html: 'text/html',
  css: 'text/css',
  js: 'text/javascript',
  svg: 'image/svg+xml',
};
/** Elements that are hovered and focused of each page. */
const DRAWN = 3;
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
          const read = (from: CSSStyleDeclaration): string =>
            longhands.map((name) => `${name}: ${from.getPropertyValue(name)}`).join('; ');
          found.push(`${element.localName} ${read(style)}`);
          if (element.matches(':modal, :popover-open'))
            found.push(`its backdrop ${read(getComputedStyle(element, '::backdrop'))}`);
          if (element.shadowRoot) visit(element.shadowRoot);
        }
      };
      visit(document);
      return found;
    }, LONGHANDS);

  const copied = async (live: Page): Promise<{ copy: Page; lost: readonly Message[] }> => {
    const { html, lost } = await live.evaluate(takeSnapshot, { isWhole: false, isScripted: true, frames: [] });
    const copy = await opened(html, false);
    await copy.evaluate(`(${openTopLayer.toString()})(document)`);
    return { copy, lost };
  };
  /** Gives an element focus, and the place it is to be hovered at; whether it kept focus, which some pages take back. */
  const drawn = (page: Page, share: number): Promise<{ x: number; y: number; hasFocus: boolean }> =>
    page.evaluate((at) => {
      const all = [...document.body.querySelectorAll<HTMLElement>('*')].filter(
        (own) => !own.matches('script, style, link, iframe') && own.getBoundingClientRect().width > 0,
      );
      const element = all[Math.floor(at * all.length)] ?? document.body;
      element.scrollIntoView({ block: 'center', behavior: 'instant' });
      element.focus({ preventScroll: true });
      const { x, y, width, height } = element.getBoundingClientRect();
      return { x: x + width / 2, y: y + height / 2, hasFocus: document.activeElement === element };
    }, share);
  const blur = (page: Page): Promise<void> =>
    page.evaluate(() => (document.activeElement as HTMLElement | null)?.blur());
  /** Both pages with an element hovered, and with focus on it where the live page leaves it there. */
  const expectSameStates = async (live: Page, copy: Page, seed: number): Promise<void> => {
    const next = random(seed);
    for (let i = 0; i < DRAWN; i += 1) {
      const share = next();
      const [there, here] = [await drawn(live, share), await drawn(copy, share)];
      if (there.hasFocus !== here.hasFocus) await Promise.all([live, copy].map(blur));
      await Promise.all([live.mouse.move(there.x, there.y), copy.mouse.move(there.x, there.y)]);
      const values = [await valuesOf(copy), await valuesOf(live)];
      expect(values[0]).toEqual(values[1]);
    }
  };

  Object.entries(PAGES).forEach(([name, body], i) =>
    it(`has every computed value of the live page in Chromium: ${name}`, async () => {
      const live = await opened(`<!DOCTYPE html><html><head><title>t</title></head><body>${body}</body></html>`, true);
      const { copy, lost } = await copied(live);
      const [wanted, got] = [await valuesOf(live), await valuesOf(copy)];
      expect(got).toEqual(wanted);
      expect(wanted.length).toBeGreaterThan(2);
      expect(lost).toEqual([]);
      await expectSameStates(live, copy, 100 + i);
      await Promise.all([live.context().close(), copy.context().close()]);
    }),
  );

  /** A page live and as it is taken, both over files of `fulfil`, held against each other in Chromium. */
  const held = async (
    address: string,
    mark: string,
    seed: number,
    fileOf: (path: string) => { body: string | Buffer; contentType: string } | null,
  ): Promise<void> => {
    const start = async (page: Page, own: string | null): Promise<void> => {
      await page.route('**/*', async (route) => {
        const { pathname } = new URL(route.request().url());
        const file = own !== null && pathname === new URL(address).pathname ? null : fileOf(pathname);
        if (file) await route.fulfill(file);
        else if (own !== null && route.request().isNavigationRequest())
          await route.fulfill({ contentType: 'text/html', body: own });
        else await route.fulfill({ status: 404, body: '' });
      });
      await page.goto(address, { waitUntil: 'load' });
      await page
        .locator(mark)
        .first()
        .waitFor({ state: own === null ? 'visible' : 'attached' });
      // What moves is another each time it is looked at.
      await page.evaluate(() => {
        const style = document.createElement('style');
        style.textContent = '*, ::before, ::after { animation: none !important; transition: none !important }';
        document.head.append(style);
      });
    };
    const contexts = await Promise.all(
      [true, false].map((javaScriptEnabled) =>
        browser.newContext({ viewport: { width: 1000, height: 700 }, javaScriptEnabled }),
      ),
    );
    const [live, copy] = await Promise.all(contexts.map((context) => context.newPage()));
    await start(live, null);
    const { html } = await live.evaluate(takeSnapshot, { isWhole: false, isScripted: true, frames: [] });
    await start(copy, html);
    await copy.evaluate(`(${openTopLayer.toString()})(document)`);
    // Where a script put the focus is no matter of the page at rest.
    await Promise.all([live, copy].map(blur));
    const wanted = await valuesOf(live);
    expect(wanted.length).toBeGreaterThan(5);
    expect(await valuesOf(copy)).toEqual(wanted);
    await expectSameStates(live, copy, seed);
    await Promise.all(contexts.map((context) => context.close()));
  };
  const fileAt = (file: string): { body: Buffer; contentType: string } | null =>
    existsSync(file) ? { body: readFileSync(file), contentType: MEDIA_TYPES[file.split('.').pop() ?? ''] ?? '' } : null;

  Object.entries(PACKAGES).forEach(([name, [body, mark]], i) =>
    it(`has every computed value of a page that a package makes in Chromium: ${name}`, () =>
      held('http://live.test/page.html', mark, 300 + i, (path) =>
        path === '/page.html'
          ? { contentType: 'text/html', body: `<!DOCTYPE html><title>t</title><body>${body}` }
          : fileAt(join(root, 'node_modules', path.replace(/^\/npm\//, ''))),
      )),
  );

  Object.entries(LIVE).forEach(([path, mark], i) =>
    it(`has every computed value of the demo’s live page in Chromium: ${path}`, () =>
      held(
        `http://live.test/${path}`,
        mark,
        200 + i,
        (asked) =>
          ['live', 'site'].map((folder) => fileAt(join(root, 'demo', folder, asked))).find((file) => file) ?? null,
      )),
  );

  it('says what no HTML text holds', async () => {
    const live = await opened(
      '<!DOCTYPE html><body><input type=checkbox id=c><p id=n></p><iframe srcdoc="<p>own</p>" title="The map"></iframe><script>c.indeterminate = true; n.append(document.createElement("div"))</script>',
      true,
    );
    const { lost } = await live.evaluate(takeSnapshot, { isWhole: false, isScripted: true, frames: [] });
    await live.context().close();
    expect(lost.map((what) => say(what))).toEqual(
      jasmine.arrayWithExactContents([
        'what the frame The map shows',
        'a box that is neither ticked nor unticked',
        'a tree that no HTML text gives: a script nested what HTML does not nest',
      ]),
    );
  });
});
