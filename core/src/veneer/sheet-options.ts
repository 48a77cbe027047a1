import type { Naming } from './naming.js';

/** How the sheet of a site is written. */
export interface SheetOptions extends Naming {
  /** Whether rules for hover are kept to devices that hover, so that no look sticks after a tap. */
  readonly hoverOnly?: boolean;
  /** Whether declarations stand by the letters of their names, instead of what is seen first. */
  readonly isByLetters?: boolean;
}
