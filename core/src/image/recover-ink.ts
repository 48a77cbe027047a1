import { deltaE2000 } from '../color/delta-e.js';
import { rgb8, type Color } from '../values/color.js';
import { clipBox, type PixelBox, type Raster } from './raster.js';

export interface RecoveredInk {
  readonly ink: Color;
  readonly ground: Color;
  /** Largest share of ink that any pixel has, measured along the line from the ground, 0–1; what is less than 1 makes the ink a guess. */
  readonly coverage: number;
  /** Pixels the line was taken from. */
  readonly pixels: number;
}

/** Differences below this are noise of the ground, in 8-bit steps. */
const NOISE = 8;
/** Pixels this near to the strongest one count as full ink. */
const NEAR_FULL = 0.97;

/**
 * The true colour of thin text. Its pixels are blends of ink and ground and lie on the line between the two; the end of
 * the line away from the ground is the ink. Where the edges are smoothed for each third of a pixel, the line is
 * followed channel by channel.
 * @param box pixels around the text, nothing else in it.
 * @returns `null` when the box holds one colour only.
 * @throws {RangeError} when the box lies outside the picture.
 */
export function recoverInk(raster: Raster, box: PixelBox): RecoveredInk | null {
  const area = clipBox(raster, box);
  const colors = colorsIn(raster, area);
  const [groundPacked] = [...colors].reduce((most, entry) => (entry[1] > most[1] ? entry : most));
  const ground = unpack(groundPacked);
  const apart = [...colors]
    .map(([packed, pixels]) => {
      const rgb = unpack(packed);
      const move = rgb.map((value, i) => value - ground[i]) as unknown as Rgb;
      return { rgb, move, pixels, length: Math.hypot(...move) };
    })
    .filter(({ move }) => move.some((value) => Math.abs(value) > NOISE));
  if (apart.length === 0) return null;
  const strongest = apart.reduce((most, entry) => (entry.length > most.length ? entry : most));
  const pixels = apart.reduce((sum, entry) => sum + entry.pixels, 0);
  const isOneLine = apart.every(
    ({ move, length }) => distanceFromLine(move, length, strongest.move, strongest.length) <= NOISE * 1.5,
  );
  const rgb = isOneLine
    ? commonest(apart.filter(({ length }) => length >= strongest.length * NEAR_FULL))
    : channelEnds(apart, ground);
  const ink = rgb8(rgb[0], rgb[1], rgb[2]);
  const full = apart
    .filter((entry) => deltaE2000(rgb8(...entry.rgb), ink) < 1)
    .reduce((sum, entry) => sum + entry.pixels, 0);
  // One pixel of full ink may be a corner where two strokes meet; several say that strokes are filled.
  return { ink, ground: rgb8(ground[0], ground[1], ground[2]), coverage: full >= 2 ? 1 : 0.9, pixels };
}

type Rgb = readonly [number, number, number];

function colorsIn(raster: Raster, { left, top, width, height }: PixelBox): Map<number, number> {
  const colors = new Map<number, number>();
  for (let y = top; y < top + height; y += 1) {
    for (let x = left; x < left + width; x += 1) {
      const at = (y * raster.width + x) * 4;
      const packed = (raster.data[at] << 16) | (raster.data[at + 1] << 8) | raster.data[at + 2];
      colors.set(packed, (colors.get(packed) ?? 0) + 1);
    }
  }
  return colors;
}

function unpack(packed: number): Rgb {
  return [packed >> 16, (packed >> 8) & 255, packed & 255];
}

function distanceFromLine(move: Rgb, length: number, line: Rgb, lineLength: number): number {
  const along = (move[0] * line[0] + move[1] * line[1] + move[2] * line[2]) / lineLength;
  return Math.sqrt(Math.max(0, length * length - along * along));
}

function commonest(entries: readonly { readonly rgb: Rgb; readonly pixels: number }[]): Rgb {
  return entries.reduce((most, entry) => (entry.pixels > most.pixels ? entry : most)).rgb;
}

/** Farthest value of each channel on the side to which most of its pixels lean. */
function channelEnds(entries: readonly { readonly move: Rgb; readonly pixels: number }[], ground: Rgb): Rgb {
  return ground.map((base, i) => {
    const lean = entries.reduce((sum, { move, pixels }) => sum + move[i] * pixels, 0);
    return base + entries.reduce((end, { move }) => (lean < 0 ? Math.min(end, move[i]) : Math.max(end, move[i])), 0);
  }) as unknown as Rgb;
}
