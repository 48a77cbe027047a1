import { RATIOS, compositeOver, contrastRatio } from '../color/contrast.js';
import type { Standing } from '../color/standing.js';
import { rgb8, type Color } from '../values/color.js';
import type { Raster } from './raster.js';

/** How a logo shows on a ground. */
export interface LogoOnGround {
  /** Share of its ink that falls under 3 : 1 against the ground, 0–1. */
  readonly lost: number;
  /** Share of the picture that is ink rather than clear ground, 0–1. */
  readonly ink: number;
  /** Lowest ratio of an ink that makes up a twentieth of the logo or more. */
  readonly worst: number;
}

/** Shares of lost ink from which a ground is looked at, and fails (common practice). */
const LOOK = 0.1;
const FAILS = 0.35;

/** How a ground stands for a logo by the share of its ink that is lost there, 0–1. */
export function logoStanding(lost: number): Standing {
  return lost >= FAILS ? 'fails' : lost >= LOOK ? 'look' : 'holds';
}

/** Alpha from which a pixel counts as ink. */
const INK = 128;

/**
 * Contrast of a logo with the ground it stands on, pixel by pixel, laid over it as it is.
 * 3 : 1 is WCAG 2.2's bound for graphics (1.4.11); logos are exempt from it, but not from being seen.
 * @param ownGround packed colours are left out that the logo brings as its own opaque ground; none by default.
 */
export function logoOnGround(raster: Raster, ground: Color, ownGround: Color | null = null): LogoOnGround {
  const counts = new Map<number, number>();
  const { data } = raster;
  const own = ownGround ? ownGround.channels.map((channel) => Math.round((channel ?? 0) * 255)) : null;
  for (let at = 0; at < data.length; at += 4) {
    if (data[at + 3] < INK) continue;
    if (own && own.every((value, i) => Math.abs(value - data[at + i]) <= 6)) continue;
    const key = ((data[at] << 24) | (data[at + 1] << 16) | (data[at + 2] << 8) | (data[at + 3] & 0xf0)) >>> 0;
    counts.set(key, (counts.get(key) ?? 0) + 1);
  }
  let total = 0;
  let lost = 0;
  const byRatio: { ratio: number; pixels: number }[] = [];
  for (const [key, pixels] of counts) {
    const alpha = key & 0xf0;
    const color = rgb8(key >>> 24, (key >>> 16) & 255, (key >>> 8) & 255, alpha === 0xf0 ? 1 : alpha / 255);
    const ratio = contrastRatio(compositeOver(color, ground), ground);
    total += pixels;
    if (ratio < RATIOS.nonText) lost += pixels;
    byRatio.push({ ratio, pixels });
  }
  byRatio.sort((a, b) => a.ratio - b.ratio);
  let seen = 0;
  const worst = byRatio.find(({ pixels }) => (seen += pixels) >= total / 20)?.ratio ?? 21;
  return { lost: total === 0 ? 0 : lost / total, ink: total / Math.max(1, data.length / 4), worst };
}
