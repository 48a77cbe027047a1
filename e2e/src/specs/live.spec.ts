import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import type { Browser, Page } from 'playwright-core';
import { launchBrowser } from '../support/browser.js';
import { eventually } from '../support/eventually.js';
import { BenchDriver, startProduct, temporaryFolder } from '../support/product.js';

describe('the draft on a live page', () => {
  const folder = temporaryFolder();
  let browser: Browser;
  let product: Awaited<ReturnType<typeof startProduct>>;
  let elsewhere: Server;
  let bench: BenchDriver;
  let live: Page;
  const markup =
    '<!doctype html><html><head><title>Shop</title><style>.qs-root .qs-apply { background-color: #eee }</style></head><body><div class="qs-root"><button class="qs-apply">Apply</button></div></body></html>';
  beforeAll(async () => {
    // A page of another origin, such as the designer has open.
    elsewhere = createServer((_, response) => response.setHeader('content-type', 'text/html').end(markup));
    await new Promise<void>((done) => elsewhere.listen(0, '127.0.0.1', done));
    [browser, product] = await Promise.all([launchBrowser(), startProduct(folder.path)]);
    bench = await BenchDriver.open(browser, product.url);
    await bench.choose('.qs-apply');
    await bench.value('Reed');
    live = await browser.newPage();
    await live.goto(`http://127.0.0.1:${(elsewhere.address() as AddressInfo).port}/`);
  }, 60_000);
  afterAll(async () => {
    await browser.close();
    await product.kill();
    elsewhere.close();
    folder.remove();
  });

  const fill = (): Promise<string> =>
    live.locator('.qs-apply').evaluate((node) => getComputedStyle(node).backgroundColor);

  it('is laid on by the bookmark, follows each change within a second, and leaves nothing behind', async () => {
    const { page } = bench;
    await page.getByRole('link', { name: /Sheet/ }).click();
    await page.getByRole('button', { name: 'Switch on' }).click();
    const bookmark = (await page.getByRole('link', { name: 'Lay the draft on' }).getAttribute('href')) ?? '';
    expect(bookmark.startsWith('javascript:')).toBeTrue();
    const before = await live.evaluate(() => [document.documentElement.outerHTML, Object.keys(window).length]);
    const press = (): Promise<unknown> => live.evaluate(decodeURIComponent(bookmark.slice('javascript:'.length)));
    await press();
    // Reed, then Heron, as the demo has them.
    await eventually(fill, (color) => color === 'rgb(109, 138, 53)');
    await page.getByRole('link', { name: /Bench/ }).click();
    await bench.drawn();
    await bench.choose('.qs-apply');
    await bench.value('Heron');
    const changed = Date.now();
    await eventually(fill, (color) => color === 'rgb(90, 63, 92)');
    expect(Date.now() - changed).toBeLessThan(3000);
    await press();
    expect(await fill()).toBe('rgb(238, 238, 238)');
    expect(await live.evaluate(() => [document.documentElement.outerHTML, Object.keys(window).length])).toEqual(before);
  }, 60_000);

  it('ends for every page in one press', async () => {
    const { page } = bench;
    await page.getByRole('link', { name: /Sheet/ }).click();
    await page.locator('uv-try-live').getByRole('button').first().waitFor();
    const off = page.getByRole('button', { name: 'Switch on' });
    if ((await off.count()) > 0) await off.click();
    const bookmark = (await page.getByRole('link', { name: 'Lay the draft on' }).getAttribute('href')) ?? '';
    const before = await fill();
    await live.evaluate(decodeURIComponent(bookmark.slice('javascript:'.length)));
    await eventually(fill, (color) => color !== before);
    await page.getByRole('button', { name: 'End it' }).click();
    await eventually(fill, (color) => color === before);
  }, 60_000);
});
