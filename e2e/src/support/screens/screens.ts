import type { BenchDriver } from './product.js';

/** A screen or dialog, and how one comes to it from the one before. */
export interface Screen {
  readonly name: string;
  /** `false` where it lies over all panels of its view. */
  readonly panes?: false;
  reach(bench: BenchDriver): Promise<void>;
}

const view = async ({ page }: BenchDriver, name: string): Promise<void> => {
  await page
    .getByRole('navigation', { name: 'Views' })
    .getByRole('link', { name: new RegExp(`^[\\u200b\\u00ad]*${name}`) })
    .click();
  // A view's code comes when it is first asked for; until then the one before stands there.
  await page.locator(`uv-${name.toLowerCase()}-page`).waitFor({ state: 'attached' });
};
/** Chooses a part in Match; in a narrow window the parts are a panel of their own. */
const scopeOf = async (page: BenchDriver['page'], part: string): Promise<void> => {
  const scope = page.locator('uv-pane-switch').getByText('Scope', { exact: true });
  if (await scope.isVisible()) await scope.click();
  await page.locator('uv-scope-list button', { hasText: part }).click();
};
const topic = async ({ page }: BenchDriver, name: string): Promise<void> => {
  await page.locator('uv-survey-page p-selectbutton').getByText(name, { exact: true }).first().click();
};

/** Every screen and dialog of the product, from the demo as it arrives, in an order that leads from one to the next. */
export const SCREENS: readonly Screen[] = [
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
  { name: 'Sheet', reach: async (bench) => view(bench, 'Sheet') },
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
