import type { LeftOutFile } from '@upper-veneer/contract';
import type { Message } from '@upper-veneer/words';
/** A file as it was brought in. */
export interface CapturedFile {
  /** Address it is known by to the files that refer to it: a path within the archive, or a URL. */
  readonly address: string;
  /** Address it came from in the end, where redirects led elsewhere: what it refers to is found from there. */
  readonly base?: string;
  /** Media type as its source gives it, lower case without parameters; empty when it does not. */
  readonly mediaType: string;
  /** Character encoding as its source gives it; empty when it does not. */
  readonly charset: string;
  readonly body: Buffer;
  /** Name that the page was given; its title stands for it when absent. */
  readonly name?: string;
}

/** What was brought in, before it is made a site. */
export interface Capture {
  readonly files: readonly CapturedFile[];
  readonly leftOut: readonly LeftOutFile[];
  /** Addresses of the pages wanted; all HTML files when empty. */
  readonly pages: readonly string[];
}

/** Told how far an import is; throws when it was stopped. */
export type ReportProgress = (stage: Message, done: number, total: number) => void;
