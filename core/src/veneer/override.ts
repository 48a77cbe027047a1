import type { OverrideValue } from './override-value.js';

/** States of an element around the target, or of the target itself, that say how it stands: switched over from how it was captured, locked, both, or holding the focus. */
export const SWITCH_STATES = ['switched', 'locked', 'switched-locked', 'focused'] as const;
export type SwitchState = (typeof SWITCH_STATES)[number];

/**
 * States an override can be for, in the order their rules are written: what the document says of the element first,
 * then link, visited, hover, focus, active, and disabled last, which nothing else may cover.
 */
export const OVERRIDE_STATES = [
  'rest',
  'filled',
  'autofilled',
  'checked',
  'indeterminate',
  'open',
  'valid',
  'invalid',
  'read-only',
  'current',
  'parent-invalid',
  'switched',
  'visited',
  'parent-hover',
  'hover',
  'focused',
  'focus',
  'active',
  'locked',
  'switched-locked',
  'disabled',
] as const;
export type OverrideState = (typeof OVERRIDE_STATES)[number];

/** Whether a state is that of another element than the target, which an override names. */
export function isOfAnother(state: string): boolean {
  return state.startsWith('parent-') || isSwitchState(state);
}

export function isSwitchState(state: string): state is SwitchState {
  return (SWITCH_STATES as readonly string[]).includes(state);
}

/** How far an override reaches. */
export const REACHES = ['one', 'alike', 'group', 'everywhere'] as const;
export type Reach = (typeof REACHES)[number];

/** Viewport widths a rule holds at, in CSS px, both ends included; `null` is no bound. */
export interface WidthRange {
  readonly min: number | null;
  readonly max: number | null;
}

/** An element of a page, by running number. */
export interface Spot {
  readonly pageId: number;
  readonly element: number;
}

/** What is behind a shadow root and changes through a custom property of its host. */
export interface Through {
  /** Running number of the element behind the root. */
  readonly element: number;
  readonly pseudo: string;
  readonly state: OverrideState;
  readonly property: string;
}

/** What an override was made for: where, in which state, how far. */
export interface OverrideTarget extends Spot {
  /** Pseudo-element without colons; `''` for the element. */
  readonly pseudo: string;
  readonly reach: Reach;
  /** Selector that gathers the group, for that reach. */
  readonly group?: string | null;
  readonly state: OverrideState;
  /** For the states of another element, a parent's or a switch's: its running number. */
  readonly parent?: number | null;
  /** Widths it holds at; every width when absent. */
  readonly widths?: WidthRange | null;
  /** Pages it is kept to; all when absent. */
  readonly pages?: readonly number[] | null;
  /** Single matches of its reach left out. */
  readonly spared?: readonly Spot[] | null;
  /** For a custom property set on a shadow host: what it was set for. */
  readonly through?: Through | null;
}

/** One override: what it was made for, and the rule that does it. */
export interface Override extends OverrideTarget {
  readonly id: string;
  /** Part it is filed under; `null` for the site as a whole. */
  readonly partId: number | null;
  readonly property: string;
  readonly value: OverrideValue;
  /** Whole selector, state and pseudo-element included. */
  readonly selector: string;
  readonly important: boolean;
  /** States that are meant to look as they do beside it, so that the verdict lets them be. */
  readonly meant?: readonly OverrideState[] | null;
  /** Whether the designer wrote the selector; it is kept as it is then. */
  readonly isByHand?: boolean;
}
