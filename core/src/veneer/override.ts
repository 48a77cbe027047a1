import type { OverrideValue } from './palette.js';

/** States an override can be for, in the order their rules are written: link, visited, hover, focus, active. */
export const OVERRIDE_STATES = ['rest', 'visited', 'hover', 'focus', 'active'] as const;
export type OverrideState = (typeof OVERRIDE_STATES)[number];

/** How far an override reaches. */
export const REACHES = ['one', 'alike', 'everywhere'] as const;
export type Reach = (typeof REACHES)[number];

/** One override: what it was made for, and the rule that does it. */
export interface Override {
  readonly id: string;
  /** Part it is filed under; `null` for the site as a whole. */
  readonly partId: number | null;
  readonly pageId: number;
  /** Running number of the element it was made on. */
  readonly element: number;
  /** Pseudo-element without colons; `''` for the element. */
  readonly pseudo: string;
  readonly reach: Reach;
  readonly state: OverrideState;
  readonly property: string;
  readonly value: OverrideValue;
  /** Whole selector, state and pseudo-element included. */
  readonly selector: string;
  readonly important: boolean;
}
