import type { Color } from '../values/color.js';
import { channelsIn, convertChannels, type Triple } from '../values/convert-color.js';
import { srgbChannels } from './contrast.js';
import { DEUTERANOPIA, PROTANOPIA, TRITANOPIA, type SeverityTable } from './vision-tables.js';

/** Ways of seeing colour that the palette is shown in. */
export const VISIONS = ['protanopia', 'deuteranopia', 'tritanopia', 'grey'] as const;
export type Vision = (typeof VISIONS)[number];

const TABLES: Readonly<Record<Exclude<Vision, 'grey'>, SeverityTable>> = {
  protanopia: PROTANOPIA,
  deuteranopia: DEUTERANOPIA,
  tritanopia: TRITANOPIA,
};

/** Weights of relative luminance (WCAG 2.2). */
const GREY = [0.2126, 0.7152, 0.0722, 0.2126, 0.7152, 0.0722, 0.2126, 0.7152, 0.0722];
const SAME = [1, 0, 0, 0, 1, 0, 0, 0, 1];

/**
 * Matrix on linear sRGB for a way of seeing, row by row; between the rows of the published table it is
 * interpolated linearly, as the paper's authors advise.
 * @param severity 0 (no deficiency) to 1. @throws {RangeError} outside that.
 */
export function visionMatrix(vision: Vision, severity: number): readonly number[] {
  if (!(severity >= 0 && severity <= 1)) throw new RangeError(`Severity ${severity} is not from 0 to 1`);
  if (vision === 'grey') return mix(SAME, GREY, severity);
  const table = TABLES[vision];
  // Tenths such as 0.7 × 10 miss their row by a hair.
  const place = Math.round(severity * (table.length - 1) * 1e9) / 1e9;
  const row = Math.min(table.length - 2, Math.floor(place));
  return mix(table[row], table[row + 1], place - row);
}

function mix(a: readonly number[], b: readonly number[], share: number): readonly number[] {
  return a.map((value, i) => value + (b[i] - value) * share);
}

/** A colour as it is seen, clipped to sRGB; alpha stays. */
export function seenAs(color: Color, vision: Vision, severity = 1): Color {
  const m = visionMatrix(vision, severity);
  const [r, g, b] = channelsIn({ space: 'srgb', channels: srgbChannels(color), alpha: 1 }, 'srgb-linear');
  const clip = (value: number): number => Math.min(1, Math.max(0, value));
  const seen: Triple = [
    clip(m[0] * r + m[1] * g + m[2] * b),
    clip(m[3] * r + m[4] * g + m[5] * b),
    clip(m[6] * r + m[7] * g + m[8] * b),
  ];
  return {
    space: 'legacy',
    channels: convertChannels(seen, 'srgb-linear', 'srgb').map(clip) as unknown as Triple,
    alpha: color.alpha,
  };
}
