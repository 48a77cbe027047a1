import { RATIOS, readableOn } from '../color/contrast.js';
import { atLightness, mixed, opaque, panelBeside, passingShade, readOn, turned } from '../color/derive.js';
import { easeIntoSrgb } from '../color/gamut.js';
import type { Color } from '../values/color.js';
import { channelsIn } from '../values/convert-color.js';
import { DARK_GROUND, LINE, PALE_INK, SOFT_INK } from '../veneer/invert-roles.js';
import type { Lighting } from '../veneer/lighting.js';
import type { StandardRole } from '../veneer/palette.js';

/** The three colours a palette can start from. */
export interface PaletteStart {
  readonly ground: Color;
  readonly ink: Color;
  readonly accent: Color;
}

/** Hue of a warning red in OKLCH, degrees (common practice). */
const SIGNAL_HUE = 25;
const SIGNAL_CHROMA = 0.17;

/**
 * A colour for every role from a ground, an ink and an accent; every pair of `MEANT_PAIRS` reaches its ratio.
 * What the three do not reach themselves is moved to its nearest passing shade, hue held.
 * @param lighting `inverted` turns ground and ink about: the ink's hue lies under, the ground's is read.
 */
export function proposeRoles(start: PaletteStart, lighting: Lighting): Readonly<Record<StandardRole, Color>> {
  const ground = lighting === 'light' ? opaque(start.ground) : atLightness(start.ink, DARK_GROUND);
  const panel = panelBeside(ground);
  const grounds = [ground, panel];
  const ink =
    passingShade(
      lighting === 'light' ? opaque(start.ink) : atLightness(start.ground, PALE_INK),
      grounds,
      RATIOS.enhanced,
    ) ?? readableOn(ground);
  const accent = passingShade(opaque(start.accent), grounds, RATIOS.nonText) ?? ink;
  const second = passingShade(turned(accent, 100, 0.75), grounds, RATIOS.nonText) ?? ink;
  const [, , accentHue] = channelsIn(start.accent, 'oklch');
  const signal = passingShade(easeIntoSrgb(0.55, SIGNAL_CHROMA, SIGNAL_HUE), grounds, RATIOS.text) ?? ink;
  return {
    ground,
    panel,
    ink,
    'soft-ink': passingShade(mixed(ink, ground, SOFT_INK), grounds, RATIOS.text) ?? ink,
    line: passingShade(mixed(ink, ground, LINE), grounds, RATIOS.nonText) ?? ink,
    accent,
    'on-accent': readOn(accent, [ground, ink]),
    second,
    'on-second': readOn(second, [ground, ink]),
    link: passingShade(accent, grounds, RATIOS.text) ?? ink,
    visited:
      passingShade(easeIntoSrgb(channelsIn(accent, 'oklch')[0], 0.1, (accentHue + 290) % 360), grounds, RATIOS.text) ??
      ink,
    ring: passingShade(accent, grounds, RATIOS.nonText) ?? ink,
    signal,
    'on-signal': readOn(signal, [ground, ink]),
  };
}
