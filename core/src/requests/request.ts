import type { OverrideState, WidthRange } from '../veneer/override.js';
import type { OverrideValue } from '../veneer/override-value.js';

/** How an item stands by the designer's word; whether it holds is told by proof. */
export const REQUEST_STANDINGS = ['to do', 'asked', 'done', 'refused'] as const;
export type RequestStanding = (typeof REQUEST_STANDINGS)[number];

/** Looks that one item can name. */
export const MOST_LOOKS = 400;

/** A look that an item comes to: what it is of, and what it is to be there. */
export interface RequestLook {
  /** Selector of the elements, a pseudo-element at its end or none. */
  readonly selector: string;
  readonly property: string;
  readonly value: OverrideValue;
  /** State it is meant for; `null` for every state. */
  readonly state: OverrideState | null;
  /** Widths it is meant for; every width when absent. */
  readonly widths?: WidthRange | null;
}

/** One wish of the client. */
export interface RequestItem {
  readonly id: string;
  readonly words: string;
  /** Parts and pages it is for; empty where that is not settled. */
  readonly partIds: readonly number[];
  readonly pageIds: readonly number[];
  /** What must not change. */
  readonly keep: string;
  /** What to ask the client back. */
  readonly question: string;
  readonly standing: RequestStanding;
  /** Why it is refused. */
  readonly reason: string;
  readonly looks: readonly RequestLook[];
  /** Overrides made for it, by id. */
  readonly overrides: readonly string[];
}

/** What the client wrote, as it came, and the items it was split into. */
export interface ClientRequest {
  readonly id: string;
  readonly text: string;
  /** Day it came, as `2026-05-04`. */
  readonly cameAt: string;
  readonly items: readonly RequestItem[];
}
