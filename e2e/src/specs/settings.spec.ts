import { PNG } from 'pngjs';
import type { Browser, BrowserContext, Page } from 'playwright-core';
import type { DraftDocument, SiteDocument } from '@upper-veneer/contract';
import { colorOfSetting, hexOf } from '@upper-veneer/core';
import { launchBrowser } from '../support/browser.js';
import { eventually } from '../support/eventually.js';
import { newContext, startProduct, temporaryFolder } from '../support/product.js';

/** Where each field shows in its maker's widget, as Chromium paints it: a point of an element, from its left and top, px; text is asked for its computed colour. */
const PAINTED: Readonly<
  Record<string, Readonly<Record<string, readonly [selector: string, what: 'fill' | 'color', hover?: true]>>>
> = {
  chat: {
    Bubble: ['button', 'fill'],
    'Bubble, pointer on it': ['button', 'fill', true],
    Sign: ['button', 'color'],
  },
  promo: {
    'Ground, left': ['a', 'fill'],
    Words: ['span', 'color'],
    Tab: ['b', 'fill'],
    'Words on the tab': ['b', 'color'],
  },
  'sign-up': {
    'Form background': ['body', 'fill'],
    'Form text': ['p', 'color'],
    Button: ['button', 'fill'],
    'Button text': ['button', 'color'],
  },
  bar: {
    Bar: ['a', 'fill'],
    Link: ['a', 'color'],
    'Fill, pointer on it': ['a', 'fill', true],
    'Link, pointer on it': ['a', 'color', true],
    'Active link': ['a[aria-current]', 'color'],
    'Fill of the active link': ['a[aria-current]', 'fill'],
  },
};

describe('settings', () => {
  const folder = temporaryFolder();
  let browser: Browser;
  let context: BrowserContext;
  let product: Awaited<ReturnType<typeof startProduct>>;
  let page: Page;
  let site: SiteDocument;
  beforeAll(async () => {
    [browser, product] = await Promise.all([launchBrowser(), startProduct(folder.path)]);
    context = await newContext(browser);
    await context.grantPermissions(['clipboard-read', 'clipboard-write']);
    page = await context.newPage();
    site = (await (await fetch(`${product.url}/api/sites/1`)).json()) as SiteDocument;
    await page.goto(`${product.url}/match`);
  }, 120_000);
  afterAll(async () => {
    await browser.close();
    await product.kill();
    folder.remove();
  });

  const host = (kind: 'site' | 'widgets'): string => site.hostUrl.replace('site-', `${kind}-`);
  const draft = async (): Promise<DraftDocument> =>
    (await (await fetch(`${product.url}/api/sites/1/draft`)).json()) as DraftDocument;
  const rows = (): ReturnType<Page['locator']> => page.locator('uv-settings-table tbody tr');
  /** Opens a part and reads what its maker offers. */
  const readOf = async (part: string, widget: string): Promise<void> => {
    await page.locator('uv-scope-list button', { hasText: part }).click();
    // A part that CSS reaches has settings besides.
    const besides = page.getByRole('button', { name: 'Its settings…' });
    const begin = page.getByRole('button', { name: 'Read the maker’s fields…' });
    await besides.or(begin).first().waitFor();
    if (await besides.isVisible()) await besides.click();
    await begin.click();
    await page.getByLabel('From the maker’s address').fill(`https://widgets.osier.example/settings/${widget}`);
    await page.getByRole('button', { name: 'Ask', exact: true }).click();
    await page.getByRole('button', { name: 'Take them over' }).click();
    await rows().first().waitFor();
  };
  /** What each field is to hold: name and text as they stand on the screen. */
  const planned = async (): Promise<ReadonlyMap<string, string>> => {
    const cells = await rows().evaluateAll((lines) =>
      lines.map((line) => [
        line.querySelector('td:nth-child(1) strong')?.textContent ?? '',
        line.querySelector('td:nth-child(4) code')?.textContent ?? '',
      ]),
    );
    return new Map(cells.map(([name, text]) => [name.trim(), text.trim()]));
  };
  /** Hex of what a visitor's browser paints of a field. */
  const paintedHex = async (
    visitor: Page,
    [selector, what, isHovered]: readonly [string, 'fill' | 'color', true?],
  ): Promise<string> => {
    const element = visitor.locator(selector).first();
    if (isHovered) await element.hover();
    else await visitor.mouse.move(700, 500);
    if (what === 'color')
      return element.evaluate((node) => {
        const [r, g, b] = (getComputedStyle(node).color.match(/[\d.]+/g) ?? []).map(Number);
        return `#${[r, g, b].map((channel) => channel.toString(16).padStart(2, '0')).join('')}`;
      });
    const { data, width } = PNG.sync.read(await element.screenshot());
    const at = 4 * (width * 8 + Math.min(12, width - 1));
    // A round one has its fill further in.
    const inside = selector === 'button' ? 4 * (width * 12 + Math.floor(width / 2)) : at;
    return `#${[...data.subarray(inside, inside + 3)].map((channel) => channel.toString(16).padStart(2, '0')).join('')}`;
  };
  const differingOf = async (widget: string, wanted: ReadonlyMap<string, string>): Promise<string[]> => {
    const visitor = await context.newPage();
    await visitor.goto(`${host('widgets')}widgets/${widget}.html`);
    const { settings } = await draft();
    const sheet = settings.find(({ address }) => address.endsWith(`/${widget}`));
    const differing: string[] = [];
    for (const [name, where] of Object.entries(PAINTED[widget])) {
      const field = sheet?.fields.find((own) => own.name === name);
      const color = field && colorOfSetting(field, wanted.get(name) ?? '');
      const hex = await paintedHex(visitor, where);
      if (!color || hexOf(color) !== hex) differing.push(`${name}: ${wanted.get(name)} is painted ${hex}`);
    }
    await visitor.close();
    return differing;
  };

  it('of the chat bubble go from found to seen by a visitor, by the maker’s address', async () => {
    await readOf('Chat bubble', 'chat');
    const wanted = await planned();
    expect([...wanted.keys()]).toEqual(['Bubble', 'Bubble, pointer on it', 'Sign']);
    // The picture is drawn by its own document, with what is planned.
    const drawn = page.frameLocator('uv-framed-picture iframe').last().locator('button');
    await drawn.waitFor();
    await page.waitForFunction(
      (hex) => {
        const frame = [...document.querySelectorAll<HTMLIFrameElement>('uv-framed-picture iframe')].at(-1);
        const button = frame?.contentDocument?.querySelector('button');
        const [r, g, b] = (button ? getComputedStyle(button).backgroundColor : '').match(/\d+/g) ?? [];
        return `#${[r, g, b].map((channel) => Number(channel).toString(16).padStart(2, '0')).join('')}` === hex;
      },
      wanted.get('Bubble')?.toLowerCase() ?? '',
    );
    await page.getByRole('button', { name: /^Send/ }).click();
    await page.locator('uv-settings-view .state', { hasText: '2 handed over' }).waitFor();
    expect(await differingOf('chat', wanted)).toEqual([]);
    const visitor = await context.newPage();
    await visitor.goto(`${site.hostUrl}index.html`);
    const bubble = visitor.frameLocator('iframe.tk-bubble').locator('button');
    await bubble.waitFor();
    expect(await bubble.evaluate((node) => getComputedStyle(node).backgroundColor)).toBe(
      await visitor.evaluate(
        (css) => {
          document.body.style.color = css;
          return getComputedStyle(document.body).color;
        },
        wanted.get('Bubble') ?? '',
      ),
    );
    await visitor.close();
  });

  for (const [part, widget] of [
    ['Promotion unit', 'promo'],
    ['Newsletter pop-up', 'sign-up'],
    ['Header and menu', 'bar'],
  ] as const)
    it(`of ${part} are typed over there one after another, as they are copied, and painted as planned`, async () => {
      await readOf(part, widget);
      if (widget === 'promo') {
        await page.getByText('Stand out', { exact: true }).click();
        await rows().first().getByText('accent', { exact: true }).waitFor();
      }
      const wanted = await planned();
      const maker = await context.newPage();
      await maker.goto(`${host('widgets').replace(/\/$/, '')}/settings/${widget}`);
      const copied: string[] = [];
      const next = page.locator('uv-settings-view .acts button', { hasText: /^Copy / });
      for (let label = await labelOf(next); label !== ''; label = await labelOf(next)) {
        await next.click();
        const name = label.replace('Copy ', '');
        const text = await page.evaluate(() => navigator.clipboard.readText());
        copied.push(name);
        expect(text)
          .withContext(name)
          .toBe(wanted.get(name) ?? '');
        await maker.getByLabel(name, { exact: true }).fill(text);
        // The next one is ready, or none is left.
        await page.waitForFunction(
          (before) =>
            [...document.querySelectorAll('uv-settings-view .acts button')]
              .map((button) => button.textContent?.trim())
              .every((own) => own !== before),
          label,
        );
      }
      expect(copied.length).toBeGreaterThan(1);
      // In the maker's order.
      expect(copied).toEqual([...wanted.keys()].filter((name) => copied.includes(name)));
      await maker.getByRole('button', { name: 'Keep' }).click();
      await maker.getByRole('status').filter({ hasText: 'Taken' }).waitFor();
      await maker.close();
      expect(await differingOf(widget, wanted)).toEqual([]);
      // What stands there is asked for, and is as planned.
      await page.getByRole('button', { name: 'Check', exact: true }).click();
      await page.getByText('All stands there as planned.').waitFor({ state: 'attached' });
    });

  it('stand beside the templates a part can come in: the match goes along, and what no longer holds in one is told', async () => {
    await page.locator('uv-scope-list button', { hasText: 'Two-step checkout' }).click();
    await page.locator('uv-match-table tbody tr').first().waitFor();
    await page.getByRole('button', { name: '3 templates…' }).click();
    const dialog = page.getByRole('dialog');
    await dialog.getByRole('button', { name: 'Check all' }).click();
    const dark = dialog.locator('.forms > li', { hasText: 'Dark head' });
    await dark.getByText(/things hold no longer/).waitFor();
    expect(await dark.locator('.faults').innerText()).toContain('Text of First paddler');
    const centred = dialog.locator('.forms > li', { hasText: 'Centred' });
    await centred.getByText('text-align start → center').waitFor();
    // Switched, the frame's own engine paints the dark panel, and nothing of it is painted where it is switched back.
    const panel = (): Promise<string> =>
      page.evaluate(() => {
        const frame = document.querySelector<HTMLIFrameElement>('uv-scope-picture iframe');
        const element = frame?.contentDocument?.querySelector('.ck-panel');
        return element ? getComputedStyle(element).backgroundColor : '';
      });
    await dialog.getByRole('radio').nth(1).check();
    await page.getByRole('button', { name: 'Template: Dark head…' }).waitFor();
    expect(await eventually(panel, (color) => color === 'rgb(20, 35, 29)')).toBe('rgb(20, 35, 29)');
    await dialog.getByRole('radio').first().check();
    expect(await eventually(panel, (color) => color === 'rgb(255, 255, 255)')).toBe('rgb(255, 255, 255)');
    await dialog.getByRole('button', { name: 'Close' }).click();
  });

  it('say what is out of date after the palette changed, and lose nothing where the maker refuses', async () => {
    await page.locator('uv-scope-list button', { hasText: 'Chat bubble' }).click();
    const { swatches, roles, version } = await draft();
    await page.evaluate(
      async ({ list, fills }) => {
        await fetch('/api/sites/1/palette', {
          method: 'PUT',
          headers: { 'content-type': 'application/json' },
          body: JSON.stringify({
            label: 'Another accent',
            swatches: list.map((own) => (own.name === 'Willow' ? { ...own, css: '#5a3fbc' } : own)),
            roles: fills.map(({ role, swatchId, shade }) => ({
              role,
              swatch: list.find(({ id }) => id === swatchId)?.name,
              shade,
            })),
          }),
        });
      },
      { list: swatches, fills: roles },
    );
    await page.locator('uv-settings-view .state', { hasText: 'differ there' }).waitFor();
    expect((await draft()).version).toBeGreaterThan(version);
    // More writes than the maker takes.
    for (let i = 0; i < 12; i += 1)
      await fetch(`${host('widgets').replace('widgets-1.', '')}settings/chat`, {
        method: 'PUT',
        headers: { 'content-type': 'application/json' },
        body: '{"values":{"Bubble":"#000000"}}',
      });
    const before = (await draft()).settings;
    await page.getByRole('button', { name: /^Send/ }).click();
    await page.locator('.p-toast', { hasText: 'ask again in' }).waitFor();
    expect((await draft()).settings).toEqual(before);
  });
});

/** Text of a button; empty where there is none. */
async function labelOf(button: ReturnType<Page['locator']>): Promise<string> {
  return (await button.count()) === 0 ? '' : ((await button.first().textContent()) ?? '').trim();
}
