import { StyleView, hexOf, parsePage, pointerStates } from '@upper-veneer/core';
import { chromium, type BrowserContext, type Page } from 'playwright-core';
import { temporaryFolder } from '../support/product.js';

const SIZE = 40;
/** Each row paints one block link wholly in the colour under test. */
const ROWS: readonly (readonly [what: string, css: string, longhand: string])[] = [
  [
    'a fill',
    '.r0 { background: rgb(10, 20, 30) } .r0:visited { background-color: rgb(200, 100, 50) }',
    'background-color',
  ],
  [
    'the background shorthand, colour only',
    '.r1 { background: rgb(10, 20, 30) } .r1:visited { background: url(x.png) rgb(20, 120, 220) }',
    'background-color',
  ],
  [
    'an edge',
    '.r2 { border: 20px solid rgb(1, 2, 3); height: 0; width: 0 } .r2:visited { border-color: rgb(90, 180, 20) }',
    'border-top-color',
  ],
  [
    'alpha from the unvisited fill',
    '.r3 { background: rgb(10 20 30 / 50%) } .r3:visited { background: rgb(200, 0, 0) }',
    'background-color',
  ],
  ['nothing where the unvisited fill is transparent', '.r4:visited { background: rgb(200, 0, 0) }', 'background-color'],
  [
    'a child of a visited link',
    '.r5 b { display: block; height: 40px; background: rgb(0, 0, 0) } .r5:visited b { background: rgb(130, 30, 130) }',
    'background-color',
  ],
  [
    'a variable in a visited rule',
    '.r6 { --c: rgb(30, 90, 150); background: rgb(0, 0, 0) } .r6:visited { --c: red; background-color: var(--c) }',
    'background-color',
  ],
  [
    ':not(:visited)',
    '.r7 { background: rgb(60, 60, 200) } .r7:not(:visited) { background: rgb(0, 0, 0) }',
    'background-color',
  ],
  [':link no longer', '.r8 { background: rgb(70, 160, 70) } .r8:link { background: rgb(0, 0, 0) }', 'background-color'],
  [
    'current colour of a visited link',
    '.r9 { color: rgb(1, 1, 1); border: 20px solid; height: 0; width: 0 } .r9:visited { color: rgb(220, 140, 0) }',
    'border-top-color',
  ],
];
const HTML =
  `<!doctype html><style>body { margin: 0 } a { display: block; width: ${SIZE}px; height: ${SIZE}px } ${ROWS.map(([, css]) => css).join('\n')}</style>` +
  ROWS.map((_, i) => `<a class="r${i}" href="two.html"><b></b></a>`).join('');

describe('visited links', () => {
  let context: BrowserContext;
  let page: Page;
  let folder: ReturnType<typeof temporaryFolder>;
  let pixels: string[];
  beforeAll(async () => {
    folder = temporaryFolder();
    // Off-the-record contexts keep no history, so a profile of its own is needed.
    context = await chromium.launchPersistentContext(folder.path, {
      executablePath: process.env['CHROME_BIN'] ?? '/usr/bin/chromium',
      viewport: { width: 200, height: SIZE * ROWS.length },
      args: [
        '--no-sandbox',
        '--disable-gpu',
        '--disable-background-networking',
        '--disable-component-update',
        '--disable-sync',
        '--no-first-run',
      ],
    });
    await context.route('http://site.test/**', (route) =>
      route.fulfill({ contentType: 'text/html', body: route.request().url().endsWith('two.html') ? '<p>two' : HTML }),
    );
    page = await context.newPage();
    await page.goto('http://site.test/one.html');
    await page.click('a.r0');
    await page.waitForURL('**/two.html');
    await page.goBack();
    await page.waitForTimeout(400);
    const picture = (await page.screenshot()).toString('base64');
    const reader = await context.newPage();
    pixels = await reader.evaluate(
      async ([data, size, count]) => {
        const image = new Image();
        image.src = `data:image/png;base64,${data}`;
        await image.decode();
        const canvas = new OffscreenCanvas(image.width, image.height).getContext('2d');
        canvas?.drawImage(image, 0, 0);
        return Array.from({ length: count }, (_, i) => {
          const [r, g, b] = canvas?.getImageData(6, i * size + 6, 1, 1).data ?? [];
          return `#${[r, g, b].map((channel) => channel.toString(16).padStart(2, '0')).join('')}`;
        });
      },
      [picture, SIZE, ROWS.length] as const,
    );
  });
  afterAll(async () => {
    await context.close();
    folder.remove();
  });

  // Reference: painted pixels, since getComputedStyle hides visited colours (HTML §"visited").
  ROWS.forEach(([what, , longhand], i) => {
    it(`paint ${what} as the core says`, () => {
      const document = parsePage(HTML);
      const link =
        document.document.elements.find((element) => element.classes.includes(`r${i}`)) ??
        document.document.rootElement;
      const view = new StyleView(document, { states: pointerStates(document.document, link, 'visited') });
      const color = view.style(what.startsWith('a child') ? link.children[0] : link).color(longhand);
      const alpha = color?.alpha ?? 0;
      // Over the white page, as painted.
      const painted = color
        ? hexOf({
            space: 'legacy',
            alpha: 1,
            channels: color.channels.map(
              (channel) => (channel ?? 0) * alpha + 1 - alpha,
            ) as unknown as typeof color.channels,
          })
        : 'none';
      // Compositing rounds a channel up or down.
      const distance = Math.max(
        ...[1, 3, 5].map((at) =>
          Math.abs(parseInt(painted.slice(at, at + 2), 16) - parseInt(pixels[i].slice(at, at + 2), 16)),
        ),
      );
      expect(distance).withContext(`${painted}, painted ${pixels[i]}`).toBeLessThanOrEqual(1);
    });
  });
});
