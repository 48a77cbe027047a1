/** Specificity: ids, classes (with attributes and pseudo-classes), types (with pseudo-elements). Source: Selectors 4 §17. */
export type Specificity = readonly [ids: number, classes: number, types: number];

export const NO_SPECIFICITY: Specificity = [0, 0, 0];

/** Order of two specificities: negative when `a` is lower. */
export function compareSpecificity(a: Specificity, b: Specificity): number {
  return a[0] - b[0] || a[1] - b[1] || a[2] - b[2];
}

/** How a compound hangs on the one to its left; `''` for the leftmost. */
export type Combinator = '' | ' ' | '>' | '+' | '~';

/** `[name operator "value" flag]`. */
export interface AttributeTest {
  readonly name: string;
  readonly operator: '' | '=' | '~=' | '|=' | '^=' | '$=' | '*=';
  readonly value: string;
  /** Whether the value folds ASCII case by its flag; `null` when the selector leaves it to HTML. */
  readonly ignoreCase: true | null;
}

/** `An+B`, with the selector list of `of`, if any. */
export interface NthTest {
  readonly step: number;
  readonly offset: number;
  readonly of: SelectorList | null;
}

/** One pseudo-class of a compound. */
export type PseudoClass =
  | { readonly kind: 'is'; readonly list: SelectorList }
  | { readonly kind: 'not'; readonly list: SelectorList }
  | { readonly kind: 'has'; readonly list: SelectorList }
  | { readonly kind: 'nth'; readonly from: 'start' | 'end'; readonly ofType: boolean; readonly nth: NthTest }
  | { readonly kind: 'host'; readonly argument: SelectorList | null; readonly context: boolean }
  | { readonly kind: 'scope' }
  | { readonly kind: 'lang'; readonly ranges: readonly string[] }
  | { readonly kind: 'dir'; readonly direction: string }
  /** Answered by the element, its document and the state given. */
  | { readonly kind: 'named'; readonly name: string };

/** A pseudo-element at the end of a complex selector. */
export interface PseudoElementTest {
  /** Without colons, lower case: `before`, `slotted`, `part`, `-webkit-scrollbar-thumb`. */
  readonly name: string;
  /** Argument of `::slotted()`. */
  readonly list: SelectorList | null;
  /** Names in `::part()`. */
  readonly parts: readonly string[];
  /** Pseudo-classes after it, such as `:hover` of a scrollbar thumb. */
  readonly states: readonly PseudoClass[];
}

/** A compound selector. */
export interface CompoundSelector {
  /** `null` for `*` and for none. */
  readonly type: string | null;
  readonly ids: readonly string[];
  readonly classes: readonly string[];
  readonly attributes: readonly AttributeTest[];
  readonly pseudoClasses: readonly PseudoClass[];
}

/** A complex selector: compounds from left to right. */
export interface ComplexSelector {
  readonly text: string;
  readonly compounds: readonly CompoundSelector[];
  /** `combinators[i]` stands before `compounds[i]`; the first is `''`, or a combinator in a relative selector. */
  readonly combinators: readonly Combinator[];
  readonly pseudoElements: readonly PseudoElementTest[];
  readonly specificity: Specificity;
}

export type SelectorList = readonly ComplexSelector[];

/** The rightmost compound, the one the styled element itself must match. */
export function subjectOf(selector: ComplexSelector): CompoundSelector {
  return selector.compounds[selector.compounds.length - 1];
}
