import { launchBrowser } from '../support/browser.js';
import { setUpBench } from '../support/on-bench.js';
import { eventually } from '../support/eventually.js';
import { BenchDriver, startProduct, temporaryFolder } from '../support/product.js';

const WILLOW = 'rgb(180, 88, 42)';
const WILLOW_DARK = 'rgb(138, 54, 0)';
const VIOLET_HIGH = 'rgb(91, 80, 238)';

describe('the Bench', () => {
  const on = setUpBench();

  it('opens on the Book page, the parts in their makers’ colours', async () => {
    expect(new URL(on.bench.page.url()).pathname).toBe('/bench');
    expect(await on.bench.page.locator('uv-parts-list .name').allInnerTexts()).toEqual([
      'Header and menu',
      'Booking form',
      'Consent bar',
      'Main content',
      'Footer',
      'Links in text',
      'Text highlight',
      'Scrollbar',
      'Focus ring',
    ]);
    expect(await on.bench.framed('.qs-go', 'background-color')).toBe('rgb(217, 217, 234)');
    expect(await on.bench.page.getByText('Nothing chosen yet').isVisible()).toBe(true);
  });

  it('outlines and names what is pointed at, and chooses on a click', async () => {
    const { x, y } = await on.bench.middleOf('.qs-apply');
    await on.bench.page.mouse.move(x, y);
    await on.bench.page
      .locator('uv-page-frame .tag')
      .filter({ hasText: /^button\.qs-apply$/ })
      .waitFor();
    const outline = await on.bench.page.locator('uv-page-frame .outline').boundingBox();
    expect(
      outline && x > outline.x && x < outline.x + outline.width && y > outline.y && y < outline.y + outline.height,
    ).toBe(true);
    await on.bench.choose('.qs-apply');
    expect(await on.bench.page.locator('aside .names h2').innerText()).toBe('Apply');
    expect(await on.bench.page.locator('uv-state-tile').count()).toBe(5);
  });

  it('gives the booking button’s hover the accent, through to a visitor’s mouse', async () => {
    await on.bench.choose('.qs-go');
    await on.bench.cell('Fill, hover');
    expect((await on.bench.plies())[0]).toContain('var(--qs-violet-hi) | booking.css 18');
    const frameBefore = await on.bench.page.evaluate(() => {
      const frame = document.querySelector<HTMLIFrameElement>('uv-page-frame iframe');
      (frame?.contentWindow as unknown as { uvMark: number }).uvMark = 1;
      return frame?.src;
    });
    await on.bench.value('Willow');
    await on.bench.value('Willow, 12 darker');
    const plies = await on.bench.plies();
    expect(plies[0]).toContain('Willow, 12 darker | your override .qs-root .qs-card button.qs-go:hover');
    expect(plies[1]).toContain('var(--qs-violet-hi) | booking.css 18 · earlier sheet');
    expect(await on.bench.framed('.qs-go', 'background-color')).toBe(WILLOW_DARK);
    expect(await on.bench.css()).toContain(
      '.qs-root .qs-card button.qs-go:hover {\n  background-color: var(--brand-willow-d12);\n}',
    );
    expect(await on.bench.verdict()).toMatch(/reaches 1 of 1[\s\S]*no spill[\s\S]*8\.\d : 1/);
    // Nothing was loaded again: the mark set before is still there.
    expect(
      await on.bench.page.evaluate(
        () =>
          (
            document.querySelector<HTMLIFrameElement>('uv-page-frame iframe')?.contentWindow as unknown as {
              uvMark?: number;
            }
          ).uvMark,
      ),
    ).toBe(1);
    expect(await on.bench.page.locator('uv-page-frame iframe').getAttribute('src')).toBe(
      frameBefore ? new URL(frameBefore).pathname + new URL(frameBefore).search : null,
    );
    expect(await on.bench.page.locator('.difference').count()).toBe(0);

    await on.bench.page.getByRole('button', { name: 'Publish…' }).click();
    await on.bench.page.getByLabel(/What changed/).fill('Booking button in willow');
    await on.bench.page.getByRole('button', { name: 'Publish', exact: true }).click();
    const address = await on.bench.page.locator('.address a').innerText();
    expect(new URL(address).port).not.toBe(new URL(on.product.url).port);

    const visitor = await (await on.browser.newContext({ viewport: { width: 1280, height: 800 } })).newPage();
    await visitor.goto(`${address}book.html`);
    const colorOf = (selector: string): Promise<string> =>
      visitor.evaluate(
        (wanted) => getComputedStyle(document.querySelector(wanted) ?? document.body).backgroundColor,
        selector,
      );
    expect(await colorOf('.qs-go')).toBe('rgb(217, 217, 234)');
    await visitor.hover('.qs-go');
    // A transition of the page takes its time.
    await eventually(
      () => colorOf('.qs-go'),
      (color) => color === WILLOW_DARK,
    );
    expect(await colorOf('.qs-apply')).toBe('rgb(255, 157, 46)');
    const lastLink = await visitor.evaluate(() => document.head.lastElementChild?.getAttribute('href'));
    expect(lastLink).toBe('veneer.css?r=1');
    await visitor.context().close();
  });

  it('shows true counts for each reach and rewrites the selector so that it wins', async () => {
    await on.bench.choose('.lede a');
    const counts = await on.bench.page.locator('uv-reach-switch .option').allInnerTexts();
    // Links in a shadow tree are out of reach.
    const links = await Promise.all(
      [1, 2, 3, 4, 5, 6, 7].map(
        async (id) =>
          (await (await fetch(`${on.product.url}/frame/sites/1/pages/${id}/`)).text())
            .replaceAll(/<template[\s\S]*?<\/template>/g, '')
            .match(/<a [^>]*href=/g)?.length ?? 0,
      ),
    );
    expect(counts.map((text) => text.replace(/\s+/g, ' '))).toEqual([
      'This one 1 element',
      'All alike 5 on 3 pages',
      `Everywhere ${links.reduce((a, b) => a + b, 0)} links, 7 pages`,
    ]);
    await on.bench.cell('Text, hover');
    await on.bench.value('Willow');
    expect(await on.bench.css()).toContain('.lede a:hover {\n  color: var(--brand-willow) !important;');
    expect(await on.bench.page.locator('uv-written-css .why').innerText()).toMatch(
      /^It says !important because css\/theme\.css .*a:hover does too\.$/,
    );
    expect(await on.bench.verdict()).toContain('reaches 5 of 5');
    let before = await on.bench.version();
    await on.bench.page.getByText('This one').click();
    await on.bench.changed(before);
    expect(await on.bench.css()).toMatch(/a:nth-of-type\(1\):hover \{\n {2}color: var\(--brand-willow\)/);
    expect(await on.bench.verdict()).toContain('reaches 1 of 1');
    await on.bench.value('River');
    expect(await on.bench.css()).toMatch(/a:nth-of-type\(1\):hover/);
    expect(await on.bench.framed('.lede a', 'color')).toBe('rgb(15, 74, 72)');
    before = await on.bench.version();
    await on.bench.page.getByText('Everywhere', { exact: true }).click();
    await on.bench.changed(before);
    expect(await on.bench.css()).toContain('a[href]');
    await on.bench.value('Ember');
    expect(await on.bench.css()).toContain('a[href]');
  });

  it('turns to rest for a new target, and keeps to it when the address of the last cell comes back late', async () => {
    await on.bench.choose('.qs-go');
    await on.bench.cell('Fill, hover');
    await on.bench.choose('.qs-title');
    const { page } = on.bench;
    await page.waitForURL(/property=color.*state=rest/);
    await on.bench.settled();
    expect(await page.locator('uv-states-grid [aria-pressed="true"]').first().getAttribute('aria-label')).toMatch(
      /^Text, rest:/,
    );
    await page.goBack();
    await page.waitForURL(/state=hover/);
    await on.bench.settled();
    expect(await page.locator('uv-states-grid [aria-pressed="true"]').first().getAttribute('aria-label')).toMatch(
      /^Fill, hover:/,
    );
  });

  it('takes a typed colour in any notation, and undoes and redoes', async () => {
    await on.bench.choose('.qs-title');
    await on.bench.typed('15, 74, 72');
    expect(await on.bench.framed('.qs-title', 'color')).toBe('rgb(15, 74, 72)');
    await on.bench.page.locator('uv-page-frame .glass').focus();
    await on.bench.page.keyboard.press('Control+z');
    await on.bench.settled();
    expect(await on.bench.framed('.qs-title', 'color')).toBe('rgb(58, 47, 191)');
    await on.bench.page.keyboard.press('Control+Shift+z');
    await on.bench.settled();
    expect(await on.bench.framed('.qs-title', 'color')).toBe('rgb(15, 74, 72)');
    await on.bench.page.getByLabel('Typed colour').fill('blurple');
    expect(await on.bench.page.locator('uv-value-picker .error').innerText()).toContain('"blurple" is no colour');
  });

  it('walks the lineage with the keyboard, into a pseudo-element and back', async () => {
    await on.bench.choose('.notice');
    const current = (): Promise<string> => on.bench.page.locator('uv-lineage-bar .current').innerText();
    await on.bench.page.locator('uv-page-frame .glass').focus();
    await on.bench.page.keyboard.press('ArrowDown');
    await on.bench.settled();
    expect(await current()).toBe('::before');
    expect((await on.bench.plies())[0]).toContain('inherit | theme.css');
    await on.bench.value('Ember');
    expect(await on.bench.css()).toContain('.notice::before');
    await on.bench.page.locator('uv-page-frame .glass').focus();
    await on.bench.page.keyboard.press('ArrowUp');
    await on.bench.settled();
    await on.bench.page.keyboard.press('ArrowUp');
    await on.bench.settled();
    expect(await current()).toBe('div');
    await on.bench.page.keyboard.press('ArrowDown');
    await on.bench.settled();
    await on.bench.page.keyboard.press('ArrowRight');
    await on.bench.settled();
    expect(await current()).toBe('p.lede');
  });

  it('overrides with the keyboard alone', async () => {
    const { page } = on.bench;
    await page.locator('uv-parts-list button').nth(1).focus();
    await page.keyboard.press('Enter');
    await page.waitForSelector('uv-states-grid');
    await on.bench.settled();
    await page.locator('uv-states-grid button.chosen').focus();
    await page.keyboard.press('ArrowRight');
    await page.keyboard.press('ArrowUp');
    await on.bench.settled();
    const before = await on.bench.version();
    await page.getByLabel('Typed colour').focus();
    await page.keyboard.type('#b4582a');
    await page.keyboard.press('Enter');
    await on.bench.changed(before);
    expect(await on.bench.verdict()).toContain('reaches 1 of 1');
    expect(await on.bench.css()).toMatch(/:hover \{\n {2}color: #b4582a;/);
  });

  it('keeps two tabs on one draft', async () => {
    const other = await BenchDriver.open(on.browser, on.product.url);
    await on.bench.choose('.qs-apply');
    await on.bench.value('Willow');
    await eventually(
      () => other.framed('.qs-apply', 'background-color'),
      (color) => color === WILLOW,
    );
    await other.page.context().close();
  });

  it('keeps eight tabs of one browser on one draft, over one connection', async () => {
    const first = await BenchDriver.open(on.browser, on.product.url);
    const context = first.page.context();
    let streams = 0;
    context.on('request', (request) => (streams += Number(request.url().endsWith('/api/events'))));
    const tabs = [];
    // A browser holds six connections to a server (common practice for HTTP/1.1): a seventh tab waited.
    for (let i = 0; i < 7; i += 1) {
      const page = await context.newPage();
      // Two more draw the page; the rest hold the Palette open, which is lighter.
      await page.goto(i < 2 ? first.page.url() : `${on.product.url}/palette`);
      await page
        .locator(i < 2 ? 'uv-page-frame iframe' : 'uv-palette-page')
        .first()
        .waitFor();
      tabs.push(page);
    }
    await first.choose('.qs-apply');
    await first.value('Willow');
    for (const page of tabs) await page.waitForFunction(() => document.body.innerText.includes('Draft not saved'));
    expect(streams).toBeLessThanOrEqual(1);
    await context.close();
  });

  it('has everything after a SIGKILL that was on the screen before it', async () => {
    await on.bench.choose('.qs-go');
    await on.bench.value('Willow');
    expect(await on.bench.framed('.qs-go', 'background-color')).toBe(WILLOW);
    await on.product.kill();
    await on.bench.page.locator('uv-value-picker').getByRole('button', { name: 'River', exact: true }).first().click();
    await on.bench.page.getByText('The server does not answer').waitFor();
    expect(await on.bench.framed('.qs-go', 'background-color')).toBe(WILLOW);
    on.product = await startProduct(on.folder.path);
    const again = await BenchDriver.open(on.browser, on.product.url);
    expect(await again.framed('.qs-go', 'background-color')).toBe(WILLOW);
    await again.page.locator('uv-page-frame .glass').focus();
    await again.page.keyboard.press('Control+z');
    await again.settled();
    expect(await again.framed('.qs-go', 'background-color')).toBe('rgb(217, 217, 234)');
    await again.page.context().close();
  });

  it('lets nothing of a captured page run or leave the machine', async () => {
    const outside: string[] = [];
    on.bench.page.on('request', (request) => {
      if (!request.url().startsWith(on.product.url) && !request.url().startsWith('data:')) outside.push(request.url());
    });
    await on.bench.page.reload();
    await on.bench.drawn();
    expect(outside).toEqual([]);
    const sandbox = await on.bench.page.locator('uv-page-frame iframe').getAttribute('sandbox');
    expect(sandbox).toBe('allow-same-origin');
  });

  it('still shows the page’s own hover where nothing was overridden', async () => {
    await on.bench.choose('.qs-go');
    await on.bench.cell('Fill, hover');
    expect(await on.bench.framed('.qs-go', 'background-color')).toBe(VIOLET_HIGH);
    await on.bench.cell('Fill, rest');
    expect(await on.bench.framed('.qs-go', 'background-color')).toBe('rgb(217, 217, 234)');
  });
});

describe('the Sheet', () => {
  it('shows, copies and downloads the compiled stylesheet, and saves revisions', async () => {
    const browser = await launchBrowser();
    const folder = temporaryFolder();
    const product = await startProduct(folder.path);
    const bench = await BenchDriver.open(browser, product.url);
    const { page } = bench;
    await page.context().grantPermissions(['clipboard-read', 'clipboard-write']);
    await page.getByRole('link', { name: /Sheet/ }).click();
    await page.getByText('The sheet is empty').waitFor();
    await page.getByRole('link', { name: /Bench/ }).click();
    await bench.drawn();
    await bench.choose('.qs-apply');
    await bench.value('Reed');
    await page.getByRole('link', { name: /Sheet/ }).click();
    await page.getByRole('button', { name: 'Copy', exact: true }).click();
    const expected =
      '/* Palette */\n:root {\n  --brand-reed: #6d8a35;\n}\n\n/* Booking form */\n.qs-root .qs-apply {\n  background-color: var(--brand-reed);\n}\n';
    expect(await page.evaluate(() => navigator.clipboard.readText())).toBe(expected);
    const [download] = await Promise.all([
      page.waitForEvent('download'),
      page.getByRole('button', { name: 'Download', exact: true }).click(),
    ]);
    expect(download.suggestedFilename()).toBe('veneer.css');
    await page.getByRole('button', { name: 'Save revision' }).click();
    await page.locator('.p-dialog').getByRole('button', { name: 'Save revision' }).click();
    await page.locator('uv-revision-list li.chosen', { hasText: 'the draft' }).waitFor();
    expect(await page.locator('uv-top-bar .standing').innerText()).toBe('Draft is revision 1');
    await product.kill();
    await browser.close();
    folder.remove();
  });
});
