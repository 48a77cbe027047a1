export type { ElementNode, PageDocument, TreeRoot } from './dom/tree.js';
export { lineageOf, textOf } from './dom/tree.js';
export { DESKTOP, type MediaEnvironment } from './conditions/environment.js';
export type { Problem, ProblemCode } from './problem.js';
export { parsePage, withVeneer, VENEER_SHEET_NAME, type Page, type PageOptions, type VeneerPlace } from './resolve/page.js';
export { resolvePath } from './rules/resolve-path.js';
export { StyleView, type ViewOptions } from './resolve/style-view.js';
export type { ElementStyle } from './resolve/element-style.js';
export { discardedDeclarations } from './resolve/discarded-declarations.js';
export { explain, type DiscardedPly, type Explanation, type Ply, type PlySource } from './resolve/explain.js';
export { pointerStates, type StateName } from './resolve/pointer-states.js';
export { parseSelectorList, SelectorError } from './selectors/parse-selector.js';
export { matchingElements } from './selectors/matching-elements.js';
export { formatSpecificity } from './selectors/specificity.js';
export type { Specificity } from './selectors/selector.js';
export type { Color } from './values/color.js';
export { contrastRatio, RATIOS } from './color/contrast.js';
export { deltaE2000, SAME_TO_THE_EYE } from './color/delta-e.js';
export { shade, describeShade } from './color/shade.js';
export { hexOf, readColorNotation, type ColorReading } from './color/read-notation.js';
export { OVERRIDE_STATES, REACHES, type Override, type OverrideState, type Reach } from './veneer/override.js';
export {
  ROLE_NAMES, colorOfCss, colorOfValue, customPropertyOf, slug, type OverrideValue, type Palette, type RoleFill, type RoleName, type Swatch,
} from './veneer/palette.js';
export { compileVeneer, type CompileOptions } from './veneer/compile-veneer.js';
export { framePage, NUMBER_ATTRIBUTE, type FramePageOptions } from './frame/frame-page.js';
export { rewriteStates, stateAttribute } from './frame/rewrite-states.js';
export { dressSite, elementOf, openSite, pageOf, placesInReach, viewIn, type Part, type SiteModel, type SiteSource } from './site/site-model.js';
export {
  GRID_ROWS, inspect, partProgress, type GridCell, type GridRowName, type Inspection, type LineageStep, type PartProgress, type ReachCount, type Standing, type StripTile,
} from './site/inspect.js';
export { glossOf, judgeOverride, overridesOfCell, planOverride, valueWords, type Finding, type OverridePlan, type OverrideWish } from './site/plan-override.js';
export { plainName, shortName } from './site/describe-element.js';
export { nearestPassingShade, type PassingShade } from './color/nearest-passing-shade.js';
export { VISIONS, seenAs, type Vision } from './color/vision.js';
export { INDISTINCT, pairMatrix, paletteAsSeen, type Pair, type SeenPalette } from './palette/pair-matrix.js';
export { notationsOf } from './palette/notations.js';
