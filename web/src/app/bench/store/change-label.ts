import { say } from '@upper-veneer/words';
import { stateTold, propertyTold, type OverrideState } from '@upper-veneer/core';

/** Label of a change, for undo: `Hover fill of Hold my place: Willow, 12 darker`. */
export function describeChange(state: OverrideState, property: string, name: string, value: string): string {
  const shortName = name.length > 80 ? `${name.slice(0, 77)}…` : name;
  return `${say(stateTold(state))} ${say(propertyTold(property))} of ${shortName}: ${value}`.slice(0, 200);
}
