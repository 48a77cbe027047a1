import { say, spoken } from '@upper-veneer/words';
import {
  dressSite,
  judgeOverride,
  openSite,
  planAll,
  planOverride,
  withOverrides,
  type OverrideWish,
  type SiteModel,
} from '@upper-veneer/core';
import { launchBrowser } from '../support/browser.js';
import type { Browser } from 'playwright-core';
import Color from 'colorjs.io';
import { PNG } from 'pngjs';

const WIDTH = 23;

/** A site of one scrolling box, with rules of its own for the scrollbar. */
function siteWith(theme: string): SiteModel {
  const html = `<!doctype html><style>${theme}</style><body><div class=box style="overflow: scroll; height: 60px; width: 200px">x</div>`;
  return dressSite(
    openSite({
      pages: [{ id: 1, name: 'P', path: 'p.html', html }],
      stylesheets: {},
      parts: [],
      veneerPlace: 'body-end',
      prefix: 'brand',
    }),
    [],
    { swatches: [], roles: [] },
  );
}

const WISH: OverrideWish = {
  pageId: 1,
  element: 4,
  pseudo: '-webkit-scrollbar',
  reach: 'one',
  state: 'rest',
  property: 'width',
  value: { kind: 'literal', css: `${WIDTH}px` },
  width: 1280,
};

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
    await page.addStyleTag({ content: site.css || '/* none */' });
    const taken = await page.evaluate(() => {
      const box = document.querySelector<HTMLElement>('.box');
      return box ? box.offsetWidth - box.clientWidth : -1;
    });
    await page.close();
    return taken;
  }

  const rows: readonly (readonly [theme: string, passed: readonly string[]])[] = [
    ['', []],
    ['.box { scrollbar-color: red blue }', ['scrollbar-color passes over this part']],
    ['body { scrollbar-color: red blue }', ['scrollbar-color passes over this part']],
    ['.box { scrollbar-width: thin }', ['scrollbar-width passes over this part']],
    ['.box { scrollbar-color: auto; scrollbar-width: auto }', []],
    [
      '#x, body .box { scrollbar-color: red blue; scrollbar-width: thin }',
      ['scrollbar-color passes over this part', 'scrollbar-width passes over this part'],
    ],
  ];
  for (const [theme, passed] of rows) {
    it(`are passed over as the verdict says, and no more after its repair: ${theme || 'no rule'}`, async () => {
      const plan = planOverride(siteWith(theme), WISH);
      if (!plan.ok) throw new Error(say(plan.reason));
      const dressed = withOverrides(siteWith(theme), plan);
      const findings = judgeOverride(dressed, plan.put[0], 1280).filter(({ text }) =>
        say(text).includes('passes over'),
      );
      expect(spoken(findings.map(({ text }) => text))).toEqual([...passed]);
      expect((await takenBy(dressed)) === WIDTH)
        .withContext(dressed.css)
        .toBe(passed.length === 0);
      const repaired = withOverrides(
        dressed,
        planAll(
          dressed,
          findings.flatMap(({ repair }) => repair?.wishes ?? []),
        ),
      );
      expect(await takenBy(repaired))
        .withContext(repaired.css)
        .toBe(WIDTH);
    });
  }

  // What is painted at the right edge of a box that has far more to show than room.
  async function paintedEdge(site: SiteModel, pointerOver = false): Promise<Set<string>> {
    const page = await browser.newPage({ viewport: { width: 260, height: 120 } });
    await page.setContent([...site.source.pages][0].html.replace('>x<', '><p style="height: 90px"></p><'));
    await page.addStyleTag({ content: site.css || '/* none */' });
    if (pointerOver) {
      await page.mouse.move(120, 20);
      await page.mouse.move(202, 20, { steps: 4 });
    }
    const { data, width } = PNG.sync.read(await page.screenshot({ clip: { x: 190, y: 8, width: 18, height: 60 } }));
    await page.close();
    return new Set(
      Array.from({ length: 60 }, (_, y) => [...data.subarray((y * width + 12) * 4, (y * width + 12) * 4 + 3)].join()),
    );
  }

  it('paint a thumb that is overridden alone, the bar keeping its width, and another one under the pointer', async () => {
    const site = siteWith('');
    const thumb: OverrideWish = {
      ...WISH,
      pseudo: '-webkit-scrollbar-thumb',
      property: 'background-color',
      value: { kind: 'literal', css: '#b4582a' },
    };
    const plan = planAll(site, [thumb, { ...thumb, pseudoState: 'hover', value: { kind: 'literal', css: '#104a47' } }]);
    const dressed = withOverrides(site, plan);
    expect(dressed.css).toContain('::-webkit-scrollbar {\n    width: auto;');
    expect(await takenBy(dressed)).toBe(await takenBy(site));
    expect(await paintedEdge(site)).not.toContain('180,88,42');
    expect(await paintedEdge(dressed)).toContain('180,88,42');
    expect(await paintedEdge(dressed, true)).toContain('16,74,71');
    const [found] = judgeOverride(dressed, plan.put[0], 1280).filter(({ text }) => say(text).startsWith('thumb'));
    // Reference: colorjs.io's WCAG 2.1 contrast, the same formula as 2.2's.
    const ratio = new Color('#b4582a').contrast('white', 'WCAG21');
    expect(spoken(found.text)).toBe(`thumb ${(Math.floor(ratio * 10) / 10).toFixed(1)} : 1 on its track`);
  });

  it('are told where a thumb is lost on its track', () => {
    const site = siteWith(
      '.box::-webkit-scrollbar { width: 12px } .box::-webkit-scrollbar-track { background: #b08968 }',
    );
    const plan = planAll(site, [
      {
        ...WISH,
        pseudo: '-webkit-scrollbar-thumb',
        property: 'background-color',
        value: { kind: 'literal', css: '#b4582a' },
      },
    ]);
    expect(plan.put.map(({ pseudo }) => pseudo)).toEqual(['-webkit-scrollbar-thumb']);
    expect(
      spoken(
        judgeOverride(withOverrides(site, plan), plan.put[0], 1280)
          .filter(({ standing }) => standing === 'fails')
          .map(({ text }) => text),
      ),
    ).toEqual(['thumb 1.5 : 1 on its track, needs 3']);
  });
});
