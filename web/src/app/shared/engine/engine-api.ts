import type { MeasuredLayout } from '../frame/measure-layout';
import type {
  AttributeChange,
  CellQuestion,
  Census,
  CensusColor,
  CensusPlace,
  CensusProgress,
  Companion,
  Explanation,
  Finding,
  Flash,
  FoundElements,
  FoundPlace,
  GridRowName,
  Inspection,
  InspectionScope,
  FoundColor,
  LaidMatch,
  LayProgress,
  Lighting,
  FedProperty,
  FindProgress,
  Follower,
  Look,
  MatchChoices,
  MatchProof,
  MatchProposal,
  MatchScope,
  ProposedRow,
  Prominence,
  NamedValue,
  OrderedSheet,
  Override,
  OverrideState,
  OverrideTarget,
  OverrideWish,
  Painter,
  PageMeasure,
  PassedOver,
  Pair,
  Palette,
  PartProgress,
  PartProposal,
  Raster,
  Reachability,
  RoleName,
  RowProposal,
  SeenPalette,
  SelectorCheck,
  SiteException,
  SiteSource,
  SiteWideTarget,
  StaleChoice,
  Spot,
  StatesQuestion,
  ThemeProperty,
  TidyProgress,
  TidySheet,
  UnreadPage,
  Topic,
  VerdictProgress,
} from '@upper-veneer/core';
import type { ReachOffers, reachOffers } from '@upper-veneer/core';

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
export type ExplanationView = Omit<Explanation, 'inheritedFrom'> & {
  readonly inheritedFrom: { readonly element: number; readonly label: string } | null;
};

/** What an override does where it stands. */
export interface Judgement {
  readonly override: Override;
  readonly findings: readonly Finding[];
  readonly gloss: string;
  /** Why it says `!important`; empty where it does not. */
  readonly whyImportant: string;
  readonly companions: readonly Companion[];
}

/** What several wishes come to. */
export interface PlannedChange {
  readonly put: readonly Override[];
  readonly drop: readonly string[];
  /** Why some could not be written. */
  readonly refused: readonly string[];
}

/** An override of which something fails. */
export interface FailingOverride {
  readonly selector: string;
  readonly words: string;
  readonly fails: readonly string[];
}

/** What is known of all overrides before they go out. */
export interface PublishCheck {
  readonly failing: readonly FailingOverride[];
  /** Of how many something could not be told or was not looked at, or is to be looked at by eye. */
  readonly open: number;
}

/** What is flashed: a step of the lineage, what a ply's selector reaches, or a role. */
export type FlashQuestion =
  | {
      readonly kind: 'step';
      readonly pageId: number;
      readonly element: number;
      readonly pseudo: string;
      readonly width: number;
    }
  | { readonly kind: 'ply'; readonly pageId: number; readonly selector: string; readonly property: string }
  | { readonly kind: 'role'; readonly role: RoleName };

/** A state of a target, and the parent it is of where it is a parent's. */
export interface StateQuestion {
  readonly state: OverrideState;
  readonly parent: number | null;
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

/** A colour of the census without its places, which are asked for by colour. */
export type CensusColorView = Omit<CensusColor, 'places'> & { readonly placeCount: number };

export type CensusView = Omit<Census, 'colors'> & { readonly colors: readonly CensusColorView[] };

/** A row of Match without all of its places, which are asked for by row. */
export type MatchRow = Omit<ProposedRow, 'found'> & {
  readonly found: Omit<FoundColor, 'places'> & { readonly placeCount: number };
};

/** A custom property of the theme that feeds a scope, its followers but for those to be shown left in the worker. */
export type PropertyView = Omit<ThemeProperty, 'fed' | 'outside'> &
  Omit<FedProperty, 'followers'> & {
    readonly outside: number;
    /** Followers on the page that is drawn. */
    readonly elements: readonly number[];
    /** The first followers outside the scope. */
    readonly outsiders: readonly { readonly words: string; readonly spot: Follower }[];
    /** How many more there are of other words. */
    readonly moreOutsiders: number;
    /** Rows that it feeds. */
    readonly rowIds: readonly string[];
  };

/** A place with what people call it. */
export type PlaceView = FoundPlace & { readonly name: string };

/** What a scope paints, what is proposed for it, and what the eye meets first, as it arrived and as matched. */
export interface MatchView {
  readonly rows: readonly MatchRow[];
  readonly unmet: MatchProposal['unmet'];
  readonly arrived: readonly Prominence[];
  readonly matched: readonly Prominence[];
  readonly properties: readonly PropertyView[];
  /** Choices that no longer hold. */
  readonly stale: readonly StaleChoice[];
  /** Places that laying it on changes. */
  readonly places: number;
  /** Main actions, as they are told from the pages or were named. */
  readonly mains: readonly Spot[];
  /** Element to be drawn, the first of the scope. */
  readonly lead: Spot | null;
  /** The proposal as a sheet for the frame of the page the lead is on, states answering to attributes. */
  readonly frameCss: string;
  /** Elements of that page which a state paints otherwise, by state. */
  readonly answering: Readonly<Record<string, readonly number[]>>;
  readonly measuredPages: number;
  readonly pages: number;
  readonly unread: readonly UnreadPage[];
}

/** Overrides for a proposal, and what resolving the site with them on found. */
export type ProvedMatch = LaidMatch & { readonly proof: MatchProof };

/** How many pages of a site are read. */
export interface PagesRead {
  readonly read: number;
  readonly pages: number;
}

/** What the worker answers. Everything that parses, resolves or matches runs there. */
export interface EngineApi {
  open(source: SiteSource): void;
  /** Reads the pages nobody has asked for yet, one by one, other questions between. */
  read(onProgress: (progress: PagesRead) => void): Promise<void>;
  /** Takes in where a frame laid a page out, at the width of that frame. */
  lay(pageId: number, layout: MeasuredLayout): void;
  /** Opens hidden parts; the others are closed. */
  openParts(partIds: readonly number[]): void;
  /** Shows the site in one of its lightings; a site of one stays in it. */
  light(lighting: Lighting): void;
  /** What opens the parts on one page, and calls its lighting, by running number. */
  amendments(
    pageId: number,
    partIds: readonly number[],
  ): readonly (readonly [number: number, changes: readonly AttributeChange[]])[];
  dress(overrides: readonly Override[], palette: Palette, exceptions: readonly SiteException[]): CompiledVeneer;
  /** Colours of the palette as the draft's sheet has them: by the CSS they are written as, and the custom property of each role. */
  named(): { readonly values: ReadonlyMap<string, NamedValue>; readonly roles: ReadonlyMap<RoleName, string> };
  inspect(target: Target, width: number, scope: InspectionScope): Inspection;
  /** Groups that could be reached, and what looks like the target and is not. */
  reachOffers(question: Parameters<typeof reachOffers>[1]): ReachOffers;
  explain(
    target: Target,
    property: string,
    at: StateQuestion & { readonly pseudoState?: 'hover' },
    width: number,
  ): ExplanationView;
  plan(wishes: readonly OverrideWish[]): PlannedChange;
  overridesOfCell(cell: CellQuestion): readonly Override[];
  /** Checks an override over the whole site; `null` when another one was asked about meanwhile. */
  judge(override: Override, width: number, onProgress: (progress: VerdictProgress) => void): Promise<Judgement | null>;
  stopJudging(): void;
  /** What fails of all overrides, over the whole site; `null` when another round was begun meanwhile. */
  failing(onProgress: (done: number, total: number) => void): Promise<PublishCheck | null>;
  /** Contrast of texts with the picture under them, at its worst 5 % of pixels; `null` where nothing can be said. */
  overPicture(texts: readonly string[], raster: Raster): readonly (number | null)[];
  proposeStates(question: StatesQuestion, only?: OverrideState): PassedOver;
  /** Elements that take an inherited longhand from one, and from all alike it. */
  followers(pageId: number, element: number, longhand: string, width: number): readonly Spot[];
  /** Elements of a page in which a part, a stylesheet or a font shows. */
  whereItShows(pageId: number, topic: Topic, width: number): readonly number[];
  /** One row of the grid in every state, from rest. */
  proposeRow(question: StatesQuestion, row: GridRowName): readonly RowProposal[];
  copyLook(target: Target, width: number): Look;
  pasteLook(
    look: Look,
    target: Pick<OverrideTarget, 'pageId' | 'element' | 'pseudo' | 'reach' | 'group' | 'pages' | 'spared' | 'widths'>,
    width: number,
  ): PassedOver;
  checkSelector(override: Override, text: string): SelectorCheck;
  whatPaints(pageId: number, stack: readonly number[], width: number): readonly Painter[];
  /** Elements by text or selector. */
  find(pageId: number, text: string): FoundElements;
  /** The sheet as it leaves the product, tidied; `null` when another one was asked for meanwhile. */
  tidy(onProgress: (progress: TidyProgress) => void): Promise<TidySheet | null>;
  /** Font families the site's stylesheets name. */
  families(): Promise<readonly string[]>;
  siteWide(pageId: number): readonly SiteWideTarget[];
  flash(question: FlashQuestion): Flash;
  progress(pageId: number, width: number): readonly PartProgress[];
  forcedStates(target: Target, at: StateQuestion): ForcedStates;
  colors(pageId: number, width: number): PageColors;
  /** @param severity of the colour-vision deficiencies, 0–1. */
  judgePalette(palette: Palette, severity: number): PaletteReport;
  /** Counts the colours of the open site; `null` when it was stopped. Its places stay here. */
  takeCensus(
    measures: readonly PageMeasure[],
    width: number,
    onProgress: (progress: CensusProgress) => void,
  ): Promise<CensusView | null>;
  stopCensus(): void;
  censusPlaces(hex: string): readonly CensusPlace[];
  proposeParts(): Promise<readonly PartProposal[]>;
  sheetsInOrder(pageId: number): readonly OrderedSheet[];
  /** How far CSS gets into each part, on the first page that has it; parts on no page are left out. */
  reachabilities(): Promise<
    readonly (readonly [partId: number, reachability: Reachability, pageIds: readonly number[]])[]
  >;
  /** What a scope paints as it arrived, to be proposed for; `null` when it was stopped. */
  findColors(scope: MatchScope, width: number, onProgress: (progress: FindProgress) => void): Promise<boolean>;
  /** A proposal for the scope last looked through; without the rows of `without` in its picture. */
  proposeMatch(choices: MatchChoices, without: readonly string[]): MatchView | null;
  /** Another proposal for the same scope as a sheet for the frame, to be looked at beside. */
  previewMatch(choices: MatchChoices): string;
  /** Places of one row of the proposal last made. */
  matchPlaces(rowId: string): readonly PlaceView[];
  /** Overrides for the proposal last made; `null` when it was stopped. */
  layMatch(onProgress: (progress: LayProgress) => void): Promise<ProvedMatch | null>;
  stopMatch(): void;
  /** Where a scope begins, before it is looked through. */
  leadOf(scope: MatchScope): Spot | null;
}
