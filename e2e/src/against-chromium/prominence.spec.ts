import { dressSite, layOut, openSite, pageOf, prominenceOf } from '@upper-veneer/core';
import type { Browser } from 'playwright-core';
import { launchBrowser } from '../support/browser.js';
import { demoPages } from '../support/demo-pages.js';
import { measuredPage } from '../support/measured-page.js';
import { namedPages } from '../support/named-pages.js';
import { isWhole } from '../support/whole-run.js';
import { frequencyTunedSaliency } from '../support/saliency.js';

/** Pages of `npm test`; the rest is in a whole run. */
const SAMPLE = ['picocss-pico', 'water-css', 'Book', 'Home'];
/** Actions a page must hold for their order to say anything. */
const FEWEST = 4;

function pages(): { readonly name: string; readonly html: string }[] {
  return [...namedPages(), ...demoPages()].filter(({ name }) => isWhole || SAMPLE.includes(name));
}

/** Spearman's rank correlation, ties given their mean rank. */
function rankCorrelation(a: readonly number[], b: readonly number[]): number {
  const ranks = (values: readonly number[]): number[] =>
    values.map((value) => {
      const less = values.filter((other) => other < value).length;
      return less + (values.filter((other) => other === value).length + 1) / 2;
    });
  const [x, y] = [ranks(a), ranks(b)];
  const mean = (values: readonly number[]): number => values.reduce((sum, value) => sum + value, 0) / values.length;
  const [mx, my] = [mean(x), mean(y)];
  const covariance = x.reduce((sum, value, i) => sum + (value - mx) * (y[i] - my), 0);
  const spread = (values: readonly number[], m: number): number =>
    Math.sqrt(values.reduce((sum, value) => sum + (value - m) ** 2, 0));
  return covariance / (spread(x, mx) * spread(y, my));
}

describe('what the eye meets first', () => {
  let browser: Browser;
  beforeAll(async () => {
    browser = await launchBrowser();
  });
  afterAll(() => browser.close());

  // Reference: frequency-tuned saliency (Achanta et al., CVPR 2009) of the pixels that Chromium paints, summed over the box of each action.
  it('ranks the actions of a page much as a published saliency measure of its pixels does', async () => {
    const found: { readonly name: string; readonly actions: number; readonly rho: number }[] = [];
    for (const { name, html } of pages()) {
      let site = dressSite(
        openSite({
          pages: [{ id: 1, name, path: 'index.html', html }],
          stylesheets: {},
          parts: [],
          veneerPlace: 'head-end',
          prefix: 'or',
        }),
        [],
        { swatches: [], roles: [] },
      );
      const context = await browser.newContext({ viewport: { width: 1280, height: 800 } });
      const page = await context.newPage();
      await page.setContent(html);
      site = layOut(site, 1, (await measuredPage(page, pageOf(site, 1))).layout);
      const boxes = await page.evaluate(() =>
        [...document.querySelectorAll('*')].map((element) => {
          const { left, top, width, height } = element.getBoundingClientRect();
          return { left, top, width, height };
        }),
      );
      const map = frequencyTunedSaliency(await page.screenshot());
      await context.close();
      const ranked = prominenceOf(site, { kind: 'site' }, 1280).flatMap(({ element, share }) => {
        const box = boxes.at(element);
        // What is not on the screen is in no picture of it.
        if (
          !box ||
          box.width < 1 ||
          box.top < 0 ||
          box.top + box.height > map.height ||
          box.left < 0 ||
          box.left + box.width > map.width
        )
          return [];
        let sum = 0;
        for (let y = Math.floor(box.top); y < Math.ceil(box.top + box.height); y += 1)
          for (let x = Math.floor(box.left); x < Math.ceil(box.left + box.width); x += 1)
            sum += map.values[y * map.width + x] ?? 0;
        return [{ share, saliency: sum }];
      });
      if (ranked.length >= FEWEST)
        found.push({
          name,
          actions: ranked.length,
          rho: rankCorrelation(
            ranked.map(({ share }) => share),
            ranked.map(({ saliency }) => saliency),
          ),
        });
    }
    const actions = found.reduce((sum, page) => sum + page.actions, 0);
    const rho = found.reduce((sum, page) => sum + page.rho * page.actions, 0) / actions;
    process.stdout.write(
      `\nProminence beside frequency-tuned saliency: rank correlation ${rho.toFixed(2)} over ${actions} actions of ${found.length} pages (${found.map((page) => `${page.name} ${page.rho.toFixed(2)}`).join(', ')}).\n`,
    );
    expect(found.length).toBeGreaterThan(2);
    expect(rho).toBeGreaterThan(0.6);
  });
});
