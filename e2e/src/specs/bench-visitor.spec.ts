import type { Page } from 'playwright-core';
import { newContext } from '../support/product.js';
import { setUpBench } from '../support/on-bench.js';

const RIVER = 'rgb(15, 74, 72)';
const WILLOW = 'rgb(180, 88, 42)';

// From the page as it arrives to what a visitor's browser shows after publishing, by the stand-in host.
describe('from start to published,', () => {
  const on = setUpBench();

  /** Publishes the draft, and opens the site as a visitor. */
  async function published(): Promise<{
    readonly said: string;
    readonly open: (path: string) => Promise<Page>;
    readonly close: () => Promise<void>;
  }> {
    const { page } = on.bench;
    await page.getByRole('button', { name: 'Publish…' }).click();
    const check = page.locator('.p-dialog .check', { hasText: /none fails|fail somewhere/ });
    await check.waitFor({ timeout: 60_000 });
    const said = await check.innerText();
    await page
      .locator('.p-dialog')
      .getByRole('button', { name: /^Publish/ })
      .click();
    const address = await page.locator('.address a').innerText();
    const context = await newContext(on.browser);
    return {
      said,
      open: async (path) => {
        const visitor = await context.newPage();
        await visitor.goto(`${address}${path}`);
        return visitor;
      },
      close: () => context.close(),
    };
  }
  const computed = (page: Page, selector: string, property: string): Promise<string[]> =>
    page
      .locator(selector)
      .evaluateAll(
        (elements, name) => elements.map((element) => getComputedStyle(element).getPropertyValue(name)),
        property,
      );

  it('a group of buttons, chosen by how it is drawn, leaves the others alone', async () => {
    const { bench } = on;
    await bench.openPage('Gear');
    await bench.find('.gear button, .gear .btn');
    await bench.page.locator('uv-reach-groups .link').first().click();
    const group = bench.page.locator('.p-popover .group').first();
    const [, count] = /(\d+) on \d+ page/.exec(await group.innerText()) ?? [];
    await group.click();
    await bench.settled();
    await bench.cell('Fill, rest');
    await bench.value('River');
    expect(await bench.verdict()).toContain(`reaches ${count} of ${count}`);
    expect(await bench.verdict()).toContain('no spill');
    const visitor = await published();
    const gear = await visitor.open('gear.html');
    const fills = await computed(gear, 'button, .btn', 'background-color');
    expect(fills.filter((fill) => fill === RIVER).length).toBeGreaterThan(0);
    expect(await computed(gear, '.cb-btn', 'background-color')).not.toContain(RIVER);
    await visitor.close();
  });

  it('links in text change, the menu, buttons and foot lists are left alone, and what cannot be read is said before it goes out', async () => {
    const { bench } = on;
    const before = await (await bench.page.context().newPage()).goto(`${on.product.url}/api/sites/1`);
    const { hostUrl } = (await before?.json()) as { hostUrl: string };
    const plain = await bench.page.context().newPage();
    await plain.goto(`${hostUrl}book.html`);
    const menu = await computed(plain, '#masthead nav a', 'color');
    await bench.page.getByRole('button', { name: 'Links in text' }).click();
    await bench.page.waitForSelector('uv-states-grid');
    await bench.settled();
    await bench.value('Willow');
    expect(await bench.verdict()).toMatch(/reaches 33 of 33/);
    expect(await bench.verdict()).toMatch(/\d+ of \d+ texts cannot be read, worst \d\.\d : 1/);
    const visitor = await published();
    expect(visitor.said).toContain('1 of 1 overrides fail somewhere');
    const book = await visitor.open('book.html');
    expect(new Set(await computed(book, '.lede a', 'color'))).toEqual(new Set([WILLOW]));
    expect(await computed(book, '#masthead nav a', 'color')).toEqual(menu);
    await visitor.close();
  });

  it('a switch is off, on and locked as it was drawn, in the brand’s colours', async () => {
    const { bench } = on;
    await bench.openPage('Members');
    await bench.find('.pref-track');
    await bench.cell('Fill, checked');
    await bench.value('River');
    const visitor = await published();
    const members = await visitor.open('members.html');
    expect(await computed(members, '.pref-track', 'background-color')).toEqual([
      'rgb(185, 189, 196)',
      RIVER,
      'rgb(169, 198, 234)',
    ]);
    await members.locator('.pref-tick').first().check({ force: true });
    expect((await computed(members, '.pref-track', 'background-color'))[0]).toBe(RIVER);
    await visitor.close();
  });

  it('the picture behind a heading keeps showing through an overlay of the brand’s colour', async () => {
    const { bench } = on;
    await bench.openPage('Home');
    await bench.find('.hero h1');
    await bench.step('section.hero');
    await bench.cell('Gradient, rest');
    await bench.act('Overlay over the picture');
    const visitor = await published();
    const home = await visitor.open('index.html');
    const [image] = await computed(home, '.hero', 'background-image');
    expect(image).toMatch(
      /linear-gradient\((?:color\(srgb|rgba).*\/ ?0?\.\d|linear-gradient\(rgba\(\d+, \d+, \d+, 0\.\d+\)/,
    );
    expect(image).toContain('river-morning.svg');
    await visitor.close();
  });
});
