import {
  colorOfCss,
  deltaE2000,
  distinctInks,
  hexOf,
  recoverInk,
  type Color,
  type InkReport,
  type Raster,
} from '@upper-veneer/core';
import { PNG } from 'pngjs';
import type { Browser, Page } from 'playwright-core';
import { launchBrowser } from '../support/browser.js';

function rasterOf(png: Buffer): Raster {
  const { width, height, data } = PNG.sync.read(png);
  return { width, height, data: new Uint8ClampedArray(data) };
}

function inksOf(raster: Raster): InkReport {
  const steps = distinctInks(raster);
  for (;;) {
    const step = steps.next();
    if (step.done) return step.value;
  }
}

const css = (text: string): Color => colorOfCss(text) as Color;

/** Inks and grounds: brand colours of the demo, greys, pale on pale, and pairs of little contrast. */
const INKS = ['#1d2b2a', '#b4582a', '#0f4a48', '#ffffff', '#5c6b68', '#a3262a', '#3e7bfa'];
const GROUNDS = ['#f7f3e9', '#ffffff', '#22302f', '#e8b21e', '#eef3e4'];
const FACES = ['"Liberation Serif"', '"Liberation Sans"', '"Liberation Mono"'];
const SIZES = [12, 14, 16, 20];

describe('colours read off what Chromium draws', () => {
  let browser: Browser;
  let page: Page;
  beforeAll(async () => {
    browser = await launchBrowser();
    page = await browser.newPage({ viewport: { width: 400, height: 200 } });
  });
  afterAll(() => browser.close());

  // Reference: the colour the text was set in, as Chromium was told it.
  it('the ink of text of 12 to 20 px is recovered within ΔE2000 2 on every ground', async () => {
    const misses: string[] = [];
    let worst = 0;
    let count = 0;
    for (const [i, ink] of INKS.entries()) {
      for (const [k, ground] of GROUNDS.entries()) {
        // Under this a reader would not find the text to draw a box around.
        if (deltaE2000(css(ink), css(ground)) < 12) continue;
        for (const size of SIZES) {
          const face = FACES[(i + k + size) % FACES.length];
          await page.setContent(
            `<body style="margin:0;background:${ground}"><p id=t style='margin:20px;width:max-content;color:${ink};font:${size}px ${face}'>A quiet river, two paddles</p>`,
          );
          const box = await page.locator('#t').boundingBox();
          const found = box
            ? recoverInk(rasterOf(await page.screenshot()), {
                left: box.x - 2,
                top: box.y - 2,
                width: box.width + 4,
                height: box.height + 4,
              })
            : null;
          const moved = found ? deltaE2000(found.ink, css(ink)) : Number.POSITIVE_INFINITY;
          worst = Math.max(worst, moved);
          count += 1;
          if (moved > 2 || (found && deltaE2000(found.ground, css(ground)) > 0.01))
            misses.push(
              `${ink} on ${ground}, ${size} px ${face}: ${found ? hexOf(found.ink) : 'nothing'}, ΔE ${moved.toFixed(2)}`,
            );
        }
      }
    }
    expect(misses).toEqual([]);
    expect(count).toBeGreaterThan(100);
    if (process.env['FIGURES'])
      process.stdout.write(`ink recovery: ${count} texts, worst ΔE2000 ${worst.toFixed(2)}\n`);
  });

  // Reference: the inks the logos are written in.
  it('flat logos of several sizes give all their inks within ΔE2000 1 and no others', async () => {
    const logos: readonly (readonly [svg: string, inks: readonly string[]])[] = [
      [
        '<path d="M16 112c40-46 88-34 112-8s64 34 96 6" fill="none" stroke="#0f4a48" stroke-width="12"/><path d="M84 92C70 70 84 36 104 22M100 92C94 70 104 46 126 34M114 96c0-14 10-28 28-32" fill="none" stroke="#6d8a35" stroke-width="8"/><path d="M150 98l54-40" stroke="#b4582a" stroke-width="10"/><path d="M214 50l-22 4 12 16z" fill="#b4582a"/>',
        ['#0f4a48', '#6d8a35', '#b4582a'],
      ],
      [
        '<circle cx="80" cy="80" r="60" fill="#a3262a"/><circle cx="150" cy="80" r="52" fill="#1d2b2a"/>',
        ['#a3262a', '#1d2b2a'],
      ],
      [
        '<rect x="20" y="20" width="200" height="120" rx="18" fill="#e8b21e"/><path d="M60 120L120 40l60 80z" fill="#3a2c00"/><circle cx="120" cy="98" r="16" fill="#ffffff"/>',
        ['#e8b21e', '#3a2c00', '#ffffff'],
      ],
      [
        '<g transform="rotate(17 120 80)"><rect x="40" y="30" width="80" height="100" fill="#5a3f5c"/><rect x="120" y="30" width="80" height="100" fill="#6d8a35"/></g>',
        ['#5a3f5c', '#6d8a35'],
      ],
    ];
    const misses: string[] = [];
    for (const [shapes, inks] of logos) {
      for (const width of [64, 120, 240, 512]) {
        await page.setViewportSize({ width: 600, height: 420 });
        await page.setContent(
          `<body style="margin:0;background:transparent"><svg id=l xmlns="http://www.w3.org/2000/svg" viewBox="0 0 240 160" width="${width}" style="display:block">${shapes}</svg>`,
        );
        const raster = rasterOf(await page.locator('#l').screenshot({ omitBackground: true }));
        const found = inksOf(raster).inks.map(({ color }) => color);
        for (const ink of inks)
          if (!found.some((color) => deltaE2000(color, css(ink)) <= 1))
            misses.push(`${width} px: ${ink} is missing among ${found.map(hexOf).join(' ')}`);
        for (const color of found)
          if (!inks.some((ink) => deltaE2000(color, css(ink)) <= 1))
            misses.push(`${width} px: ${hexOf(color)} is no ink of ${inks.join(' ')}`);
      }
    }
    expect(misses).toEqual([]);
  });
});
