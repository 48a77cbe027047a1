import type { BenchDriver } from '../product.js';

/** A screen or dialog, and how one comes to it from the one before. */
export interface Screen {
  readonly name: string;
  /** `false` where it lies over all panels of its view. */
  readonly panes?: false;
  reach(bench: BenchDriver): Promise<void>;
}
