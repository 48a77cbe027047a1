import type { Message } from '../message/message.js';
import { hexOf } from '../color/read-notation.js';
import { cssOfValue, customPropertyOf } from './custom-property.js';
import type { Naming } from './naming.js';
import type { Override } from './override.js';
import { colorOfValue, valueTold } from './override-value.js';
import type { Palette, RoleName } from './palette.js';

/** A value of ours, as it is called and as it looks. */
export interface NamedValue {
  readonly words: Message;
  readonly hex: string;
}

/** Single colours of the palette that overrides carry, by the CSS they are written as. */
export function namedValues(
  overrides: readonly Override[],
  palette: Palette,
  naming: Naming,
): ReadonlyMap<string, NamedValue> {
  return new Map(
    overrides.flatMap(({ value }) => {
      const color = value.kind === 'role' || value.kind === 'swatch' ? colorOfValue(value, palette) : null;
      return color
        ? [[cssOfValue(value, palette, naming), { words: valueTold({ palette }, value), hex: hexOf(color) }] as const]
        : [];
    }),
  );
}

/** Custom property of each role that is filled. */
export function rolePropertyNames(palette: Palette, naming: Naming): ReadonlyMap<RoleName, string> {
  return new Map(
    palette.roles.map(
      ({ role }) => [role, customPropertyOf({ kind: 'role', role, shade: 0 }, palette, naming)?.name ?? ''] as const,
    ),
  );
}
