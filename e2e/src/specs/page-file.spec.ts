import { readFileSync } from 'node:fs';
import type { Browser, BrowserContext, Page } from 'playwright-core';
import type { PageFileDocument, SiteDocument, SiteSummary } from '@upper-veneer/contract';
import { launchBrowser } from '../support/browser.js';
import { newContext, startProduct, temporaryFolder } from '../support/product.js';

const PNG = Buffer.from(
  'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==',
  'base64',
);
/** A members' page that scripts draw: a bar after a moment, a form in a shadow tree, a drawer on a press. */
const MEMBERS = `<!DOCTYPE html><html><head><title>Members: the boathouse</title><link rel=stylesheet href="/theme.css"></head><body>
<h1>Members</h1><img src="/oar.png" alt=""><book-form></book-form><button id=basket>Basket</button><div id=drawer hidden>Two dry bags</div>
<script>
  setTimeout(() => { const bar = document.createElement('div'); bar.className = 'css-q8'; bar.textContent = 'We use cookies'; document.body.append(bar); document.styleSheets[0].insertRule('.css-q8 { background: rgb(20, 20, 40); color: #fff }', 1); }, 60);
  customElements.define('book-form', class extends HTMLElement { connectedCallback() { const root = this.attachShadow({ mode: 'open' }); root.innerHTML = '<input value=Nell><button>Book</button>'; const sheet = new CSSStyleSheet(); sheet.replaceSync('button { background: rgb(180, 88, 42) }'); root.adoptedStyleSheets = [sheet]; } });
  basket.onclick = () => { drawer.hidden = false; };
</script></body></html>`;
const THEME = 'body { background: url("oar.png"); color: rgb(29, 43, 42) }';

describe('a page saved from one’s own browser', () => {
  const folder = temporaryFolder();
  let browser: Browser;
  let context: BrowserContext;
  let product: Awaited<ReturnType<typeof startProduct>>;
  let page: Page;
  beforeAll(async () => {
    [browser, product] = await Promise.all([launchBrowser(), startProduct(folder.path)]);
    context = await newContext(browser);
    await context.grantPermissions(['clipboard-read', 'clipboard-write']);
    page = await context.newPage();
    await page.goto(`${product.url}/survey`);
  }, 120_000);
  afterAll(async () => {
    await browser.close();
    await product.kill();
    folder.remove();
  });

  it('by the console line comes in with what scripts made of it, and nothing of it is asked for again', async () => {
    await page.getByRole('button', { name: 'Bring in a site…' }).click();
    await page.locator('uv-import-dialog').getByText('Your browser', { exact: true }).click();
    await page.getByRole('button', { name: 'Copy the console line' }).click();
    await page.getByRole('button', { name: 'Copied' }).waitFor();
    const script = await page.evaluate(() => navigator.clipboard.readText());
    expect(await page.getByText('Save this page').getAttribute('href')).toMatch(/^javascript:/);

    const own = await browser.newContext({ acceptDownloads: true });
    const live = await own.newPage();
    await live.route('**/*', (route) => {
      const { pathname } = new URL(route.request().url());
      if (pathname.endsWith('.png')) return route.fulfill({ contentType: 'image/png', body: PNG });
      if (pathname === '/theme.css') return route.fulfill({ contentType: 'text/css', body: THEME });
      return route.fulfill({ contentType: 'text/html', body: MEMBERS });
    });
    await live.goto('https://members.test/in/');
    await live.locator('.css-q8').waitFor();
    await live.getByRole('button', { name: 'Basket' }).click();
    const [download] = await Promise.all([live.waitForEvent('download'), live.evaluate(script)]);
    expect(download.suggestedFilename()).toBe('Members the boathouse.html');
    const html = readFileSync(await download.path(), 'utf8');
    await own.close();
    expect(html).not.toMatch(/(?:src|href)="https?:/);

    await page.getByRole('button', { name: 'Files', exact: true }).click();
    await page
      .getByLabel('Files to bring in')
      .setInputFiles({ name: download.suggestedFilename(), mimeType: 'text/html', buffer: Buffer.from(html) });
    await page.getByRole('button', { name: 'Bring in', exact: true }).click();
    await page.getByRole('button', { name: 'Look at it' }).click();
    const sites = (await (await fetch(`${product.url}/api/sites`)).json()) as SiteSummary[];
    const brought = sites.find(({ name }) => name.startsWith('Members'))?.id ?? 0;
    const site = (await (await fetch(`${product.url}/api/sites/${brought}`)).json()) as SiteDocument;
    const [captured] = site.pages;
    expect(captured.html).toContain('We use cookies');
    // As the frame's own engine has it.
    await page.goto(`${product.url}/bench?site=${brought}`);
    const painted = await page.waitForFunction(() => {
      const frame = document.querySelector<HTMLIFrameElement>('uv-page-frame iframe')?.contentDocument;
      const bar = frame?.querySelector('.css-q8');
      const button = frame?.querySelector('book-form')?.shadowRoot?.querySelector('button');
      const drawer = frame?.querySelector('#drawer');
      return bar && button && drawer
        ? [
            getComputedStyle(bar).backgroundColor,
            getComputedStyle(button).backgroundColor,
            getComputedStyle(drawer).display,
          ]
        : null;
    });
    expect(await painted.jsonValue()).toEqual(['rgb(20, 20, 40)', 'rgb(180, 88, 42)', 'block']);
  }, 60_000);

  it('says what is not in the file, at most eight of them', async () => {
    const { script } = (await (await fetch(`${product.url}/api/page-file`)).json()) as PageFileDocument;
    const own = await browser.newContext({ acceptDownloads: true });
    const live = await own.newPage();
    const saved = async (body: string): Promise<string> => {
      await live.setContent(`<!DOCTYPE html><title>Log</title>${body}`);
      const [dialog] = await Promise.all([
        live.waitForEvent('dialog').then(async (shown) => {
          const words = shown.message();
          await shown.dismiss();
          return words;
        }),
        live.evaluate(script),
      ]);
      return dialog;
    };
    // What no HTML text says of a box is that it is neither ticked nor unticked (HTML §4.10.5.1.15, "indeterminate").
    const box = '<input type=checkbox><script>document.querySelector("input").indeterminate = true</script>';
    expect(await saved(box)).toBe('Saved. Not in the file: a box that is neither ticked nor unticked.');
    expect(await saved('<iframe></iframe>')).toBe('Saved. Not in the file: what a frame without an address shows.');
    const many = Array.from({ length: 9 }, (_, i) => `<iframe title="Tide {list} ${i}"></iframe>`).join('');
    const words = Array.from({ length: 8 }, (_, i) => `what the frame Tide {list} ${i} shows`).join(', ');
    expect(await saved(many)).toBe(`Saved. Not in the file: ${words} and more.`);
    await own.close();
  });
});
