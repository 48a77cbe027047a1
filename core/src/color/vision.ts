import type { Color } from '../values/color.js';
import { channelsIn, convertChannels, type Triple } from '../values/convert-color.js';
import { srgbChannels } from './contrast.js';

/** Ways of seeing colour that the palette is shown in. */
export const VISIONS = ['protanopia', 'deuteranopia', 'tritanopia', 'grey'] as const;
export type Vision = (typeof VISIONS)[number];

/**
 * Linear sRGB as it appears without one kind of cone.
 * Source: Machado, Oliveira, Fernandes, "A Physiologically-based Model for Simulation of Color Vision Deficiency", 2009,
 * table for severity 1.0. `grey` is the luminance alone (WCAG 2.2 weights).
 */
const MATRICES: Readonly<Record<Vision, readonly [Triple, Triple, Triple]>> = {
  protanopia: [[0.152286, 1.052583, -0.204868], [0.114503, 0.786281, 0.099216], [-0.003882, -0.048116, 1.051998]],
  deuteranopia: [[0.367322, 0.860646, -0.227968], [0.280085, 0.672501, 0.047413], [-0.01182, 0.04294, 0.968881]],
  tritanopia: [[1.255528, -0.076749, -0.178779], [-0.078411, 0.930809, 0.147602], [0.004733, 0.691367, 0.3039]],
  grey: [[0.2126, 0.7152, 0.0722], [0.2126, 0.7152, 0.0722], [0.2126, 0.7152, 0.0722]],
};

/** A colour as it is seen, clipped to sRGB; alpha stays. */
export function seenAs(color: Color, vision: Vision): Color {
  const linear = channelsIn({ space: 'srgb', channels: srgbChannels(color), alpha: 1 }, 'srgb-linear');
  const seen = MATRICES[vision].map((row) => Math.min(1, Math.max(0, row[0] * linear[0] + row[1] * linear[1] + row[2] * linear[2]))) as unknown as Triple;
  return { space: 'legacy', channels: convertChannels(seen, 'srgb-linear', 'srgb').map((channel) => Math.min(1, Math.max(0, channel))) as unknown as Triple, alpha: color.alpha };
}
