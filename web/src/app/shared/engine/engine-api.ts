import type { Explanation, Finding, Inspection, Override, OverridePlan, OverrideState, OverrideWish, Pair, Palette, PartProgress, SeenPalette, SiteSource } from '@upper-veneer/core';

/** An element or pseudo-element of a page. */
export interface Target {
  readonly pageId: number;
  readonly element: number;
  /** Without colons; `''` for the element. */
  readonly pseudo: string;
}

/** The veneer compiled: as it is published, and as the frame takes it. */
export interface CompiledVeneer {
  readonly css: string;
  readonly frameCss: string;
}

/** An explanation that can cross to another thread. */
export type ExplanationView = Omit<Explanation, 'inheritedFrom'> & { readonly inheritedFrom: { readonly element: number; readonly label: string } | null };

/** What an override does where it stands. */
export interface Judgement {
  readonly findings: readonly Finding[];
  readonly gloss: string;
}

/** State attributes that a state puts on elements of a page. */
export type ForcedStates = readonly { readonly element: number; readonly names: readonly string[] }[];

/** Colours that the core gives every element at rest, in the order of `properties`. */
export interface PageColors {
  readonly properties: readonly string[];
  /** By running number. */
  readonly values: readonly (readonly string[])[];
}

/** How the roles of a palette go together, and how its swatches look to other eyes. */
export interface PaletteReport {
  readonly pairs: readonly Pair[];
  readonly seen: readonly SeenPalette[];
}

/** What the worker answers. Everything that parses, resolves or matches runs there. */
export interface EngineApi {
  open(source: SiteSource): void;
  dress(overrides: readonly Override[], palette: Palette): CompiledVeneer;
  inspect(target: Target, width: number): Inspection;
  explain(target: Target, property: string, state: OverrideState, width: number): ExplanationView;
  plan(wish: OverrideWish): OverridePlan;
  overridesOfCell(cell: Pick<OverrideWish, 'pageId' | 'element' | 'pseudo' | 'state' | 'row'>): readonly Override[];
  judge(override: Override, width: number): Judgement;
  progress(pageId: number, width: number): readonly PartProgress[];
  forcedStates(target: Target, state: OverrideState): ForcedStates;
  colors(pageId: number, width: number): PageColors;
  judgePalette(palette: Palette): PaletteReport;
}
