import { rgb8, type Color } from '../values/color.js';
import { channelsIn } from '../values/convert-color.js';
import { contrastRatio, RATIOS, readableOn, srgbChannels } from './contrast.js';
import { easeIntoSrgb } from './gamut.js';
import { nearestPassingShade } from './nearest-passing-shade.js';

/** Most chroma in OKLCH of a ground, or of what is read on one, that is made from another's hue (common practice). */
const QUIET_CHROMA = 0.04;

/** Luminance by the matrix of sRGB and by WCAG's rounded figures differ in the fifth digit: what is chosen here passes by both. */
const HAIR = 1.0002;
/** What is asked beyond a ratio where eight bits a channel would fall short of it, as shares of it. */
const ROOM = [HAIR, 1.01, 1.03];

/**
 * The nearest shade of a colour that reaches a ratio against all of some others, also once it is written with eight bits a
 * channel; the colour itself where it does already, `null` when none of its hue does.
 */
export function passingShade(color: Color, against: readonly Color[], wanted: number): Color | null {
  for (const room of ROOM) {
    const found = nearestPassingShade(color, against, wanted * room);
    if (!found) return null;
    const written = found.moved === 0 ? found.color : eightBits(found.color);
    if (against.every((other) => contrastRatio(written, other) >= wanted * HAIR)) return written;
  }
  return null;
}

/** An sRGB colour as it is written with eight bits a channel. */
export function eightBits(color: Color): Color {
  const [red, green, blue] = srgbChannels(color).map((channel) => Math.round(channel * 255));
  return { ...rgb8(red, green, blue), alpha: color.alpha };
}

/** A panel next to a ground: paler where there is room, else darker; hue held. */
export function panelBeside(ground: Color): Color {
  const [lightness, chroma, hue] = channelsIn(ground, 'oklch');
  const step = lightness > 0.5 ? Math.min(1, lightness + 0.025) : lightness + 0.05;
  return eightBits(easeIntoSrgb(lightness > 0.985 ? lightness - 0.03 : step, chroma * 0.7, hue));
}

/** What is read on a fill: the first wish that passes there, else the nearest shade of it that does. */
export function readOn(fill: Color, wishes: readonly Color[]): Color {
  return (
    wishes.find((wish) => contrastRatio(wish, fill) >= RATIOS.text * HAIR) ??
    wishes.map((wish) => passingShade(wish, [fill], RATIOS.text)).find((found) => found !== null) ??
    readableOn(fill)
  );
}

export function opaque(color: Color): Color {
  return { ...color, alpha: 1 };
}

/** A quiet colour of a hue at a lightness, 0–1. */
export function atLightness(color: Color, lightness: number): Color {
  const [, chroma, hue] = channelsIn(color, 'oklch');
  return eightBits(easeIntoSrgb(lightness, Math.min(chroma, QUIET_CHROMA), hue));
}

/** A colour with its hue turned, degrees. */
export function turned(color: Color, degrees: number, chromaShare: number): Color {
  const [lightness, chroma, hue] = channelsIn(color, 'oklch');
  return eightBits(easeIntoSrgb(lightness, chroma * chromaShare, (hue + degrees) % 360));
}

/** Between two colours in Oklab, `share` of the way from the first. */
export function mixed(from: Color, to: Color, share: number): Color {
  const a = channelsIn(from, 'oklab');
  const b = channelsIn(to, 'oklab');
  const at = (i: number): number => a[i] + (b[i] - a[i]) * share;
  const [lightness, chroma, hue] = channelsIn({ space: 'oklab', channels: [at(0), at(1), at(2)], alpha: 1 }, 'oklch');
  return eightBits(easeIntoSrgb(lightness, chroma, hue));
}
