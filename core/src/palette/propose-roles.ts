import { contrastRatio, RATIOS, readableOn } from '../color/contrast.js';
import { easeIntoSrgb } from '../color/gamut.js';
import { nearestPassingShade } from '../color/nearest-passing-shade.js';
import type { Color } from '../values/color.js';
import { channelsIn } from '../values/convert-color.js';
import type { RoleName } from '../veneer/palette.js';

/** The three colours a palette can start from. */
export interface PaletteStart {
  readonly ground: Color;
  readonly ink: Color;
  readonly accent: Color;
}

export type Lighting = 'light' | 'inverted';

/** Hue of a warning red in OKLCH, degrees (common practice). */
const SIGNAL_HUE = 25;
const SIGNAL_CHROMA = 0.17;
/** Lightness of an inverted ground and of what is read on it, 0–1. */
const DARK_GROUND = 0.2;
const PALE_INK = 0.94;

/**
 * A colour for every role from a ground, an ink and an accent; every pair of `MEANT_PAIRS` reaches its ratio.
 * What the three do not reach themselves is moved to its nearest passing shade, hue held.
 * @param lighting `inverted` turns ground and ink about: the ink's hue lies under, the ground's is read.
 */
export function proposeRoles(start: PaletteStart, lighting: Lighting): Readonly<Record<RoleName, Color>> {
  const ground = lighting === 'light' ? opaque(start.ground) : atLightness(start.ink, DARK_GROUND);
  const panel = panelBeside(ground);
  const grounds = [ground, panel];
  const ink =
    passing(lighting === 'light' ? opaque(start.ink) : atLightness(start.ground, PALE_INK), grounds, RATIOS.enhanced) ??
    readableOn(ground);
  const accent = passing(opaque(start.accent), grounds, RATIOS.nonText) ?? ink;
  const second = passing(turned(accent, 100, 0.75), grounds, RATIOS.nonText) ?? ink;
  const [, , accentHue] = channelsIn(start.accent, 'oklch');
  const signal = passing(easeIntoSrgb(0.55, SIGNAL_CHROMA, SIGNAL_HUE), grounds, RATIOS.text) ?? ink;
  return {
    ground,
    panel,
    ink,
    'soft-ink': passing(mixed(ink, ground, 0.35), grounds, RATIOS.text) ?? ink,
    line: passing(mixed(ink, ground, 0.6), grounds, RATIOS.nonText) ?? ink,
    accent,
    'on-accent': onto(accent, [ground, ink]),
    second,
    'on-second': onto(second, [ground, ink]),
    link: passing(accent, grounds, RATIOS.text) ?? ink,
    visited:
      passing(easeIntoSrgb(channelsIn(accent, 'oklch')[0], 0.1, (accentHue + 290) % 360), grounds, RATIOS.text) ?? ink,
    ring: passing(accent, grounds, RATIOS.nonText) ?? ink,
    signal,
    'on-signal': onto(signal, [ground, ink]),
  };
}

function passing(color: Color, against: readonly Color[], wanted: number): Color | null {
  return nearestPassingShade(color, against, wanted)?.color ?? null;
}

/** A panel next to a ground: paler where there is room, else darker; hue held. */
function panelBeside(ground: Color): Color {
  const [lightness, chroma, hue] = channelsIn(ground, 'oklch');
  const step = lightness > 0.5 ? Math.min(1, lightness + 0.025) : lightness + 0.05;
  return easeIntoSrgb(lightness > 0.985 ? lightness - 0.03 : step, chroma * 0.7, hue);
}

/** What is read on a fill: the first wish that passes there, else the nearest shade of it that does. */
function onto(fill: Color, wishes: readonly Color[]): Color {
  return (
    wishes.find((wish) => contrastRatio(wish, fill) >= RATIOS.text) ??
    wishes.map((wish) => passing(wish, [fill], RATIOS.text)).find((found) => found !== null) ??
    readableOn(fill)
  );
}

function opaque(color: Color): Color {
  return { ...color, alpha: 1 };
}

function atLightness(color: Color, lightness: number): Color {
  const [, chroma, hue] = channelsIn(color, 'oklch');
  return easeIntoSrgb(lightness, Math.min(chroma, 0.04), hue);
}

function turned(color: Color, degrees: number, chromaShare: number): Color {
  const [lightness, chroma, hue] = channelsIn(color, 'oklch');
  return easeIntoSrgb(lightness, chroma * chromaShare, (hue + degrees) % 360);
}

/** Between two colours in Oklab, `share` of the way from the first. */
function mixed(from: Color, to: Color, share: number): Color {
  const a = channelsIn(from, 'oklab');
  const b = channelsIn(to, 'oklab');
  const at = (i: number): number => a[i] + (b[i] - a[i]) * share;
  const [lightness, chroma, hue] = channelsIn({ space: 'oklab', channels: [at(0), at(1), at(2)], alpha: 1 }, 'oklch');
  return easeIntoSrgb(lightness, chroma, hue);
}
