import type { Browser } from 'playwright-core';
import { join } from 'node:path';
import { COLOR_PROPERTIES, compareWithBrowser, emptyAgreement, type ForcedState } from '../support/agreement.js';
import { launchBrowser } from '../support/browser.js';
import { root } from '../support/product.js';
import { openSiteFolder } from '../support/site-folder.js';

const STATES: readonly ForcedState[] = ['rest', 'hover', 'focus', 'active'];

describe('colours of the demo pages', () => {
  let browser: Browser;
  beforeAll(async () => {
    browser = await launchBrowser();
  });
  afterAll(() => browser.close());

  // Reference: Chromium's getComputedStyle, states forced one element at a time over CDP (CSS.forcePseudoState).
  for (const path of ['index.html', 'trips.html', 'book.html']) {
    for (const width of [1280, 390]) {
      it(`${path} at ${width} px: the core and Chromium agree on every element at rest, hovered, focused and pressed`, async () => {
        const site = openSiteFolder(join(root, 'demo/site'));
        const context = await browser.newContext({ viewport: { width, height: 800 }, javaScriptEnabled: false });
        await site.serve(context);
        const page = await context.newPage();
        await page.goto(`${site.origin}/${path}`);
        const agreement = emptyAgreement();
        await compareWithBrowser(page, site.parse(path), { properties: COLOR_PROPERTIES, states: STATES, environment: { width } }, agreement);
        expect(agreement.differences).toEqual([]);
        expect(Math.min(...agreement.compared.values())).toBeGreaterThan(200);
        await context.close();
      });
    }
  }
});
