import { madeUpTraffic, type DayCount, type TrafficWish } from '@upper-veneer/core';
import seedrandom from 'seedrandom';

export interface TrafficInput {
  readonly wish: TrafficWish;
  /** The same number draws the same visitors. */
  readonly seed: number;
}

/** Draws made-up visitors one by one. */
export function makeTraffic({ wish, seed }: TrafficInput): DayCount[] {
  const random = seedrandom(String(seed));
  return madeUpTraffic(wish, () => random());
}
