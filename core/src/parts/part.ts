import type { AttributeChange } from '../dom/amendment.js';

/** What opens a part that the page hides: an attribute change on the elements a selector matches. */
export interface Opener extends AttributeChange {
  readonly selector: string;
}

/** One of several forms a part can come in: what its maker changes on its elements for it. */
export interface PartTemplate {
  readonly name: string;
  readonly acts: readonly Opener[];
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
  /** Forms it can come in besides the one it was captured in; none when absent. */
  readonly templates?: readonly PartTemplate[];
  /** Name of the one it is shown and matched in; as it was captured when absent or empty. */
  readonly template?: string;
}

/** What the templates that parts are in change on their pages. */
export function standingActs(parts: readonly Pick<Part, 'templates' | 'template'>[]): readonly Opener[] {
  return parts.flatMap(
    ({ templates = [], template = '' }) => templates.find(({ name }) => name === template)?.acts ?? [],
  );
}

/** How far CSS gets into a part: into the same document, behind a shadow root, or not at all. */
export type Reachability = 'in page' | 'shadow' | 'framed';
