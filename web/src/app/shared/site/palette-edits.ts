import { say, wordsOf } from '@upper-veneer/words';
import type { PaletteRequest, RoleBody, SwatchBody } from '@upper-veneer/contract';
import {
  houseTold,
  colorOfCss,
  colorOfValue,
  shadeTold,
  hexOf,
  invertRoles,
  markerSelector,
  nameKey,
  paletteIn,
  plainValuesIn,
  type Color,
  type HousePart,
  type LightingSignal,
  type Override,
  type Palette,
  type PlainValue,
  type RoleFill,
  type RoleName,
  roleEntries,
} from '@upper-veneer/core';
import { roleTitle, roleWords } from './role-words';

/** The palette in the form the server takes it in. */
export function toRequest(label: string, { swatches, roles, second, shape, former }: Palette): PaletteRequest {
  const nameOf = (id: number): string => swatches.find((swatch) => swatch.id === id)?.name ?? '';
  const toRole = ({ role, swatchId, shade, isAssumed }: RoleFill): RoleBody => ({
    role,
    swatch: nameOf(swatchId),
    shade,
    ...(isAssumed ? { isAssumed } : {}),
  });
  return {
    label: label.slice(0, 200),
    swatches: swatches.map(toBody),
    roles: roles.map(toRole),
    second: second ? { told: second.told, roles: second.roles.map(toRole) } : null,
    shape: shape ?? {},
    former: former ?? [],
  };
}

function toBody({ id, name, css, origin, note }: Palette['swatches'][number]): SwatchBody {
  return { id, name, css, ...(origin === undefined ? {} : { origin }), ...(note === undefined ? {} : { note }) };
}

/** A second lighting told by a signal, or none. */
export function withSecond(palette: Palette, told: LightingSignal | null): PaletteRequest {
  return toRequest(
    told ? wordsOf('screen.second-lighting-told', { signal: signalWords(told) }) : wordsOf('screen.one-lighting-only'),
    {
      ...palette,
      second: told && { told, roles: palette.second?.roles ?? [] },
    },
  );
}

/** What tells a lighting, in words. */
export function signalWords(told: LightingSignal): string {
  return told.kind === 'scheme' ? 'prefers-color-scheme: dark' : markerSelector(told);
}

/** The light roles derived from the inverted ones, which stay as they are and are set by hand from then on. */
export function withLightDerived(palette: Palette): PaletteRequest {
  const inverted = paletteIn(palette, 'inverted');
  const colors = Object.fromEntries(
    palette.roles.flatMap(({ role }) => {
      const color = colorOfValue({ kind: 'role', role, shade: 0 }, inverted);
      return color ? [[role, color] as const] : [];
    }),
  );
  const held = withRoles(inverted, colors, '');
  const light = withRoles(
    { ...paletteIn(palette, 'light'), swatches: held.swatches },
    invertRoles(colors),
    wordsOf('screen.derive-light-roles-from'),
    true,
  );
  return { ...light, second: held.second };
}

/** A new swatch at the end, under a name nobody has. @param origin where it came from, in words. */
export function withSwatch(palette: Palette, css: string, origin = ''): PaletteRequest {
  const taken = new Set(palette.swatches.map(({ name }) => name.toLowerCase()));
  let number = palette.swatches.length + 1;
  while (taken.has(wordsOf('screen.colour', { number }))) number += 1;
  const name = wordsOf('screen.colour-number', { number });
  const request = toRequest(wordsOf('screen.add', { name, css }), palette);
  return { ...request, swatches: [...request.swatches, { id: 0, name, css, ...(origin === '' ? {} : { origin }) }] };
}

/** A swatch renamed or recoloured; its roles follow the name. */
export function withEdit(
  palette: Palette,
  id: number,
  edit: { readonly name?: string; readonly css?: string; readonly note?: string },
): PaletteRequest {
  const before = palette.swatches.find((swatch) => swatch.id === id);
  const label =
    edit.note !== undefined
      ? wordsOf('screen.note', { name: before?.name ?? '' })
      : edit.css === undefined
        ? wordsOf('screen.rename', { name: before?.name ?? '', name2: edit.name ?? '' })
        : wordsOf('screen.becomes', { name: before?.name ?? '', css: edit.css });
  return toRequest(label, {
    ...palette,
    swatches: palette.swatches.map((swatch) => (swatch.id === id ? { ...swatch, ...edit } : swatch)),
  });
}

/** The swatches in another order: the one at `from` goes to `to`. */
export function withOrder(palette: Palette, from: number, to: number): PaletteRequest | null {
  if (from === to || !palette.swatches[from] || !palette.swatches[to]) return null;
  const swatches = palette.swatches.toSpliced(from, 1).toSpliced(to, 0, palette.swatches[from]);
  return toRequest(wordsOf('screen.move', { name: palette.swatches[from].name }), { ...palette, swatches });
}

/** Colours with their names at the end; a name that is taken gets a number. */
export function withColors(
  palette: Palette,
  colors: readonly { readonly name: string; readonly css: string }[],
): PaletteRequest {
  const request = toRequest(
    wordsOf('screen.add-add-colours', { colors: colors.length, name: colors[0].name }),
    palette,
  );
  const taken = new Set(palette.swatches.map(({ name }) => nameKey(name)));
  const added = colors.map(({ name, css }) => {
    const base = name.trim().slice(0, 54) || wordsOf('screen.colour-alone');
    let own = base;
    for (let number = 2; taken.has(nameKey(own)); number += 1) own = `${base} ${number}`;
    taken.add(nameKey(own));
    return { id: 0, name: own, css };
  });
  return { ...request, swatches: [...request.swatches, ...added] };
}

/**
 * Deletes a swatch. What uses it takes `heir` instead, or without one keeps its colour as a plain value; roles it fills
 * go to the heir or are emptied.
 */
export function withoutSwatch(
  shown: Palette,
  overrides: readonly Override[],
  id: number,
  heir: number | null,
): PaletteRequest {
  // What is kept as a plain value is the colour of the light.
  const palette = paletteIn(shown, 'light');
  const name = palette.swatches.find((swatch) => swatch.id === id)?.name ?? '';
  const rebound = usesOf(palette, overrides, id).flatMap((override): Override[] => {
    const { value } = override;
    if (value.kind === 'composite')
      return [
        {
          ...override,
          value: {
            ...value,
            colors: value.colors.map((color) =>
              usesSwatch(palette, color, id) ? withoutSwatchIn(palette, color, heir) : color,
            ),
          },
        },
      ];
    if (value.kind === 'house') return [];
    const next = withoutSwatchIn(palette, value, heir);
    return next === value ? [] : [{ ...override, value: next }];
  });
  const inherited = (roles: readonly RoleFill[]): readonly RoleFill[] =>
    heir === null
      ? roles.filter(({ swatchId }) => swatchId !== id)
      : roles.map((fill) => (fill.swatchId === id ? { ...fill, swatchId: heir } : fill));
  return {
    ...toRequest(wordsOf('screen.delete', { name }), {
      ...palette,
      roles: inherited(palette.roles),
      second: palette.second && { ...palette.second, roles: inherited(palette.second.roles) },
    }),
    swatches: palette.swatches.filter((swatch) => swatch.id !== id).map(toBody),
    overrides: rebound,
  };
}

/** Colours for the roles of the lighting that is shown: swatches that have them already are used, the others are added under their role's name. @param isAssumed whether nobody chose them one by one. */
export function withRoles(
  palette: Palette,
  colors: Readonly<Partial<Record<RoleName, Color>>>,
  label: string,
  isAssumed = false,
): PaletteRequest {
  const swatches: SwatchBody[] = palette.swatches.map(toBody);
  const taken = new Set(swatches.map(({ name }) => nameKey(name)));
  const fills = roleEntries(colors).map(([role, color]) => {
    const css = hexOf(color);
    let swatch = swatches.find((candidate) => hexOfCss(candidate.css) === css);
    if (!swatch) {
      const base = roleTitle(role);
      let name = base;
      for (let number = 2; taken.has(nameKey(name)); number += 1) name = `${base} ${number}`;
      taken.add(nameKey(name));
      swatch = { id: 0, name, css };
      swatches.push(swatch);
    }
    return { role, swatch: swatch.name, shade: 0, ...(isAssumed ? { isAssumed } : {}) };
  });
  const { second, ...request } = toRequest(label, palette);
  const filled = (roles: readonly RoleBody[]): RoleBody[] => [
    ...roles.filter(({ role }) => !(role in colors)),
    ...fills,
  ];
  return second && palette.lighting === 'inverted'
    ? { ...request, swatches, second: { ...second, roles: filled(second.roles) } }
    : { ...request, swatches, roles: filled(request.roles), second };
}

function hexOfCss(css: string): string | null {
  const color = colorOfCss(css);
  return color ? hexOf(color) : null;
}

/** A role filled by a swatch or a shade of one, or emptied; in the inverted lighting an emptied one is derived again. */
export function withRole(palette: Palette, role: RoleName, swatchId: number | null, shade = 0): PaletteRequest {
  const { second } = palette;
  const isInverted = palette.lighting === 'inverted' && second;
  const others = (isInverted ? second.roles : palette.roles).filter((fill) => fill.role !== role);
  const name = palette.swatches.find(({ id }) => id === swatchId)?.name;
  const roles = swatchId === null ? others : [...others, { role, swatchId, shade }];
  const where = isInverted ? wordsOf('screen.inverted') : '';
  const swatch = swatchId === null ? null : colorOfValue({ kind: 'swatch', swatchId, shade: 0 }, palette);
  const shaded = shade === 0 ? '' : `, ${say(shadeTold(shade, swatch))}`;
  return toRequest(
    name
      ? wordsOf('screen.fills', { name, shaded, role: roleWords(role), where })
      : `${isInverted ? wordsOf('screen.derive') : wordsOf('screen.empty-title')} ${roleWords(role)}${where}`,
    isInverted ? { ...palette, second: { ...second, roles } } : { ...palette, roles },
  );
}

/** Roles that were assumed, confirmed. */
export function withConfirmed(palette: Palette, roles: readonly RoleName[]): PaletteRequest {
  return toRequest(wordsOf('screen.confirm-confirm-roles', { roles: roles.length, role: roleWords(roles[0]) }), {
    ...palette,
    roles: palette.roles.map((fill) => (roles.includes(fill.role) ? { ...fill, isAssumed: false } : fill)),
  });
}

/** Jobs a swatch has, those of the second lighting among them. */
export function rolesFilledBy({ roles, second }: Palette, swatchId: number): string[] {
  const named = (fills: readonly RoleFill[], suffix = ''): string[] =>
    fills.filter((fill) => fill.swatchId === swatchId).map(({ role }) => roleWords(role) + suffix);
  return [...named(roles), ...named(second?.roles ?? [], ', inverted')];
}

/** Overrides that take their colour from a swatch, by itself or through a role. */
export function usesOf(palette: Palette, overrides: readonly Override[], swatchId: number): Override[] {
  return overrides.filter(({ value }) => plainValuesIn(value).some((color) => usesSwatch(palette, color, swatchId)));
}

function usesSwatch(palette: Palette, value: PlainValue, swatchId: number): boolean {
  if (value.kind === 'swatch') return value.swatchId === swatchId;
  return value.kind === 'role' && palette.roles.some((fill) => fill.swatchId === swatchId && fill.role === value.role);
}

/** A value that no longer leans on a swatch: it takes the heir instead, or keeps its colour as a plain value. */
function withoutSwatchIn(palette: Palette, value: PlainValue, heir: number | null): PlainValue {
  if (heir !== null) return value.kind === 'swatch' ? { ...value, swatchId: heir } : value;
  const color = colorOfValue(value, palette);
  return color ? { kind: 'literal', css: hexOf(color) } : value;
}

/** Overrides that take a part of the house shape. */
export function usesOfPart(overrides: readonly Override[], part: HousePart): Override[] {
  return overrides.filter(({ value }) => value.kind === 'house' && value.part === part);
}

/** A part of the house shape settled, or emptied: overrides that use it keep it as a plain value then. */
export function withShape(
  palette: Palette,
  overrides: readonly Override[],
  part: HousePart,
  css: string,
): PaletteRequest {
  const { [part]: before, ...others } = palette.shape ?? {};
  const words = say(houseTold(part));
  if (css !== '')
    return toRequest(wordsOf('screen.house', { words, css }), { ...palette, shape: { ...others, [part]: css } });
  const rebound = usesOfPart(overrides, part).map((override): Override => ({
    ...override,
    value: { kind: 'literal', css: before ?? 'initial' },
  }));
  return { ...toRequest(wordsOf('screen.no-house', { words }), { ...palette, shape: others }), overrides: rebound };
}
