import { launchBrowser } from '../support/browser.js';
import { BenchDriver, startProduct, temporaryFolder, type Product } from '../support/product.js';
import { SCREENS } from '../support/screens.js';
import type { Browser } from 'playwright-core';

describe('in another language', () => {
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

  it('every text of every screen is said in it, but for names that are data', async () => {
    const context = await browser.newContext({ viewport: { width: 1280, height: 800 }, reducedMotion: 'reduce' });
    await context.addInitScript(() => localStorage.setItem('language', 'en-XA'));
    const bench = await BenchDriver.openIn(context, product.url);
    const found = new Map<string, string>();
    for (const screen of SCREENS) {
      await screen.reach(bench);
      await bench.settled();
      for (const text of await bench.page.evaluate(unmarked)) if (!found.has(text)) found.set(text, screen.name);
    }
    (await import('node:fs')).writeFileSync('/tmp/unmarked.json', JSON.stringify([...found], null, 1));
    expect(found.size).toBe(0);
  }, 400_000);
});

/** Texts that are seen or read out, outside of marks. */
function unmarked(): string[] {
  const found = new Set<string>();
  const take = (text: string | null | undefined): void => {
    let depth = 0;
    let bare = '';
    for (const sign of text ?? '') {
      if (sign === '\u200b') depth += 1;
      else if (sign === '\u00ad') depth -= 1;
      else if (depth === 0) bare += sign;
    }
    bare = bare.replace(/\s+/g, ' ').trim();
    if (/[A-Za-z]{2,}/.test(bare)) found.add(bare);
  };
  for (const element of document.querySelectorAll('body *')) {
    if (element.closest('code, pre, .uv-mono, .cm-editor, script, style, svg')) continue;
    for (const name of ['aria-label', 'title', 'placeholder', 'alt']) take(element.getAttribute(name));
    // The words of one text may be spread over elements inside of it.
    if ([...element.childNodes].some((node) => node.nodeType === 3 && node.textContent?.trim())) {
      const own = element.parentElement;
      take(own && [...own.childNodes].some((node) => node.nodeType === 3 && node.textContent?.trim()) ? '' : element.textContent);
    }
  }
  return [...found];
}
