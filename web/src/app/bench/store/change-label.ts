import { say, wordsOf } from '@upper-veneer/words';
import { stateTold, propertyTold, type OverrideState } from '@upper-veneer/core';

/** Label of a change, for undo: `Hover fill of Hold my place: Willow, 12 darker`. */
export function describeChange(state: OverrideState, property: string, name: string, value: string): string {
  const shortName = name.length > 80 ? `${name.slice(0, 77)}…` : name;
  return wordsOf('bench.inherited-value', {
    what: say(stateTold(state)),
    part: say(propertyTold(property)),
    shortName,
    value,
  }).slice(0, 200);
}
