import type { Message } from './message/message.js';
import type { SourceRange } from './text/source-range.js';

/** What can be wrong with, or undecided about, a page or a stylesheet. */
export type ProblemCode =
  | 'invalid-declaration'
  | 'invalid-selector'
  | 'invalid-at-rule'
  | 'unknown-property'
  | 'unsupported-at-rule'
  | 'unsupported-selector'
  | 'undecided-condition'
  | 'missing-sheet'
  | 'import-cycle'
  | 'too-deep'
  | 'too-large';

/** A finding that costs only what it names; everything else is still read. */
export interface Problem {
  readonly code: ProblemCode;
  readonly reason: Message;
  readonly loc: SourceRange | null;
}
