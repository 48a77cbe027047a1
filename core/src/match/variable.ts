import type { Color } from '../values/color.js';
import type { Lighting } from '../veneer/lighting.js';
import type { Candidate, ColorFigures } from './candidates.js';
import type { FoundColor } from './found-color.js';

/** One choice to be made: a row, or several that must stay equal. */
export interface Variable {
  readonly rows: readonly FoundColor[];
  readonly lead: FoundColor;
  readonly found: ColorFigures;
  readonly alpha: number;
  readonly weight: number;
  readonly options: readonly Candidate[];
  /** What each option costs by itself. */
  readonly alone: readonly number[];
  readonly isLocked: boolean;
  /** Near-duplicates in it, which stay apart where it is left alone. */
  readonly asFound: readonly ColorFigures[];
  at: number;
}

/** What is asked of the colour a row comes to, in a lighting. */
export function optionFigures(variable: Variable, lighting: Lighting = 'light'): ColorFigures {
  const { figures, inverted } = variable.options[variable.at];
  return lighting === 'light' ? figures : (inverted ?? figures);
}

/** Colour a row comes to, as strong as what was found. */
export function shownOf(variable: Variable, lighting: Lighting = 'light'): Color {
  const { color } = optionFigures(variable, lighting);
  return variable.options[variable.at].value === null ? color : { ...color, alpha: variable.alpha };
}
