import Color from 'colorjs.io';
import { PNG } from 'pngjs';
import { setUpBench } from '../support/on-bench.js';
import { eventually } from '../support/eventually.js';
import type { BenchDriver } from '../support/product.js';

const WILLOW = 'rgb(180, 88, 42)';
const LOUD = 'rgb(255, 31, 210)';

describe('the Bench', () => {
  const on = setUpBench();

  it('flashes a step and a ply while they are held, never in the veneer', async () => {
    await on.bench.choose('.qs-go');
    const hold = async (index: number, selector: string): Promise<void> => {
      const button = on.bench.page.locator(selector).nth(index);
      await button.hover();
      await on.bench.page.mouse.down();
      await on.bench.page.getByText('In the test colour').waitFor();
      expect(await on.bench.framed('.qs-go', 'background-color')).toBe(LOUD);
      await on.bench.page.mouse.up();
      await on.bench.page.getByText('In the test colour').waitFor({ state: 'detached' });
      expect(await on.bench.framed('.qs-go', 'background-color')).toBe('rgb(217, 217, 234)');
    };
    await hold(0, 'uv-lineage-bar uv-hold-button button');
    await hold(0, 'uv-plies-list uv-hold-button button');
    expect(
      await on.bench.page.evaluate(
        async () => ((await (await fetch('/api/sites/1/draft')).json()) as { overrides: unknown[] }).overrides,
      ),
    ).toEqual([]);
  });

  it('says what changes with an inherited colour where it comes from, outlines it, and leads there', async () => {
    await on.bench.openPage('Members');
    await on.bench.find('.pref');
    await on.bench.cell('Text, rest');
    const note = on.bench.page.locator('uv-plies-list .note');
    const [, count] = /changed there it is (\d+) elements/.exec(await note.innerText()) ?? [];
    // What Chromium gives the same colour by inheritance is among them at least.
    expect(Number(count)).toBeGreaterThan(10);
    await note.getByRole('button', { name: 'changed there' }).click();
    await on.bench.settled();
    expect(await on.bench.page.locator('uv-lineage-bar .current').innerText()).toContain('body');
    expect(
      await on.bench.page.locator('uv-states-grid [aria-pressed="true"]').first().getAttribute('aria-label'),
    ).toMatch(/^Text, rest:/);
  });

  it('fills the chosen row in every state once it was said what each would be', async () => {
    await on.bench.choose('.qs-go');
    await on.bench.value('Willow');
    await on.bench.page.getByRole('button', { name: 'Every state…' }).click();
    const list = on.bench.page.getByRole('group', { name: 'Fill in every state' });
    await list.waitFor();
    expect((await list.locator('label').allInnerTexts()).map((text) => text.trim())).toEqual([
      'Hover fill: Willow, 12 darker, and its text kept readable',
      'Focus fill: Willow, 6 darker, and its text kept readable',
      'Pressed fill: Willow, 18 darker, and its text kept readable',
      'Disabled fill: Willow, 24 lighter',
    ]);
    await list.locator('label', { hasText: 'Focus fill' }).click();
    await on.bench.act('Do 3');
    const fills = async (state: string): Promise<string | null> =>
      on.bench.page.getByRole('button', { name: new RegExp(`^Fill, ${state}:`) }).getAttribute('aria-label');
    expect(await fills('hover')).toContain('our override');
    expect(await fills('disabled')).toContain('our override');
    expect(await fills('focus')).not.toContain('our override');
  });

  it('peels the veneer off up to a line', async () => {
    await on.bench.choose('.qs-go');
    await on.bench.value('Willow');
    await on.bench.page.getByRole('button', { name: 'Peel' }).click();
    const bare = on.bench.page.locator('iframe[title="The page without the veneer"]');
    await bare.waitFor();
    await eventually(
      () =>
        bare.evaluate((frame) => {
          const target = (frame as HTMLIFrameElement).contentDocument?.querySelector('.qs-go');
          return target ? getComputedStyle(target).backgroundColor : 'not drawn';
        }),
      (color) => color === 'rgb(217, 217, 234)',
    );
    expect(await on.bench.framed('.qs-go', 'background-color')).toBe(WILLOW);
    await on.bench.page.getByRole('slider', { name: /Without the veneer/ }).focus();
    await on.bench.page.keyboard.press('End');
    expect(await bare.evaluate((frame) => (frame as HTMLElement).style.clipPath)).toContain('0%');
  });

  it('copies a look from one element and pastes it on another, in one step of undo', async () => {
    await on.bench.choose('.qs-apply');
    await on.bench.page.getByRole('button', { name: 'More about this element' }).click();
    await on.bench.page.getByRole('menuitem', { name: 'Copy look' }).click();
    await on.bench.choose('.qs-go');
    const before = await on.bench.version();
    await on.bench.page.getByRole('button', { name: 'More about this element' }).click();
    await on.bench.page.getByRole('menuitem', { name: 'Paste look of Apply' }).click();
    await on.bench.changed(before);
    for (const property of ['background-color', 'color', 'border-top-left-radius'])
      expect(await on.bench.framed('.qs-go', property))
        .withContext(property)
        .toBe(await on.bench.framed('.qs-apply', property));
    await on.bench.page.locator('uv-page-frame .glass').focus();
    await on.bench.page.keyboard.press('Control+z');
    await on.bench.settled();
    expect(await on.bench.framed('.qs-go', 'background-color')).toBe('rgb(217, 217, 234)');
  });

  it('takes a selector written by hand, checked while it is typed', async () => {
    await on.bench.choose('.qs-go');
    await on.bench.value('Willow');
    await on.bench.page.getByRole('button', { name: 'Edit selector' }).click();
    const field = on.bench.page.getByLabel('Selector', { exact: true });
    const words = (): Promise<string> => on.bench.page.locator('uv-selector-editor p').innerText();
    await field.fill('button >');
    await eventually(words, (said) => said.includes('▲'));
    expect(await on.bench.page.locator('uv-selector-editor').getByRole('button', { name: 'Use' }).isDisabled()).toBe(
      true,
    );
    await field.fill('.qs-root button');
    await eventually(words, (said) => said.includes('takes in'));
    await field.fill('form .qs-actions .qs-go');
    await eventually(words, (said) => !said.includes('takes in'));
    const before = await on.bench.version();
    await field.press('Enter');
    await on.bench.changed(before);
    expect(await on.bench.css()).toContain('form .qs-actions .qs-go {');
    await on.bench.value('River');
    expect(await on.bench.css()).toContain('form .qs-actions .qs-go {');
  });

  it('says what really paints a pixel', async () => {
    await on.bench.page.getByRole('button', { name: 'Painted by?' }).click();
    await on.bench.page.getByRole('button', { name: 'Painted by?', pressed: true }).waitFor();
    const { x, y } = await on.bench.middleOf('.qs-actions');
    await on.bench.page.mouse.click(x + 60, y + 16);
    await on.bench.page.waitForSelector('uv-states-grid');
    await on.bench.settled();
    expect(await on.bench.page.locator('.flashed').innerText()).toContain('form.qs-card');
    expect(await on.bench.page.locator('uv-lineage-bar .current').innerText()).toContain('form.qs-card');
  });

  it('holds an override to the widths below a breakpoint', async () => {
    await on.bench.choose('.qs-go');
    await on.bench.page.getByRole('combobox', { name: 'Widths it holds at' }).click();
    await on.bench.page
      .getByRole('option', { name: /^up to/ })
      .first()
      .click();
    await on.bench.page.getByRole('button', { name: '390', exact: true }).click();
    await on.bench.settled();
    await on.bench.value('Willow');
    expect(await on.bench.css()).toMatch(/@media \(max-width: \d+px\) \{\n {2}\.qs/);
    expect(await on.bench.framed('.qs-go', 'background-color')).toBe(WILLOW);
    await on.bench.page.getByRole('button', { name: '1280', exact: true }).click();
    await on.bench.settled();
    expect(await on.bench.framed('.qs-go', 'background-color')).toBe('rgb(217, 217, 234)');
  });

  it('reads the contrast of a text over a picture from the pixels under its lines', async () => {
    await on.bench.openPage('Home');
    for (const selector of ['.hero h1', '.hero .lede']) {
      await on.bench.find(selector);
      const figures = on.bench.page.locator('uv-state-tile .figures').first();
      await figures.getByText('on the picture').waitFor();
      const shown = Number(/([\d.]+) : 1/.exec(await figures.innerText())?.[1]);
      // The same page drawn by Chromium itself, and the formula of WCAG 2.2 as another library has it.
      const ratios = await ratiosUnder(on.bench, selector);
      const worst = ratios[Math.floor(ratios.length * 0.05)];
      expect(Math.abs(shown - worst))
        .withContext(`${selector}: ${shown}, ${worst}`)
        .toBeLessThan(0.25);
    }
  });

  it('leaves a picture out of it where the text has an opaque fill of its own', async () => {
    await on.bench.openPage('Home');
    await on.bench.find('.hero .btn');
    const figures = await on.bench.page.locator('uv-state-tile .figures').allInnerTexts();
    expect(figures.join()).not.toContain('picture');
  });
});

/** Contrast of white with every pixel under the lines of a text of the framed page, ascending. */
async function ratiosUnder(bench: BenchDriver, selector: string): Promise<number[]> {
  const source = await bench.page.locator('uv-page-frame iframe').first().getAttribute('src');
  const page = await bench.page.context().newPage();
  await page.goto(new URL(source ?? '', bench.url).href);
  const lines = await page.evaluate((wanted) => {
    const node = document.querySelector<HTMLElement>(wanted);
    if (!node) return [];
    node.style.setProperty('-webkit-text-fill-color', 'transparent', 'important');
    const range = document.createRange();
    range.selectNodeContents(node);
    return [...range.getClientRects()]
      .map(({ x, y, width, height }) => ({ x, y, width, height }))
      .filter(({ width }) => width > 0);
  }, selector);
  const ratios: number[] = [];
  for (const clip of lines) {
    const { data } = PNG.sync.read(await page.screenshot({ clip }));
    for (let i = 0; i < data.length; i += 4)
      ratios.push(new Color('srgb', [data[i] / 255, data[i + 1] / 255, data[i + 2] / 255]).contrastWCAG21('white'));
  }
  await page.close();
  return ratios.sort((a, b) => a - b);
}
