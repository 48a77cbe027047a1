import { deltaE2000OfLab, labOf, type LabTriple } from '../color/delta-e.js';
import { rgb8, type Color } from '../values/color.js';
import type { Raster } from './raster.js';

/** One ink of a picture. */
export interface Ink {
  readonly color: Color;
  /** Share of the pixels that count, 0–1. */
  readonly share: number;
  /** Whether it fills most of the picture's outline, as a ground does. */
  readonly isGround: boolean;
}

export interface InkReport {
  /** Largest share first. */
  readonly inks: readonly Ink[];
  /** Blended pixels of anti-aliased edges, which are no colours of their own. */
  readonly edgePixels: number;
  /** Pixels that let through most of what lies under them. */
  readonly clearPixels: number;
  /** Share of the counted pixels whose colour is none of the inks, as in photographs; 0–1. */
  readonly rest: number;
}

/** Rows worked through between two reports of progress. */
const ROWS_AT_A_TIME = 64;
/** Alpha from which a pixel shows its ink: what is less is the edge of a shape on a clear ground. */
const SOLID = 250;
/** ΔE2000 below which two colours are one ink: twice the noise that strong JPEG compression leaves (common practice). */
const ONE_INK = 4;
/** An ink smaller than this share of the picture is a speck, unless there is hardly anything else. */
const LEAST_SHARE = 0.004;
const MOST_INKS = 16;
/** Colours looked at one by one; a photograph has many more, its rarest are the rest. */
const MOST_COLORS = 4000;
/** Pixels from which noise has a middle; fewer are the last full pixels of a thin stroke. */
const NOISY_PIXELS = 200;
/** How far a blend may lie off the line between its two inks, in 8-bit steps. */
const LINE_SLACK = 6;
/** Channels nearer than this are the same flat area. */
const FLAT_SLACK = 3;

/**
 * The distinct inks of a picture with their shares. Pixels that lie between the colours on two opposite sides of them are
 * edges and do not become colours; clear ground is passed over.
 * A generator, so that the caller may show progress and stop: it yields the share done, 0–1.
 */
export function* distinctInks(raster: Raster): Generator<number, InkReport> {
  const { width, height, data } = raster;
  /** By packed colour: pixels, pixels in a flat surrounding. */
  const counts = new Map<number, [pixels: number, flat: number]>();
  const outline = new Map<number, number>();
  let edgePixels = 0;
  let clearPixels = 0;
  let counted = 0;
  const solid = hasSolidPixels(raster) ? SOLID : 128;
  for (let y = 0; y < height; y += 1) {
    for (let x = 0; x < width; x += 1) {
      const at = (y * width + x) * 4;
      if (data[at + 3] < solid) {
        if (data[at + 3] < 128) clearPixels += 1;
        else edgePixels += 1;
        continue;
      }
      const packed = (data[at] << 16) | (data[at + 1] << 8) | data[at + 2];
      const surrounding = surroundingOf(raster, x, y, at, solid);
      if (surrounding === 'edge') {
        edgePixels += 1;
        continue;
      }
      counted += 1;
      if (x === 0 || y === 0 || x === width - 1 || y === height - 1)
        outline.set(packed, (outline.get(packed) ?? 0) + 1);
      const entry = counts.get(packed);
      if (entry) {
        entry[0] += 1;
        if (surrounding === 'flat') entry[1] += 1;
      } else counts.set(packed, [1, surrounding === 'flat' ? 1 : 0]);
    }
    if (y % ROWS_AT_A_TIME === ROWS_AT_A_TIME - 1) yield ((y + 1) / height) * 0.9;
  }
  const groups = groupColors(counts);
  const least = Math.max(1, counted * LEAST_SHARE);
  const kept = groups.filter((group) => group.pixels >= least && !isBlend(group, groups)).slice(0, MOST_INKS);
  yield 1;
  const outlinePixels = 2 * (width + height) - 4;
  const inks = kept.map((group): Ink => {
    let onOutline = 0;
    for (const packed of group.members) onOutline += outline.get(packed) ?? 0;
    return {
      color: rgb8(group.rgb[0], group.rgb[1], group.rgb[2]),
      share: group.pixels / counted,
      isGround: onOutline > outlinePixels * 0.6,
    };
  });
  return {
    inks,
    edgePixels,
    clearPixels,
    rest: counted === 0 ? 0 : Math.max(0, 1 - inks.reduce((sum, { share }) => sum + share, 0)),
  };
}

function hasSolidPixels({ data }: Raster): boolean {
  for (let at = 3; at < data.length; at += 4) if (data[at] >= SOLID) return true;
  return false;
}

/** Offsets to four neighbours; the one opposite lies at the negative. */
const DIRECTIONS = [
  [1, 0],
  [0, 1],
  [1, 1],
  [1, -1],
] as const;

function surroundingOf(raster: Raster, x: number, y: number, at: number, solid: number): 'edge' | 'flat' | 'mixed' {
  const { width, height, data } = raster;
  let isFlat = true;
  for (const [dx, dy] of DIRECTIONS) {
    const isInside = x + dx < width && x - dx >= 0 && y + dy < height && y + dy >= 0 && y - dy >= 0 && y - dy < height;
    if (!isInside) continue;
    const step = (dy * width + dx) * 4;
    const a = at + step;
    const b = at - step;
    if (data[a + 3] < solid || data[b + 3] < solid) {
      isFlat = false;
      continue;
    }
    if (isFlat && !(isNear(data, at, a) && isNear(data, at, b))) isFlat = false;
    if (!isFlat && liesBetween(data, at, a, b)) return 'edge';
  }
  return isFlat ? 'flat' : 'mixed';
}

function isNear(data: Uint8ClampedArray, p: number, q: number): boolean {
  return (
    Math.abs(data[p] - data[q]) <= FLAT_SLACK &&
    Math.abs(data[p + 1] - data[q + 1]) <= FLAT_SLACK &&
    Math.abs(data[p + 2] - data[q + 2]) <= FLAT_SLACK
  );
}

/** Whether pixel `p` is a mix of `a` and `b`, and neither of them. */
function liesBetween(data: Uint8ClampedArray, p: number, a: number, b: number): boolean {
  if (isNear(data, p, a) || isNear(data, p, b)) return false;
  return isOnSegment(
    [data[p], data[p + 1], data[p + 2]],
    [data[a], data[a + 1], data[a + 2]],
    [data[b], data[b + 1], data[b + 2]],
  );
}

type Rgb = readonly [number, number, number];

/** Whether a colour lies on the straight line between two others in sRGB, where browsers and editors blend edges. */
function isOnSegment(p: Rgb, a: Rgb, b: Rgb): boolean {
  let along = 0;
  let length = 0;
  for (let i = 0; i < 3; i += 1) {
    along += (p[i] - a[i]) * (b[i] - a[i]);
    length += (b[i] - a[i]) ** 2;
  }
  if (length < 100) return false;
  const t = along / length;
  if (t < 0.02 || t > 0.98) return false;
  return p.every((value, i) => Math.abs(value - (a[i] + (b[i] - a[i]) * t)) <= LINE_SLACK);
}

interface Group {
  rgb: Rgb;
  lab: LabTriple;
  pixels: number;
  flat: number;
  /** Pixels of the most frequent colour, which stands for the group where it is the most of it. */
  mode: number;
  readonly members: number[];
}

function groupColors(counts: ReadonlyMap<number, readonly [number, number]>): Group[] {
  const sorted = [...counts].sort((a, b) => b[1][0] - a[1][0] || a[0] - b[0]).slice(0, MOST_COLORS);
  const groups: Group[] = [];
  for (const [packed, [pixels, flat]] of sorted) {
    const rgb = unpack(packed);
    const lab = labOf(rgb8(...rgb));
    const home = groups.find(
      (group) => Math.abs(group.lab[0] - lab[0]) < 12 && deltaE2000OfLab(group.lab, lab) < ONE_INK,
    );
    if (home) {
      home.pixels += pixels;
      home.flat += flat;
      home.members.push(packed);
    } else if (groups.length < 400) groups.push({ rgb, lab, pixels, flat, mode: pixels, members: [packed] });
  }
  for (const group of groups) if (group.pixels >= NOISY_PIXELS && group.mode < group.pixels / 3) centre(group, counts);
  groups.sort((a, b) => b.pixels - a.pixels);
  for (const group of groups.slice(1))
    if (group.flat === 0 && group.pixels < NOISY_PIXELS) toFarEnd(group, groups[0].rgb, counts);
  return groups;
}

/** Of a stroke so thin that blends are mixed in, the colour farthest from the ground is the ink. */
function toFarEnd(group: Group, ground: Rgb, counts: ReadonlyMap<number, readonly [number, number]>): void {
  const distance = (rgb: Rgb): number => Math.hypot(rgb[0] - ground[0], rgb[1] - ground[1], rgb[2] - ground[2]);
  for (const packed of group.members) {
    const rgb = unpack(packed);
    if ((counts.get(packed)?.[0] ?? 0) * 2 >= group.mode && distance(rgb) > distance(group.rgb)) group.rgb = rgb;
  }
}

function unpack(packed: number): Rgb {
  return [packed >> 16, (packed >> 8) & 255, packed & 255];
}

/** Where no colour stands out, as in compressed pictures, the mean of the group is its ink. */
function centre(group: Group, counts: ReadonlyMap<number, readonly [number, number]>): void {
  const sum = [0, 0, 0];
  for (const packed of group.members) {
    const pixels = counts.get(packed)?.[0] ?? 0;
    unpack(packed).forEach((value, i) => {
      sum[i] += value * pixels;
    });
  }
  group.rgb = sum.map((value) => Math.round(value / group.pixels)) as unknown as Rgb;
}

/** Whether a group is the soft edge between two larger ones: it lies between them and has hardly a flat area. */
function isBlend(group: Group, groups: readonly Group[]): boolean {
  if (group.flat > group.pixels * 0.25) return false;
  const larger = groups.filter(
    (other) =>
      other !== group &&
      other.pixels > group.pixels &&
      (other.flat > other.pixels * 0.1 || other.pixels > group.pixels * 10),
  );
  return larger.some((a, i) => larger.slice(i + 1).some((b) => isOnSegment(group.rgb, a.rgb, b.rgb)));
}
