import type { Browser, Page } from 'playwright-core';
import type { DraftDocument } from '@upper-veneer/contract';
import { launchBrowser } from '../support/browser.js';
import { eventually } from '../support/eventually.js';
import { BenchDriver, startProduct, temporaryFolder } from '../support/product.js';

describe('the client’s list', () => {
  const folder = temporaryFolder();
  let browser: Browser;
  let product: Awaited<ReturnType<typeof startProduct>>;
  let bench: BenchDriver;
  let page: Page;
  beforeAll(async () => {
    [browser, product] = await Promise.all([launchBrowser(), startProduct(folder.path)]);
    bench = await BenchDriver.open(browser, product.url);
    ({ page } = bench);
    await bench.choose('.qs-go');
    await bench.value('Willow');
    await page.getByRole('button', { name: 'Requests' }).click();
    await page
      .locator('#uv-wishes')
      .fill('Two things:\n- The voucher button of the booking form in reed\n- A bigger logo');
    await page.getByRole('button', { name: 'Take in as 2 wishes' }).click();
    await page.locator('uv-request-item').nth(1).waitFor();
  }, 120_000);
  afterAll(async () => {
    await browser.close();
    await product.kill();
    folder.remove();
  });

  const draft = async (): Promise<DraftDocument> =>
    (await (await fetch(`${product.url}/api/sites/1/draft`)).json()) as DraftDocument;
  const first = (): ReturnType<Page['locator']> => page.locator('uv-request-item').first();
  async function stand(item: ReturnType<Page['locator']>, standing: string): Promise<void> {
    await item.getByRole('combobox', { name: 'How it stands' }).click();
    await page.getByRole('option', { name: standing, exact: true }).click();
  }

  it('keeps wishes as they came, split, with the parts they name', async () => {
    const { requests } = await draft();
    expect(requests[0].items.map(({ words }) => words)).toEqual([
      'The voucher button of the booking form in reed',
      'A bigger logo',
    ]);
    expect(requests[0].items[0].partIds.length).toBe(1);
    expect(requests[0].text).toContain('Two things:');
  });

  it('keeps what is changed meanwhile as made for a wish, and tells by proof whether that holds', async () => {
    await first().getByRole('button', { name: 'Work on it' }).click();
    await page.locator('uv-worked-strip', { hasText: 'The voucher button' }).waitFor();
    await bench.choose('.qs-apply');
    await bench.value('Reed');
    await eventually(
      async () => (await draft()).requests[0].items[0].overrides.length,
      (count) => count > 0,
    );
    await page.locator('uv-written-css .wish', { hasText: 'For: The voucher button' }).click();
    await first()
      .getByRole('button', { name: /^Looks from what was made/ })
      .click();
    await first().locator('.looks li').first().waitFor();
    await stand(first(), 'done');
    await first()
      .locator('.holds', { hasText: /Holds on 1 place/ })
      .waitFor();
    expect(await page.locator('uv-requests-drawer > .head').innerText()).toContain('1 of 2 settled');
    // The look is named for every state: hovered, the widget's own colour is back.
    await first().getByText('Name a look to prove it by').click();
    await first().getByLabel('Selector of the elements').fill('.qs-apply');
    await first().getByRole('combobox', { name: 'What of them' }).click();
    await page.getByRole('option', { name: 'text', exact: true }).click();
    await first().getByLabel('CSS value').fill('rgb(1, 2, 3)');
    await first().getByRole('button', { name: 'Name it' }).click();
    await first().locator('.holds', { hasText: '1 of 2 places have not the look' }).waitFor();
    expect(await page.locator('uv-requests-drawer > .head').innerText()).toContain('0 of 2 settled');
  });

  it('comes back with undo, tells why something is refused, and stands in the hand-over note', async () => {
    const second = page.locator('uv-request-item').nth(1);
    await stand(second, 'refused');
    await second.getByRole('textbox', { name: 'Because' }).fill('the logo is a picture of fixed size');
    await second.getByRole('textbox', { name: 'Because' }).press('Tab');
    await eventually(
      async () => (await draft()).requests[0].items[1].reason,
      (reason) => reason !== '',
    );
    await second.getByRole('button', { name: 'Take away' }).click();
    await eventually(
      async () => (await draft()).requests[0].items.length,
      (count) => count === 1,
    );
    await page.keyboard.press('Escape');
    await page.getByRole('button', { name: /^Undo/ }).click();
    await eventually(
      async () => (await draft()).requests[0].items.length,
      (count) => count === 2,
    );
    await page.getByRole('link', { name: /Sheet/ }).click();
    await page.getByRole('button', { name: 'Hand over…' }).click();
    const [download] = await Promise.all([
      page.waitForEvent('download'),
      page.getByRole('menuitem', { name: 'Note (Markdown)' }).click(),
    ]);
    const { readFileSync } = await import('node:fs');
    const note = readFileSync(await download.path(), 'utf8');
    expect(note).toContain('## What was asked for');
    expect(note).toContain('not done: the logo is a picture of fixed size');
  });
});
