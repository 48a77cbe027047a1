import { setUpBench } from '../support/on-bench.js';

describe('the Palette', () => {
  const on = setUpBench();
  const names = (): Promise<string[]> => on.bench.page.locator('.swatches li strong').allInnerTexts();
  const toPalette = async (): Promise<void> => {
    await on.bench.page.getByRole('link', { name: /Palette/ }).click();
    await on.bench.page.waitForSelector('uv-pair-table table');
  };

  it('takes a typed colour, asks where it reads two ways, and names it', async () => {
    await toPalette();
    await on.bench.page.locator('aside').getByLabel('Typed colour').fill('32 47 61');
    expect(await on.bench.page.locator('aside .reading .uv-mono').allInnerTexts()).toEqual(['#202f3d', '#324761']);
    let before = await on.bench.version();
    await on.bench.page.locator('aside .reading').nth(1).click();
    await on.bench.changed(before);
    before = await on.bench.version();
    await on.bench.page.getByLabel('Name of the swatch').fill('Dusk');
    await on.bench.page.keyboard.press('Enter');
    await on.bench.changed(before);
    expect((await names()).at(-1)).toBe('Dusk');
    before = await on.bench.version();
    await on.bench.page.getByRole('button', { name: 'Up', exact: true }).click();
    await on.bench.changed(before);
    expect((await names()).slice(-2)).toEqual(['Dusk', 'Ember']);
    await on.bench.page.getByRole('button', { name: 'Delete' }).click();
    await on.bench.settled();
    expect(await names()).not.toContain('Dusk');
    await on.bench.page.getByRole('button', { name: 'Undo' }).click();
    await on.bench.settled();
    expect((await names()).slice(-2)).toEqual(['Dusk', 'Ember']);
  });

  it('ripples an edit through every override bound to it, and will not delete what is used', async () => {
    await on.bench.choose('.qs-go');
    await on.bench.value('Willow');
    await toPalette();
    expect(await on.bench.page.getByRole('button', { name: 'Delete' }).isDisabled()).toBe(true);
    const before = await on.bench.version();
    await on.bench.page.getByRole('button', { name: 'Change colour' }).click();
    await on.bench.page.locator('.edit input').fill('hsl(220 60% 40%)');
    await on.bench.page.keyboard.press('Enter');
    await on.bench.changed(before);
    await on.bench.page.getByRole('link', { name: /Sheet/ }).click();
    await on.bench.page.getByText('--brand-willow: #2952a3;').waitFor();
    await on.bench.page.getByRole('link', { name: /Bench/ }).click();
    await on.bench.drawn();
    expect(await on.bench.framed('.qs-go', 'background-color')).toBe('rgb(41, 82, 163)');
  });

  it('says why a name is refused and keeps the one it had', async () => {
    await toPalette();
    await on.bench.page.getByLabel('Name of the swatch').fill('River');
    await on.bench.page.keyboard.press('Enter');
    await on.bench.page.getByText('"River" is the name of another swatch').waitFor();
    expect((await names())[0]).toBe('Willow');
  });

  it('shows the contrast of pairs, rounded down, with the nearest shade that passes', async () => {
    await toPalette();
    const row = on.bench.page.locator('uv-pair-table tr', { hasText: /^accent/ });
    // #b4582a on #f7f3e9 by the formula of WCAG 2.2 is 4.34.
    expect(await row.locator('td').first().innerText()).toContain('4.3');
    expect(await row.locator('td').first().getAttribute('title')).toMatch(/4\.34 : 1 by WCAG 2\.2, AA large\. Nearest shade that passes: #[0-9a-f]{6}, ΔE2000 \d\.\d away/);
  });
});
