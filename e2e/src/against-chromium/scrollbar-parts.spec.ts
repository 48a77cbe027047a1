import { dressSite, judgeOverride, openSite, planAll, planOverride, withOverrides, type OverrideWish, type SiteModel } from '@upper-veneer/core';
import { launchBrowser } from '../support/browser.js';
import type { Browser } from 'playwright-core';

const WIDTH = 23;

/** A site of one scrolling box, with rules of its own for the scrollbar. */
function siteWith(theme: string): SiteModel {
  const html = `<!doctype html><style>${theme}</style><body><div class=box style="overflow: scroll; height: 60px; width: 200px">x</div>`;
  return dressSite(openSite({ pages: [{ id: 1, name: 'P', path: 'p.html', html }], stylesheets: {}, parts: [], veneerPlace: 'body-end', prefix: 'brand' }), [], { swatches: [], roles: [] });
}

const WISH: OverrideWish = { pageId: 1, element: 4, pseudo: '-webkit-scrollbar', reach: 'one', state: 'rest', property: 'width', value: { kind: 'literal', css: `${WIDTH}px` }, width: 1280 };

// The width a scrollbar takes from its box is Chromium's own answer to whether it goes by the parts.
describe('scrollbar parts in Chromium', () => {
  let browser: Browser;
  beforeAll(async () => {
    browser = await launchBrowser({ showsScrollbars: true });
  });
  afterAll(() => browser.close());

  async function takenBy(site: SiteModel): Promise<number> {
    const page = await browser.newPage();
    await page.setContent([...site.source.pages][0].html);
    await page.addStyleTag({ content: site.css });
    const taken = await page.evaluate(() => {
      const box = document.querySelector<HTMLElement>('.box');
      return box ? box.offsetWidth - box.clientWidth : -1;
    });
    await page.close();
    return taken;
  }

  const rows: readonly (readonly [theme: string, passed: readonly string[]])[] = [
    ['', []], ['.box { scrollbar-color: red blue }', ['scrollbar-color passes over this part']], ['body { scrollbar-color: red blue }', ['scrollbar-color passes over this part']],
    ['.box { scrollbar-width: thin }', ['scrollbar-width passes over this part']], ['.box { scrollbar-color: auto; scrollbar-width: auto }', []], ['#x, body .box { scrollbar-color: red blue; scrollbar-width: thin }', ['scrollbar-color passes over this part', 'scrollbar-width passes over this part']],
  ];
  for (const [theme, passed] of rows) {
    it(`are passed over as the verdict says, and no more after its repair: ${theme || 'no rule'}`, async () => {
      const plan = planOverride(siteWith(theme), WISH);
      if (!plan.ok) throw new Error(plan.reason);
      const dressed = withOverrides(siteWith(theme), plan);
      const findings = judgeOverride(dressed, plan.put[0], 1280).filter(({ text }) => text.includes('passes over'));
      expect(findings.map(({ text }) => text)).toEqual([...passed]);
      expect(await takenBy(dressed) === WIDTH).withContext(dressed.css).toBe(passed.length === 0);
      const repaired = withOverrides(dressed, planAll(dressed, findings.flatMap(({ repair }) => repair?.wishes ?? [])));
      expect(await takenBy(repaired)).withContext(repaired.css).toBe(WIDTH);
    });
  }
});
