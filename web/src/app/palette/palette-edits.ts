import type { PaletteRequest } from '@upper-veneer/contract';
import type { Override, Palette, RoleName } from '@upper-veneer/core';

/** The palette in the form the server takes it in. */
export function toRequest(label: string, { swatches, roles }: Palette): PaletteRequest {
  const nameOf = (id: number): string => swatches.find((swatch) => swatch.id === id)?.name ?? '';
  return { label: label.slice(0, 200), swatches: swatches.map((swatch) => ({ ...swatch })), roles: roles.map(({ role, swatchId, shade }) => ({ role, swatch: nameOf(swatchId), shade })) };
}

/** A new swatch at the end, under a name nobody has. */
export function withSwatch(palette: Palette, css: string): PaletteRequest {
  const taken = new Set(palette.swatches.map(({ name }) => name.toLowerCase()));
  let number = palette.swatches.length + 1;
  while (taken.has(`colour ${number}`)) number += 1;
  const name = `Colour ${number}`;
  const request = toRequest(`Add ${name} ${css}`, palette);
  return { ...request, swatches: [...request.swatches, { id: 0, name, css }] };
}

/** A swatch renamed or recoloured; its roles follow the name. */
export function withEdit(palette: Palette, id: number, edit: { readonly name?: string; readonly css?: string }): PaletteRequest {
  const before = palette.swatches.find((swatch) => swatch.id === id);
  const label = edit.css === undefined ? `Rename ${before?.name ?? ''} to ${edit.name ?? ''}` : `${before?.name ?? ''} becomes ${edit.css}`;
  return toRequest(label, { ...palette, swatches: palette.swatches.map((swatch) => (swatch.id === id ? { ...swatch, ...edit } : swatch)) });
}

/** A swatch one place up (−1) or down (1). */
export function withMove(palette: Palette, id: number, by: -1 | 1): PaletteRequest | null {
  const at = palette.swatches.findIndex((swatch) => swatch.id === id);
  const to = at + by;
  if (at < 0 || to < 0 || to >= palette.swatches.length) return null;
  const swatches = [...palette.swatches];
  [swatches[at], swatches[to]] = [swatches[to], swatches[at]];
  return toRequest(`Move ${swatches[to].name}`, { ...palette, swatches });
}

/** A palette without a swatch and the roles it fills. */
export function withoutSwatch(palette: Palette, id: number): PaletteRequest {
  const name = palette.swatches.find((swatch) => swatch.id === id)?.name ?? '';
  return toRequest(`Delete ${name}`, { swatches: palette.swatches.filter((swatch) => swatch.id !== id), roles: palette.roles.filter(({ swatchId }) => swatchId !== id) });
}

/** A role filled by a swatch, or emptied. */
export function withRole(palette: Palette, role: RoleName, swatchId: number | null): PaletteRequest {
  const others = palette.roles.filter((fill) => fill.role !== role);
  const name = palette.swatches.find(({ id }) => id === swatchId)?.name;
  return toRequest(name ? `${name} fills ${role}` : `Empty ${role}`, { ...palette, roles: swatchId === null ? others : [...others, { role, swatchId, shade: 0 }] });
}

/** Overrides that take their colour from a swatch, by itself or through a role. */
export function usesOf(palette: Palette, overrides: readonly Override[], swatchId: number): Override[] {
  const roles = new Set(palette.roles.filter((fill) => fill.swatchId === swatchId).map(({ role }) => role));
  return overrides.filter(({ value }) => (value.kind === 'swatch' && value.swatchId === swatchId) || (value.kind === 'role' && roles.has(value.role)));
}
