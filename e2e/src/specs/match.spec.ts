import type { Browser, Page } from 'playwright-core';
import { launchBrowser } from '../support/browser.js';
import { eventually } from '../support/eventually.js';
import { newContext, startProduct, temporaryFolder, type Product } from '../support/product.js';

describe('Match', () => {
  let browser: Browser;
  let product: Product;
  let page: Page;
  const folder = temporaryFolder();

  beforeAll(async () => {
    [browser, product] = await Promise.all([launchBrowser(), startProduct(folder.path)]);
    page = await (await newContext(browser)).newPage();
  });
  afterAll(async () => {
    await browser.close();
    await product.kill();
    folder.remove();
  });
  beforeEach(async () => {
    await page.goto(`${product.url}/match`);
  });

  const line = (paints: string): ReturnType<Page['locator']> =>
    page.locator('uv-match-table tbody tr', { hasText: paints });

  async function choose(part: string): Promise<void> {
    await page
      .locator('uv-scope-list')
      .getByRole('button', { name: new RegExp(part) })
      .click();
    await line('fill of').first().waitFor();
  }

  /** Waits until the picture of the match paints a colour, as its own engine has it. */
  async function isDrawn(selector: string, property: string, color: string): Promise<void> {
    const element = page.locator('uv-scope-picture iframe[title="Matched"]').contentFrame().locator(selector);
    await eventually(
      () => element.evaluate((node, name) => getComputedStyle(node).getPropertyValue(name), property),
      (painted) => painted === color,
    );
    expect(await element.count()).toBe(1);
  }

  it('takes the booking form from found colours to overrides that visitors would see, in one step of undo', async () => {
    await choose('Booking form');
    // Willow is the accent of the demo's palette; what sends the form leads.
    await line('fill of Hold my place').getByText('Accent', { exact: true }).waitFor();
    await isDrawn('.qs-go', 'background-color', 'rgb(180, 88, 42)');
    await page.getByRole('button', { name: /^Lay on \d+ places$/ }).click();
    await page
      .getByText(/^Laid on \d+ places by \d+ overrides; proved, [\d,]+ places resolved at 1280, 820, 390 px$/)
      .waitFor();
    await page.locator('uv-scope-list li', { hasText: 'Booking form' }).getByText('18/18', { exact: true }).waitFor();
    await page.goto(`${product.url}/sheet`);
    await page.locator('uv-sheet-text', { hasText: '--brand-accent' }).waitFor();
    // Published, it reaches visitors: what the stand-in host serves is asked of a browser of its own.
    await page.getByRole('button', { name: 'Save revision' }).click();
    await page.getByRole('dialog').getByRole('button', { name: 'Save' }).click();
    await page.getByText('Revision 1', { exact: true }).waitFor();
    const site = (await (await fetch(`${product.url}/api/sites/1`)).json()) as { readonly hostUrl: string };
    await fetch(`${product.url}/api/sites/1/publications`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ revision: 1 }),
    });
    const visitor = await (await newContext(browser)).newPage();
    await visitor.goto(`${site.hostUrl}book.html`);
    expect(await visitor.locator('.qs-go').evaluate((node) => getComputedStyle(node).backgroundColor)).toBe(
      'rgb(180, 88, 42)',
    );
    await visitor.context().close();
    await page.getByRole('button', { name: 'Undo' }).click();
    await page.getByText('The sheet is empty').waitFor();
  });

  it('overrides a property of the theme itself, after telling what follows it in the scope and out of it', async () => {
    await choose('Booking form');
    const property = page.locator('uv-theme-properties li', { hasText: '--theme-accent-strong' });
    await property.getByText(/\d+ outside the scope would change too/).click();
    expect(await property.locator('.outsiders li').count()).toBeGreaterThan(3);
    await property.hover();
    await page.locator('uv-scope-picture .lit').first().waitFor();
    await page.getByRole('checkbox', { name: 'Override --qs-violet itself' }).check();
    await page.getByRole('checkbox', { name: 'Override --theme-accent-strong itself' }).check();
    await page.getByRole('button', { name: /^Lay on \d+ places$/ }).click();
    await page.getByText(/outside follow as chosen; proved,/).waitFor();
    const draft = (await (await fetch(`${product.url}/api/sites/1/draft`)).json()) as {
      readonly overrides: readonly { readonly property: string; readonly selector: string }[];
    };
    expect(
      draft.overrides
        .filter(({ property: name }) => name.startsWith('--'))
        .map(({ property: name }) => name)
        .sort(),
    ).toEqual(['--qs-violet', '--theme-accent-strong']);
    await page.getByRole('button', { name: 'Undo' }).click();
    await page.getByRole('button', { name: 'Undo' }).click();
  });

  it('splits a row by place and puts it together again', async () => {
    await choose('Booking form');
    await line('entry in Sat 14 June').first().click();
    const places = page.locator('uv-row-detail .list input');
    await places.first().check();
    await page.getByRole('button', { name: 'Set 1 apart as a row' }).click();
    await line('entry in Sat 14 June').getByText('1 place', { exact: true }).waitFor();
    expect(await line('entry in').count()).toBeGreaterThan(1);
    await page.getByRole('button', { name: 'As found again' }).click();
    await line('entry in Sat 14 June').getByText('3 places', { exact: true }).waitFor();
  });

  it('is worked by the keyboard: rows walked, one left alone, taken back, another value given', async () => {
    await choose('Booking form');
    const apply = line('fill of Apply').first();
    await apply.focus();
    await page.keyboard.press('ArrowDown');
    await page.keyboard.press('ArrowUp');
    await page.locator('uv-match-table tr[aria-selected="true"]', { hasText: 'fill of Apply' }).waitFor();
    await page.keyboard.press('Delete');
    await apply.getByText('left alone').waitFor();
    await isDrawn('.qs-apply', 'background-color', 'rgb(255, 157, 46)');
    // The plan is stored: it is there after a reload, and undone like anything else.
    await page.reload();
    await apply.getByText('left alone').waitFor();
    await page.getByRole('button', { name: 'Undo' }).click();
    await apply.getByText('left alone').waitFor({ state: 'detached' });
    await apply.click();
    await page.locator('uv-row-detail').getByRole('button', { name: 'visited', exact: true }).click();
    await apply.getByText('Visited', { exact: true }).waitFor();
    await apply.getByText('set by hand').waitFor();
  });

  it('swaps two actions by naming the other one the main action', async () => {
    await choose('Booking form');
    const first = page.locator('uv-eye-first li').first();
    await first.getByText('Hold my place').waitFor();
    await line('fill of Apply').first().click();
    await page.locator('uv-row-detail').getByRole('button', { name: 'accent', exact: true }).click();
    await line('fill of Hold my place').first().click();
    await page.locator('uv-row-detail').getByRole('button', { name: 'panel', exact: true }).click();
    await page.getByText('Apply outranks the main action, Hold my place.').waitFor();
    await page.getByRole('button', { name: 'Propose all again' }).click();
    await first.getByText('Hold my place').waitFor();
  });

  it('turns every shade of an old family into shades of a new one, and leaves an exception alone', async () => {
    const put = await page.request.put(`${product.url}/api/sites/1/exceptions`, {
      data: { label: 'Leave', exceptions: [{ kind: 'place', target: '.bk-lines a', reason: 'as it is' }] },
    });
    expect(put.ok()).toBeTrue();
    await page.reload();
    await choose('Basket drawer');
    const violet = page.locator('uv-match-table tbody tr', { hasText: '#7a2bd6' }).first();
    await violet.click();
    await page.getByRole('button', { name: 'Choose its family' }).click();
    await page
      .locator('uv-row-detail h2')
      .getByText(/^\d+ colours$/)
      .waitFor();
    const chosen = page.locator('uv-match-table tbody tr[aria-selected="true"]');
    expect(await chosen.count()).toBeGreaterThan(4);
    await page.locator('uv-row-detail').getByRole('button', { name: 'link', exact: true }).click();
    await page.locator('uv-match-table tbody tr[aria-selected="true"]', { hasText: 'set by hand' }).first().waitFor();
    const becomes = await chosen.locator('td:nth-child(3)').allInnerTexts();
    expect(becomes.every((words) => /^Link|^Link, \d+/.test(words.trim()))).toBeTrue();
    expect(await chosen.locator('td:nth-child(2)').allInnerTexts()).not.toContain(jasmine.stringMatching(/left alone/));
    await page.getByRole('button', { name: /^Lay on \d+ places$/ }).click();
    await page.getByText(/; proved, [\d,]+ places resolved at 1280, 820, 390 px$/).waitFor();
  });

  it('leaves a part to its theme, looked at beside the match first, in one step of undo', async () => {
    await choose('Consent bar');
    await page.getByRole('combobox', { name: 'Shown beside the match' }).click();
    await page.getByRole('option', { name: 'Left to the theme' }).click();
    await page.getByText('If it were left to the theme').waitFor();
    await page.getByRole('button', { name: 'Leave it to the theme' }).click();
    await page
      .getByText(
        /^Left to the theme: \d+ places by \d+ overrides; \d+ texts were the theme’s already; proved, [\d,]+ places resolved at 1280, 820, 390 px$/,
      )
      .waitFor();
    await page.getByRole('button', { name: 'Undo' }).click();
  });

  it('tells what CSS does not recolour: the inks of pictures, the logo on its real grounds, framed parts', async () => {
    await page.goto(`${product.url}/match?scope=site`);
    const beyond = page.locator('uv-beyond-css');
    const logo = beyond.locator('li', { hasText: 'logo-reversed.svg' });
    await logo.getByText('2 of 3 not ours').waitFor();
    await logo
      .getByText(/\d+ % → \d+ % of its ink under 3 : 1/)
      .first()
      .waitFor();
    await beyond.locator('li', { hasText: 'Chat bubble' }).getByText('settings only').waitFor();
  });

  it('leads from a place to the Bench, and says what it is for before anything is chosen', async () => {
    await page.getByText('What is to become ours').waitFor();
    await choose('Consent bar');
    await line('fill of').first().click();
    await page.locator('uv-row-detail a', { hasText: 'Bench' }).first().click();
    await page.waitForURL(/\/bench\?.*element=/);
  });
});
