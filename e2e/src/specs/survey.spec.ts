import { join } from 'node:path';
import type { Page } from 'playwright-core';
import { setUpBench } from '../support/on-bench.js';
import { climbingZip } from '../support/climbing-zip.js';
import { root } from '../support/product.js';

interface SiteAnswer {
  readonly id: number;
  readonly name: string;
  readonly pages: readonly { readonly name: string; readonly path: string; readonly html: string }[];
  readonly parts: readonly { readonly name: string }[];
  readonly veneerPlace: string;
}

describe('the Survey', () => {
  const on = setUpBench();
  const page = (): Page => on.bench.page;

  async function toSurvey(): Promise<void> {
    await page()
      .getByRole('link', { name: /Survey/ })
      .click();
    await page().waitForSelector('uv-pages-panel');
  }

  async function counted(): Promise<void> {
    await page()
      .locator('uv-survey-page .state', { hasText: /\d elements?, [\d,]+ shown/ })
      .waitFor({ timeout: 60_000 });
  }

  const sites = (): Promise<readonly { id: number; name: string; pages: number }[]> =>
    page().evaluate(
      async () => (await (await fetch('/api/sites')).json()) as { id: number; name: string; pages: number }[],
    );
  const site = (id: number): Promise<SiteAnswer> =>
    page().evaluate(async (wanted) => (await (await fetch(`/api/sites/${wanted}`)).json()) as SiteAnswer, id);

  async function bringIn(files: Parameters<Page['setInputFiles']>[1]): Promise<void> {
    await page().getByRole('button', { name: 'Bring in a site…' }).click();
    await page().locator('input[type=file]:not([webkitdirectory])').setInputFiles(files);
    await page().getByRole('button', { name: 'Bring in', exact: true }).click();
  }

  async function lookAtIt(): Promise<void> {
    await page().getByRole('button', { name: 'Look at it' }).click({ timeout: 30_000 });
    await page().waitForSelector('uv-import-dialog', { state: 'detached' });
    await page().waitForSelector('uv-pages-panel');
  }

  it('counts the colours, lights the places of one up and leads to the Bench', async () => {
    await toSurvey();
    await counted();
    expect(await page().locator('.state').innerText()).toMatch(/^\d+ elements, \d+ shown$/);
    await page().getByLabel('Find colours').fill('.qs-go');
    const row = page().locator('uv-color-table tbody tr', { hasText: '#d9d9ea' });
    await row.click();
    await page().waitForSelector('uv-color-detail uv-page-frame .chosen');
    expect(await page().locator('uv-color-detail .declaration code').first().innerText()).toBe('.qs-root .qs-go');
    expect(await row.innerText()).toContain('stray');
    await page().locator('uv-color-detail li a').first().click();
    await page().waitForSelector('uv-states-grid');
    expect(await page().locator('uv-bench-page aside .names h2').innerText()).toContain('Hold my place');
  });

  it('marks a colour as an exception with its reason, which undo takes back', async () => {
    await toSurvey();
    await counted();
    await page().getByLabel('Find colours').fill('.price');
    await page().locator('uv-color-table tbody tr', { hasText: '#a3262a' }).click();
    await page().getByRole('button', { name: 'Leave alone…' }).click();
    await page().getByLabel('Reason to leave the colour alone').fill('weekday price');
    await page().getByRole('button', { name: 'Make exception' }).click();
    await page().getByText('exception: weekday price').first().waitFor();
    await page().getByRole('button', { name: 'Undo' }).click();
    await page().getByText('exception: weekday price').first().waitFor({ state: 'detached' });
  });

  it('brings a saved site in from a zip, says what was left out, and the Bench works on it', async () => {
    await toSurvey();
    await bringIn(join(root, 'demo/imports/osier-and-reed.zip'));
    await page().getByText('left out').first().waitFor({ timeout: 30_000 });
    expect(await page().locator('uv-import-dialog li').allInnerTexts()).toContain('widgets/level.js\nA script');
    await lookAtIt();
    const [, brought] = await sites();
    expect([brought.name, brought.pages]).toEqual(['Osier & Reed 2', 9]);
    expect((await site(brought.id)).parts.length).toBeGreaterThan(8);
    await page().getByRole('link', { name: /Bench/ }).click();
    await on.bench.drawn();
    await on.bench.choose('.hero .btn');
    expect(await page().locator('uv-bench-page aside .names h2').innerText()).toContain('Book a canoe');
  });

  it('brings a page in from a web archive that Chromium wrote, its shadow tree with it', async () => {
    await toSurvey();
    await bringIn(join(root, 'demo/imports/home-page.mhtml'));
    await lookAtIt();
    await counted();
    const [, brought] = await sites();
    const { html } = (await site(brought.id)).pages[0];
    expect(html).toContain('<template shadowrootmode="open">');
    expect(html).not.toMatch(/<script(?! type="text\/plain")/);
    expect(await page().locator('uv-color-table tbody tr', { hasText: '#0f4a48' }).count()).toBe(1);
  });

  it('fetches a page of the stand-in host by its address, and no other private address', async () => {
    await toSurvey();
    const hostUrl = await page().evaluate(
      async () => ((await (await fetch('/api/sites/1')).json()) as { hostUrl: string }).hostUrl,
    );
    await page().getByRole('button', { name: 'Bring in a site…' }).click();
    await page().locator('uv-import-dialog').getByText('Address', { exact: true }).click();
    await page().getByLabel('Address of the page').fill(on.product.url);
    await page().getByRole('button', { name: 'Bring in', exact: true }).click();
    await page().locator('uv-import-dialog .problem').waitFor({ timeout: 20_000 });
    expect(await page().locator('uv-import-dialog .problem').innerText()).toMatch(/private|loopback/i);
    expect((await sites()).length).toBe(1);
    await page().getByLabel('Address of the page').fill(`${hostUrl}trips.html`);
    await page().getByRole('button', { name: 'Bring in', exact: true }).click();
    await lookAtIt();
    const [, brought] = await sites();
    expect((await site(brought.id)).pages.map(({ name }) => name)).toEqual(['Trips']);
  });

  it('takes a pasted widget, adds pages to it, and captures one again', async () => {
    await toSurvey();
    await page().getByRole('button', { name: 'Bring in a site…' }).click();
    await page().locator('uv-import-dialog').getByText('Pasted widget').click();
    await page().getByLabel('HTML of the widget').fill('<div class="tide"><b onclick="alert(1)">High water</b></div>');
    await page().getByLabel('Its CSS').fill('.tide { background: #123456 } .tide b { color: #fedcba }');
    await page().locator('#uv-name').fill('Tide box');
    await page().getByRole('button', { name: 'Bring in', exact: true }).click();
    await lookAtIt();
    await counted();
    await page().locator('uv-color-table tbody tr', { hasText: '#123456' }).first().waitFor();
    expect(await page().locator('uv-color-table tbody tr', { hasText: '#123456' }).count()).toBe(1);
    await page().getByRole('button', { name: 'Add…' }).click();
    const file = (text: string) => ({
      name: 'extra.html',
      mimeType: 'text/html',
      buffer: Buffer.from(`<!doctype html><title>Extra</title><p style="color:#aa5500">${text}</p>`),
    });
    await page().locator('input[type=file]:not([webkitdirectory])').setInputFiles(file('first'));
    await page().getByRole('button', { name: 'Bring in', exact: true }).click();
    await lookAtIt();
    await page().getByRole('button', { name: 'Capture Extra again' }).click();
    await page().locator('input[type=file]:not([webkitdirectory])').setInputFiles(file('second'));
    await page().getByRole('button', { name: 'Capture again', exact: true }).click();
    await page().getByText('Extra was captured again.').waitFor();
    await lookAtIt();
    const [, brought] = await sites();
    const { pages } = await site(brought.id);
    expect(pages.map(({ html }) => html.includes('first'))).toEqual([false, false]);
    expect(pages[1].html).toContain('second');
  });

  it('refuses what is no site with a message, and leaves nothing behind', async () => {
    await toSurvey();
    for (const [name, buffer, message] of [
      ['climb.zip', await climbingZip(), /outside|path/i],
      ['empty.zip', Buffer.alloc(0), /No HTML page/],
      ['notes.txt', Buffer.from('just a note'), /page|HTML/i],
    ] as const) {
      await bringIn({ name, mimeType: 'application/octet-stream', buffer });
      const problem = page().locator('uv-import-dialog .problem');
      await problem.waitFor({ timeout: 20_000 });
      expect(await problem.innerText())
        .withContext(name)
        .toMatch(message);
      await page().getByRole('button', { name: 'Cancel' }).click();
    }
    expect((await sites()).length).toBe(1);
  });

  it('corrects the order of stylesheets and the veneer’s place, which decide ties', async () => {
    await toSurvey();
    await page().locator('.toolbar').getByText('Stylesheets', { exact: true }).click();
    const names = page().locator('uv-sheets-panel ol .name');
    /** The order, once its second row is that sheet: the pages are read again first. */
    const order = async (second: string): Promise<string[]> => {
      await names.nth(1).filter({ hasText: second }).waitFor();
      return names.allInnerTexts();
    };
    expect(await order('css/booking.css')).toEqual([
      'css/theme.css',
      'css/booking.css',
      'css/consent.css',
      'veneer.css',
      'style element',
    ]);
    let before = await on.bench.version();
    await page().getByRole('button', { name: 'css/booking.css earlier' }).click();
    await on.bench.changed(before);
    expect((await order('css/theme.css')).slice(0, 2)).toEqual(['css/booking.css', 'css/theme.css']);
    before = await on.bench.version();
    await page().getByRole('combobox', { name: 'Where the veneer is loaded' }).click();
    await page().getByRole('option', { name: 'after css/theme.css' }).click();
    await on.bench.changed(before);
    await names.nth(2).filter({ hasText: 'veneer.css' }).waitFor();
    expect(await order('css/theme.css')).toEqual([
      'css/booking.css',
      'css/theme.css',
      'veneer.css',
      'css/consent.css',
      'style element',
    ]);
    before = await on.bench.version();
    await page().getByRole('button', { name: 'Undo' }).click();
    await on.bench.changed(before);
    await page().getByRole('button', { name: 'Undo' }).click();
    expect(await order('css/booking.css')).toEqual([
      'css/theme.css',
      'css/booking.css',
      'css/consent.css',
      'veneer.css',
      'style element',
    ]);
  });

  it('renames and merges parts, and opens a hidden one on the Bench', async () => {
    await toSurvey();
    await page().locator('.toolbar').getByText('Parts', { exact: true }).click();
    let before = await on.bench.version();
    await page().getByLabel('Name of the part Basket drawer').fill('Trolley');
    await page().keyboard.press('Enter');
    await on.bench.changed(before);
    before = await on.bench.version();
    await page().getByRole('button', { name: 'More of Second step' }).click();
    await page().getByRole('combobox', { name: 'Part that Second step is merged into' }).click();
    await page().getByRole('option', { name: 'Two-step checkout' }).click();
    await on.bench.changed(before);
    const names = (await site(1)).parts.map(({ name }) => name);
    expect(names).toContain('Trolley');
    expect(names).not.toContain('Second step');
    await page().getByRole('link', { name: /Bench/ }).click();
    await on.bench.drawn();
    await page().getByRole('combobox', { name: 'Page' }).click();
    await page().getByRole('option', { name: 'Gear' }).click();
    await on.bench.drawn();
    expect(await on.bench.framed('.bk-drawer', 'visibility')).toBe('hidden');
    await page().getByRole('button', { name: 'Open Trolley' }).click();
    await on.bench.settled();
    expect(await on.bench.framed('.bk-drawer', 'visibility')).toBe('visible');
    await on.bench.choose('.bk-pay');
    await on.bench.value('Willow');
    expect(await on.bench.framed('.bk-pay', 'background-color')).toBe('rgb(180, 88, 42)');
    await page().getByRole('button', { name: 'Close Trolley' }).click();
    await on.bench.settled();
    expect(await on.bench.framed('.bk-drawer', 'visibility')).toBe('hidden');
  });

  it('changes a custom property of the theme for all that follows it, lit and judged there', async () => {
    await toSurvey();
    await counted();
    await page().getByText('Properties', { exact: true }).click();
    const row = page()
      .locator('uv-feeding-table tbody tr')
      .filter({ has: page().getByRole('button', { name: '--theme-accent', exact: true }) });
    const [, follows] = /(\d+) places? follow/.exec(await row.innerText()) ?? [];
    await row.getByRole('button').click();
    const detail = page().locator('uv-feeding-detail');
    await detail.getByText(`${follows} places follow`).waitFor();
    expect(Number(/^(\d+) lit up/.exec(await detail.locator('.on > span').innerText())?.[1])).toBeGreaterThan(0);
    await detail.getByRole('button', { name: 'Willow', exact: true }).first().click();
    await detail.getByText('no spill').waitFor({ timeout: 30_000 });
    expect(await detail.getByText(/reaches \d+ of \d+/).innerText()).toBe('reaches 7 of 7');
    const draft = await page().evaluate(
      async () =>
        (await (await fetch('/api/sites/1/draft')).json()) as { overrides: { property: string; selector: string }[] },
    );
    expect(draft.overrides.map(({ property, selector }) => `${property} ${selector}`)).toEqual([
      jasmine.stringMatching(/^--theme-accent (?::root|html)/),
    ]);
    expect(
      await detail.locator('iframe').evaluate((frame) =>
        getComputedStyle((frame as HTMLIFrameElement).contentDocument?.documentElement as Element)
          .getPropertyValue('--theme-accent')
          .trim(),
      ),
    ).toMatch(/#b4582a|rgb\(180, 88, 42\)|var\(--brand-willow\)/);
    await detail.getByRole('button', { name: 'Clear' }).click();
    await detail.getByText('changes it for everything that follows').waitFor();
  });
});
