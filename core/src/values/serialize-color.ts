import type { Color } from './color.js';

/**
 * A colour as `getComputedStyle` writes it.
 * Source: CSS Color 4 §16 Serializing color values.
 */
export function serializeColor(color: Color): string {
  const { space, channels, alpha } = color;
  if (space === 'legacy') {
    const [r, g, b] = channels.map((channel) => Math.round(Math.min(1, Math.max(0, channel ?? 0)) * 255));
    const a = alpha ?? 0;
    return a >= 1 ? `rgb(${r}, ${g}, ${b})` : `rgba(${r}, ${g}, ${b}, ${serializeLegacyAlpha(a)})`;
  }
  const body = channels.map((channel) => (channel === null ? 'none' : shortNumber(channel))).join(' ');
  const tail = alpha === null ? ' / none' : alpha >= 1 ? '' : ` / ${shortNumber(alpha)}`;
  if (space === 'lab' || space === 'lch' || space === 'oklab' || space === 'oklch') return `${space}(${body}${tail})`;
  return `color(${space} ${body}${tail})`;
}

/** CSS Color 4 §16.1: two decimals when they keep the 8-bit value, else three. */
function serializeLegacyAlpha(alpha: number): string {
  const byte = Math.round(alpha * 255);
  const two = Math.round((byte / 255) * 100) / 100;
  return String(Math.round(two * 255) === byte ? two : Math.round((byte / 255) * 1000) / 1000);
}

function shortNumber(value: number): string {
  const rounded = Number(value.toPrecision(6));
  return String(Math.abs(rounded) < 1e-6 ? 0 : rounded);
}
