import type { Message } from '../message/message.js';
import type { Spot } from '../veneer/override.js';
import type { PlainValue } from '../veneer/override-value.js';
import type { FoundColor, Meeting } from './found-color.js';
import type { Strategy } from './fitness.js';
import type { ShapeBecomes } from './shape/found-shape.js';

/** What a row becomes. */
export type Becomes = { readonly kind: 'value'; readonly value: PlainValue } | { readonly kind: 'leave' };

/** What is settled before anything is proposed. */
export interface MatchChoices {
  readonly strategy: Strategy;
  /** Rows set by hand or locked, by id. */
  readonly locked: Readonly<Record<string, Becomes>>;
  /** Rows that must stay equal: each list is given one value. */
  readonly equal: readonly (readonly string[])[];
  /** The main actions named by hand; those told from the page when absent. */
  readonly mains?: readonly Spot[] | null;
  /** Custom properties of the theme that are overridden themselves, by id; where that is the shorter way when absent. */
  readonly properties?: readonly string[] | null;
  /** What shapes become that was set by hand, by id. */
  readonly shapes?: Readonly<Record<string, ShapeBecomes>>;
  /** Places of a row that are a row of their own, by `placeId`. */
  readonly apart?: readonly { readonly row: string; readonly places: readonly string[] }[];
  /** Rows that are one: each list is merged into its first. */
  readonly merged?: readonly (readonly string[])[];
}

/** One row with what is proposed for it. */
export interface ProposedRow {
  readonly found: FoundColor;
  readonly becomes: Becomes;
  /** CSS of the colour it comes to; that found where it is left alone. */
  readonly css: string;
  readonly reason: Message;
  readonly isLocked: boolean;
  /** The hardest it meets, after: its worst ratio to what is asked; `null` where nothing is read or seen of it. */
  readonly worst: { readonly ratio: number; readonly wanted: number; readonly before: number } | null;
  /** The same in the second lighting, where what is not bound to a role stays as it is; `null` in a site of one. */
  readonly inverted: Pick<ProposedRow, 'css' | 'worst'> | null;
}

/** A hard condition that no choice could meet. */
export interface Unmet {
  readonly meeting: Meeting;
  /** Contrast ratio it comes to, or ΔE2000 for `apart`. */
  readonly after: number;
  /** CSS of the nearest colour of the row's hue that would meet it; `null` where none does. */
  readonly nearest: string | null;
  readonly words: Message;
}

export interface MatchProposal {
  readonly strategy: Strategy;
  readonly rows: readonly ProposedRow[];
  readonly unmet: readonly Unmet[];
}
