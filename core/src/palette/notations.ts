import type { Color } from '../values/color.js';
import { channelsIn } from '../values/convert-color.js';
import { hexOf } from '../color/read-notation.js';

/** A colour in the notations people copy, each valid CSS: hex, `rgb()`, `hsl()` and `oklch()`. */
export function notationsOf(color: Color): readonly { readonly name: string; readonly css: string }[] {
  const alpha = color.alpha ?? 0;
  const tail = alpha < 1 ? ` / ${round(alpha, 2)}` : '';
  const [r, g, b] = channelsIn(color, 'srgb').map((channel) => Math.round(Math.min(1, Math.max(0, channel)) * 255));
  const [h, s, l] = channelsIn(color, 'hsl');
  const [lightness, chroma, hue] = channelsIn(color, 'oklch');
  return [
    { name: 'hex', css: hexOf(color) },
    { name: 'rgb', css: `rgb(${r} ${g} ${b}${tail})` },
    { name: 'hsl', css: `hsl(${round(h, 1)} ${round(s, 1)}% ${round(l, 1)}%${tail})` },
    {
      name: 'oklch',
      css: `oklch(${round(lightness, 3)} ${round(chroma, 3)} ${chroma < 0.0005 ? 0 : round(hue, 1)}${tail})`,
    },
  ];
}

function round(value: number, digits: number): number {
  return Number(value.toFixed(digits));
}
