import { axeOn } from '../support/checked-by-axe.js';
import { launchBrowser } from '../support/browser.js';
import { BenchDriver, startProduct, temporaryFolder, type Product } from '../support/product.js';
import { WALKS } from '../support/screens/screens.js';
import { isWhole, turn } from '../support/whole-run.js';
import type { Browser } from 'playwright-core';

/** Windows as wide as asked, in both lights; 640 x 400 is what 1280 x 800 holds at 200 %. */
const WINDOWS = [
  { width: 1280, height: 800 },
  { width: 390, height: 844 },
  { width: 640, height: 400 },
] as const;
const LIGHTS = ['light', 'dark'] as const;

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

  // Source: axe-core, an independent checker.
  it('has nothing for axe-core to find on any screen or dialog, in both lights, 1280 and 390 wide and at 200 %, and scrolls one way', async () => {
    const bench = await BenchDriver.openIn(
      await browser.newContext({ viewport: WINDOWS[0], reducedMotion: 'reduce' }),
      product.url,
    );
    const { page } = bench;
    const axe = await axeOn(page);
    const found: string[] = [];
    let looked = 0;
    // All of it in `npm run prove`; here one walk, each screen in one window and light, from commit to commit others.
    const walks = isWhole ? WALKS : [WALKS[turn % WALKS.length]];
    const round = Math.floor(turn / WALKS.length);
    const screens = walks.flat();
    for (const [i, screen] of screens.entries()) {
      await page.setViewportSize(WINDOWS[0]);
      await screen.reach(bench);
      await bench.settled();
      for (const window of isWhole ? WINDOWS : [WINDOWS[(i + round) % WINDOWS.length]]) {
        await page.setViewportSize(window);
        const panes = page.locator('uv-pane-switch p-togglebutton');
        // Where one panel is shown at a time, each is looked at, but for what lies over them all.
        const isApart = screen.panes !== false && (await panes.first().isVisible());
        for (let pane = 0; pane < (isApart ? await panes.count() : 1); pane += 1) {
          if (isApart) await panes.nth(pane).click();
          const lights = isWhole ? LIGHTS : [LIGHTS[(i + round) % 2]];
          for (const colorScheme of lights) {
            await page.emulateMedia({ colorScheme });
            const where = `${screen.name}, ${window.width} ${colorScheme}${isApart ? `, panel ${pane + 1}` : ''}`;
            found.push(
              ...(await axe(colorScheme === 'light' ? undefined : 'colors')).map((text) => `${where}: ${text}`),
            );
            looked += 1;
          }
          // A message that nobody put into words.
          if (await page.evaluate(() => document.documentElement.outerHTML.includes('[object Object]')))
            found.push(`${screen.name}: shows a message without its words`);
          const over = await page.evaluate(
            () => document.documentElement.scrollWidth - document.documentElement.clientWidth,
          );
          if (over > 0) found.push(`${screen.name}, ${window.width}: ${over} px to scroll sideways`);
        }
      }
    }
    expect(found.length).withContext(found.slice(0, 60).join('\n')).toBe(0);
    expect(looked).toBeGreaterThan(screens.length * (isWhole ? 3 * LIGHTS.length : 1) - 1);
    for (
      ;
      (
        await fetch(`${product.url}/api/sites/1/undo`, {
          method: 'POST',
          headers: { 'content-type': 'application/json' },
          body: '{}',
        })
      ).ok;
    );
    await page.context().close();
  }, 400_000);

  describe('by keyboard', () => {
    let bench: BenchDriver;
    beforeEach(async () => {
      bench = await BenchDriver.openIn(
        await browser.newContext({ viewport: { width: 1280, height: 800 } }),
        product.url,
      );
    });
    afterEach(async () => bench.page.context().close());

    /** Name of what has the focus; empty for nothing, and for what is switched off. */
    const focused = (): Promise<string> =>
      bench.page.evaluate(() => {
        const { activeElement } = document;
        if (activeElement === document.body || activeElement === null || (activeElement as HTMLButtonElement).disabled)
          return '';
        return (
          activeElement.getAttribute('aria-label') ??
          (activeElement.textContent?.trim().slice(0, 40) || activeElement.localName)
        );
      });
    /** Waits until something has the focus that is, or is not, what had it. */
    const focusIs = async (isWanted: (name: string) => boolean): Promise<string> => {
      let name = await focused();
      for (const until = Date.now() + 5_000; !isWanted(name) && Date.now() < until;) name = await focused();
      return name;
    };

    it('gets past the bar, and the page answers the first arrow', async () => {
      const { page } = bench;
      await page.keyboard.press('Tab');
      expect(await focused()).toContain('to the view');
      await page.keyboard.press('Enter');
      expect(await page.evaluate(() => document.activeElement?.localName)).toBe('main');
      await page.locator('uv-page-frame .glass').focus();
      await page.keyboard.press('ArrowDown');
      await page.waitForSelector('uv-states-grid');
      await page.locator('uv-app > [role=status]', { hasText: 'body' }).waitFor({ state: 'attached' });
      await page.keyboard.press('Tab');
      expect(await page.evaluate(() => document.activeElement?.closest('uv-page-frame'))).toBeNull();
    });

    it('keeps the focus when dialogs close, the selector is edited, and undo or clear goes', async () => {
      const { page } = bench;
      await bench.choose('.qs-go');
      await bench.cell('Fill, rest');
      await bench.typed('#0a6f5a');
      for (const [name, closing] of [
        ['Edit selector', 'Escape'],
        ['Pages and matches…', 'Escape'],
        ['Save revision', 'Escape'],
        ['More about this element', 'Escape'],
      ] as const) {
        await page.getByRole('button', { name }).focus();
        await page.keyboard.press('Enter');
        const isOpener = (text: string): boolean => text !== '' && (name.startsWith(text) || text.startsWith(name));
        // The focus goes into what opens, and back to what opened it.
        const inside = await focusIs((text) => text !== '' && !isOpener(text));
        expect(inside !== '' && !isOpener(inside))
          .withContext(`${name}, open: ${inside}`)
          .toBeTrue();
        await page.keyboard.press(closing);
        const back = await focusIs(isOpener);
        expect(isOpener(back)).withContext(`${name}, closed: ${back}`).toBeTrue();
      }
      await page.getByRole('button', { name: 'Clear', exact: true }).focus();
      await page.keyboard.press('Enter');
      await bench.settled();
      expect(await focusIs((text) => text !== ''))
        .withContext('cleared')
        .not.toBe('');
      while (await page.getByRole('button', { name: 'Undo' }).isEnabled()) {
        await page.getByRole('button', { name: 'Undo' }).focus();
        await page.keyboard.press('Enter');
        await bench.settled();
      }
      expect(await focusIs((text) => text !== ''))
        .withContext('undone')
        .not.toBe('');
    });

    it('shows the ring of two tones on fields, and says nothing of a colour half typed', async () => {
      const { page } = bench;
      await bench.choose('.qs-go');
      const field = page.getByLabel('Typed colour');
      await field.focus();
      // It grows in.
      await page.waitForFunction(() => {
        const { outlineWidth, boxShadow } = getComputedStyle(document.activeElement as Element);
        return outlineWidth === '2px' && boxShadow.endsWith('4px');
      });
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
    const cells = await bench.page.locator('uv-states-grid td button span:not(.worded)').evaluateAll((nodes) =>
      nodes
        .map((node) => getComputedStyle(node))
        .filter(({ backgroundImage }) => backgroundImage !== 'none')
        .map(({ forcedColorAdjust }) => forcedColorAdjust),
    );
    expect(cells.length).toBeGreaterThan(5);
    expect([...new Set(cells)]).toEqual(['none']);
    // The page judged keeps its own colours, and what is chosen has a real outline.
    expect(await bench.framed('.qs-go', 'background-color')).not.toBe('rgb(255, 255, 255)');
    expect(await bench.page.locator('.outline.chosen').evaluate((node) => getComputedStyle(node).outlineStyle)).toBe(
      'solid',
    );
    const lost = await bench.page
      .locator('uv-value-picker .swatch, uv-color-chip, uv-plies-list [style*="background"]')
      .evaluateAll((nodes) =>
        nodes
          .filter((node) => getComputedStyle(node).forcedColorAdjust !== 'none')
          .map((node) => node.className || node.localName),
      );
    expect([...new Set(lost)]).toEqual([]);
    await context.close();
  });
});
