import type { Message } from '../../message/message.js';
import type { HousePart } from '../../veneer/house-shape.js';

/** Why a shape is left as it is unless it is chosen by hand; empty for none. It is part of a row's id, which is stored. */
export type Held =
  '' | 'an exception' | 'corners differ by side' | 'edges differ by side' | 'round as it is' | 'signs or code';

/** What a shape is of: the page's habit is another for each. */
export type ShapeKind = 'action' | 'field' | 'box' | 'line' | 'heading' | 'text';

/** One element whose corners, edges, shadow or type are meant. */
export interface ShapePlace {
  readonly pageId: number;
  /** Element the override is laid on. */
  readonly element: number;
  /** Properties that are written there: those of the sides that are drawn. */
  readonly properties: readonly string[];
}

/** A shape as a scope shows it at rest: one row of Match. */
export interface FoundShape {
  /** The same from run to run. */
  readonly id: string;
  readonly part: HousePart;
  readonly kind: ShapeKind;
  /** CSS as resolved: `12px`. */
  readonly value: string;
  readonly places: readonly ShapePlace[];
  /** Elements that show it; those that inherit from one place among them. */
  readonly elements: number;
  /** What it is of, in words: `corners of Apply and 2 more`. */
  readonly paints: Message;
  /** Why it is not to be changed by itself; empty where it may be. */
  readonly held: Held;
}

/** What a row of shapes becomes: the house's, what the page around it has, or nothing. */
export const SHAPE_BECOMES = ['house', 'page', 'leave'] as const;
export type ShapeBecomes = (typeof SHAPE_BECOMES)[number];
