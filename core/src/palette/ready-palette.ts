import { contrastRatio } from '../color/contrast.js';
import type { Color } from '../values/color.js';
import { channelsIn } from '../values/convert-color.js';
import type { RoleName } from '../veneer/palette.js';
import { MEANT_PAIRS } from './meant-pairs.js';
import type { PaletteStart } from './propose-roles.js';

/** Roles a handful of colours can fill by themselves. */
export interface ReadyPalette {
  readonly start: PaletteStart;
  readonly roles: Readonly<Partial<Record<RoleName, Color>>>;
}

/**
 * Gives the colours of a ready palette their roles: the palest lies under, the darkest is read, the strongest of the rest
 * is the accent, what remains fills second.
 * @returns `null` when a pair of `MEANT_PAIRS` among them misses its ratio, or there are fewer than three colours.
 */
export function readyPalette(colors: readonly Color[]): ReadyPalette | null {
  const byLightness = colors
    .map((color) => ({ color, lch: channelsIn(color, 'oklch') }))
    .sort((a, b) => b.lch[0] - a.lch[0]);
  if (byLightness.length < 3) return null;
  const ground = byLightness[0].color;
  const ink = byLightness[byLightness.length - 1].color;
  const [accent, second] = byLightness
    .slice(1, -1)
    .sort((a, b) => b.lch[1] - a.lch[1])
    .map(({ color }) => color);
  const onto = (fill: Color): Color => (contrastRatio(ink, fill) > contrastRatio(ground, fill) ? ink : ground);
  const roles: Partial<Record<RoleName, Color>> = {
    ground,
    ink,
    accent,
    'on-accent': onto(accent),
    ...(second ? { second, 'on-second': onto(second) } : {}),
  };
  const isPassing = MEANT_PAIRS.every(({ above, below, wanted }) => {
    const [over, under] = [roles[above], roles[below]];
    return !over || !under || contrastRatio(over, under) >= wanted;
  });
  return isPassing ? { start: { ground, ink, accent }, roles } : null;
}
