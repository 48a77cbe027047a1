import type { Browser, Page } from 'playwright-core';
import type { DraftDocument } from '@upper-veneer/contract';
import { launchBrowser } from '../support/browser.js';
import { BenchDriver, startProduct, temporaryFolder } from '../support/product.js';

/** CSS colours of the demo's swatches as Chromium tells them. */
const REED = 'rgb(109, 138, 53)';
const HERON = 'rgb(90, 63, 92)';
const WILLOW = 'rgb(180, 88, 42)';

describe('publishing, with a cache in between', () => {
  const folder = temporaryFolder();
  let browser: Browser;
  let product: Awaited<ReturnType<typeof startProduct>>;
  let bench: BenchDriver;
  let page: Page;
  let visitor: Page;
  let hostUrl = '';
  beforeAll(async () => {
    [browser, product] = await Promise.all([launchBrowser(), startProduct(folder.path)]);
    bench = await BenchDriver.open(browser, product.url);
    ({ page } = bench);
    visitor = await (await browser.newContext()).newPage();
    ({ hostUrl } = (await (await fetch(`${product.url}/api/sites/1`)).json()) as { hostUrl: string });
  }, 120_000);
  afterAll(async () => {
    await browser.close();
    await product.kill();
    folder.remove();
  });

  async function publish(value: string): Promise<void> {
    await page.getByRole('link', { name: /Bench/ }).click();
    await bench.choose('.qs-apply');
    await bench.value(value);
    const post = async (path: string, body: object): Promise<DraftDocument> =>
      (await (
        await fetch(`${product.url}/api/sites/1/${path}`, {
          method: 'POST',
          headers: { 'content-type': 'application/json' },
          body: JSON.stringify(body),
        })
      ).json()) as DraftDocument;
    const { revisions } = await post('revisions', { note: value });
    await post('publications', { revision: revisions[0].number });
  }
  async function hosted(hasNewName: boolean): Promise<void> {
    await fetch(`${product.url}/api/sites/1/hosting`, {
      method: 'PUT',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ hasNewName, maxAge: 3600 }),
    });
  }
  /** What a visitor sees who comes by the page's address again, with all that the browser kept. */
  async function seen(): Promise<string> {
    await visitor.goto(`${hostUrl}book.html`);
    return visitor.locator('.qs-apply').evaluate((node) => getComputedStyle(node).backgroundColor);
  }

  it('reaches a visitor whose browser is warm with the next page, where each has a name of its own', async () => {
    await publish('Reed');
    expect(await seen()).toBe(REED);
    await publish('Heron');
    expect(await seen()).toBe(HERON);
  }, 90_000);

  it('shows a stale copy with its age where the name stays the same, and cures it', async () => {
    await publish('Heron');
    await hosted(false);
    expect(await seen()).toBe(HERON);
    await publish('Willow');
    expect(await seen()).toBe(HERON);
    await page.getByRole('link', { name: /Sheet/ }).click();
    const panel = page.locator('uv-visitors-get');
    await panel
      .locator('li', { hasText: /: revision \d+, which a cache has kept for/ })
      .first()
      .waitFor();
    await panel.getByRole('button', { name: 'Purge the cache' }).click();
    await panel.locator('p', { hasText: /Visitors get revision \d+/ }).waitFor();
    // The host has it; what a browser keeps no host can take back, as the panel says.
    expect(await seen()).toBe(HERON);
    await panel.getByRole('combobox', { name: 'Name of the published sheet' }).click();
    await page.getByRole('option', { name: 'New name each time' }).click();
    await panel.locator('p', { hasText: /Visitors get revision \d+/ }).waitFor();
    expect(await seen()).toBe(WILLOW);
  }, 90_000);
});
