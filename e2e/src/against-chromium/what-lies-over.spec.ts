import { StyleView, contrastRatio, hexOf, parsePage, surroundingsOf, type ElementNode } from '@upper-veneer/core';
import type { Browser } from 'playwright-core';
import { launchBrowser } from '../support/browser.js';
import { measuredPage } from '../support/measured-page.js';

const VIEWPORT = { width: 400, height: 200 };

// Reference: boxes as Chromium lays them out; ratios by WCAG 2.2's formula.
describe('what lies over a text', () => {
  let browser: Browser;
  beforeAll(async () => {
    browser = await launchBrowser();
  });
  afterAll(() => browser.close());

  const around = async (css: string): Promise<ReturnType<typeof surroundingsOf>> => {
    const html = `<!doctype html><style>body { margin: 0; background: #fff } .t { margin: 0; font: 20px/2 serif; color: #1d2b2a } .bar { left: 0; top: 0; width: 400px; height: 60px; background: #1d2b2a; ${css} }</style><p class=t>Text</p><div class=bar></div>`;
    const page = await browser.newPage({ viewport: VIEWPORT });
    await page.setContent(html);
    const { page: own } = await measuredPage(page, parsePage(html));
    await page.close();
    const text = own.document.elements.find(({ classes }: ElementNode) => classes.includes('t'));
    if (!text) throw new Error('no text');
    return surroundingsOf(new StyleView(own, { environment: VIEWPORT }), text);
  };

  it('hides it, though it has the text’s own colour', async () => {
    expect((await around('position: absolute')).isHidden).toBeTrue();
  });

  it('is scrolled clear of where it is fixed, with its shadow', async () => {
    const { isHidden, ground, text, ratio } = await around('position: fixed; box-shadow: 0 0 40px 40px #1d2b2a');
    expect([isHidden, hexOf(ground)]).toEqual([false, '#ffffff']);
    expect(ratio).toBeCloseTo(contrastRatio(text, ground), 6);
    expect(ratio).toBeGreaterThan(14);
  });

  it('lets it be read where it lets light through', async () => {
    const { isHidden, ratio } = await around('position: absolute; opacity: .5');
    expect(isHidden).toBeFalse();
    expect(ratio).toBeGreaterThan(1.5);
  });

  it('is passed over where it is a thin edge that crosses it', async () => {
    const { ground } = await around(
      'position: absolute; top: 9px; height: 0; background: none; border-top: 2px solid #b4582a',
    );
    expect(hexOf(ground)).toBe('#ffffff');
  });
});
