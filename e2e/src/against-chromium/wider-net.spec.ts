import type { Browser } from 'playwright-core';
import {
  COMPARED_PROPERTIES,
  compareWithBrowser,
  emptyAgreement,
  type Agreement,
  type ForcedState,
} from '../support/agreement.js';
import { launchBrowser } from '../support/browser.js';
import { packageSheets } from '../support/package-sheets.js';
import { pageFromSelectors } from '../support/pages-from-selectors.js';
import { root } from '../support/product.js';
import { openSiteFolder } from '../support/site-folder.js';
import { join } from 'node:path';
import { isWhole } from '../support/whole-run.js';

/** Whole in `npm run prove`; a few selectors of some packages otherwise. */
const MOST = isWhole ? 260 : 24;
/** Values one step of a channel off, by package: one `hsl()` on half of an 8-bit step, over a page and its states (docs/core.md, known differences). */
const STEPS = new Map([['bulma', 128]]);
/** Every third package in the sample. */
const sheets = packageSheets(process.env['NET_ONLY'] ?? '').filter((_, i) => isWhole || i % 3 === 1);

/** Pages of a package: some selectors each. In the sample, other selectors of each package are tried from week to week. */
function pagesOf(name: string, css: string): [string, string][] {
  const pages: [string, string][] = [];
  const start = isWhole ? 0 : (name.length * 37) % 150;
  for (let from = start; pages.length < (isWhole ? 40 : 1); from += MOST) {
    const html = pageFromSelectors(css, `${name}.css`, MOST, from);
    if (from > 0 && (html.match(/\n/g) ?? []).length < 10 && pages.length > 0) break;
    pages.push([`${name}-${pages.length}.html`, html]);
  }
  return pages;
}

describe('agreement with Chromium over packages of every school', () => {
  let browser: Browser;
  const total = emptyAgreement();
  beforeAll(async () => {
    browser = await launchBrowser();
  });
  afterAll(async () => {
    await browser.close();
    const values = [...total.compared.values()].reduce((sum, count) => sum + count, 0);
    process.stdout.write(
      `\nAgreement over ${sheets.length} packages: ${values - total.differences.length} of ${values} values (${(100 * (1 - total.differences.length / Math.max(1, values))).toFixed(4)} %)\n${worst(total)}`,
    );
  });

  // Reference: getComputedStyle, states forced over CDP.
  for (const { name, css } of sheets) {
    it(`${name}: every value`, async () => {
      const pages = pagesOf(name, css);
      const site = openSiteFolder(join(root, 'demo/site'), new Map([[`css/${name}.css`, css], ...pages]));
      const own = emptyAgreement();
      for (const [i, [path]] of pages.entries()) {
        const runs: readonly (readonly [width: number, scheme: 'light' | 'dark', states: readonly ForcedState[]])[] =
          isWhole
            ? [
                [
                  1280,
                  'light',
                  i % 4 === 0 ? ['rest', 'hover', 'focus', 'focus-visible', 'active'] : ['rest', 'hover'],
                ],
                [820, 'light', ['rest']],
                [390, 'light', ['rest']],
                [320, 'dark', i % 4 === 0 ? ['rest', 'hover', 'focus-visible'] : ['rest']],
                [1280, 'dark', ['rest']],
              ]
            : [
                [1280, 'light', ['rest', 'hover']],
                [390, 'dark', ['rest']],
              ];
        for (const [width, colorScheme, states] of runs) {
          const context = await browser.newContext({
            viewport: { width, height: 800 },
            javaScriptEnabled: false,
            colorScheme,
          });
          await site.serve(context);
          const page = await context.newPage();
          await page.goto(`${site.origin}/${path}`);
          await compareWithBrowser(
            page,
            site.parse(path),
            { properties: COMPARED_PROPERTIES, states, environment: { width, colorScheme } },
            own,
          );
          await context.close();
        }
      }
      for (const [property, count] of own.compared)
        total.compared.set(property, (total.compared.get(property) ?? 0) + count);
      total.differences.push(...own.differences);
      const [steps, others] = [true, false].map((is) => own.differences.filter((found) => isOneStep(found) === is));
      expect(others.slice(0, 12)).withContext(`${others.length} differences`).toEqual([]);
      expect(steps.length)
        .withContext(`one step of a channel: ${JSON.stringify(steps[0])}`)
        .toBeLessThanOrEqual(isWhole ? (STEPS.get(name) ?? 0) : 0);
    });
  }
});

/** Whether two colours differ by one step of one channel, of 255. */
function isOneStep({ core, browser }: Agreement['differences'][number]): boolean {
  const [own, theirs] = [core, browser].map((text) => /^rgb\((\d+), (\d+), (\d+)\)$/.exec(text)?.slice(1).map(Number));
  if (!own || !theirs) return false;
  const apart = own.map((channel, i) => Math.abs(channel - theirs[i]));
  return Math.max(...apart) === 1 && apart.filter((step) => step > 0).length === 1;
}

/** What differs, the most frequent first. */
function worst({ differences }: Agreement): string {
  const kinds = new Map<string, number>();
  for (const { name, pseudo, property, core, browser } of differences) {
    const key = `${property} of ${name.split(/[.#]/)[0]}${pseudo === '' ? '' : `::${pseudo}`}: ${core.slice(0, 90)} | ${browser.slice(0, 90)}`;
    kinds.set(key, (kinds.get(key) ?? 0) + 1);
  }
  return [...kinds]
    .sort((a, b) => b[1] - a[1])
    .slice(0, 40)
    .map(([key, count]) => `  ${count} × ${key}\n`)
    .join('');
}
