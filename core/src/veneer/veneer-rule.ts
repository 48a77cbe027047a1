import type { OverrideValue } from './override-value.js';

/** One declaration of the sheet, with the override it stands for. */
export interface VeneerDeclaration {
  readonly property: string;
  readonly value: OverrideValue;
  readonly important: boolean;
  /** Overrides it is written from, the one that counts last; none for what follows from others. */
  readonly from?: readonly string[];
}

/** One rule of the sheet. */
export interface VeneerRule {
  /** Part whose section it stands in; `null` for the last section, which is of no part. */
  readonly partId: number | null;
  readonly selector: string;
  /** Media condition; `null` for none. */
  readonly media: string | null;
  /** Whether it holds at some widths only. */
  readonly isForWidths: boolean;
  /** Condition of an engine guard; `null` for none. */
  readonly supports: string | null;
  readonly declarations: readonly VeneerDeclaration[];
  /** What is said of it in the sheet; nothing when absent. */
  readonly note?: string;
}
