import { contrastRatio, readableOn } from '../color/contrast.js';
import { hexOf } from '../color/read-notation.js';
import type { Color } from '../values/color.js';
import { colorOfValue, type PlainValue } from '../veneer/override-value.js';
import type { Palette, RoleName } from '../veneer/palette.js';

/** The first of some roles that reaches a contrast on a ground; the best of all roles where none of them does, black or white where no role does. */
export function readableRole(
  ground: Color,
  wanted: number,
  preferred: readonly RoleName[],
  palette: Palette,
): PlainValue {
  const valueOf = (role: RoleName): PlainValue => ({ kind: 'role', role, shade: 0 });
  const ratioOf = (role: RoleName): number => {
    const color = colorOfValue(valueOf(role), palette);
    return color ? contrastRatio(color, ground) : 0;
  };
  const fit = preferred.find((role) => ratioOf(role) >= wanted);
  if (fit) return valueOf(fit);
  const best = [...palette.roles].sort((a, b) => ratioOf(b.role) - ratioOf(a.role)).at(0);
  if (best && ratioOf(best.role) >= wanted) return valueOf(best.role);
  return { kind: 'literal', css: hexOf(readableOn(ground)) };
}
