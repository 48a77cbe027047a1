import anyAscii from 'any-ascii';
import type { Naming } from './naming.js';
import { isStandardRole, roleWords, rolesInOrder } from './own-role.js';
import type { Palette, RoleName } from './palette.js';

/** Names that the colours of a palette go out under, without prefix: each of its own, and none that reads like a shade of another. */
export interface PaletteNames {
  readonly roles: ReadonlyMap<RoleName, string>;
  /** By the swatch's place in the palette, since new ones have no id yet. */
  readonly swatches: readonly string[];
}

const known = new WeakMap<Palette, { readonly names: Naming['names']; readonly found: PaletteNames }>();

/**
 * Names of all roles and swatches of a palette. Swatches that are published keep the name they have; then roles have their
 * own, filled or not, then swatches by age. What is taken gets a number.
 */
export function namesOf(palette: Palette, names: Naming['names'] = {}): PaletteNames {
  const before = known.get(palette);
  if (before && JSON.stringify(before.names) === JSON.stringify(names)) return before.found;
  const taken = new Set<string>();
  const take = (wanted: string): string => {
    let name = wanted;
    for (let number = 2; taken.has(name); number += 1) name = `${wanted}-${number}`;
    taken.add(name);
    return name;
  };
  const swatches: string[] = [];
  const order = palette.swatches.map((_, i) => i).sort((a, b) => age(palette, a) - age(palette, b) || a - b);
  for (const i of order) if (palette.swatches[i].token) swatches[i] = take(palette.swatches[i].token);
  const roles = new Map(
    rolesInOrder(palette).map((role) => [
      role,
      take(unlikeShade(names[role] ?? (isStandardRole(role) ? role : slug(roleWords(role)) || 'role'))),
    ]),
  );
  for (const i of order) swatches[i] ??= take(unlikeShade(slug(palette.swatches[i].name) || 'swatch'));
  const found = { roles, swatches };
  known.set(palette, { names, found });
  return found;
}

/** Swatches that have an id are older than new ones. */
function age(palette: Palette, i: number): number {
  return palette.swatches[i].id || Number.MAX_SAFE_INTEGER;
}

/** `reed-d2` is how a shade of `reed` is named, `reed-a40` how a sheer one may be; a name of that form is parted. */
function unlikeShade(name: string): string {
  return name.replace(/-([dla])(\d+)$/, '-$1-$2');
}

/** A name fit for a custom property: in Latin letters whatever its script, lower case, words joined by hyphens; `''` where nothing is left. */
export function slug(name: string): string {
  return anyAscii(name.normalize('NFC'))
    .toLowerCase()
    .replace(/['’]/g, '')
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^-/, '')
    .slice(0, MOST_LETTERS)
    .replace(/-$/, '');
}

const MOST_LETTERS = 60;
