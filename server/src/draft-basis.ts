import type { OwnCss, Palette } from '@upper-veneer/core';
import type { OwnCssTable } from './db/own-css.js';
import type { Palettes } from './db/palettes.js';
import type { Parts } from './db/parts.js';
import type { SheetOptionsTable } from './db/sheet-options.js';

/** What a sheet is compiled from beside its overrides, as it is kept with a revision or a draft left behind. */
export interface BasisRow {
  readonly palette: Palette;
  readonly naming: ReturnType<SheetOptionsTable['subject']['take']>;
  readonly parts: ReturnType<Parts['subject']['take']>;
  /** Absent from revisions of before there was any. */
  readonly ownCss?: readonly OwnCss[];
}

interface Tables {
  readonly palettes: Palettes;
  readonly sheetOptions: SheetOptionsTable;
  readonly parts: Parts;
  readonly ownCss: OwnCssTable;
}

/** What the draft is compiled from beside its overrides. */
export function basisOf({ palettes, sheetOptions, parts, ownCss }: Tables, siteId: number): BasisRow {
  return {
    palette: palettes.bySite(siteId),
    naming: sheetOptions.subject.take(siteId),
    parts: parts.subject.take(siteId),
    ownCss: ownCss.bySite(siteId),
  };
}
