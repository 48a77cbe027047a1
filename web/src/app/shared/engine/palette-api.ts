import type { Color, Harmony, Lighting, Pair, Palette, ReadyPalette, SeenPalette } from '@upper-veneer/core';

/** How the roles of a palette go together, and how its swatches look to other eyes. */
export interface PaletteReport {
  readonly pairs: readonly Pair[];
  readonly seen: readonly SeenPalette[];
}

/** Ready palettes whose pairs reach their ratios, of all that were looked at. */
export interface ReadyPalettes {
  readonly of: number;
  readonly passing: readonly { readonly hexes: readonly string[]; readonly roles: ReadyPalette['roles'] }[];
}

/** Colours that roles are worked out from; `null` where there is none yet. */
export interface SuggestionStart {
  readonly ground: Color | null;
  readonly ink: Color | null;
  readonly accent: Color | null;
  /** The colour that harmonies are asked for. */
  readonly own: Color | null;
  readonly lighting: Lighting;
}

/** Roles that some colours would make; `null` where one of them is missing. */
export interface SuggestedRoles {
  readonly roles: ReadyPalette['roles'] | null;
  readonly harmonies: readonly {
    readonly harmony: Harmony;
    readonly hexes: readonly string[];
    readonly roles: ReadyPalette['roles'] | null;
  }[];
}

/** What the worker answers of palettes; no site needs to be open. */
export interface PaletteApi {
  /** @param severity of the colour-vision deficiencies, 0–1. */
  judgePalette(palette: Palette, severity: number): PaletteReport;
  suggestRoles(start: SuggestionStart): SuggestedRoles;
  readyPalettes(): Promise<ReadyPalettes>;
}
