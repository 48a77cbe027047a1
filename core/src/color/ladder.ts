import { turns } from './shade.js';
import type { Color } from '../values/color.js';

/** Of steps of lightness those that go on in their own direction: near white nothing is lighter, near black nothing darker. */
export function stepsThatGoOn(color: Color, steps: readonly number[]): number[] {
  return steps.filter((step) => !turns(color, step));
}
