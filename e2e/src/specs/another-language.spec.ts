import { ROLE_NAMES, roleWords } from '@upper-veneer/core';
import { launchBrowser } from '../support/browser.js';
import { BenchDriver, startProduct, temporaryFolder, type Product } from '../support/product.js';
import { SCREENS } from '../support/screens.js';
import type { Browser } from 'playwright-core';

/** What is the same in every language: units, terms of the standards, names of notations and colour spaces. */
const TERMS =
  /"[^"]*"|\b(?:px|kb|ms|aaa?|css|html|https?|oklch|oklab|srgb|hex|rgb|wcag|url|svg|json|csv|screen|prefers-color-scheme: dark|sans-serif|serif|arial|georgia|liberation|design tokens|gimp palette|custom properties)\b/g;
/** Said by a component of others, in words that stand in its code; and the selector of a browser’s own rule. */
const OF_OTHERS = new Set(['dropdown trigger', 'button']);

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
    const found: string[] = [];
    const known = new Set<string>();
    for (const screen of SCREENS) {
      await screen.reach(bench);
      await bench.settled();
      const texts = await bench.page.evaluate(unmarked);
      const data = await dataOf(product.url);
      for (const text of texts) {
        const left = withoutData(text, data);
        if (!/\p{L}{2,}/u.test(left) || known.has(left) || OF_OTHERS.has(left)) continue;
        known.add(left);
        found.push(`${screen.name}: ${left} (${text.slice(0, 80)})`);
      }
    }
    expect(found.length).withContext(found.join('\n')).toBe(0);
    await context.close();
  }, 400_000);
});

/** Names and texts that a site holds, the longest first: its own, in whatever language they are. */
async function dataOf(url: string): Promise<string[]> {
  const found = new Set<string>();
  const take = (value: unknown): void => {
    if (typeof value === 'string') {
      // What a page reads is data wherever it is named.
      for (const text of value.includes('<') ? value.split(/<[^>]*>/) : [value])
        if (text.trim().length > 1 && text.length < 200) found.add(text.trim().toLowerCase());
    } else if (typeof value === 'object' && value !== null) Object.values(value).forEach(take);
  };
  for (const role of ROLE_NAMES) found.add(roleWords(role));
  for (const path of ['sites/1', 'sites/1/draft', 'sites/1/trials'])
    take(await (await fetch(`${url}/api/${path}`)).json());
  return [...found].sort((a, b) => b.length - a.length);
}

function withoutData(text: string, data: readonly string[]): string {
  let left = text.toLowerCase().replace(NOTATION, ' ').replace(TERMS, ' ');
  for (const own of data) left = left.replaceAll(own, ' ');
  return left.replace(/\s+/g, ' ').trim();
}

/** Files, selectors, tags and figures. */
const NOTATION = /[#.]?[\w-]+(?:\.[\w-]+)+|[#.][a-z][\w-]*|<[^>]*>|#[\w-]+|\b(?:rgba?|hsl|oklch)\([^)]*\)|\b\d[\w.]*/g;

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
    if (element.closest('[translate=no], code, pre, .uv-mono, .cm-editor, script, style, svg')) continue;
    for (const name of ['aria-label', 'title', 'placeholder', 'alt']) take(element.getAttribute(name));
    // The words of one text may be spread over elements inside of it.
    if ([...element.childNodes].some((node) => node.nodeType === 3 && node.textContent?.trim())) {
      const own = element.parentElement;
      take(
        own && [...own.childNodes].some((node) => node.nodeType === 3 && node.textContent?.trim())
          ? ''
          : element.textContent,
      );
    }
  }
  return [...found];
}
