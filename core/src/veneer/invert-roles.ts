import { RATIOS, readableOn } from '../color/contrast.js';
import { atLightness, eightBits, mixed, panelBeside, passingShade, readOn } from '../color/derive.js';
import { BLACK, WHITE, type Color } from '../values/color.js';
import { channelsIn } from '../values/convert-color.js';
import { isStandardRole, roleEntries } from './own-role.js';
import type { RoleName, StandardRole } from './palette.js';

/** Lightness of a dark ground and of what is read on it, and the same of a pale one, 0–1 in OKLCH. */
export const DARK_GROUND = 0.2;
export const PALE_INK = 0.94;
const PALE_GROUND = 0.97;
const DARK_INK = 0.28;

/** How far soft ink and line lie between ink and ground. */
export const SOFT_INK = 0.35;
export const LINE = 0.6;

export type RoleColors = Readonly<Partial<Record<RoleName, Color>>>;

/**
 * The other lighting of some roles: ground and ink change places, each in the other's hue; the others keep their hue and come
 * to their nearest shade that passes. Colours of eight bits a channel. Every pair of `MEANT_PAIRS` that both sides fill reaches its ratio.
 */
export function invertRoles(given: RoleColors): RoleColors {
  const colors: RoleColors = Object.fromEntries(roleEntries(given).map(([role, color]) => [role, eightBits(color)]));
  const below = colors.ground ?? (colors.ink ? readableOn(colors.ink) : WHITE);
  const above = colors.ink ?? readableOn(below);
  const turnsDark = channelsIn(below, 'oklch')[0] > 0.5;
  const ground = atLightness(above, turnsDark ? DARK_GROUND : PALE_GROUND);
  const panel = panelBeside(ground);
  const grounds = [ground, panel];
  const ink =
    passingShade(atLightness(below, turnsDark ? PALE_INK : DARK_INK), grounds, RATIOS.enhanced) ??
    (turnsDark ? WHITE : BLACK);
  const keep = (role: RoleName, wanted: number): Color => passingShade(colors[role] ?? ink, grounds, wanted) ?? ink;
  const filled = {
    accent: keep('accent', RATIOS.nonText),
    second: keep('second', RATIOS.nonText),
    signal: keep('signal', RATIOS.text),
  };
  const on = (role: keyof typeof filled): Color => {
    const own = colors[`on-${role}`];
    return readOn(filled[role], [...(own ? [own] : []), ground, ink]);
  };
  const own = roleEntries(colors).flatMap(([role]) => (isStandardRole(role) ? [] : [role]));
  const all: Readonly<Record<StandardRole, Color>> & RoleColors = {
    ground,
    panel,
    ink,
    'soft-ink': passingShade(mixed(ink, ground, SOFT_INK), grounds, RATIOS.text) ?? ink,
    line: passingShade(mixed(ink, ground, LINE), grounds, RATIOS.nonText) ?? ink,
    ...filled,
    'on-accent': on('accent'),
    'on-second': on('second'),
    'on-signal': on('signal'),
    link: keep('link', RATIOS.text),
    visited: keep('visited', RATIOS.text),
    ring: keep('ring', RATIOS.nonText),
    // What a role of the designer's own is for is not known: it is kept so that it can be read.
    ...Object.fromEntries(own.map((role) => [role, keep(role, RATIOS.text)])),
  };
  return Object.fromEntries(Object.entries(all).filter(([role]) => role in colors));
}
