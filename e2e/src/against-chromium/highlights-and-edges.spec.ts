import { StyleView, edgeOver, hexOf, parsePage, surroundingsOf } from '@upper-veneer/core';
import { PNG } from 'pngjs';
import type { Browser } from 'playwright-core';
import { launchBrowser } from '../support/browser.js';
import { measuredPage } from '../support/measured-page.js';

const VIEWPORT = { width: 400, height: 120 };
const PAGE = (css: string, body: string): string =>
  `<!doctype html><style>body { margin: 0; background: #203040 } .t { margin: 10px; padding: 20px; font: 40px/1 serif; color: #fff } ${css}</style>${body}`;

/** Share of its box that a highlight covers at least. */
const LEAST_PIXELS = 200;

// Reference: the pixels Chromium paints, the text being selected.
describe('a highlight as Chromium paints it', () => {
  let browser: Browser;
  beforeAll(async () => {
    browser = await launchBrowser();
  });
  afterAll(() => browser.close());

  const painted = async (
    html: string,
    select: boolean,
  ): Promise<{ pixels: Map<string, number>; measured: Awaited<ReturnType<typeof measuredPage>> }> => {
    const page = await browser.newPage({ viewport: VIEWPORT });
    await page.setContent(html);
    const measured = await measuredPage(page, parsePage(html));
    if (select) await page.evaluate("getSelection().selectAllChildren(document.querySelector('.t'))");
    const { data } = PNG.sync.read(await page.screenshot());
    await page.close();
    const pixels = new Map<string, number>();
    for (let i = 0; i < data.length; i += 4) {
      const hex = `#${data.subarray(i, i + 3).toString('hex')}`;
      pixels.set(hex, (pixels.get(hex) ?? 0) + 1);
    }
    return { pixels, measured };
  };

  for (const [what, css] of [
    ['over a plain fill', '.t { background: #335577 } .t::selection { background: #84a34e; color: #1d2b2a }'],
    [
      'over a gradient',
      '.t { background: linear-gradient(#b4582a, #b4582a) } .t::selection { background: #84a34e; color: #1d2b2a }',
    ],
    ['see-through', '.t { background: #335577 } .t::selection { background: rgb(132 163 78 / 50%); color: #1d2b2a }'],
    [
      'in a group of opacity',
      '.t { background: #335577; opacity: .6 } .t::selection { background: #84a34e; color: #1d2b2a }',
    ],
  ] as const)
    for (const by of ['boxes', 'chain'] as const)
      it(`${what}, by ${by}`, async () => {
        const html = PAGE(css, '<p class=t>I I I I</p>');
        const { pixels, measured } = await painted(html, true);
        const page = by === 'boxes' ? measured.page : parsePage(html);
        const target = page.document.elements.find(({ classes }) => classes.includes('t')) ?? page.document.rootElement;
        const around = surroundingsOf(new StyleView(page, { environment: VIEWPORT }), target, 'selection');
        expect(around.by).toBe(by);
        expect(near(pixels, hexOf(around.ground)))
          .withContext(
            `${hexOf(around.ground)} among ${[...pixels]
              .sort((a, b) => b[1] - a[1])
              .slice(0, 5)
              .join(' ')}`,
          )
          .toBeGreaterThan(LEAST_PIXELS);
        expect(near(pixels, hexOf(around.text))).toBeGreaterThan(10);
      });

  // CSS Backgrounds 3 §2.5: the fill reaches under the edge unless it is clipped to the padding.
  for (const [what, clip] of [
    ['its own fill', 'border-box'],
    ['what lies around it, its fill clipped', 'padding-box'],
  ] as const)
    it(`a see-through edge over ${what}`, async () => {
      const html = PAGE(
        `.t { background: #b4582a; background-clip: ${clip}; border: 8px solid rgb(255 255 255 / 40%) }`,
        '<p class=t></p>',
      );
      const { pixels, measured } = await painted(html, false);
      const view = new StyleView(measured.page, { environment: VIEWPORT });
      const target = measured.page.document.elements.find(({ classes }) => classes.includes('t'));
      if (!target) throw new Error('no target');
      const style = view.style(target);
      const edge = style.color('border-top-color');
      if (!edge) throw new Error('no edge');
      const shown = hexOf(edgeOver(style, edge, surroundingsOf(view, target).outside));
      expect(near(pixels, shown))
        .withContext(
          `${shown} among ${[...pixels]
            .sort((a, b) => b[1] - a[1])
            .slice(0, 5)
            .join(' ')}`,
        )
        .toBeGreaterThan(LEAST_PIXELS);
    });
});

/** Pixels of a colour, each channel rounded either way. */
function near(pixels: ReadonlyMap<string, number>, hex: string): number {
  const channels = (text: string): number[] => [1, 3, 5].map((at) => parseInt(text.slice(at, at + 2), 16));
  const wanted = channels(hex);
  return [...pixels].reduce(
    (sum, [own, count]) => (channels(own).every((value, i) => Math.abs(value - wanted[i]) <= 1) ? sum + count : sum),
    0,
  );
}
