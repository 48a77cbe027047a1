import { readFileSync } from 'node:fs';
import type { Browser, Page } from 'playwright-core';
import type { DraftDocument, KitDocument } from '@upper-veneer/contract';
import { launchBrowser } from '../support/browser.js';
import { BenchDriver, startProduct, temporaryFolder } from '../support/product.js';

describe('kits', () => {
  const folder = temporaryFolder();
  let browser: Browser;
  let product: Awaited<ReturnType<typeof startProduct>>;
  let page: Page;
  beforeAll(async () => {
    [browser, product] = await Promise.all([launchBrowser(), startProduct(folder.path)]);
    const bench = await BenchDriver.open(browser, product.url);
    ({ page } = bench);
    await bench.choose('.qs-apply');
    await bench.value('Reed');
    await page.getByRole('link', { name: /Match/ }).click();
    await page.getByRole('button', { name: 'Kits…' }).click();
  }, 120_000);
  afterAll(async () => {
    await browser.close();
    await product.kill();
    folder.remove();
  });

  const json = async <T>(path: string): Promise<T> => (await (await fetch(product.url + path)).json()) as T;
  const dialog = (): ReturnType<Page['locator']> => page.locator('uv-kits-dialog .p-dialog');

  it('are kept of a part, handed on as a file, known again on the site they come to, and laid on', async () => {
    await dialog().getByRole('combobox', { name: 'Part to keep as a kit' }).click();
    await page.getByRole('option', { name: 'Booking form' }).click();
    await dialog().getByRole('button', { name: 'Keep as a kit' }).click();
    await dialog().locator('li', { hasText: 'Known again in Booking form by 100 % of its classes' }).waitFor();
    const [download] = await Promise.all([
      page.waitForEvent('download'),
      dialog()
        .getByRole('button', { name: /^Save the kit/ })
        .click(),
    ]);
    const kit = readFileSync(await download.path(), 'utf8');
    expect(JSON.parse(kit)).toEqual(jasmine.objectContaining({ format: 'upper-veneer kit', madeOn: 'Osier & Reed' }));
    expect(kit).not.toContain('swatchId');
    await dialog().getByRole('button', { name: 'Take away' }).click();
    await dialog().locator('.none').waitFor();
    await dialog()
      .getByLabel('Kit to bring in')
      .setInputFiles({ name: 'x.json', mimeType: 'application/json', buffer: Buffer.from('{') });
    await dialog().locator('.problem', { hasText: 'x.json is no JSON' }).waitFor();
    await dialog()
      .getByLabel('Kit to bring in')
      .setInputFiles({ name: 'kit.json', mimeType: 'application/json', buffer: Buffer.from(kit) });
    await dialog().locator('li', { hasText: 'rules have something to match' }).waitFor();
    expect((await json<KitDocument[]>('/api/kits')).length).toBe(1);
    // Laid on as one step of undo.
    await fetch(`${product.url}/api/sites/1/undo`, { method: 'POST' });
    const empty = (await json<DraftDocument>('/api/sites/1/draft')).overrides;
    await dialog().getByRole('button', { name: 'Lay it on' }).click();
    await dialog().locator('.told', { hasText: 'laid on, as one step of undo; everything fits' }).waitFor();
    const { overrides, undo } = await json<DraftDocument>('/api/sites/1/draft');
    expect([overrides.length > empty.length, undo]).toEqual([true, 'Lay on the kit Booking form']);
    expect(overrides.some(({ selector }) => selector.includes('.qs-apply'))).toBeTrue();
    await page.keyboard.press('Escape');
    await page.getByRole('button', { name: /^Undo/ }).click();
    await page.locator('uv-top-bar .standing', { hasText: 'Nothing overridden yet' }).waitFor();
  });
});
