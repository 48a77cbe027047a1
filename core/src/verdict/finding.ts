import type { Message } from '../message/message.js';
import type { OverrideState, Spot } from '../veneer/override.js';
import type { OverrideWish } from '../veneer/override-wish.js';
import type { Standing } from '../color/standing.js';

/** Most elements of a finding that are handed over to be outlined; all are counted. */
export const MOST_SPOTS = 200;

/** What mends a finding in one press. */
export interface Repair {
  readonly label: Message;
  readonly wishes: readonly OverrideWish[];
}

/** One line of the verdict. */
export interface Finding {
  readonly standing: Standing;
  readonly text: Message;
  /** What it was computed from. */
  readonly basis: Message;
  /** Elements it is about, to be outlined. */
  readonly spots?: readonly Spot[];
  readonly repair?: Repair;
  /** State that it is about, where the designer may say that it is meant so. */
  readonly state?: OverrideState;
}
