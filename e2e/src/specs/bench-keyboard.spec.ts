import { setUpBench } from '../support/on-bench.js';

// No pointer in this file: everything by keys, the way someone without one works.
describe('the Bench, by keyboard alone,', () => {
  const on = setUpBench();
  const press = (key: string): Promise<void> => on.bench.page.keyboard.press(key);

  /** Finds an element by text or selector. */
  async function find(text: string): Promise<void> {
    const field = on.bench.page.getByLabel('Find on this page');
    await field.focus();
    await field.fill(text);
    await press('Enter');
    await on.bench.page.waitForSelector('uv-states-grid');
    await on.bench.settled();
  }

  /** Goes to a cell of the grid with the arrow keys. */
  async function cell(name: string): Promise<void> {
    await on.bench.page.locator('uv-states-grid td button.chosen').focus();
    const [row, state] = name.split(', ');
    const at = async (): Promise<string> =>
      (await on.bench.page.evaluate(() => document.activeElement?.getAttribute('aria-label') ?? '')).split(':')[0];
    const rows = await on.bench.page.locator('uv-states-grid tbody th').allInnerTexts();
    const states = (await on.bench.page.locator('uv-states-grid thead th').allInnerTexts()).map((text) =>
      text.toLowerCase(),
    );
    for (let i = 0; i < 20 && !(await at()).startsWith(`${row},`); i += 1)
      await step(rows.indexOf((await at()).split(',')[0]) < rows.indexOf(row) ? 'ArrowDown' : 'ArrowUp');
    for (let i = 0; i < 20 && (await at()) !== `${row}, ${state}`; i += 1)
      await step(states.indexOf((await at()).split(', ')[1]) < states.indexOf(state) ? 'ArrowRight' : 'ArrowLeft');
    expect(await at()).toBe(name);
  }

  async function step(key: string): Promise<void> {
    await press(key);
    await on.bench.settled();
  }

  /** Types a colour and takes it. */
  async function typeColor(text: string): Promise<void> {
    const before = await on.bench.version();
    await on.bench.page.locator('uv-cell-editor').getByLabel('Typed colour').focus();
    await on.bench.page.keyboard.type(text);
    await press('Enter');
    await on.bench.changed(before);
  }

  async function pressButton(name: string | RegExp): Promise<void> {
    const before = await on.bench.version();
    // What mends a finding is in the list that the foot opens into.
    const opener = on.bench.page.locator('uv-verdict-bar').getByRole('button', { name: /findings/ });
    if ((await opener.count()) > 0) {
      await opener.focus();
      await press('Enter');
    }
    await on.bench.page.locator('aside, uv-verdict-bar').getByRole('button', { name }).first().focus();
    await press('Enter');
    await on.bench.changed(before);
  }

  async function showPage(name: string): Promise<void> {
    await on.bench.page.getByRole('combobox', { name: 'Page', exact: true }).focus();
    await press('ArrowDown');
    const option = on.bench.page.getByRole('option', { name, exact: true });
    await option.waitFor();
    await on.bench.page.waitForTimeout(300);
    for (let i = 0; i < 10 && (await option.getAttribute('data-p-focused')) !== 'true'; i += 1) {
      await press('ArrowDown');
      await on.bench.page.waitForTimeout(60);
    }
    await press('Enter');
    await option.waitFor({ state: 'detached' });
    await on.bench.drawn();
    await on.bench.settled();
  }

  it('a link’s five states', async () => {
    await find('.lede a');
    for (const [state, color, css] of [
      ['rest', '#0f4a48', ''],
      ['visited', '#5a3f5c', ':visited'],
      ['hover', '#b4582a', ':hover'],
      ['focus', '#1d2b2a', ':focus'],
      ['pressed', '#a3262a', ':active'],
    ] as const) {
      await cell(`Text, ${state}`);
      await typeColor(color);
      expect(await on.bench.css()).toContain(`color: ${color}`);
      expect(await on.bench.css()).toContain(css);
    }
  });

  it('a button with a stronger hover, its repair taken, then undone', async () => {
    await find('.qs-go');
    await typeColor('#b4582a');
    await pressButton(/^Hover: /);
    expect(await on.bench.verdict()).not.toContain('hover still');
    await on.bench.page.locator('uv-page-frame .glass').focus();
    await press('Control+z');
    await on.bench.settled();
    await cell('Fill, rest');
    expect(await on.bench.verdict()).toContain('hover still');
  });

  it('an icon in ::before, a sale price’s strike-through, the current page', async () => {
    await find('.notice');
    await on.bench.page.locator('uv-page-frame .glass').focus();
    await step('ArrowDown');
    await typeColor('#0f4a48');
    expect(await on.bench.css()).toContain('.notice::before');
    await showPage('Trips');
    await find('.price s');
    await cell('Decoration, rest');
    await typeColor('#b4582a');
    expect(await on.bench.framed('.price s', 'text-decoration-color')).toBe('rgb(180, 88, 42)');
    await find('.pager li:nth-child(3) a');
    await cell('Fill, current page');
    await typeColor('#b4582a');
    expect(await on.bench.framed('.pager .is-current a', 'background-color')).toBe('rgb(180, 88, 42)');
    expect(await on.bench.framed('.pager li:nth-child(1) a', 'background-color')).toBe('rgb(255, 255, 255)');
  });

  it('a gradient, an overlay over a picture, a shadow part', async () => {
    await showPage('Home');
    await find('.hero .btn');
    await cell('Gradient, rest');
    await typeColor('#0f4a48');
    expect(await on.bench.framed('.hero .btn', 'background-image')).toContain('rgb(15, 74, 72)');
    await find('section.hero');
    await cell('Gradient, rest');
    await pressButton('Overlay over the picture');
    expect(await on.bench.framed('.hero', 'background-image')).toContain('river-morning.svg');
    await find('reading');
    await typeColor('#f7f3e9');
    expect(await on.bench.css()).toContain('river-level::part(reading)');
    expect(await on.bench.framedPart('[part=reading]', 'color', null)).toBe('rgb(247, 243, 233)');
  });

  it('selected text and the scrollbar', async () => {
    await on.bench.page.getByRole('button', { name: 'Text highlight' }).focus();
    await press('Enter');
    await on.bench.page.waitForSelector('uv-states-grid');
    await on.bench.settled();
    await typeColor('#0f4a48');
    expect(await on.bench.css()).toContain('::selection {');
    await on.bench.page.getByRole('button', { name: 'Scrollbar', exact: true }).focus();
    await press('Enter');
    await on.bench.settled();
    await typeColor('#b4582a');
    expect(await on.bench.css()).toContain('html::-webkit-scrollbar-thumb');
  });
});
