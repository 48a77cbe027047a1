import type { Message } from '../message/message.js';
/** A property declaration as written. Offsets are UTF-16 units from 0 in the sheet's text. */
export interface DeclarationNode {
  readonly kind: 'declaration';
  /** Lower case, except for custom properties. */
  readonly name: string;
  /** Value text without `!important`, comments and outer white space removed. */
  readonly value: string;
  readonly important: boolean;
  readonly start: number;
  readonly end: number;
}

/** A qualified rule: a style rule, or a keyframe inside `@keyframes`. */
export interface QualifiedNode {
  readonly kind: 'qualified';
  readonly prelude: string;
  readonly start: number;
  readonly preludeEnd: number;
  readonly end: number;
  readonly body: readonly BodyNode[];
}

/** An at-rule; `body` is `null` for statements such as `@import`. */
export interface AtNode {
  readonly kind: 'at';
  /** Lower case, without `@`. */
  readonly name: string;
  readonly prelude: string;
  readonly start: number;
  readonly preludeStart: number;
  readonly preludeEnd: number;
  readonly end: number;
  readonly body: readonly BodyNode[] | null;
}

export type RuleNode = QualifiedNode | AtNode;
export type BodyNode = DeclarationNode | RuleNode;

/** A piece of the text that was thrown away while parsing. */
export interface SyntaxProblem {
  readonly code: 'invalid-declaration' | 'invalid-selector' | 'too-deep' | 'too-large';
  readonly reason: Message;
  readonly start: number;
  readonly end: number;
}

/** A parsed stylesheet. */
export interface SheetNode {
  readonly rules: readonly RuleNode[];
  readonly problems: readonly SyntaxProblem[];
}
