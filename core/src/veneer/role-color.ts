import { relativeLuminance } from '../color/contrast.js';
import { shade } from '../color/shade.js';
import type { Color } from '../values/color.js';
import { invertRoles, type RoleColors } from './invert-roles.js';
import { colorOfCss, type Palette, type RoleFill, type RoleName } from './palette.js';

/** Colour of a swatch, some points lighter or darker; `null` for a swatch that is not there. */
export function fillColor(
  { swatches }: Palette,
  { swatchId, shade: steps }: Pick<RoleFill, 'swatchId' | 'shade'>,
): Color | null {
  const swatch = swatches.find(({ id }) => id === swatchId);
  const color = swatch ? colorOfCss(swatch.css) : null;
  return color && shade(color, steps);
}

/**
 * Colour of a role in the palette's lighting, some points lighter or darker; `null` for a role nobody fills. In the inverted
 * lighting a step goes the way that it goes in the light one as seen from what the role meets: towards it or away from it.
 */
export function roleColor(palette: Palette, role: RoleName, steps: number): Color | null {
  const fill = palette.roles.find((candidate) => candidate.role === role);
  if (palette.lighting !== 'inverted' || !palette.second)
    return fill ? fillColor(palette, { ...fill, shade: fill.shade + steps }) : null;
  const own = handSet(palette, role);
  const base = own ? fillColor(palette, own) : (derivedRoles(palette)[role] ?? null);
  if (!base || steps === 0) return base;
  return shade(base, stepIn(palette, role, steps));
}

/** A step of a role as it goes in the palette's lighting: points lighter, or darker where negative. */
export function stepIn(palette: Palette, role: RoleName, steps: number): number {
  return palette.lighting !== 'inverted' || !palette.second || facesSameWay(palette, role) ? steps : -steps;
}

/** What fills a role in the inverted lighting, where that was set by hand. */
export function handSet({ second }: Palette, role: RoleName): RoleFill | undefined {
  return second?.roles.find((candidate) => candidate.role === role);
}

const derived = new WeakMap<
  Palette['roles'],
  { readonly swatches: Palette['swatches']; readonly colors: RoleColors }
>();

/** The inverted colours of all roles that are filled, as if none was set by hand; opaque, of eight bits a channel. */
export function derivedRoles({ swatches, roles }: Palette): RoleColors {
  const known = derived.get(roles);
  if (known?.swatches === swatches) return known.colors;
  const light = Object.fromEntries(
    roles.flatMap((fill) => {
      const color = fillColor({ swatches, roles }, fill);
      return color ? [[fill.role, { ...color, alpha: 1 }] as const] : [];
    }),
  );
  const colors = invertRoles(light);
  derived.set(roles, { swatches, colors });
  return colors;
}

/** What a role is mostly seen against. */
const MET: Readonly<Partial<Record<RoleName, RoleName>>> = {
  ground: 'ink',
  panel: 'ink',
  accent: 'on-accent',
  second: 'on-second',
  signal: 'on-signal',
  'on-accent': 'accent',
  'on-second': 'second',
  'on-signal': 'signal',
};

function facesSameWay(palette: Palette, role: RoleName): boolean {
  const met = MET[role] ?? 'ground';
  const isLighter = (lighting: 'light' | 'inverted'): boolean | null => {
    const [own, other] = [role, met].map((name) => roleColor({ ...palette, lighting }, name, 0));
    return own && other ? relativeLuminance(own) > relativeLuminance(other) : null;
  };
  const [light, inverted] = [isLighter('light'), isLighter('inverted')];
  return light === null || inverted === null || light === inverted;
}
