import type { MeasuredLayout } from '../frame/measured-layout';
import type {
  AsPainted,
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
  GridRowName,
  Inspection,
  InspectionScope,
  Lighting,
  Look,
  NamedValue,
  OrderedSheet,
  Override,
  OverrideState,
  OverrideTarget,
  OverrideWish,
  Painter,
  PageMeasure,
  PassedOver,
  Palette,
  PartProgress,
  PartProposal,
  Raster,
  Reachability,
  RoleName,
  RowProposal,
  SelectorCheck,
  SiteException,
  SiteSource,
  SiteWideTarget,
  Spot,
  StatesQuestion,
  TidyProgress,
  TidySheet,
  Topic,
  UsualShape,
  VerdictProgress,
  OwnCss,
} from '@upper-veneer/core';
import type { ReachOffers, reachOffers } from '@upper-veneer/core';
import type { Message, Spoken } from '@upper-veneer/words';
import type { ForcedStates } from './forced-states';
import type { KitApi } from './kit-api';
import type { MatchApi } from './match-api';
import type { DriftApi } from './drift-api';
import type { PaletteApi } from './palette-api';
import type { ProofApi } from './proof-api';
import type { SettingsApi } from './settings-api';
import type { SheetApi } from './sheet-api';
import type { TemplateApi } from './template-api';
import type { TrialApi } from './trial-api';

export type { ForcedStates };

/** An element or pseudo-element of a page. */
export interface Target {
  readonly pageId: number;
  readonly element: number;
  /** Without colons; `''` for the element. */
  readonly pseudo: string;
}

/** What a veneer is compiled from, and what is left alone. */
export interface DressedBy {
  readonly overrides: readonly Override[];
  readonly palette: Palette;
  readonly ownCss: readonly OwnCss[];
  readonly exceptions: readonly SiteException[];
}

/** The veneer compiled: as it is published, and as the frame takes it. */
export interface CompiledVeneer {
  readonly css: string;
  readonly frameCss: string;
}

/** An explanation that can cross to another thread. */
export type ExplanationView = Omit<Explanation, 'inheritedFrom'> & {
  /** The colour as it reaches the eye; `null` where it is none. */
  readonly painted: AsPainted | null;
  readonly inheritedFrom: { readonly element: number; readonly label: string } | null;
};

/** What an override does where it stands. */
export interface Judgement {
  readonly override: Override;
  readonly findings: readonly Spoken<Finding>[];
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
  readonly refused: readonly Message[];
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

/** A text over a picture: its contrast at the worst 5 % of the pixels, and the hexes it comes out in, darkest and lightest. */
export interface OverPicture {
  readonly ratio: number;
  readonly range: readonly [string, string];
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

/** Colours that the core gives every element at rest, in the order of `properties`. */
export interface PageColors {
  readonly properties: readonly string[];
  /** By running number. */
  readonly values: readonly (readonly string[])[];
}

/** A colour of the census without its places, which are asked for by colour. */
export type CensusColorView = Omit<CensusColor, 'places'> & { readonly placeCount: number };

export type CensusView = Omit<Census, 'colors'> & { readonly colors: readonly CensusColorView[] };

/** How many pages of a site are read. */
export interface PagesRead {
  readonly read: number;
  readonly pages: number;
}

/** What the worker answers. Everything that parses, resolves or matches runs there. */
export interface EngineApi
  extends KitApi, MatchApi, PaletteApi, ProofApi, DriftApi, SheetApi, SettingsApi, TemplateApi, TrialApi {
  open(source: SiteSource): void;
  /** Reads the pages nobody has asked for yet, one by one, other questions between. */
  read(onProgress: (progress: PagesRead) => void): Promise<void>;
  /** Takes in where a frame laid a page out, at the width of that frame. */
  lay(pageId: number, layout: MeasuredLayout): void;
  /** Works out beforehand what the first element chosen on a page would wait for. */
  readyGrounds(pageId: number, width: number): void;
  /** Opens hidden parts; the others are closed. */
  openParts(partIds: readonly number[]): void;
  /** Shows the site in one of its lightings; a site of one stays in it. */
  light(lighting: Lighting): void;
  /** What opens the parts on one page, and calls its lighting, by running number. */
  amendments(
    pageId: number,
    partIds: readonly number[],
  ): readonly (readonly [number: number, changes: readonly AttributeChange[]])[];
  dress(draft: DressedBy): CompiledVeneer;
  /** Colours of the palette as the draft's sheet has them: by the CSS they are written as, and the custom property of each role. */
  named(): { readonly values: ReadonlyMap<string, Spoken<NamedValue>>; readonly roles: ReadonlyMap<RoleName, string> };
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
  /** Texts over the picture under them, with a colour laid in between where one is; `null` where nothing can be said. */
  overPicture(texts: readonly string[], raster: Raster, cover?: string | null): readonly (OverPicture | null)[];
  proposeStates(question: StatesQuestion, only?: OverrideState): PassedOver;
  /** Elements that take an inherited longhand from one, and from all alike it. */
  followers(pageId: number, element: number, longhand: string, width: number): readonly Spot[];
  /** Elements of a page in which a part, a stylesheet or a font shows. */
  whereItShows(pageId: number, topic: Topic, width: number): readonly number[];
  /** One row of the grid in every state, from rest. */
  proposeRow(question: StatesQuestion, row: GridRowName): readonly RowProposal[];
  copyLook(target: Target, width: number): Look;
  pasteLook(
    look: Pick<Look, 'entries'>,
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
  /** What corners, edges, shadows and type are usual over all pages. */
  usualShape(): Promise<readonly UsualShape[]>;
  siteWide(pageId: number): readonly SiteWideTarget[];
  flash(question: FlashQuestion): Flash;
  progress(pageId: number, width: number): readonly PartProgress[];
  forcedStates(target: Target, at: StateQuestion): ForcedStates;
  colors(pageId: number, width: number): PageColors;
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
}
