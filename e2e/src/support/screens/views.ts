import type { BenchDriver } from '../product.js';

/** Opens a view by its link, and waits for it. */
export const view = async ({ page }: BenchDriver, name: string): Promise<void> => {
  await page
    .getByRole('navigation', { name: 'Views' })
    .getByRole('link', { name: new RegExp(`^[\\u200b\\u00ad]*${name}`) })
    .click();
  // A view's code comes when it is first asked for; until then the one before stands there.
  await page.locator(`uv-${name.toLowerCase()}-page`).waitFor({ state: 'attached' });
};
/** Chooses a part in Match; in a narrow window the parts are a panel of their own. */
export const scopeOf = async (page: BenchDriver['page'], part: string): Promise<void> => {
  const scope = page.locator('uv-pane-switch').getByText('Scope', { exact: true });
  if (await scope.isVisible()) await scope.click();
  await page.locator('uv-scope-list button', { hasText: part }).click();
};
/** Has the sheet hold an override of the demo's button. */
export const overridden = async (bench: BenchDriver): Promise<void> => {
  await view(bench, 'Bench');
  await bench.find('.qs-go');
  await bench.cell('Fill, rest');
  await bench.typed('#0a7f5a');
};
