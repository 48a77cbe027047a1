import type { AttributeChange } from '../dom/amendment.js';

/** What opens a part that the page hides: an attribute change on the elements a selector matches. */
export interface Opener extends AttributeChange {
  readonly selector: string;
}

/** A named region of the site's pages. */
export interface Part {
  readonly id: number;
  readonly name: string;
  readonly kind: string;
  /** Selector of its outermost elements. */
  readonly selector: string;
  /** How it is opened when it is hidden; empty when it shows by itself. */
  readonly openers: readonly Opener[];
}

/** How far CSS gets into a part: into the same document, behind a shadow root, or not at all. */
export type Reachability = 'in page' | 'shadow' | 'framed';
