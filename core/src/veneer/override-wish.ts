import type { OverrideTarget } from './override.js';
import type { OverrideValue } from './override-value.js';

/** What the designer asks for. */
export interface OverrideWish extends OverrideTarget {
  readonly property: string;
  /** State of the pseudo-element itself, such as a scrollbar's thumb. */
  readonly pseudoState?: 'hover';
  readonly value: OverrideValue;
  /** Viewport width at which the target is looked at, CSS px. */
  readonly width: number;
  /** Whether a selector written by hand gives way to one written anew. */
  readonly isAfresh?: boolean;
}
