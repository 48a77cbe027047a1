import type { OverrideState, WidthRange } from '../veneer/override.js';
import type { OverrideValue } from '../veneer/override-value.js';
import type { RoleName } from '../veneer/palette.js';

/** What a kit calls itself as a file, and the version of its form. */
export const KIT_FORMAT = 'upper-veneer kit';
export const KIT_VERSION = 1;

/** One thing a kit changes. */
export interface KitRule {
  /** Selector that gathers the elements, without state and pseudo-element; `null` where the rule cannot be taken apart. */
  readonly elements: string | null;
  /** Whole selector it had. */
  readonly selector: string;
  readonly pseudo: string;
  readonly state: OverrideState;
  readonly property: string;
  /** By role where it was by one, or by a swatch that fills one; else as it was, without swatches. */
  readonly value: OverrideValue;
  readonly important: boolean;
  readonly widths: WidthRange | null;
}

/** A part's finished match, kept by role with the markup it was made for. */
export interface Kit {
  readonly format: typeof KIT_FORMAT;
  readonly version: typeof KIT_VERSION;
  readonly name: string;
  /** Site it was made on. */
  readonly madeOn: string;
  /** Selector of the part, and the classes in its markup, by which it is known again. */
  readonly root: string;
  readonly classes: readonly string[];
  /** HTML of the part as it was captured, to be looked at. */
  readonly markup: string;
  /** What each role it uses was there, as hex. */
  readonly roles: Readonly<Partial<Record<RoleName, string>>>;
  readonly rules: readonly KitRule[];
  /** What the part had of own CSS, its colours as `var(--kit-accent)` by role; absent where it had none. */
  readonly ownCss?: string;
}
