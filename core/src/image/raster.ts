import { rgb8, type Color } from '../values/color.js';

/** A picture: 8-bit sRGB with straight alpha, four bytes a pixel, row by row from the top left, as `ImageData` has it. */
export interface Raster {
  readonly width: number;
  readonly height: number;
  readonly data: Uint8ClampedArray;
}

/** A rectangle of pixels; clipped to the picture where it is used. */
export interface PixelBox {
  readonly left: number;
  readonly top: number;
  readonly width: number;
  readonly height: number;
}

/** The part of a box that lies in the picture. @throws {RangeError} when nothing does. */
export function clipBox(raster: Raster, box: PixelBox): PixelBox {
  const left = Math.max(0, Math.floor(box.left));
  const top = Math.max(0, Math.floor(box.top));
  const width = Math.min(raster.width, Math.ceil(box.left + box.width)) - left;
  const height = Math.min(raster.height, Math.ceil(box.top + box.height)) - top;
  if (!(width > 0 && height > 0))
    throw new RangeError(
      `The box ${box.left} ${box.top} ${box.width} × ${box.height} lies outside a picture of ${raster.width} × ${raster.height}`,
    );
  return { left, top, width, height };
}

/** Colour of one pixel. @throws {RangeError} outside the picture. */
export function pixelAt(raster: Raster, x: number, y: number): Color {
  const { left, top } = clipBox(raster, { left: x, top: y, width: 1, height: 1 });
  const at = (top * raster.width + left) * 4;
  return rgb8(raster.data[at], raster.data[at + 1], raster.data[at + 2], raster.data[at + 3] / 255);
}
