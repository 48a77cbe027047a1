import { axeFindings } from '../support/checked-by-axe.js';
import { launchBrowser } from '../support/browser.js';
import { BenchDriver, startProduct, temporaryFolder, type Product } from '../support/product.js';
import { SCREENS } from '../support/screens.js';
import { isWhole } from '../support/whole-run.js';
import type { Browser } from 'playwright-core';

/** Windows as wide as asked; 640 x 400 is what 1280 x 800 holds at 200 %. */
const SETTINGS = [
  { name: '1280, light', width: 1280, height: 800, colorScheme: 'light' },
  { name: '390, dark', width: 390, height: 844, colorScheme: 'dark' },
  { name: '200 %, light', width: 640, height: 400, colorScheme: 'light' },
  ...(isWhole ? [
    { name: '1280, dark', width: 1280, height: 800, colorScheme: 'dark' }, { name: '390, light', width: 390, height: 844, colorScheme: 'light' }, { name: '200 %, dark', width: 640, height: 400, colorScheme: 'dark' },
  ] as const : []),
] as const;

describe('the product itself', () => {
  let browser: Browser;
  let product: Product;
  const folder = temporaryFolder();
  beforeAll(async () => {
    browser = await launchBrowser();
    product = await startProduct(folder.path);
  });
  afterAll(async () => {
    await browser.close();
    await product.kill();
    folder.remove();
  });

  for (const { name, width, height, colorScheme } of SETTINGS) {
    // Source: axe-core, an independent checker.
    it(`has nothing for axe-core to find on any screen, ${name}`, async () => {
      const context = await browser.newContext({ viewport: { width, height }, colorScheme });
      const bench = await BenchDriver.openIn(context, product.url);
      const found: string[] = [];
      const sideways: string[] = [];
      for (const screen of SCREENS) {
        await screen.reach(bench);
        await bench.page.waitForTimeout(250);
        await bench.settled();
        found.push(...(await axeFindings(bench.page)).map((text) => `${screen.name}: ${text}`));
        const over = await bench.page.evaluate(() => document.documentElement.scrollWidth - document.documentElement.clientWidth);
        if (over > 0) sideways.push(`${screen.name}: ${over} px`);
      }
      expect(found.length).withContext(found.slice(0, 60).join('\n')).toBe(0);
      expect(sideways).toEqual([]);
      for (; (await fetch(`${product.url}/api/sites/1/undo`, { method: 'POST', headers: { 'content-type': 'application/json' }, body: '{}' })).ok;);
      await context.close();
    }, 180_000);
  }

  describe('by keyboard', () => {
    let bench: BenchDriver;
    beforeEach(async () => {
      bench = await BenchDriver.openIn(await browser.newContext({ viewport: { width: 1280, height: 800 } }), product.url);
    });
    afterEach(async () => bench.page.context().close());

    const focused = (): Promise<string> => bench.page.evaluate(() => {
      const { activeElement } = document;
      return activeElement === document.body || activeElement === null || (activeElement as HTMLButtonElement).disabled ? 'nothing' : activeElement.getAttribute('aria-label') ?? activeElement.textContent?.trim().slice(0, 40) ?? '';
    });
    const rest = (): Promise<void> => bench.page.waitForTimeout(450);

    it('gets past the bar, and the page answers the first arrow', async () => {
      const { page } = bench;
      await page.keyboard.press('Tab');
      expect(await focused()).toContain('to the view');
      await page.keyboard.press('Enter');
      expect(await page.evaluate(() => document.activeElement?.localName)).toBe('main');
      await page.locator('uv-page-frame .glass').focus();
      await page.keyboard.press('ArrowDown');
      await page.waitForSelector('uv-states-grid');
      await bench.settled();
      await rest();
      expect(await page.locator('uv-root > [role=status]').innerText()).toContain('body');
      await page.keyboard.press('Tab');
      expect(await page.evaluate(() => document.activeElement?.closest('uv-page-frame'))).toBeNull();
    });

    it('keeps the focus when dialogs close, the selector is edited, and undo or clear goes', async () => {
      const { page } = bench;
      await bench.choose('.qs-go');
      await bench.cell('Fill, rest');
      await bench.typed('#0a7f5a');
      for (const [name, closing] of [['Edit selector', 'Escape'], ['Pages and matches…', 'Escape'], ['Save revision', 'Escape'], ['More about this element', 'Escape']] as const) {
        await page.getByRole('button', { name }).focus();
        await page.keyboard.press('Enter');
        await rest();
        expect(await focused()).withContext(`${name}, open`).not.toBe('nothing');
        await page.keyboard.press(closing);
        await rest();
        const back = await focused();
        expect(name.startsWith(back) || back.startsWith(name)).withContext(`${name}, closed: ${back}`).toBeTrue();
      }
      await page.getByRole('button', { name: 'Clear', exact: true }).focus();
      await page.keyboard.press('Enter');
      await bench.settled();
      await rest();
      expect(await focused()).withContext('cleared').not.toBe('nothing');
      while (await page.getByRole('button', { name: 'Undo' }).isEnabled()) {
        await page.getByRole('button', { name: 'Undo' }).focus();
        await page.keyboard.press('Enter');
        await bench.settled();
        await rest();
      }
      expect(await focused()).withContext('undone').not.toBe('nothing');
    });

    it('shows the ring of two tones on fields, and says nothing of a colour half typed', async () => {
      const { page } = bench;
      await bench.choose('.qs-go');
      const field = page.getByLabel('Typed colour');
      await field.focus();
      await rest();
      const ring = await field.evaluate((node) => [getComputedStyle(node).outlineWidth, getComputedStyle(node).boxShadow]);
      expect(ring[0]).toBe('2px');
      expect(ring[1]).toContain('4px');
      await page.keyboard.type('#0a7');
      for (const key of 'xyz') {
        await page.keyboard.type(key);
        expect(await field.getAttribute('aria-invalid')).toBe('false');
      }
      await page.waitForSelector('uv-typed-color .error');
      expect(await field.getAttribute('aria-invalid')).toBe('true');
    });
  });

  it('keeps the colours of samples where colours are forced', async () => {
    const context = await browser.newContext({ viewport: { width: 1280, height: 800 }, forcedColors: 'active' });
    const bench = await BenchDriver.openIn(context, product.url);
    await bench.choose('.qs-go');
    const lost = await bench.page.evaluate(() => [...document.querySelectorAll<HTMLElement>('uv-states-grid button .fill, uv-states-grid [style*=background], uv-value-picker .swatch, uv-color-chip, uv-color-chip i')].filter((node) => node.style.background !== '' || node.style.backgroundColor !== '').filter((node) => getComputedStyle(node).forcedColorAdjust !== 'none').map((node) => node.className || node.localName));
    expect([...new Set(lost)]).toEqual([]);
    await context.close();
  });
});
