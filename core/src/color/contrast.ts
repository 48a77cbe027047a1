import { BLACK, WHITE, type Color } from '../values/color.js';
import { channelsIn, type Triple } from '../values/convert-color.js';

/**
 * Relative luminance, 0–1, alpha ignored.
 * Source: WCAG 2.2, https://www.w3.org/TR/WCAG22/#dfn-relative-luminance, with the threshold 0.04045 its errata give.
 */
export function relativeLuminance(color: Color): number {
  const [red, green, blue] = srgbChannels(color);
  return 0.2126 * linear(red) + 0.7152 * linear(green) + 0.0722 * linear(blue);
}

function linear(channel: number): number {
  return channel <= 0.04045 ? channel / 12.92 : ((channel + 0.055) / 1.055) ** 2.4;
}

/**
 * Contrast ratio of two opaque colours, 1–21, not rounded: 4.499 does not reach 4.5.
 * Source: WCAG 2.2, https://www.w3.org/TR/WCAG22/#dfn-contrast-ratio
 */
export function contrastRatio(a: Color, b: Color): number {
  const [one, other] = [relativeLuminance(a), relativeLuminance(b)];
  return (Math.max(one, other) + 0.05) / (Math.min(one, other) + 0.05);
}

/** Ratios that WCAG 2.2 asks for: 1.4.3 text and large text, 1.4.6 enhanced, 1.4.11 edges, icons and focus rings. */
export const RATIOS = { text: 4.5, largeText: 3, enhanced: 7, nonText: 3 } as const;

/**
 * A colour laid over another, as an opaque sRGB colour when `below` is opaque.
 * Source: CSS Compositing 1 §5.1 simple alpha compositing, in sRGB as browsers do it.
 */
export function compositeOver(above: Color, below: Color, opacity = 1): Color {
  const alpha = (above.alpha ?? 0) * opacity;
  if (alpha === 1) return opaque(above);
  const under = below.alpha ?? 0;
  const total = alpha + under * (1 - alpha);
  const top = srgbChannels(above);
  const bottom = srgbChannels(below);
  const channels = top.map((channel, i) =>
    total === 0 ? 0 : (channel * alpha + bottom[i] * under * (1 - alpha)) / total,
  ) as unknown as Triple;
  return { space: 'legacy', channels, alpha: total };
}

/** What is opaque lets nothing through; most colours are, and stand as they are. */
function opaque(color: Color): Color {
  const channels = srgbChannels(color);
  return color.space === 'legacy' && channels === color.channels ? color : { space: 'legacy', channels, alpha: 1 };
}

/** sRGB channels, clipped to the gamut as a display does. */
export function srgbChannels(color: Color): Triple {
  const channels = channelsIn(color, 'srgb');
  return channels.every(isInGamut) ? channels : (channels.map(clip) as unknown as Triple);
}

function isInGamut(channel: number): boolean {
  return channel >= 0 && channel <= 1;
}

function clip(channel: number): number {
  return Math.min(1, Math.max(0, channel));
}

/** Black or white, whichever is read better on a colour laid over white. */
export function readableOn(color: Color): Color {
  const ground = compositeOver(color, WHITE);
  return contrastRatio(WHITE, ground) > contrastRatio(BLACK, ground) ? WHITE : BLACK;
}
