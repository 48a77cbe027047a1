import { inner, stateTold, type OverrideState } from '@upper-veneer/core';
import { say } from '@upper-veneer/words';

/** A state inside a sentence: `hover`, `pressed`. */
export function stateWords(state: OverrideState): string {
  return say(inner(stateTold(state)));
}
