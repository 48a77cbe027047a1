import { setUpBench } from '../support/on-bench.js';

const HOSTILE = `<!doctype html><style>* { all: initial !important; display: block !important } html body #x.y#x { color: red !important; background: url(javascript:alert(1)) } .a { color: var(--a) } :root { --a: var(--b); --b: var(--a) }</style>
<body><script>document.title = 'ran'</script><img src=x onerror="parent.document.title = 'ran'"><div id=x class="y a" onclick="document.title = 'ran'">hostile</div><a href="javascript:document.title='ran'">link</a>
<h1 class="${'long-class-name-'.repeat(20)}" style="color: #777 !important">${'A name that does not end '.repeat(30)}</h1><svg><script>parent.document.title = 'ran'</script></svg><iframe srcdoc="<script>parent.document.title='ran'</script>"></iframe></body>`;
const CARDS = 400;
const LARGE = `<!doctype html><style>body { color: #222 } .go { background: #ddd; color: #333 } .go:hover { background: #bbb }</style><body>${Array.from({ length: CARDS }, (_, i) => `<section class="card c${i % 7}"><h2>Trip ${i}</h2><p>Down the <a href="t${i}">river</a></p><button class=go>Book</button></section>`).join('')}</body>`;

describe('the Bench, the hard way', () => {
  const on = setUpBench();

  /** Brings a page in as a site of its own, and shows it on the Bench. */
  async function bringIn(html: string): Promise<void> {
    const { page } = on.bench;
    await page.getByRole('link', { name: /Survey/ }).click();
    await page.getByRole('button', { name: 'Bring in a site…' }).click();
    await page
      .locator('input[type=file]:not([webkitdirectory])')
      .setInputFiles([{ name: 'index.html', mimeType: 'text/html', buffer: Buffer.from(html) }]);
    await page.getByRole('button', { name: 'Bring in', exact: true }).click();
    await page.getByRole('button', { name: 'Look at it' }).click();
    await page.waitForSelector('uv-import-dialog', { state: 'detached' });
    await page.getByRole('navigation').getByRole('link', { name: /Bench/ }).click();
    await on.bench.drawn();
  }

  /** Types a colour and waits for its verdict. */
  async function type(color: string): Promise<string> {
    const { page } = on.bench;
    await page.getByLabel('Typed colour').fill(color);
    await page.getByLabel('Typed colour').press('Enter');
    await page.locator('uv-verdict-bar', { hasText: /reaches|!important/ }).waitFor();
    await on.bench.settled();
    return on.bench.verdict();
  }

  it('runs nothing of a hostile page, shows nothing of its own in it, and still proves an override', async () => {
    await bringIn(HOSTILE);
    await on.bench.choose('#x');
    expect(await type('#0a7f5a')).toContain('reaches 1 of 1');
    expect(await on.bench.css()).toContain('#x#x#x {\n  color: #0a7f5a !important;');
    expect(await on.bench.framed('#x', 'color')).toBe('rgb(10, 127, 90)');
    expect(await on.bench.framed('style[data-uv-veneer]', 'display')).toBe('none');
    expect(await on.bench.page.title()).not.toContain('ran');
    await on.bench.choose('h1');
    expect(await type('#0a7f5a')).toContain('Its style attribute says !important, which no stylesheet can beat');
    const names = await on.bench.page
      .locator('aside .names')
      .evaluate((node) => node.scrollWidth <= node.clientWidth + 1);
    expect(names).toBe(true);
  });

  it('reaches all of 2,000 elements, and takes the change back', async () => {
    await bringIn(LARGE);
    await on.bench.choose('.go');
    await on.bench.cell('Fill, rest');
    const verdict = await type('#0a7f5a');
    expect(verdict).toContain(`reaches ${CARDS} of ${CARDS}`);
    expect(verdict).toContain('no spill');
    expect(await on.bench.css()).toContain('.go {\n  background-color: #0a7f5a;');
    await on.bench.page.getByRole('button', { name: /^Undo/ }).click();
    await on.bench.page.locator('uv-written-css', { hasText: 'nothing written' }).waitFor();
    expect(await on.bench.framed('.go', 'background-color')).toBe('rgb(221, 221, 221)');
  });

  it('keeps a colour that cannot pass, says so, and offers one that does', async () => {
    await on.bench.choose('.qs-go');
    await on.bench.cell('Fill, rest');
    await on.bench.typed('#808080');
    expect(await on.bench.verdict()).toMatch(/▲\s*fails:\s*text cannot be read, [12]\.\d : 1/);
    await on.bench.act('Take all');
    expect(await on.bench.framed('.qs-go', 'background-color')).toBe('rgb(128, 128, 128)');
    expect(await on.bench.verdict()).toMatch(/●\s*holds:\s*(?:4\.[5-9]|[5-9]\.\d|\d\d\.\d) : 1/);
  });

  it('keeps hover rules to devices that hover where the Sheet is told to', async () => {
    await on.bench.choose('.qs-go');
    await on.bench.cell('Fill, hover');
    await on.bench.value('Willow');
    const { page } = on.bench;
    await page.getByRole('navigation').getByRole('link', { name: /Sheet/ }).click();
    await page.getByLabel('Only on devices that hover').check();
    await page.locator('uv-sheet-page', { hasText: '@media (hover: hover) {' }).waitFor();
    await page.keyboard.press('Control+z');
    await page.locator('uv-sheet-page', { hasNotText: '@media (hover: hover) {' }).waitFor();
    expect(await page.getByLabel('Only on devices that hover').isChecked()).toBe(false);
  });

  it('shows the selected text of one element selected, in its own colours', async () => {
    await on.bench.openPage('Home');
    await on.bench.find('.hero .lede');
    await on.bench.step('::selection');
    await on.bench.cell('Fill, rest');
    await on.bench.value('River');
    expect(await on.bench.css()).toContain('.lede::selection {');
    expect(await on.bench.verdict()).toContain('no spill');
    expect(await on.bench.framedPart('.lede', 'background-color', '::selection')).toBe('rgb(15, 74, 72)');
    const selected = await on.bench.page.evaluate(
      () =>
        document
          .querySelector<HTMLIFrameElement>('uv-page-frame iframe')
          ?.contentDocument?.getSelection()
          ?.toString() ?? '',
    );
    expect(selected).toContain('Canoes, maps and a flask of tea');
  });

  it('says why a page could not be drawn, and draws it when asked again', async () => {
    const { page } = on.bench;
    await page.route(
      '**/frame/sites/1/pages/2/**',
      (route) =>
        route.fulfill({
          status: 500,
          contentType: 'application/problem+json',
          body: JSON.stringify({ title: 'Not drawn', detail: 'it could not be dressed in time' }),
        }),
      { times: 1 },
    );
    await page.getByRole('combobox', { name: 'Page', exact: true }).click();
    await page.getByRole('option').nth(1).click();
    const trouble = page.locator('uv-page-frame .loading');
    await trouble.getByText('It could not be dressed in time').waitFor();
    await trouble.getByRole('button', { name: 'Try again' }).click();
    await on.bench.drawn();
    expect(await on.bench.framed('body', 'display')).toBe('block');
  });
});
