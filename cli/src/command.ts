/** Options a command was called with. */
export interface Given {
  readonly palette?: string;
  readonly scope?: string;
  readonly strategy?: string;
  readonly lighting?: string;
  readonly veneer?: string;
  readonly width?: readonly string[];
  readonly to?: string;
  readonly out?: string;
  readonly json?: boolean;
  readonly sarif?: boolean;
  readonly mend?: boolean;
  readonly steps?: string;
  readonly 'as-sent'?: boolean;
}

/** One command of the command line. */
export interface Command {
  readonly name: string;
  /** What it takes, for the help. */
  readonly takes: string;
  readonly does: string;
  /** @returns the exit code. @throws {UsageProblem} what it does not understand. */
  run(path: string, given: Given): Promise<number>;
}
