import type { Code } from './message.js';

/** A language: its tag (BCP 47), and what is said in it. */
export interface Language {
  readonly tag: string;
  /** The tag by whose custom days and times are written, where it is another. */
  readonly dates?: string;
  /** What is said for each code, in ICU MessageFormat. */
  readonly words: Readonly<Record<Code, string>>;
  /** Texts of the templates of screens, by the number that Angular gives each; what is not here is shown as it is written. */
  readonly screens?: Readonly<Record<string, string>>;
}
