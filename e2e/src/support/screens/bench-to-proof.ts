import { scopeOf, view } from './views.js';
import type { Screen } from './screen.js';

/** From the Bench over Match to the proof. */
export const BENCH_TO_PROOF: readonly Screen[] = [
  { name: 'Bench, nothing chosen', reach: async (bench) => view(bench, 'Bench') },
  {
    name: 'Bench, a target',
    reach: async (bench) => {
      await bench.find('.qs-go');
    },
  },
  {
    name: 'Bench, an override',
    reach: async (bench) => {
      await bench.cell('Fill, rest');
      await bench.typed('#0a7f5a');
    },
  },
  { name: 'Bench, all findings', reach: async ({ page }) => page.locator('uv-verdict-bar .open').click() },
  {
    name: 'Bench, every state',
    panes: false,
    reach: async ({ page }) => {
      await page.locator('uv-verdict-bar .open').click();
      await page.getByRole('button', { name: 'Every state…' }).click();
    },
  },
  {
    name: 'Bench, selector edited',
    panes: false,
    reach: async ({ page }) => {
      await page.keyboard.press('Escape');
      await page.getByRole('button', { name: 'Edit selector' }).click();
    },
  },
  {
    name: 'Bench, more acts',
    panes: false,
    reach: async ({ page }) => {
      await page.keyboard.press('Escape');
      await page.getByRole('button', { name: 'More about this element' }).click();
    },
  },
  {
    name: 'Bench, pages and matches',
    panes: false,
    reach: async ({ page }) => {
      await page.keyboard.press('Escape');
      await page.getByRole('button', { name: 'Pages and matches…' }).click();
    },
  },
  {
    name: 'Match, nothing chosen',
    reach: async (bench) => {
      await bench.page.keyboard.press('Escape');
      await view(bench, 'Match');
      await bench.page.getByText('What is to become ours').waitFor({ state: 'attached' });
    },
  },
  {
    name: 'Match, a part',
    reach: async ({ page }) => {
      // In a narrow window the parts are a panel of their own.
      const scope = page.locator('uv-pane-switch').getByText('Scope', { exact: true });
      if (await scope.isVisible()) await scope.click();
      await page
        .locator('uv-scope-list')
        .getByRole('button', { name: /Consent bar/ })
        .click();
      await page.locator('uv-match-table tbody tr').nth(1).click();
    },
  },
  {
    name: 'Match, kits',
    panes: false,
    reach: async ({ page }) => {
      const scope = page.locator('uv-pane-switch').getByText('Scope', { exact: true });
      if (await scope.isVisible()) await scope.click();
      await page.getByRole('button', { name: 'Kits…' }).click();
      await page.locator('uv-kits-dialog .kits li').first().waitFor();
    },
  },
  {
    name: 'Match, templates',
    panes: false,
    reach: async ({ page }) => {
      await page.keyboard.press('Escape');
      await scopeOf(page, 'Two-step checkout');
      await page.getByRole('button', { name: '3 templates…' }).click();
      await page.locator('uv-templates-dialog .forms > li').nth(2).waitFor();
    },
  },
  {
    name: 'Proof, a finding',
    reach: async (bench) => {
      await bench.page.keyboard.press('Escape');
      await view(bench, 'Proof');
      await bench.page.waitForSelector('uv-proof-table tbody tr', { timeout: 60_000, state: 'attached' });
      await bench.page.waitForSelector('uv-finding-card .acts', { timeout: 60_000, state: 'attached' });
    },
  },
  ...['By eye', 'Drift'].map((name): Screen => ({
    name: `Proof, ${name.toLowerCase()}`,
    reach: async ({ page }) => {
      // In a narrow window pictures are a panel of their own.
      await page
        .locator('.toolbar p-selectbutton')
        .getByText(new RegExp(`^[\\u200b\\u00ad]*${name}`))
        .click();
      await page
        .locator(name === 'Drift' ? 'uv-drift-list' : 'uv-look-detail iframe')
        .first()
        .waitFor({ state: 'attached' });
    },
  })),
];
