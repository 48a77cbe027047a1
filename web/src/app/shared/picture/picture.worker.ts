import '../language/speak-in-worker';
import { wordsOf } from '@upper-veneer/words';
import {
  averageColor,
  colorOfCss,
  distinctInks,
  hexOf,
  logoOnGround,
  pixelAt,
  recoverInk,
  type Color,
  type InkReport,
  type Raster,
} from '@upper-veneer/core';
import { expose, transfer } from 'comlink';
import type { PictureApi } from './picture-api';

let raster: Raster = { width: 0, height: 0, data: new Uint8ClampedArray() };
let report: InkReport | null = null;
/** Counts pictures and stops, so that work on an older one ends. */
let turn = 0;

const picture: PictureApi = {
  load(bitmap, shownSide) {
    turn += 1;
    report = null;
    const { width, height } = bitmap;
    const context = new OffscreenCanvas(width, height).getContext('2d', { willReadFrequently: true });
    if (!context) throw new Error(wordsOf('screen.picture-too-large-for'));
    context.drawImage(bitmap, 0, 0);
    raster = { width, height, data: context.getImageData(0, 0, width, height).data };
    const scale = Math.min(1, shownSide / Math.max(width, height));
    const copy = new OffscreenCanvas(Math.max(1, Math.round(width * scale)), Math.max(1, Math.round(height * scale)));
    copy.getContext('2d')?.drawImage(bitmap, 0, 0, copy.width, copy.height);
    bitmap.close();
    const shown = copy.transferToImageBitmap();
    return transfer({ width, height, shown }, [shown]);
  },
  async inks(onProgress) {
    const own = turn;
    const steps = distinctInks(raster);
    let toldAt = 0;
    for (;;) {
      const step = steps.next();
      if (step.done) {
        report = step.value;
        const { inks, edgePixels, clearPixels } = report;
        return {
          inks: inks.map(({ color, share, isGround }) => ({ hex: hexOf(color), share, isGround })),
          edgePixels,
          clearPixels,
        };
      }
      if (performance.now() - toldAt < 50) continue;
      toldAt = performance.now();
      onProgress(step.value);
      // Lets the wish to stop in.
      await new Promise((done) => setTimeout(done));
      if (own !== turn) return null;
    }
  },
  stop() {
    turn += 1;
  },
  around(x, y, reach) {
    const side = 2 * reach + 1;
    const data = new Uint8ClampedArray(side * side * 4);
    for (let row = 0; row < side; row += 1) {
      for (let column = 0; column < side; column += 1) {
        const [px, py] = [x - reach + column, y - reach + row];
        if (px < 0 || py < 0 || px >= raster.width || py >= raster.height) continue;
        const at = (py * raster.width + px) * 4;
        data.set(raster.data.subarray(at, at + 4), (row * side + column) * 4);
      }
    }
    return { data, hex: hexOf(pixelAt(raster, x, y)) };
  },
  average(box) {
    const color = averageColor(raster, box);
    return {
      hex: hexOf(color),
      basis:
        box.width === 1 && box.height === 1
          ? wordsOf('screen.pixel')
          : wordsOf('screen.average-pixels-linear-light', { width: box.width, height: box.height }),
    };
  },
  inkOfText(box) {
    const found = recoverInk(raster, box);
    if (!found) return null;
    const share = Math.round(100 * found.coverage);
    return {
      hex: hexOf(found.ink),
      basis: wordsOf('screen.ink-text-from-pixels', { ground: hexOf(found.ground), pixels: found.pixels, share }),
    };
  },
  logoOn(grounds) {
    const own: Color | null = report?.inks.find(({ isGround }) => isGround)?.color ?? null;
    return grounds.flatMap((ground) => {
      const color = colorOfCss(ground);
      if (!color) return [];
      const { lost, worst } = logoOnGround(raster, color, own);
      return [{ ground, lost, worst }];
    });
  },
};

expose(picture);
