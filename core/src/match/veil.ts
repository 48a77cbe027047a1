import { compositeOver, contrastRatio } from '../color/contrast.js';
import type { Color } from '../values/color.js';
import type { Veil } from './found-color.js';

/**
 * Contrast of what is read or seen with what it stands on, as opacity leaves it.
 * @param behind what lies behind both; asked only where the veil lets it through.
 */
export function veiledContrast(ink: Color, ground: Color, veil: Veil | null, behind: Color | null): number {
  const under = opaque(ground);
  if (!veil) return contrastRatio(compositeOver(ink, under), under);
  const over = compositeOver(ink, under, veil.ink);
  if (veil.whole === 1 || !behind) return contrastRatio(over, under);
  const back = opaque(behind);
  return contrastRatio(compositeOver(over, back, veil.whole), compositeOver(under, back, veil.whole));
}

function opaque(color: Color): Color {
  return { ...color, alpha: 1 };
}
