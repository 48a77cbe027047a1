import type { Code } from './message.js';

/** A language: its tag (BCP 47), and what is said for each code, in ICU MessageFormat. */
export interface Language {
  readonly tag: string;
  readonly words: Readonly<Record<Code, string>>;
}
