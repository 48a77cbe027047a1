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
    await on.bench.page.locator('uv-bring-in').getByText('Typed', { exact: true }).click();
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
    await on.bench.page.locator('.swatches li button').last().press('Alt+ArrowUp');
    await on.bench.changed(before);
    expect((await names()).slice(-2)).toEqual(['Dusk', 'Ember']);
    await on.bench.page.getByRole('button', { name: 'Delete…' }).click();
    await on.bench.settled();
    expect(await names()).not.toContain('Dusk');
    await on.bench.page.getByRole('button', { name: 'Undo' }).click();
    await on.bench.settled();
    expect((await names()).slice(-2)).toEqual(['Dusk', 'Ember']);
  });

  it('orders swatches by dragging', async () => {
    await toPalette();
    const rows = on.bench.page.locator('.swatches li');
    const [from, to] = [await rows.nth(0).boundingBox(), await rows.nth(3).boundingBox()];
    if (!from || !to) throw new Error('no rows');
    const before = await on.bench.version();
    await on.bench.page.mouse.move(from.x + 90, from.y + 20);
    await on.bench.page.mouse.down();
    await on.bench.page.mouse.move(from.x + 90, from.y + 40, { steps: 4 });
    await on.bench.page.mouse.move(to.x + 90, to.y + 30, { steps: 8 });
    await on.bench.page.mouse.up();
    await on.bench.changed(before);
    expect((await names()).slice(0, 4)).toEqual(['River', 'Reed', 'Paper', 'Willow']);
  });

  it('ripples an edit through every override bound to it, and deletes what is used only with a warning and an heir', async () => {
    await on.bench.choose('.qs-go');
    await on.bench.value('Willow');
    await toPalette();
    let before = await on.bench.version();
    await on.bench.page.getByRole('button', { name: 'Change', exact: true }).click();
    await on.bench.page.locator('.edit uv-typed-color input').fill('hsl(220 60% 40%)');
    await on.bench.page.keyboard.press('Enter');
    await on.bench.changed(before);
    await on.bench.page.getByRole('link', { name: /Sheet/ }).click();
    await on.bench.page.getByText('--brand-willow: #2952a3;').waitFor();
    await on.bench.page.getByRole('link', { name: /Bench/ }).click();
    await on.bench.drawn();
    expect(await on.bench.framed('.qs-go', 'background-color')).toBe('rgb(41, 82, 163)');
    await toPalette();
    await on.bench.page.getByRole('button', { name: 'Delete…' }).click();
    const dialog = on.bench.page.locator('uv-delete-dialog');
    await dialog.locator('li').first().waitFor();
    expect(await dialog.locator('li').allInnerTexts()).toEqual([
      jasmine.stringContaining('qs-go') as unknown as string,
    ]);
    await dialog.getByRole('combobox').click();
    await on.bench.page.getByRole('option', { name: 'Heron' }).click();
    before = await on.bench.version();
    await dialog.getByRole('button', { name: 'Delete Willow' }).click();
    await on.bench.changed(before);
    expect(await names()).not.toContain('Willow');
    await on.bench.page.getByRole('link', { name: /Bench/ }).click();
    await on.bench.drawn();
    expect(await on.bench.framed('.qs-go', 'background-color')).toBe('rgb(90, 63, 92)');
    await on.bench.page.getByRole('button', { name: 'Undo' }).click();
    await on.bench.settled();
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
    expect(await row.locator('td button').first().getAttribute('title')).toMatch(
      /4\.34 : 1 by WCAG 2\.2, AA large\. Nearest shade that passes: #[0-9a-f]{6}, ΔE2000 \d\.\d away/,
    );
  });

  it('fills a role with the nearest passing shade, a shade by hand, and all roles from three colours', async () => {
    await toPalette();
    const roleHex = (role: string): Promise<string> =>
      on.bench.page.evaluate(async (wanted) => {
        const draft = (await (await fetch('/api/sites/1/draft')).json()) as {
          swatches: { id: number; css: string }[];
          roles: { role: string; swatchId: number; shade: number }[];
        };
        const fill = draft.roles.find((candidate) => candidate.role === wanted);
        return `${draft.swatches.find(({ id }) => id === fill?.swatchId)?.css} ${fill?.shade}`;
      }, role);
    await on.bench.page
      .locator('uv-pair-table tr', { hasText: /^accent/ })
      .locator('button')
      .first()
      .click();
    let before = await on.bench.version();
    await on.bench.page.getByRole('button', { name: 'Fill accent with it' }).click();
    await on.bench.changed(before);
    expect(await roleHex('accent')).toBe('#b15527 0');
    await on.bench.page.locator('.topics').getByText('Roles').click();
    before = await on.bench.version();
    await on.bench.page.getByRole('combobox', { name: 'Shade of ring' }).click();
    await on.bench.page.getByRole('option', { name: '12 darker' }).click();
    await on.bench.changed(before);
    expect(await roleHex('ring')).toBe('#0f4a48 -12');
    await on.bench.page.locator('.topics').getByText('Suggestions').click();
    await on.bench.page.getByText('Inverted').click();
    before = await on.bench.version();
    await on.bench.page.getByRole('button', { name: 'Take these roles' }).click();
    await on.bench.changed(before);
    await on.bench.page.locator('.topics').getByText('Pairs and eyes').click();
    await on.bench.page.waitForSelector('uv-pair-table td:not(.unmeant) button');
    expect(await on.bench.page.locator('uv-pair-table td:not(.unmeant) uv-standing.fails').count()).toBe(0);
    expect(await on.bench.page.locator('uv-pair-table td:not(.unmeant) button').count()).toBeGreaterThan(15);
    await on.bench.page.getByRole('button', { name: 'Undo' }).click();
    await on.bench.settled();
    expect(await roleHex('ring')).toBe('#0f4a48 -12');
  });

  it('nudges a swatch finely by keys, the way back beside it, and takes roles of its harmony', async () => {
    const { page } = on.bench;
    await toPalette();
    await page.getByRole('button', { name: 'Change', exact: true }).click();
    const hue = page.locator('uv-nudge-color').getByLabel('Hue');
    await hue.focus();
    let before = await on.bench.version();
    for (let i = 0; i < 12; i += 1) await page.keyboard.press('ArrowRight');
    await on.bench.changed(before);
    await page
      .locator('uv-nudge-color')
      .getByText(/^ΔE \d\.\d from #b4582a$/)
      .waitFor();
    before = await on.bench.version();
    await page.getByRole('button', { name: 'Back to #b4582a' }).click();
    await on.bench.changed(before);
    await page.locator('.swatches li').first().getByText('#b4582a').waitFor();
    await page.locator('.topics').getByText('Suggestions').click();
    before = await on.bench.version();
    await page.getByRole('button', { name: 'Take roles in harmony, triad' }).click();
    await on.bench.changed(before);
    await page.locator('.topics').getByText('Pairs and eyes').click();
    await page.waitForFunction(() => !document.querySelector('uv-pair-table td:not(.unmeant) uv-standing.fails'));
  });

  it('keeps a role of its own, which Match takes for what it is called, and the house’s shape', async () => {
    const { page } = on.bench;
    await toPalette();
    await page.locator('.topics').getByText('Roles').click();
    await page.getByLabel('A role of your own').fill('Heading');
    await page.getByRole('combobox', { name: 'Swatch that fills it' }).click();
    await page.getByRole('option', { name: 'Heron' }).click();
    let before = await on.bench.version();
    await page.getByRole('button', { name: 'Add', exact: true }).click();
    await on.bench.changed(before);
    await page.locator('.topics').getByText('House shape').click();
    const corner = page.getByLabel('House corner radius');
    await corner.fill('1em');
    await corner.press('Enter');
    await page.getByText('"1em" is no length in px, such as 3px').waitFor();
    before = await on.bench.version();
    await corner.fill('3');
    await corner.press('Enter');
    await on.bench.changed(before);
    await page.goto(`${new URL(page.url()).origin}/match`);
    await page
      .locator('uv-scope-list')
      .getByRole('button', { name: /Booking form/ })
      .click();
    const heading = page.locator('uv-match-table tbody tr', { hasText: 'heading Reserve your canoe' }).first();
    await heading.getByText('Heading', { exact: true }).waitFor();
    const corners = page.locator('uv-shape-rows tbody tr', { hasText: 'corners of Apply' });
    await corners.locator('option:checked', { hasText: 'House: 3px' }).waitFor({ state: 'attached' });
    await page.getByRole('button', { name: /^Lay on \d+ places$/ }).click();
    await page.getByText(/; proved, [\d,]+ places resolved at 1280, 820, 390 px$/).waitFor();
    const draft = (await (await fetch(`${new URL(page.url()).origin}/api/sites/1/draft`)).json()) as {
      readonly overrides: readonly { readonly value: unknown }[];
    };
    const values = draft.overrides.map(({ value }) => value);
    expect(values).toContain({ kind: 'house', part: 'corner' });
    expect(values).toContain(jasmine.objectContaining({ kind: 'role', role: 'own-heading' }));
  });
});
