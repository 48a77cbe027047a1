export type { ElementNode, PageDocument, TreeRoot } from './dom/tree.js';
export { lineageOf, textOf } from './dom/tree.js';
export { DESKTOP, type MediaEnvironment } from './conditions/environment.js';
export type { Problem, ProblemCode } from './problem.js';
export {
  parsePage,
  withVeneer,
  VENEER_SHEET_NAME,
  type Page,
  type PageOptions,
  type VeneerPlace,
} from './resolve/page.js';
export { upTo } from './syntax/text-ends.js';
export { resolvePath } from './rules/resolve-path.js';
export { StyleView, type ViewOptions } from './resolve/style-view.js';
export type { ElementStyle } from './resolve/element-style.js';
export { discardedDeclarations } from './resolve/discarded-declarations.js';
export { explain, type DiscardedPly, type Explanation, type Ply, type PlySource } from './resolve/explain.js';
export { pointerStates, type StateName } from './elsewhere/pointer-states.js';
export { parseSelectorList, SelectorError } from './selectors/parse-selector.js';
export { matchingElements } from './selectors/matching-elements.js';
export { formatSpecificity } from './selectors/specificity.js';
export type { Specificity } from './selectors/selector.js';
export { BLACK, WHITE, type Color } from './values/color.js';
export { compositeOver, contrastRatio, RATIOS, readableOn } from './color/contrast.js';
export { deltaE2000, SAME_TO_THE_EYE } from './color/delta-e.js';
export { shade, shadeTold } from './color/shade.js';
export { hexOf, readColorNotation, type ColorReading } from './color/read-notation.js';
export {
  OVERRIDE_STATES,
  REACHES,
  type Override,
  type OverrideState,
  type OverrideTarget,
  type Reach,
  type Spot,
  type Through,
  type WidthRange,
} from './veneer/override.js';
export {
  ROLE_NAME,
  isStandardRole,
  ownRolesOf,
  roleEntries,
  roleNamed,
  roleTold,
  roleWords,
  rolesInOrder,
} from './veneer/own-role.js';
export {
  HOUSE_PARTS,
  HOUSE_PROPERTIES,
  houseTold,
  houseProblem,
  readHouse,
  type HousePart,
  type HouseShape,
} from './veneer/house-shape.js';
export {
  boundValue,
  colorOfValue,
  plainCssOfValue,
  plainValuesIn,
  shadeOfValue,
  strengthOf,
  valueTold,
  type CompositeValue,
  type HouseValue,
  type OverrideValue,
  type PlainValue,
} from './veneer/override-value.js';
export { cssOfValue, customPropertyOf } from './veneer/custom-property.js';
export { namedValues, rolePropertyNames, type NamedValue } from './veneer/named-values.js';
export { nameKey } from './veneer/name-key.js';
export { namesOf, type PaletteNames } from './veneer/palette-names.js';
export {
  ROLE_NAMES,
  colorOfCss,
  paletteIn,
  type Palette,
  type RoleFill,
  type OwnRole,
  type RoleName,
  type StandardRole,
  type SecondLighting,
  type Swatch,
} from './veneer/palette.js';
export {
  LIGHTINGS,
  markerSelector,
  otherLighting,
  type Lighting,
  type LightingMarker,
  type LightingSignal,
} from './veneer/lighting.js';
export { readMarker, type MarkerReading } from './veneer/read-marker.js';
export { derivedRoles, handSet } from './veneer/role-color.js';
export { invertRoles } from './veneer/invert-roles.js';
export { valueProblem } from './veneer/value-problem.js';
export { readBackDifference } from './site/read-back.js';
export { selectorProblem } from './selectors/selector-problem.js';
export { wholenessProblem } from './syntax/whole-text.js';
export type { Naming } from './veneer/naming.js';
export type { SheetOptions } from './veneer/sheet-options.js';
export {
  compileRules,
  compileVeneer,
  sectionOf,
  sectionsOf,
  type CompileOptions,
  type Section,
} from './veneer/compile-veneer.js';
export { ownCssProblem, MOST_OWN_CSS, type OwnCss } from './veneer/own-css.js';
export { framePage, FRAMED_ATTRIBUTE, NUMBER_ATTRIBUTE, type FramePageOptions } from './frame/frame-page.js';
export { documentOf } from './frame/framed-document.js';
export { rewriteStates, stateAttribute } from './frame/rewrite-states.js';
export {
  compileOptionsOf,
  dressSheet,
  dressSite,
  elementOf,
  layOut,
  inEachLighting,
  lightSite,
  shownOtherwise,
  openParts,
  openSite,
  pageOf,
  partOf,
  withSpecimen,
  sheetOptionsOf,
  viewIn,
  type SiteModel,
  type SiteSource,
} from './site/site-model.js';
export {
  inspect,
  type Inspection,
  type InspectionScope,
  type LineageStep,
  type ReachCount,
} from './inspect/inspect.js';
export { partProgress, type PartProgress } from './inspect/part-progress.js';
export type { StripTile } from './inspect/strip-tile.js';
export {
  GRID_ROWS,
  OVERRIDABLE,
  ROW_PROPERTIES,
  rowTold,
  stateTold,
  isScrollbarRow,
  propertyTold,
  rowOfProperty,
  type GridRowName,
  type RowProperty,
  type ValueKind,
} from './grid/rows.js';
export type { GridCell } from './grid/cell.js';
export { CLOSED_TO_VISITED, isOpenToVisited } from './grid/visited.js';
export { applicableStates, canBeIn } from './grid/applicable-states.js';
export { longhandsOfProperty } from './properties/grouped.js';
export { isPropertyValue } from './properties/is-property-value.js';
export { breakpointsOfSite } from './site/breakpoints.js';
export { settingsTold, settingsThatMatter, USUAL_WIDTHS } from './site/environments.js';
export type { Setting } from './conditions/environment.js';
export type { IconKind } from './inspect/icon-kind.js';
export { placesOf } from './site/places.js';
export { inner, keyOf, message, type Message, type MessageValue, type Say } from './message/message.js';
export { judgeOverride, judgeSteps } from './verdict/verdict.js';
export { judgeLightings } from './verdict/judge-lightings.js';
export { wishOf } from './veneer/wish-of.js';
export type { VerdictProgress } from './verdict/effects.js';
export type { Finding, Repair } from './verdict/finding.js';
export { statesOfPlace, type Place } from './reach/threshold.js';
export { proposeRow, type RowProposal } from './plan/propose-row.js';
export { whereItShows, type Topic } from './inspect/where-it-shows.js';
export { stepsThatGoOn } from './color/ladder.js';
export { followersOf } from './inspect/followers.js';
export { whyImportant } from './verdict/why-important.js';
export { isOfAnother, isSwitchState, SWITCH_STATES, type SwitchState } from './veneer/override.js';
export { glossOf, kindMessage } from './verdict/gloss.js';
export type { Standing } from './color/standing.js';
export {
  overridesOfCell,
  planAll,
  planOverride,
  withOverrides,
  type CellQuestion,
  type OverridePlan,
} from './plan/plan-override.js';
export type { OverrideWish } from './veneer/override-wish.js';
export { nameTold, shortName } from './selectors/describe-element.js';
export { nearestPassingShade, type PassingShade } from './color/nearest-passing-shade.js';
export { VISIONS, seenAs, type Vision } from './color/vision.js';
export {
  GROUND_ROLES,
  INDISTINCT,
  pairMatrix,
  paletteAsSeen,
  type Pair,
  type SeenPalette,
} from './palette/pair-matrix.js';
export { notationsOf } from './palette/notations.js';
export { sheetBefore } from './resolve/page.js';
export { amendAttributes, type AttributeChange, type Amendments } from './dom/amendment.js';
export { amendmentsOf } from './parts/open-parts.js';
export { standingActs, type Opener, type Part, type PartTemplate, type Reachability } from './parts/part.js';
export { proposeParts, reachabilityOf, type PartProposal } from './parts/propose-parts.js';
export { cleanPage, pageAddresses, type PageAddress } from './capture/clean-page.js';
export { cssAddresses, withCssAddresses } from './syntax/css-addresses.js';
export {
  sheetOrderProblem,
  sheetSpans,
  sheetsInOrder,
  withSheetOrder,
  type OrderedSheet,
  type SheetSpan,
} from './capture/sheet-order.js';
export { takeCensus, type Census, type CensusProgress } from './census/census.js';
export type { CensusColor, CensusDeclaration, CensusPlace, FeedingProperty } from './census/census-color.js';
export { CENSUS_STATES, allInState, type CensusState } from './census/census-states.js';
export { matchedInAnyState } from './selectors/touched.js';
export type { FontUse } from './census/fonts.js';
export type { PageMeasure } from './census/page-measure.js';
export { readPages } from './site/read-pages.js';
export { unreadPages, type UnreadPage } from './site/unread.js';
export { USES, type Use } from './census/paintings.js';
export type { SheetSummary } from './census/sheets.js';
export { brandStandingOf, type BrandStanding } from './palette/brand-standing.js';
export { HARMONIES, harmonyOf, type Harmony } from './palette/harmonies.js';
export { harmonyRoles } from './palette/harmony-roles.js';
export { lowestPair, type LowestPair } from './palette/lowest-pair.js';
export { MEANT_PAIRS } from './palette/meant-pairs.js';
export { neutralRamp } from './palette/neutral-ramp.js';
export { MOST_CHROMA, NUDGES, fromLch, lchOf, type Lch } from './color/nudge.js';
export { proposeRoles, type PaletteStart } from './palette/propose-roles.js';
export { readTokenPalette } from './palette/files/design-tokens.js';
export { PALETTE_FORMATS, readPaletteFile } from './palette/files/palette-file.js';
export type { NamedColor, PaletteFile } from './palette/files/named-color.js';
export { averageColor } from './image/average-color.js';
export { distinctInks, type Ink, type InkReport } from './image/distinct-inks.js';
export { logoOnGround, logoStanding, type LogoOnGround } from './image/logo-on-ground.js';
export { pixelAt, type PixelBox, type Raster } from './image/raster.js';
export { recoverInk, type RecoveredInk } from './image/recover-ink.js';
export { linkVeneer } from './capture/link-veneer.js';
export { readyGrounds, surroundingsOf, type Surroundings } from './ground/surroundings.js';
export { type PageLayout, type Rect } from './resolve/page-layout.js';
export { withLayout } from './resolve/page.js';
export { driftOf, type Drift, type DriftPlace, type DriftProgress } from './drift/drift.js';
export { elementsBetween } from './recapture/elements-between.js';
export {
  VISIT_ACTS,
  VISIT_BOUNDS,
  describeStep,
  planProblem,
  stepProblem,
  type VisitAct,
  type VisitPlan,
  type VisitStep,
} from './visit/visit-plan.js';
export type { PageSight, SeenElement } from './visit/page-sight.js';
export { driftTold } from './drift/drift-told.js';
export { formerCss, formerPage, type FormerCapture } from './drift/former-capture.js';
export { proposeDrift, withoutIdleSelectors, type DriftProposal } from './drift/propose-drift.js';
export { reanchor } from './site/reanchor.js';
export { reanchorOverride } from './site/reanchor-override.js';
export { withoutPage } from './site/without-page.js';
export { readyPalette, type ReadyPalette } from './palette/ready-palette.js';
export { readExceptions, type SiteException } from './site/exceptions.js';
export { companionsOf, type Companion } from './verdict/companions.js';
export { proposeStates, type StatesQuestion } from './plan/propose-states.js';
export { reachOffers, type GroupOffer, type ReachOffers } from './inspect/reach-offers.js';
export { copyLook, pasteLook, type Look } from './plan/look.js';
export { checkSelector, type SelectorCheck } from './plan/hand-selector.js';
export { whatPaints, type Painter } from './inspect/what-paints.js';
export { siteWideTargets, type SiteWideTarget } from './inspect/site-wide.js';
export { LOUD, flashOfPly, flashOfRole, flashOfStep, type Flash } from './inspect/flash.js';
export { readComposite, withOverlay } from './veneer/composite.js';
export { familiesOf } from './site/families.js';
export { tidySheet, tidySteps, type TidyProgress, type TidySheet } from './tidy/tidy-sheet.js';
export { findElements, type FoundElements } from './site/find-elements.js';
export { coverPicture } from './image/cover-picture.js';
export { rangeOverPicture } from './image/range-over-picture.js';
export { worstOverPicture } from './image/worst-over-picture.js';
export { asPainted, type AsPainted } from './inspect/as-painted.js';
export { foundColors, findColors, type FindProgress } from './match/find-colors.js';
export type { FoundColor, FoundColors, FoundPlace, Home, Meeting } from './match/found-color.js';
export { familyOf, shadesLike } from './match/family.js';
export { STRATEGIES, type Strategy } from './match/fitness.js';
export { describeHome } from './match/home-words.js';
export { jobMessage, type Job } from './match/job.js';
export { layMatch, layTasks, type LaidMatch, type LayProgress } from './match/lay-match.js';
export { placesToLay } from './match/lay-tasks.js';
export { colorsBeside } from './match/shape/colors-beside.js';
export { SHAPE_BECOMES, type FoundShape, type ShapeBecomes } from './match/shape/found-shape.js';
export { ShapeGathering, usualShape, type FoundShapes, type UsualShape } from './match/shape/find-shapes.js';
export { proposeShapes, type ProposedShape } from './match/shape/propose-shapes.js';
export { neutralTasks, neutralise, type Neutralised } from './match/neutralise.js';
export { meltingAreas, type MeltingAreas } from './match/melting-areas.js';
export { pictureFiles, type PictureFile } from './match/picture-files.js';
export { leadOf, prominences } from './match/match-view.js';
export { previewCss, previewOfTasks } from './match/preview-css.js';
export { prominenceOf, type Prominence } from './match/prominence.js';
export type { Becomes, MatchChoices, MatchProposal, ProposedRow, Unmet } from './match/proposal.js';
export { proposeMatch } from './match/propose-match.js';
export type { MatchScope } from './match/scope.js';
export { fedProperties, type FedProperty, type Follower } from './match/fed-properties.js';
export { themeProperties, type ThemeProperty } from './match/theme-properties.js';
export { staleChoices, withRowAsFound, withoutStale, type StaleChoice } from './match/stale-choices.js';
export { isOfRow, placeId, regroup, rowAsFound } from './match/regroup.js';
export { proposalIn } from './match/proposal-in.js';
export { verifyLightings } from './match/verify-lightings.js';
export { proofSettingMessage, proofSettings } from './match/proof-settings.js';
export { isProved, verifyMatch, type MatchProof } from './match/verify-match.js';
export type { PassedOver } from './plan/pass-over.js';
export { toEnd } from './to-end.js';
export { edgeOver } from './ground/edge-over.js';
export {
  PROOF_KINDS,
  type MendIdea,
  type Proof,
  type ProofCell,
  type ProofFinding,
  type ProofKind,
  type ProofLevel,
  type ProofPlace,
  type Unseen,
} from './proof/proof-finding.js';
export { partLooks, type LookedStep, type PartLook } from './proof/part-looks.js';
export {
  PROOF_STATES,
  proofStateTold,
  leadingState,
  oneInState,
  wholeInState,
  type ProofState,
} from './proof/proof-state.js';
export { specimenPage } from './specimen/specimen-page.js';
export { SPECIMEN_PATH, isSpecimen } from './site/specimen-path.js';
export { filesShown, withFilesRead, type FileReading, type ShownFiles } from './proof/picture-file-findings.js';
export { isOverPicture, withPicturesRead, type PictureReading } from './proof/over-pictures.js';
export { contentHash } from './delivery/content-hash.js';
export { DELIVERY_WAYS, deliver, type Delivered, type DeliveryFacts, type DeliveryWay } from './delivery/deliver.js';
export { handOverHtml, handOverMarkdown, type HandOverFacts } from './delivery/hand-over.js';
export { liveBookmark, liveScript } from './delivery/live-script.js';
export { carriedValue } from './veneer/carried-value.js';
export { colorsInSheet, type SheetColor } from './veneer/colors-in-sheet.js';
export { sheetDifference, type RuleDifference } from './veneer/sheet-difference.js';
export { proveSite, type ProofProgress } from './proof/prove-site.js';
export { ProofMemo } from './proof/proof-memo.js';
export { tryMend, type Mend, type MendTried } from './proof/try-mend.js';
export { exceptionFor } from './proof/leave-alone.js';
export { pathSelector } from './selectors/path-selector.js';
export type { ProofSettings } from './match/proof-settings.js';
export { reportCsv, reportHtml, type PartPicture, type ReportFacts } from './proof/report.js';
export { thingsOf } from './proof/gather-findings.js';
export {
  afterEdit,
  idleEditsSteps,
  paletteLines,
  readSheetSteps,
  sheetToEdit,
  type KeptRule,
  type SheetReading,
} from './sheet-text/read-sheet.js';
export { sheetProblems, type SheetProblem } from './sheet-text/sheet-problems.js';
export { ruleAt, rulesOn, type RuleAt } from './sheet-text/rule-at.js';
export { sheetWords, type PaletteWord, type SheetWords } from './sheet-text/sheet-words.js';
export {
  pieceAt,
  PIECE_FORMS,
  PIECES,
  type Piece,
  type PieceForm,
  type PieceQuestion,
} from './sheet-text/copy-piece.js';
export { putInSnippet, type SnippetPut } from './sheet-text/put-in-snippet.js';
export { writtenValue } from './veneer/written-value.js';
export {
  MOST_LOOKS,
  REQUEST_STANDINGS,
  type ClientRequest,
  type RequestItem,
  type RequestLook,
  type RequestStanding,
} from './requests/request.js';
export { splitRequest, type GuessedItem } from './requests/split-request.js';
export { itemHolds, type ItemHolds, type LookMissed } from './requests/item-holds.js';
export { firstMatch } from './site/first-match.js';
export { KIT_FORMAT, KIT_VERSION, type Kit, type KitRule } from './kits/kit.js';
export { makeKit } from './kits/make-kit.js';
export { kitFit, layKitSteps, type KitFit, type KitMisfit, type LaidKit } from './kits/lay-kit.js';
export { rebranded, type Rebranded, type SwatchChange } from './palette/rebrand.js';
export { hiddenBy, lostWords, type Hiding, type Lost } from './hiding/hidden.js';
export { softened, type Softened } from './hiding/out-of-sight.js';
export {
  MOST_FIELDS,
  MOST_PLACES,
  SETTING_JOBS,
  SETTING_NOTATIONS,
  SETTING_STATES,
  isLengthJob,
  type FixedPlace,
  type HandedValue,
  type SettingField,
  type SettingJob,
  type SettingNotation,
  type SettingPlace,
  type SettingPreset,
  type SettingsSheet,
  type SettingState,
} from './settings/settings-sheet.js';
export { colorOfSetting, notationOf, settingProblem } from './settings/notation.js';
export { settingConflicts, type SettingConflict } from './settings/conflicts.js';
export {
  nearestPresets,
  planSettings,
  type HandOver,
  type PlannedField,
  type SettingsPlan,
} from './settings/plan-settings.js';
export { SETTING_PROPERTY, hexOfSetting, settingsCss, unshown } from './settings/settings-css.js';
export { SETTING_PATTERNS, type SettingPattern } from './settings/patterns.js';
export { outOfReach, placeMessage, type OutOfReach } from './settings/out-of-reach.js';
export { addressProblem, readSettings, withSettingsRead, type SettingsReading } from './settings/read-settings.js';
export { scoreInterval, differenceInterval, rateOf, type Counted, type Range } from './trials/intervals.js';
export { sampleSize, type SizeQuestion } from './trials/sample-size.js';
export { evenSplit } from './trials/even-split.js';
export { anytimeRange } from './trials/confidence-sequence.js';
export { daysIn, sumOf, type DayCount } from './trials/counts.js';
export type { DifferingDay } from './trials/differing-days.js';
export {
  judgeTrial,
  type DayFigure,
  type TrialJudgement,
  type TrialPair,
  type TrialPlan,
} from './trials/judge-trial.js';
export { readCounts, type CountsReading } from './trials/read-counts.js';
export { madeUpTraffic, type TrafficWish } from './trials/traffic.js';
export { lookDifference, type LookDifference } from './delivery/look-difference.js';
export { encounters } from './settings/encounters.js';
export { checkTemplate, type TemplateCheck, type TemplateFault } from './proof/check-template.js';
