import { inner, roleTold, type RoleName } from '@upper-veneer/core';
import { say } from '@upper-veneer/words';

/** A role inside a sentence or a row: `soft ink`. */
export function roleWords(role: RoleName): string {
  return say(inner(roleTold(role)));
}

/** A role by itself: `Soft ink`. */
export function roleTitle(role: RoleName): string {
  return say(roleTold(role));
}
