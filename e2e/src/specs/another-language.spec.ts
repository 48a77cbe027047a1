import { MARKED, MARKS } from '@upper-veneer/words';
import { demoDocuments } from '../support/demo-pages.js';
import { setUpBench } from '../support/on-bench.js';
import { SCREENS } from '../support/screens/screens.js';

/** What is the same in every language: units, terms of the standards, names of notations and colour spaces. */
const TERMS =
  /"[^"]*"|\b(?:px|kb|ms|aaa?|css|html|shadow|https?|oklch|oklab|srgb|hex|rgb|wcag|url|svg|json|csv|screen|prefers-color-scheme: dark|sans-serif|serif|arial|georgia|liberation|design tokens|gimp palette|custom properties|background-color)\b/g;
/** Said by components of others, in words that stand in their code; and the selector of a browser’s own rule. */
const OF_OTHERS = new Set(['dropdown trigger', 'option list', 'button']);

describe('in another language', () => {
  const on = setUpBench();

  it('every text of every screen is said in it, but for names that are data', async () => {
    const { page } = on.bench;
    await page.evaluate((tag) => localStorage.setItem('language', tag), MARKED);
    await page.reload();
    await on.bench.drawn();
    const read = await page.evaluate(wordsOfPages, demoDocuments());
    const found: string[] = [];
    const known = new Set<string>();
    for (const screen of SCREENS) {
      await screen.reach(on.bench);
      await on.bench.settled();
      const texts = await page.evaluate(unmarked);
      // Names that are made as one looks, such as those of proposed parts.
      const shown = await page.locator('[translate=no]').allInnerTexts();
      const names = [
        ...shown.map((text) => text.trim().toLowerCase()),
        ...(await namesAt(on.product.url)),
        ...read,
      ].sort((a, b) => b.length - a.length);
      for (const text of texts) {
        const left = withoutNames(text, names);
        if (left === '' || known.has(left)) continue;
        known.add(left);
        found.push(`${screen.name}: ${left} (${text.slice(0, 80)})`);
      }
    }
    expect(found.length).withContext(found.join('\n')).toBe(0);
  }, 400_000);

  it('what the server refuses and leaves out is said in it as well', async () => {
    const { page } = on.bench;
    await page.evaluate((tag) => localStorage.setItem('language', tag), MARKED);
    await page.goto(`${on.product.url}/survey`);
    await page.getByRole('button', { name: 'Bring in a site…' }).click();
    const dialog = page.locator('uv-import-dialog');
    await dialog.getByText('Address', { exact: true }).click();
    await dialog.locator('#uv-address').fill('http://10.1.2.3/shop');
    const bring = dialog.locator('button[type=submit]');
    await bring.click();
    const refusal = dialog.locator('.problem', { hasText: 'an address of this machine or a private network' });
    expect(await refusal.textContent()).toContain(`${MARKS[1]}10.1.2.3${MARKS[0]}`);
    // A script among the files is left out, with the reason in the list.
    await dialog.getByText('Files', { exact: true }).click();
    await dialog
      .locator('input[type=file]')
      .first()
      .setInputFiles([
        { name: 'shop.html', mimeType: 'text/html', buffer: Buffer.from('<title>Shop</title><p>Baskets') },
        { name: 'shop.js', mimeType: 'text/javascript', buffer: Buffer.from('let a = 1') },
      ]);
    await bring.click();
    const reason = dialog.locator('li .uv-soft', { hasText: 'A script' });
    expect(await reason.textContent()).toBe(`${MARKS[0]}A script${MARKS[1]}`);
  }, 60_000);
});

/** What of the answers of the server is a name or a text that somebody gave; all else in them is a word of ours. */
const GIVEN = new Set([
  'name',
  'title',
  'label',
  'words',
  'text',
  'note',
  'path',
  'html',
  'value',
  'target',
  'surface',
]);

/** Names and texts that a site holds: its own, in whatever language they are. */
async function namesAt(url: string): Promise<string[]> {
  const found = new Set<string>(OF_OTHERS);
  const take = (value: unknown, key = ''): void => {
    if (Array.isArray(value)) value.forEach((own) => take(own, key));
    else if (typeof value === 'object' && value !== null)
      for (const [name, own] of Object.entries(value)) take(own, name);
    else if (typeof value === 'string' && GIVEN.has(key) && value.trim().length > 1 && value.length < 200)
      found.add(value.trim().toLowerCase());
  };
  for (const path of ['sites/1', 'sites/1/draft', 'sites/1/trials'])
    take(await (await fetch(`${url}/api/${path}`)).json());
  return [...found];
}

/** What pages read, and how their elements are named. */
function wordsOfPages(pages: readonly string[]): string[] {
  const found = new Set<string>();
  const within = (root: ParentNode): Element[] =>
    [...root.querySelectorAll('*')].flatMap((own) => [
      own,
      ...(own instanceof HTMLTemplateElement ? within(own.content) : []),
    ]);
  for (const html of pages)
    for (const element of within(new DOMParser().parseFromString(html, 'text/html'))) {
      // As a whole, and as it is cut where another element stands in it.
      const whole: string[] = [];
      const walk = document.createTreeWalker(element, NodeFilter.SHOW_TEXT);
      while (walk.nextNode()) whole.push(walk.currentNode.nodeValue ?? '');
      const own = [...element.childNodes].flatMap((node) =>
        node.nodeType === Node.TEXT_NODE ? [node.nodeValue ?? ''] : [],
      );
      const texts = [
        element.textContent,
        whole.join(' '),
        ...own,
        own.join(' '),
        ...[...element.attributes].map(({ value }) => value),
        ...element.classList,
      ];
      for (const text of [element.localName, ...texts]) {
        const read = (text ?? '').replace(/\s+/g, ' ').trim().toLowerCase();
        if (read.length > 1) found.add(read).add(read.replace(/[-_]+/g, ' '));
      }
    }
  return [...found];
}

/** What of a text is neither a name as a whole, nor a term, a file, a selector or a figure. */
function withoutNames(text: string, names: readonly string[]): string {
  let left = text
    .toLowerCase()
    .split('·')
    .filter((part) => !isName(part.trim(), names))
    .join('·');
  // Some names have the signs in them that part names from each other.
  for (const name of names) if (/[\s,·:]/.test(name)) left = left.replaceAll(name, '·');
  return left
    .replace(NOTATION, '·')
    .replace(TERMS, '·')
    .split(/[·,:;/()…▲◆●▪–—→]+/)
    .map((part) => part.trim())
    .filter((part) => /\p{L}{3,}/u.test(part) && !isName(part, names))
    .join(' · ');
}

/** A name, or what a long text of a page was cut to. */
function isName(part: string, names: readonly string[]): boolean {
  return names.includes(part) || (part.length > 20 && names.some((name) => name.includes(part)));
}

/** Addresses, files, selectors, custom properties, tags and figures. */
const NOTATION =
  /https?:\/\/\S+|(?:\/\w+){2,}|--[\w-]+|[#.]?[\w-]+(?:\.[\w-]+)+|[#.][a-z][\w-]*|<[^>]*>|#[\w-]+|:[a-z][\w-]*|\b(?:rgba?|hsl|oklch)\([^)]*\)|\b\d[\w.]*/g;

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
      // What is said parts the values in it from each other.
      if (depth > 0) bare += '·';
    }
    bare = bare
      .replace(/[\s·]*·[\s·]*/g, ' · ')
      .replace(/\s+/g, ' ')
      .trim();
    if (/[A-Za-z]{2,}/.test(bare)) found.add(bare);
  };
  for (const element of document.querySelectorAll('body *')) {
    if (element.closest('[translate=no], code, pre, .uv-mono, .cm-editor, script, style, svg')) continue;
    for (const name of ['aria-label', 'title', 'placeholder', 'alt']) take(element.getAttribute(name));
    for (const node of element.childNodes) if (node.nodeType === Node.TEXT_NODE) take(node.textContent);
  }
  return [...found];
}
