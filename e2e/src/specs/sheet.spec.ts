import { readFileSync } from 'node:fs';
import type { Browser, Page } from 'playwright-core';
import type { DraftDocument, RevisionDocument } from '@upper-veneer/contract';
import { launchBrowser } from '../support/browser.js';
import { eventually } from '../support/eventually.js';
import { BenchDriver, startProduct, temporaryFolder } from '../support/product.js';

describe('the Sheet, from revision to visitors', () => {
  const folder = temporaryFolder();
  let browser: Browser;
  let product: Awaited<ReturnType<typeof startProduct>>;
  let bench: BenchDriver;
  let page: Page;
  beforeAll(async () => {
    [browser, product] = await Promise.all([launchBrowser(), startProduct(folder.path)]);
    bench = await BenchDriver.open(browser, product.url);
    ({ page } = bench);
    await page.context().grantPermissions(['clipboard-read', 'clipboard-write']);
    await bench.choose('.qs-apply');
    await bench.value('Reed');
    await save('The voucher in reed');
    await bench.choose('.qs-go');
    await bench.value('Willow');
    await bench.choose('.qs-apply');
    await bench.value('Heron');
    await save('Willow and heron');
    await page.getByRole('link', { name: /Sheet/ }).click();
    await page.locator('uv-revision-list li').nth(1).waitFor();
  }, 120_000);
  afterAll(async () => {
    await browser.close();
    await product.kill();
    folder.remove();
  });

  async function save(note: string): Promise<void> {
    await page.getByRole('button', { name: 'Save revision' }).click();
    await page.locator('.p-dialog input').fill(note);
    await page.locator('.p-dialog').getByRole('button', { name: 'Save revision' }).click();
    await page.locator('uv-top-bar .standing', { hasText: /Draft is revision/ }).waitFor();
  }
  const draft = async (): Promise<DraftDocument> =>
    (await (await fetch(`${product.url}/api/sites/1/draft`)).json()) as DraftDocument;
  const revision = async (number: number): Promise<RevisionDocument> =>
    (await (await fetch(`${product.url}/api/sites/1/revisions/${number}`)).json()) as RevisionDocument;
  const row = (number: number): ReturnType<Page['locator']> =>
    page.locator('uv-revision-list li', { has: page.locator('strong', { hasText: new RegExp(`^${number}$`) }) });

  it('shows what a revision and the draft do not have alike: side by side, by rule, and on the page', async () => {
    await row(1).getByRole('button').first().click();
    await page.waitForSelector('uv-sheets-beside .cm-changedLine');
    expect(await page.locator('uv-sheets-beside .cm-merge-b .cm-changedLine').allInnerTexts()).toContain(
      '  --brand-heron: #5a3f5c;',
    );
    await page.getByText('On the page', { exact: true }).click();
    const rules = page.locator('uv-differing-rules .rule');
    expect(await rules.filter({ hasText: '.qs-apply' }).innerText()).toContain('− background-color: var(--brand-reed)');
    await rules.filter({ hasText: '.qs-apply' }).click();
    const fill = (title: string): Promise<string> =>
      page
        .locator(`uv-differing-rules iframe[title="${title}"]`)
        .contentFrame()
        .locator('.qs-apply')
        .evaluate((node) => getComputedStyle(node).backgroundColor);
    // The swatches as the demo has them: Reed and Heron.
    await eventually(
      () => fill('Revision 1'),
      (color) => color === 'rgb(109, 138, 53)',
    );
    await eventually(
      () => fill('Draft'),
      (color) => color === 'rgb(90, 63, 92)',
    );
    expect(page.url()).toContain('see=changes');
  });

  it('brings a part back, then the whole, each in one step of undo, to its own bytes', async () => {
    await page.getByText('The sheet', { exact: true }).click();
    await row(1).getByRole('button').first().click();
    await row(1).getByRole('button', { name: 'Bring back…' }).click();
    await page.getByRole('menuitem', { name: /^The whole revision/ }).click();
    await page.getByText('The draft is as revision 1 had it.').waitFor();
    expect((await draft()).equalsRevision).toBe(1);
    // The sheet it comes to is the one that was saved, byte for byte.
    const { css } = await revision(1);
    await eventually(
      async () => {
        await page.getByRole('button', { name: /^Cop(?:y|ied)$/ }).click();
        return page.evaluate(() => navigator.clipboard.readText());
      },
      (text) => text === css,
    );
    await page.getByRole('button', { name: 'Undo' }).click();
    await eventually(draft, ({ equalsRevision }) => equalsRevision === 2);
  });

  it('publishes an older one as it is', async () => {
    await row(1).getByRole('button').first().click();
    await row(1).getByRole('button', { name: 'Publish it' }).click();
    await row(1).getByText('published').waitFor();
    // The host itself was asked: every page carries the bytes that were published.
    await page.locator('uv-visitors-get', { hasText: /Visitors get revision 1/ }).waitFor();
    expect(await page.locator('uv-visitors-get').innerText()).toMatch(/7 of 7 pages carry its hash/);
    const { hostUrl } = (await (await fetch(`${product.url}/api/sites/1`)).json()) as { hostUrl: string };
    const visitor = await browser.newPage();
    await visitor.goto(`${hostUrl}book.html`);
    expect(
      await visitor
        .locator('.qs-apply')
        .first()
        .evaluate((node) => getComputedStyle(node).backgroundColor),
    ).toBe('rgb(109, 138, 53)');
    await visitor.close();
  });

  it('gives each place its text: a box plain values, a file its end between markers', async () => {
    const way = (name: string): ReturnType<Page['locator']> =>
      page.locator('uv-where-it-goes li', { hasText: name }).first();
    await way('A box for added CSS').getByRole('button').first().click();
    await page.getByLabel('plain values, it strips custom properties').check();
    await page.getByRole('button', { name: 'Copy for: A box for added CSS' }).click();
    const pasted = await page.evaluate(() => navigator.clipboard.readText());
    expect(pasted).toContain('background-color: #5a3f5c');
    expect(pasted).not.toContain('var(');
    await way('The end of an existing file').getByRole('button').first().click();
    const own = '.mine { top: 0 }\n';
    await page
      .getByLabel('The file as it is now')
      .setInputFiles({ name: 'shop.css', mimeType: 'text/css', buffer: Buffer.from(own) });
    const [download] = await Promise.all([
      page.waitForEvent('download'),
      page.getByRole('button', { name: 'Download shop.css' }).click(),
    ]);
    const text = readFileSync(await download.path(), 'utf8');
    expect(text.startsWith(own)).toBeTrue();
    expect(text).toContain('/* Osier & Reed, revision 2, ');
  });

  it('hands a note over that says what was done and how it is undone', async () => {
    await fetch(`${product.url}/api/sites/1/publications`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ revision: 2 }),
    });
    await row(2).getByText('published').waitFor();
    await page.getByRole('button', { name: 'Hand over…' }).click();
    const [download] = await Promise.all([
      page.waitForEvent('download'),
      page.getByRole('menuitem', { name: 'Note (Markdown)' }).click(),
    ]);
    const note = readFileSync(await download.path(), 'utf8');
    expect(note).toContain('| Booking form | ');
    expect(note).toContain('## How to undo it');
    expect(note).toContain('visitors get revision 2');
  });
});
