import type { DeclarationNode } from '../syntax/nodes.js';
import type { SelectorList } from '../selectors/selector.js';
import type { Sheet } from './sheet.js';

/** A condition around a rule, innermost last. */
export type Condition =
  | { readonly kind: 'media'; readonly text: string }
  | { readonly kind: 'supports'; readonly holds: boolean; readonly text: string }
  | { readonly kind: 'container'; readonly text: string };

/** A `@scope` around a rule. Source: CSS Cascading 6 §2.5. */
export interface Scope {
  /** `null` stands for the parent of the sheet's owner, or the root. */
  readonly start: SelectorList | null;
  readonly end: SelectorList | null;
}

/** A style rule, nesting resolved. */
export interface StyleRule {
  readonly selectors: SelectorList;
  readonly selectorText: string;
  readonly declarations: readonly DeclarationNode[];
  readonly sheet: Sheet;
  /** Offset of its selector in the sheet's text, UTF-16 units from 0. */
  readonly start: number;
  readonly conditions: readonly Condition[];
  /** Dotted name of its cascade layer; `null` outside layers. */
  readonly layer: string | null;
  /** Innermost last. */
  readonly scopes: readonly Scope[];
  /** Place in the order of appearance over all sheets, from 0. */
  readonly order: number;
}

/** A registered custom property. Source: CSS Properties and Values 1 §3. */
export interface RegisteredProperty {
  readonly name: string;
  readonly syntax: string;
  readonly inherits: boolean;
  readonly initial: string | null;
}
