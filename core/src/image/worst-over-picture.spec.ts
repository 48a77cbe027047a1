import { contrastRatio } from '../color/contrast.js';
import { BLACK, WHITE, rgb8 } from '../values/color.js';
import { drawRaster } from '../testing/draw.js';
import { coverPicture } from './cover-picture.js';
import { worstOverPicture } from './worst-over-picture.js';

describe('worstOverPicture', () => {
  // WCAG 2.2's formula gives 21 for white on black and 1 for white on white.
  it('lets the worst twentieth go, and no more', () => {
    const white = (share: number) => drawRaster(100, 100, (x) => (x < share ? [255, 255, 255, 255] : [0, 0, 0, 255]));
    expect(worstOverPicture(WHITE, white(0.04))).toBeCloseTo(21, 5);
    expect(worstOverPicture(WHITE, white(0.08))).toBeCloseTo(1, 5);
  });

  it('is the plain ratio over one colour, whatever the size', () => {
    const grey = rgb8(119, 119, 119);
    for (const side of [1, 7, 400])
      expect(
        worstOverPicture(
          BLACK,
          drawRaster(side, side, () => [119, 119, 119, 255]),
        ),
      ).toBeCloseTo(contrastRatio(BLACK, grey), 5);
  });

  it('knows nothing of an empty picture', () => {
    expect(worstOverPicture(BLACK, { width: 0, height: 0, data: new Uint8ClampedArray(0) })).toBeNull();
  });
});

describe('coverPicture', () => {
  it('lays a colour over each pixel, as CSS Compositing 1 has source-over', () => {
    const raster = {
      width: 3,
      height: 1,
      data: new Uint8ClampedArray([0, 0, 0, 255, 200, 100, 50, 255, 0, 0, 0, 255]),
    };
    // Cs × αs + Cb × (1 − αs), by hand.
    expect([...coverPicture(raster, rgb8(100, 200, 0, 0.5)).data]).toEqual([
      50, 100, 0, 255, 150, 150, 25, 255, 50, 100, 0, 255,
    ]);
    expect([...raster.data.subarray(0, 4)]).toEqual([0, 0, 0, 255]);
  });
});
