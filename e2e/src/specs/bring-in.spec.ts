import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { colorOfCss, deltaE2000, type Color } from '@upper-veneer/core';
import { PNG } from 'pngjs';
import { setUpBench } from '../support/on-bench.js';
import { root } from '../support/product.js';

const distance = (a: string, b: string): number => deltaE2000(colorOfCss(a) as Color, colorOfCss(b) as Color);

describe('colours brought into the Palette', () => {
  const on = setUpBench();
  const toPalette = async (): Promise<void> => {
    await on.bench.page.getByRole('link', { name: /Palette/ }).click();
    await on.bench.page.waitForSelector('uv-pair-table table');
  };
  const inks = (): Promise<string[]> => on.bench.page.locator('uv-ink-list li .uv-mono').allInnerTexts();
  const source = (name: string): Promise<void> =>
    on.bench.page.locator('uv-bring-in').getByText(name, { exact: true }).click();

  it('finds the inks of the logo, as SVG and as PNG, and catches it on dark grounds', async () => {
    await toPalette();
    for (const name of ['logo.svg', 'logo.png']) {
      await on.bench.page.getByLabel('Picture file').setInputFiles(join(root, 'demo/site/img', name));
      await on.bench.page.getByText(`${name}, `).waitFor();
      await on.bench.page.waitForSelector('uv-ink-list li');
      const found = await inks();
      // The colours that demo/site/img/logo.svg is written in.
      for (const ink of ['#0f4a48', '#6d8a35', '#b4582a'])
        expect(Math.min(...found.map((hex) => distance(hex, ink))))
          .withContext(`${ink} of ${name}`)
          .toBeLessThan(1);
      expect(found.length).withContext(name).toBe(3);
    }
    await on.bench.page.locator('.topics').getByText('Logo on grounds').click();
    const dark = on.bench.page.locator('uv-logo-grounds li', { hasText: '#0f4a48' });
    await dark.getByText('% of its ink is lost').waitFor();
    expect(await dark.locator('uv-standing.fails').count()).toBe(1);
    expect(
      await on.bench.page
        .locator('uv-logo-grounds li', { hasText: 'ground' })
        .first()
        .locator('uv-standing.holds')
        .count(),
    ).toBe(1);
  });

  it('reads pixels, squares and the ink of thin text off a page, on to the shelf, which lasts', async () => {
    await toPalette();
    await source('Page');
    await on.bench.page.getByRole('combobox', { name: 'Page under the loupe' }).click();
    await on.bench.page.getByRole('option', { name: 'Trips' }).click();
    await on.bench.page.getByRole('button', { name: 'Larger' }).click();
    const canvas = on.bench.page.locator('.large .sheet canvas');
    await canvas.waitFor();
    await on.bench.settled();
    const box = await canvas.boundingBox();
    if (!box) throw new Error('no picture');
    // The lead paragraph stands 100 px from the left edge of a page of 1280, below the heading.
    const scale = box.width / 1280;
    await on.bench.page.mouse.move(box.x + 130 * scale, box.y + 184 * scale);
    await on.bench.page.mouse.down();
    await on.bench.page.mouse.move(box.x + 300 * scale, box.y + 215 * scale, { steps: 4 });
    await on.bench.page.mouse.up();
    await on.bench.page.getByText(/ink of the text on #f7f3e9/).waitFor();
    await on.bench.page.keyboard.press('Escape');
    await on.bench.page.reload();
    await on.bench.page.waitForSelector('uv-shelf .chip');
    const [label] = await on.bench.page
      .locator('uv-shelf .chip')
      .evaluateAll((chips) => chips.map((chip) => chip.getAttribute('aria-label') ?? ''));
    const hex = /#[0-9a-f]{6}/.exec(label)?.[0] ?? '';
    expect(distance(hex, '#1d2b2a')).toBeLessThan(2);
    const before = await on.bench.version();
    await on.bench.page.locator('uv-shelf .chip').first().click();
    await on.bench.changed(before);
    expect(await on.bench.page.locator('.swatches li').count()).toBe(11);
  });

  it('writes the palette in three kinds of file and reads each back', async () => {
    await toPalette();
    await source('File');
    const files: { name: string; text: string }[] = [];
    for (const format of ['Design tokens', 'GIMP palette', 'CSS custom properties']) {
      const [download] = await Promise.all([
        on.bench.page.waitForEvent('download'),
        on.bench.page.getByRole('button', { name: format }).click(),
      ]);
      files.push({ name: download.suggestedFilename(), text: readFileSync(await download.path(), 'utf8') });
    }
    expect(files.map(({ name }) => name)).toEqual(['osier-reed.tokens.json', 'osier-reed.gpl', 'osier-reed.css']);
    for (const { name, text } of files) {
      await on.bench.page
        .getByLabel('Palette file')
        .setInputFiles({ name, mimeType: 'text/plain', buffer: Buffer.from(text) });
      await on.bench.page.getByText(`10 colours in ${name}`).waitFor();
    }
    const before = await on.bench.version();
    await on.bench.page.getByRole('button', { name: 'Add all' }).click();
    await on.bench.changed(before);
    expect(await on.bench.page.locator('.swatches li').count()).toBe(20);
    await on.bench.page
      .getByLabel('Palette file')
      .setInputFiles({ name: 'broken.json', mimeType: 'text/plain', buffer: Buffer.from('{ "a": ') });
    await on.bench.page.locator('uv-file-source .problem').first().waitFor();
    expect(await on.bench.page.locator('.swatches li').count()).toBe(20);
  });

  it('says what is wrong with a file that is no picture', async () => {
    await toPalette();
    for (const [name, text] of [
      ['logo.png', 'not a picture'],
      ['empty.gif', ''],
      ['half.svg', '<svg xmlns="http://www.w3.org/2000/svg"><rect'],
    ] as const) {
      await on.bench.page.getByLabel('Picture file').setInputFiles({
        name,
        mimeType: name.endsWith('svg') ? 'image/svg+xml' : 'image/png',
        buffer: Buffer.from(text),
      });
      await on.bench.page.locator('uv-picture-source .problem', { hasText: name }).waitFor();
    }
  });

  it('counts the inks of a picture of 12 megapixels while the interface goes on drawing', async () => {
    await toPalette();
    const picture = new PNG({ width: 4000, height: 3000 });
    for (let y = 0; y < 3000; y += 1) {
      for (let x = 0; x < 4000; x += 1) {
        const [r, g, b] =
          x < 1500
            ? [180, 88, 42]
            : (x + y) % 9 < 5 && x > 2600
              ? [(x * 7) % 256, (y * 5) % 256, (x + y) % 256]
              : [15, 74, 72];
        picture.data.set([r, g, b, 255], (y * 4000 + x) * 4);
      }
    }
    await on.bench.page.getByLabel('Picture file').setInputFiles({
      name: 'river.png',
      mimeType: 'image/png',
      buffer: PNG.sync.write(picture, { deflateLevel: 1 }),
    });
    const frames = await on.bench.page.evaluate(
      () =>
        new Promise<{ longest: number; count: number; shares: number }>((done) => {
          let last = performance.now();
          let longest = 0;
          let count = 0;
          const shares = new Set<string>();
          const tick = (now: number): void => {
            longest = Math.max(longest, now - last);
            last = now;
            count += 1;
            shares.add(
              document.querySelector('uv-picture-source [role=progressbar]')?.getAttribute('aria-valuenow') ?? '',
            );
            if (document.querySelector('uv-ink-list li')) done({ longest, count, shares: shares.size });
            else requestAnimationFrame(tick);
          };
          requestAnimationFrame(tick);
        }),
    );
    expect(frames.shares).toBeGreaterThan(2);
    const found = await inks();
    for (const ink of ['#b4582a', '#0f4a48']) expect(found).toContain(ink);
    // How long a frame takes is for a figure, not for a check: other work goes on beside the specs.
    expect(frames.count).toBeGreaterThan(10);
    if (process.env['FIGURES']) process.stdout.write(`12 megapixels: longest frame ${frames.longest.toFixed(0)} ms\n`);
  });
});
