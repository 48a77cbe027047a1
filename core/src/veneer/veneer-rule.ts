import type { OverrideValue } from './override-value.js';

/** One declaration of the sheet, with the override it stands for. */
export interface VeneerDeclaration {
  readonly property: string;
  readonly value: OverrideValue;
  readonly important: boolean;
}

/** One rule of the sheet. */
export interface VeneerRule {
  readonly section: string;
  readonly selector: string;
  /** Media condition; `null` for none. */
  readonly media: string | null;
  /** Whether it holds at some widths only. */
  readonly isForWidths: boolean;
  /** Condition of an engine guard; `null` for none. */
  readonly supports: string | null;
  readonly declarations: readonly VeneerDeclaration[];
}
