import { dressSite, openSite, settingsThatMatter, type SiteModel } from '@upper-veneer/core';
import type { Browser } from 'playwright-core';
import { launchBrowser } from '../support/browser.js';
import { packageSheets } from '../support/package-sheets.js';
import { pageFromSelectors } from '../support/pages-from-selectors.js';
import { random } from '../support/random.js';
import { isWhole } from '../support/whole-run.js';

const FRAMEWORKS = ['bootstrap', 'bulma', 'foundation', 'uikit', 'spectre'];
const PROPERTIES = [
  'color',
  'background-color',
  'border-top-color',
  'font-size',
  'display',
  'opacity',
  'padding-top',
  'text-align',
];
/** Draws over all frameworks, and the step between the widths that Chromium is asked at. */
const DRAWS = isWhole ? 200 : 10;
const STEP = isWhole ? 16 : 100;
const [NARROWEST, WIDEST] = [320, 1920];

describe('widths that matter', () => {
  let browser: Browser;
  beforeAll(async () => {
    browser = await launchBrowser();
  });
  afterAll(() => browser.close());

  // Reference: getComputedStyle of Chromium at every width from 320 to 1920 in steps: a width at which a property differs from all those looked at would be one that fell out.
  it(`stand for every width, on ${DRAWS} drawn elements and properties of pages with the breakpoints of ${FRAMEWORKS.length} frameworks`, async () => {
    const draw = random(20261126);
    const perFramework = DRAWS / FRAMEWORKS.length;
    const wrong: string[] = [];
    let asked = 0;
    for (const name of FRAMEWORKS) {
      const sheet = packageSheets(name)[0];
      // Rules that stand under conditions are the ones that can tell.
      const html = pageFromSelectors(sheet.css, `${sheet.name}.css`, 500, isWhole ? 0 : Math.floor(draw() * 200));
      const site: SiteModel = dressSite(
        openSite({
          pages: [{ id: 1, name, path: 'index.html', html }],
          stylesheets: { [`css/${sheet.name}.css`]: sheet.css },
          parts: [],
          veneerPlace: 'head-end',
          prefix: 'brand',
        }),
        [],
        { swatches: [], roles: [] },
      );
      const context = await browser.newContext({ viewport: { width: WIDEST, height: 800 } });
      const page = await context.newPage();
      await page.setContent(html.replace(/<link[^>]*>/, () => `<style>${sheet.css}</style>`));
      const count = await page.evaluate(() => document.querySelectorAll('body *').length);
      const questions = Array.from({ length: perFramework }, () => ({
        at: Math.floor(draw() * count),
        property: PROPERTIES[Math.floor(draw() * PROPERTIES.length)],
      }));
      const settings = new Map(
        questions.map(({ property }) => [
          property,
          settingsThatMatter(site, [property])
            .settings.filter((setting) => Object.keys(setting).length === 1)
            .map(({ width }) => width),
        ]),
      );
      const widths = [
        ...new Set([
          ...[...settings.values()].flat().filter((width) => width >= NARROWEST && width <= WIDEST),
          ...Array.from({ length: Math.floor((WIDEST - NARROWEST) / STEP) + 1 }, (_, i) => NARROWEST + i * STEP),
        ]),
      ].sort((a, b) => a - b);
      const seen = new Map<number, string[]>();
      for (const width of widths) {
        await page.setViewportSize({ width, height: 800 });
        seen.set(
          width,
          await page.evaluate((list) => {
            const elements = [...document.querySelectorAll('body *')];
            return list.map(({ at, property }) => getComputedStyle(elements[at]).getPropertyValue(property));
          }, questions),
        );
      }
      questions.forEach(({ at, property }, i) => {
        const looked = (settings.get(property) ?? []).filter((width) => seen.has(width));
        const values = new Set(looked.map((width) => seen.get(width)?.[i]));
        for (const [width, found] of seen) {
          asked += 1;
          // Lengths in viewport units differ at every width, with no breakpoint to say so.
          if (!values.has(found[i]) && !/vw|vh|vmin|vmax/.test(sheet.css))
            wrong.push(
              `${name}: ${property} of element ${at} is ${found[i]} at ${width} px, and ${[...values].join(' or ')} at ${looked.join(', ')}`,
            );
        }
      });
      await context.close();
    }
    process.stdout.write(
      `\nWidths: ${asked} values of Chromium, ${wrong.length} at a width that no width looked at stands for.\n`,
    );
    expect(asked).toBeGreaterThan(DRAWS * 5);
    expect(wrong.slice(0, 5)).toEqual([]);
  });
});
