import { overridden, scopeOf, view } from './views.js';
import type { Screen } from './screen.js';

/** The Sheet with what is asked of it, settings, and the Trial. */
export const SHEET_TO_TRIAL: readonly Screen[] = [
  {
    name: 'Sheet',
    reach: async (bench) => {
      await overridden(bench);
      await view(bench, 'Sheet');
    },
  },
  {
    name: 'Sheet, typed in',
    reach: async ({ page }) => {
      await page.locator('.toolbar').getByText('Edit', { exact: true }).click();
      await page.locator('uv-sheet-code .cm-line', { hasText: 'background-color' }).first().click();
      await page.locator('uv-sheet-editor .counts').waitFor();
    },
  },
  {
    name: 'Sheet, CSS put in',
    panes: false,
    reach: async ({ page }) => page.getByRole('button', { name: 'Put CSS in…' }).click(),
  },
  {
    name: 'Requests',
    panes: false,
    reach: async ({ page }) => {
      await page.keyboard.press('Escape');
      await page.locator('.toolbar').getByText('The sheet', { exact: true }).click();
      await page.locator('uv-top-bar .asks').click();
      if ((await page.locator('uv-request-item').count()) === 0) {
        await page.locator('#uv-wishes').fill('- The voucher in green\n- A bigger logo');
        await page.getByRole('button', { name: 'Take in as 2 wishes' }).click();
      }
      const card = page.locator('uv-request-item').first();
      await card.getByText('Name a look to prove it by').click();
    },
  },
  {
    name: 'saving',
    panes: false,
    reach: async ({ page }) => {
      await page.keyboard.press('Escape');
      await page.getByRole('button', { name: 'Save revision' }).click();
    },
  },
  {
    name: 'publishing',
    panes: false,
    reach: async ({ page }) => {
      await page.keyboard.press('Escape');
      await page.getByRole('button', { name: 'Publish…' }).click();
    },
  },
  {
    name: 'Sheet, side by side',
    reach: async ({ page }) => {
      await page.keyboard.press('Escape');
      if ((await page.locator('uv-revision-list li.chosen').count()) === 0) {
        await page.getByRole('button', { name: 'Save revision' }).click();
        await page.getByRole('dialog').getByRole('button', { name: 'Save revision' }).click();
        await page.locator('uv-revision-list li.chosen').waitFor();
      }
      await page.locator('.toolbar').getByText('Side by side', { exact: true }).click();
      await page.locator('uv-sheets-beside .cm-mergeView').waitFor({ timeout: 30_000 });
    },
  },
  {
    name: 'Sheet, on the page',
    reach: async ({ page }) => page.locator('.toolbar').getByText('On the page', { exact: true }).click(),
  },
  ...['A box for added CSS', 'The end of an existing file'].map((name): Screen => ({
    name: `Sheet, ${name.toLowerCase()}`,
    reach: async ({ page }) => page.getByRole('button', { name: new RegExp(`^[\\u200b\\u00ad]*${name}`) }).click(),
  })),
  {
    name: 'Sheet, the draft on a live page',
    reach: async ({ page }) => {
      if ((await page.getByRole('button', { name: 'End it' }).count()) === 0)
        await page.getByRole('button', { name: 'Switch on' }).click();
      await page.getByRole('button', { name: 'End it' }).waitFor();
    },
  },
  {
    name: 'Match, settings to start from',
    panes: false,
    reach: async (bench) => {
      const { page } = bench;
      await page.keyboard.press('Escape');
      await view(bench, 'Match');
      await scopeOf(page, 'Chat bubble');
      await page.getByText('What its maker lets one set').waitFor();
    },
  },
  {
    name: 'Match, settings',
    panes: false,
    reach: async ({ page }) => {
      await scopeOf(page, 'Promotion unit');
      if ((await page.locator('uv-settings-table').count()) === 0) {
        await page.getByRole('button', { name: 'Read the maker’s fields…' }).click();
        await page.getByLabel('From the maker’s address').fill('https://widgets.osier.example/settings/promo');
        await page.getByRole('button', { name: 'Ask', exact: true }).click();
        await page.getByRole('button', { name: 'Take them over' }).click();
      }
      await page.locator('uv-settings-table tbody tr').nth(5).waitFor();
    },
  },
  {
    name: 'Match, a field of settings',
    panes: false,
    reach: async ({ page }) => {
      const chosen = page.locator('uv-pane-switch').getByText('Chosen', { exact: true });
      if (await chosen.isVisible()) await chosen.click();
      await page.getByRole('button', { name: 'The field…' }).click();
    },
  },
  {
    name: 'Match, what no field does',
    panes: false,
    reach: async ({ page }) => {
      await page.keyboard.press('Escape');
      await page.getByRole('button', { name: /^[\u200b\u00ad]*Name (?:more|what)/ }).click();
    },
  },
  {
    name: 'Match, keeping a variation',
    panes: false,
    reach: async ({ page }) => {
      await page.keyboard.press('Escape');
      const rows = page.locator('uv-pane-switch').getByText('Colours', { exact: true });
      if (await rows.isVisible()) await rows.click();
      await page.getByRole('button', { name: 'As a variation…' }).click();
    },
  },
  {
    name: 'Trial, planning',
    panes: false,
    reach: async (bench) => {
      const { page } = bench;
      // A fork of its own, whichever window it is.
      await page.getByRole('dialog').getByRole('button', { name: 'Keep it' }).click();
      await page.getByRole('dialog').waitFor({ state: 'detached' });
      await view(bench, 'Trial');
      await page.getByRole('button', { name: /^[\u200b\u00ad]*Plan a(?: trial|nother)…/ }).click();
      await page.getByRole('dialog').getByRole('status').waitFor();
    },
  },
  {
    name: 'Trial, made-up traffic',
    panes: false,
    reach: async ({ page }) => {
      const dialog = page.getByRole('dialog');
      await dialog.getByLabel('As the draft is').check();
      await dialog.getByRole('button', { name: 'Plan it' }).click();
      await dialog.waitFor({ state: 'detached' });
      await page.getByRole('button', { name: 'Make traffic up…' }).click();
    },
  },
  {
    name: 'Trial',
    panes: false,
    reach: async ({ page }) => {
      await page.getByRole('button', { name: 'Make it up' }).click();
      await page.locator('uv-trial-chart canvas').first().waitFor();
    },
  },
  {
    name: 'Trial, deciding',
    panes: false,
    reach: async ({ page }) => page.getByRole('button', { name: 'Decide…' }).click(),
  },
];
