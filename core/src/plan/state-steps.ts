import type { OverrideState } from '../veneer/override.js';
import { shadeOfValue, type OverrideValue } from '../veneer/override-value.js';
import type { SiteModel } from '../site/site-model.js';

/** Points of lightness by which a state differs from rest, where nothing else is said. */
const STATE_STEPS: Readonly<Partial<Record<OverrideState, number>>> = {
  hover: -12,
  focus: -6,
  active: -18,
  'parent-hover': -12,
};

/** Value proposed for a state from the one at rest: a shade that shows; at rest's own where the state has no step. */
export function proposedForState(site: SiteModel, value: OverrideValue, state: OverrideState): OverrideValue {
  const steps = STATE_STEPS[state] ?? 0;
  if (steps !== 0 && value.kind === 'composite')
    return { ...value, colors: value.colors.map((color) => shadeOfValue(color, steps, site.palette) ?? color) };
  return steps === 0 ? value : (shadeOfValue(value, steps, site.palette) ?? value);
}
