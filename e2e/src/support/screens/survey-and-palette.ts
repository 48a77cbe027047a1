import type { BenchDriver } from '../product.js';
import { view } from './views.js';
import type { Screen } from './screen.js';

const topic = async ({ page }: BenchDriver, name: string): Promise<void> => {
  await page.locator('uv-survey-page p-selectbutton').getByText(name, { exact: true }).first().click();
};

/** The Survey, bringing in, and the Palette. */
export const SURVEY_AND_PALETTE: readonly Screen[] = [
  {
    name: 'Survey, colours',
    reach: async (bench) => {
      await bench.page.keyboard.press('Escape');
      await view(bench, 'Survey');
      await bench.page.waitForSelector('uv-color-floor button', { timeout: 60_000 });
    },
  },
  {
    name: 'Survey, a colour',
    reach: async (bench) => {
      await bench.page.locator('uv-color-table tbody tr').first().click();
    },
  },
  ...['Properties', 'Fonts', 'Stylesheets', 'Parts'].map((name): Screen => ({
    name: `Survey, ${name.toLowerCase()}`,
    reach: async (bench) => topic(bench, name),
  })),
  {
    name: 'Survey, bringing in',
    panes: false,
    reach: async (bench) => {
      await bench.page.getByRole('button', { name: 'Bring in a site…' }).click();
    },
  },
  {
    name: 'Survey, an address',
    panes: false,
    reach: async ({ page }) => {
      await page.locator('uv-import-dialog').getByText('Address', { exact: true }).click();
      await page.locator('uv-address-source .how').waitFor();
    },
  },
  {
    name: 'Survey, steps of a visit',
    panes: false,
    reach: async ({ page }) => {
      await page.locator('uv-address-source .link').click();
      await page.getByRole('button', { name: 'Steps…' }).click();
      await page.locator('uv-sight-picture .sheet').waitFor({ timeout: 60_000 });
      await page.getByRole('button', { name: 'Consent as three pages…' }).click();
    },
  },
  {
    name: 'Palette',
    reach: async (bench) => {
      await bench.page.keyboard.press('Escape');
      // The steps lead back to where the address was given.
      await bench.page.locator('uv-visit-dialog').waitFor({ state: 'detached' });
      await bench.page.keyboard.press('Escape');
      await view(bench, 'Palette');
      await bench.page.waitForSelector('uv-pair-table table', { state: 'attached' });
    },
  },
  ...['Typed', 'File'].map((name): Screen => ({
    name: `Palette, ${name.toLowerCase()}`,
    reach: async (bench) => {
      await bench.page.locator('uv-bring-in').getByText(name, { exact: true }).click();
    },
  })),
  {
    name: 'Palette, roles of a second lighting',
    reach: async ({ page }) => {
      // In a narrow window the topics are a panel of their own.
      const chosen = page.locator('uv-pane-switch').getByText('Chosen', { exact: true });
      if (await chosen.isVisible()) await chosen.click();
      await page.locator('.topics').getByText('Roles', { exact: true }).click();
      if ((await page.getByRole('button', { name: 'Inverted', exact: true }).count()) === 0) {
        await page.locator('uv-second-lighting p-select').click();
        await page.getByRole('option', { name: 'prefers-color-scheme: dark' }).click();
      }
      await page.getByRole('button', { name: 'Inverted', exact: true }).waitFor();
    },
  },
  ...['House shape', 'Suggestions'].map((name): Screen => ({
    name: `Palette, ${name.toLowerCase()}`,
    reach: async ({ page }) => {
      const chosen = page.locator('uv-pane-switch').getByText('Chosen', { exact: true });
      if (await chosen.isVisible()) await chosen.click();
      if ((await page.locator('uv-nudge-color').count()) === 0)
        await page.getByRole('button', { name: 'Change', exact: true }).click();
      await page.locator('.topics').getByText(name, { exact: true }).click();
    },
  })),
  {
    name: 'Palette, other sites',
    reach: async ({ page }) => {
      const chosen = page.locator('uv-pane-switch').getByText('Chosen', { exact: true });
      if (await chosen.isVisible()) await chosen.click();
      await page.locator('.topics').getByText('Other sites', { exact: true }).click();
      await page.locator('uv-other-sites li').first().waitFor();
    },
  },
];
