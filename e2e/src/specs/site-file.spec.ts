import { readFileSync } from 'node:fs';
import type { Browser, Page } from 'playwright-core';
import type { DraftDocument, SiteSummary } from '@upper-veneer/contract';
import { launchBrowser } from '../support/browser.js';
import { BenchDriver, startProduct, temporaryFolder } from '../support/product.js';

describe('a site saved as a file', () => {
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
    await page.getByRole('button', { name: 'Save revision' }).click();
    await page.locator('.p-dialog input').fill('The voucher in reed');
    await page.locator('.p-dialog').getByRole('button', { name: 'Save revision' }).click();
    await page.locator('uv-top-bar .standing', { hasText: /Draft is revision/ }).waitFor();
    await page.getByRole('link', { name: /Survey/ }).click();
  }, 120_000);
  afterAll(async () => {
    await browser.close();
    await product.kill();
    folder.remove();
  });

  const json = async <T>(path: string): Promise<T> => (await (await fetch(product.url + path)).json()) as T;

  /** The site brought in once more from its own file, unless that was done before. */
  async function secondSite(): Promise<number> {
    const find = async (): Promise<number | undefined> =>
      (await json<SiteSummary[]>('/api/sites')).find(({ name }) => name === 'Osier & Reed 2')?.id;
    const known = await find();
    if (known !== undefined) return known;
    const form = new FormData();
    form.set('wish', JSON.stringify({ siteId: null, name: '', kind: 'files' }));
    form.append('files', await (await fetch(`${product.url}/api/sites/1/archive`)).blob(), 'site.zip');
    const answer = await fetch(`${product.url}/api/imports`, { method: 'POST', body: form });
    const { id } = (await answer.json()) as { id: number };
    await (await fetch(`${product.url}/api/imports/${id}/events`)).text();
    return (await find()) ?? 0;
  }

  it('comes back as a site of its own, with the same sheet, revision and history', async () => {
    const [download] = await Promise.all([
      page.waitForEvent('download'),
      page.getByRole('button', { name: 'Save the site as a file' }).click(),
    ]);
    expect(download.suggestedFilename()).toBe('Osier-Reed.upper-veneer.zip');
    const file = await download.path();
    expect(readFileSync(file).includes('upper-veneer-site.json')).toBeTrue();
    await page.getByRole('button', { name: 'Bring in a site…' }).click();
    await page.getByLabel('Files to bring in').setInputFiles({
      name: 'site.zip',
      mimeType: 'application/zip',
      buffer: readFileSync(file),
    });
    await page.getByRole('button', { name: 'Bring in', exact: true }).click();
    await page.getByRole('button', { name: 'Look at it' }).click({ timeout: 60_000 });
    await page.locator('uv-top-bar', { hasText: 'Osier & Reed 2' }).waitFor({ timeout: 60_000 });
    const other = (await json<SiteSummary[]>('/api/sites')).find(({ name }) => name === 'Osier & Reed 2')?.id ?? 0;
    const [a, b] = [
      await json<DraftDocument>('/api/sites/1/draft'),
      await json<DraftDocument>(`/api/sites/${other}/draft`),
    ];
    expect([b.undo, b.redo, b.equalsRevision, b.revisions]).toEqual([a.undo, a.redo, a.equalsRevision, a.revisions]);
    const sheets = await Promise.all(
      [1, other].map(async (id) => (await json<{ css: string }>(`/api/sites/${id}/revisions/1`)).css),
    );
    expect(sheets[1]).toBe(sheets[0]);
  }, 90_000);

  it('follows the palette of another that shares its swatches, proved before and after', async () => {
    const other = await secondSite();
    const reedOf = async (id: number): Promise<string | undefined> =>
      (await json<DraftDocument>(`/api/sites/${id}/draft`)).swatches.find(({ name }) => name === 'Reed')?.css;
    const { swatches, roles } = await json<DraftDocument>(`/api/sites/${other}/draft`);
    await fetch(`${product.url}/api/sites/${other}/palette`, {
      method: 'PUT',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({
        label: 'Reed',
        swatches: swatches.map(({ id, name, css }) => ({ id, name, css: name === 'Reed' ? '#2f6f4f' : css })),
        roles: roles.map(({ role, shade, swatchId }) => ({
          role,
          shade,
          swatch: swatches.find(({ id }) => id === swatchId)?.name,
        })),
      }),
    });
    // The second site is opened; the first follows it.
    await page.goto(`${product.url}/palette?site=${other}`);
    await page.getByText('Other sites', { exact: true }).click();
    const panel = page.locator('uv-other-sites');
    await panel.locator('.swatch', { hasText: '#2f6f4f' }).waitFor();
    await panel.getByRole('checkbox').check();
    expect(await panel.getByRole('button', { name: 'Take over on 1 site' }).isDisabled()).toBeTrue();
    await panel.getByRole('button', { name: 'Prove before and after' }).click();
    await panel.locator('li', { hasText: /Fails \d+ before, \d+ after; to look at \d+ before, \d+ after/ }).waitFor();
    await panel.getByRole('button', { name: 'Take over on 1 site' }).click();
    await panel.locator('li', { hasText: 'Taken over; undo is in that site' }).waitFor();
    expect(await reedOf(1)).toBe('#2f6f4f');
    await fetch(`${product.url}/api/sites/1/undo`, { method: 'POST' });
    expect(await reedOf(1)).not.toBe('#2f6f4f');
  }, 90_000);
});
