import type { Browser, Page } from 'playwright-core';
import { launchBrowser } from '../support/browser.js';
import { eventually } from '../support/eventually.js';
import { BenchDriver, newContext, startProduct, temporaryFolder, type Product } from '../support/product.js';

interface Draft {
  readonly overrides: readonly { readonly id: string; readonly selector: string; readonly element: number }[];
  readonly revisions: readonly { readonly number: number; readonly proof?: object }[];
  readonly formerCaptures: number;
}

interface Site {
  readonly pages: readonly { readonly id: number; readonly path: string; readonly html: string }[];
  readonly stylesheets: Readonly<Record<string, string>>;
}

describe('Proof over time', () => {
  let browser: Browser;
  let product: Product;
  let page: Page;
  let folder: ReturnType<typeof temporaryFolder>;

  beforeAll(async () => {
    browser = await launchBrowser();
  });
  afterAll(() => browser.close());
  beforeEach(async () => {
    folder = temporaryFolder();
    product = await startProduct(folder.path);
    page = await (await newContext(browser)).newPage();
  });
  afterEach(async () => {
    await page.context().close();
    await product.kill();
    folder.remove();
  });

  const get = async <T>(path: string): Promise<T> =>
    (await (await fetch(`${product.url}/api/sites/1${path}`)).json()) as T;
  const draft = (): Promise<Draft> => get<Draft>('/draft');
  const selectors = async (): Promise<string[]> => (await draft()).overrides.map(({ selector }) => selector);
  const change = async (put: readonly object[]): Promise<void> => {
    await fetch(`${product.url}/api/sites/1/changes`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ label: 'set', put, drop: [] }),
    });
  };
  const booking = async (): Promise<Site['pages'][number]> => {
    const { pages } = await get<Site>('');
    return pages.find(({ path }) => path === 'book.html') ?? pages[0];
  };
  /** Two overrides on the booking form’s button, laid on as the Bench does. */
  const override = async (): Promise<void> => {
    const { id } = await booking();
    // The running number is the frame's own.
    const framed = await (await fetch(`${product.url}/frame/sites/1/pages/${id}/`)).text();
    const element = Number(/<button[^>]*class="[^"]*qs-go[^"]*"[^>]*data-uv-n="(\d+)"/.exec(framed)?.[1]);
    const one = {
      partId: null,
      pageId: id,
      element,
      pseudo: '',
      reach: 'one',
      value: { kind: 'literal', css: '#8a3600' },
      important: false,
    };
    await change([
      { ...one, id: 'a', state: 'rest', property: 'background-color', selector: '.qs-root .qs-card button.qs-go' },
      { ...one, id: 'b', state: 'hover', property: 'color', selector: '.qs-root .qs-card button.qs-go:hover' },
    ]);
  };
  /** The booking page as its widget's next release has it: another class on its button. */
  const captureAgain = async (): Promise<void> => {
    const { html, path } = await booking();
    const { stylesheets } = await get<Site>('');
    const updated = (text: string): string => text.replaceAll('qs-go', 'qs-reserve');
    const form = new FormData();
    form.set('wish', JSON.stringify({ siteId: 1, name: '', kind: 'files' }));
    form.append('files', new Blob([updated(html)]), path);
    for (const [name, css] of Object.entries(stylesheets)) form.append('files', new Blob([updated(css)]), name);
    const { id } = (await (await fetch(`${product.url}/api/imports`, { method: 'POST', body: form })).json()) as {
      id: number;
    };
    await (await fetch(`${product.url}/api/imports/${id}/events`)).text();
  };
  const see = async (sight: string): Promise<void> => {
    await page.goto(`${product.url}/proof?see=${sight}`);
  };
  const rows = (): Promise<string[]> => page.locator('uv-drift-list tbody tr').allInnerTexts();

  it('puts a new capture with a renamed class right, one and all, and the history goes on', async () => {
    await override();
    await captureAgain();
    expect((await draft()).formerCaptures).toBe(1);
    await see('drift');
    await page.getByRole('heading', { name: '2 overrides drifted' }).waitFor({ timeout: 60_000 });
    expect((await rows()).every((row) => row.includes('1 target no longer matched'))).toBeTrue();
    // Both pictures show the button, before as it was painted then.
    const before = page.locator('uv-drift-detail iframe').first().contentFrame().locator('.qs-go');
    await before.waitFor({ state: 'attached' });
    expect(await before.evaluate((node) => getComputedStyle(node).backgroundColor)).toBe('rgb(138, 54, 0)');
    await page.getByRole('button', { name: 'Put it right' }).click();
    await page.getByRole('heading', { name: '1 override drifted' }).waitFor();
    expect((await selectors()).some((selector) => selector.includes('qs-reserve'))).toBeTrue();
    // Keeping the old selector beside it makes a list of both.
    await page.getByText('Keep the old selector beside it').click();
    await page.getByText('qs-reserve:hover, ').waitFor();
    await page.getByRole('button', { name: 'Undo' }).click();
    await page.getByRole('heading', { name: '2 overrides drifted' }).waitFor();
    await page.getByRole('button', { name: 'Put all right' }).click();
    await page.getByText('Every override reaches what it did and wins there, on Book').waitFor();
    expect((await selectors()).every((selector) => selector.includes('qs-reserve'))).toBeTrue();
    // Back past the new capture: what was set before it is taken back on the page as it is now.
    for (let i = 0; i < 2; i += 1) {
      const left = (await selectors()).join();
      await page.getByRole('button', { name: 'Undo' }).click();
      await eventually(selectors, (now) => now.join() !== left);
    }
    expect(await selectors()).toEqual([]);
    await page.getByRole('button', { name: 'Redo' }).click();
    await eventually(selectors, (now) => now.length === 2);
    await page.getByRole('button', { name: 'All is right as it is' }).click();
    await page.getByText('No page was captured again').waitFor();
    expect((await draft()).formerCaptures).toBe(0);
  }, 160_000);

  it('goes through parts on pages by eye, keeps what was looked at, and asks again for what changed since', async () => {
    await see('eye');
    const all = page.getByRole('grid', { name: 'Parts by pages, looked at or not' });
    const cell = (name: string): ReturnType<Page['locator']> => all.getByRole('button', { name: `${name}: ` });
    await cell('Booking form, Book').waitFor({ timeout: 60_000 });
    expect(await cell('Newsletter pop-up, Journal').innerText()).toContain('not yet');
    await cell('Booking form, Book').focus();
    await page.keyboard.press('Enter');
    await page.getByRole('heading', { name: 'Booking form on Book' }).waitFor();
    await page.locator('uv-look-detail iframe').first().contentFrame().locator('.qs-go').waitFor({ state: 'attached' });
    await page.getByRole('button', { name: 'Looked at, next' }).click();
    // It goes on to the next by itself.
    await eventually(
      () => page.locator('uv-look-detail h2').innerText(),
      (title) => title !== 'Booking form on Book',
    );
    await page.reload();
    await cell('Booking form, Book').waitFor({ timeout: 60_000 });
    expect(await cell('Booking form, Book').innerText()).toContain('looked at');
    await override();
    await eventually(
      () => cell('Booking form, Book').innerText(),
      (words) => words.includes('changed since'),
    );
    expect(await cell('Consent bar, Book').innerText()).toContain('not yet');
  }, 160_000);

  it('makes a specimen, shows what no page does, and takes overrides on it that no visitor’s page spills into', async () => {
    await page.goto(`${product.url}/survey`);
    await page.getByRole('button', { name: 'Make a specimen' }).click();
    await page.getByText('made here, for what no page shows').waitFor();
    const bench = await BenchDriver.openIn(page.context(), product.url);
    await bench.openPage('Specimen');
    // A field that says it is refused stands on no page of the demo.
    const refused = '.uv-specimen-kinds input[aria-invalid]';
    await bench.find(refused);
    await bench.page.getByRole('button', { name: /^All alike/ }).click();
    await bench.settled();
    await bench.cell('Text, rest');
    await bench.typed('#8a1f1f');
    expect(await bench.framed(refused, 'color')).toBe('rgb(138, 31, 31)');
    expect(await bench.verdict()).toMatch(/no spill/);
    await bench.page
      .getByRole('navigation', { name: 'Views' })
      .getByRole('link', { name: /^Proof/ })
      .click();
    await bench.page.getByText('7 pages and the specimen').waitFor({ timeout: 60_000 });
    await bench.page
      .getByRole('grid')
      .getByRole('button', { name: /^Everything else, stays in: / })
      .waitFor();
    expect(await bench.page.locator('.title', { hasText: 'spills to' }).count()).toBe(0);
    // It is as it would be made now, until a page it is copied from changes.
    const stale = bench.page.locator('.notes li', { hasText: 'the specimen as it would be made now' });
    expect(await stale.count()).toBe(0);
    await captureAgain();
    await eventually(
      () => stale.count(),
      (count) => count === 1,
      60_000,
    );
  }, 160_000);

  it('proves a revision once it is saved, and keeps its counts beside those before', async () => {
    await page.goto(`${product.url}/bench`);
    await page.waitForSelector('uv-page-frame iframe');
    await override();
    await page.getByText('Draft not saved as a revision').waitFor();
    await page.getByRole('button', { name: 'Save revision' }).click();
    await page.getByLabel(/What changed/).fill('First');
    await page.getByRole('dialog').getByRole('button', { name: 'Save revision' }).click();
    const { proof } = await eventually(
      async () => (await draft()).revisions[0] ?? {},
      (revision) => revision.proof !== undefined,
      60_000,
    );
    expect(Object.keys(proof ?? {})).toEqual(['fails', 'toLookAt']);
    await page
      .getByRole('navigation', { name: 'Views' })
      .getByRole('link', { name: /^Proof/ })
      .click();
    const strip = page.getByRole('list', { name: 'Revisions, the oldest first' });
    await strip.getByText('Revision 1').waitFor();
    expect(await strip.innerText()).toMatch(/Revision 1\s*▲[\s\S]*\d/);
  }, 160_000);
});
