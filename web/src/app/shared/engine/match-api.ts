import type {
  AttributeChange,
  FedProperty,
  FindProgress,
  Follower,
  FoundColor,
  FoundPlace,
  FoundShape,
  LaidMatch,
  LayProgress,
  MatchChoices,
  MeltingAreas,
  Neutralised,
  PictureFile,
  MatchProof,
  MatchProposal,
  MatchScope,
  Prominence,
  ProposedRow,
  ProposedShape,
  Spot,
  StaleChoice,
  ThemeProperty,
  UnreadPage,
} from '@upper-veneer/core';

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

/** A row of shapes without its places but for those on the page that is drawn. */
export type ShapeRow = Omit<ProposedShape, 'found'> & {
  readonly found: Omit<FoundShape, 'places'> & { readonly places: number };
  readonly shown: readonly number[];
};

/** A place with what people call it. */
export type PlaceView = FoundPlace & { readonly name: string };

/** What a scope paints, what is proposed for it, and what the eye meets first, as it arrived and as matched. */
export interface MatchView {
  readonly rows: readonly MatchRow[];
  /** Corners, edges, shadows and type, without their places. */
  readonly shapes: readonly ShapeRow[];
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

/** A proposal in one lighting: its sheet for the frame, and what calls the lighting there. */
export interface LitPicture {
  readonly frameCss: string;
  readonly amendments: readonly (readonly [number: number, changes: readonly AttributeChange[]])[];
}

/** What a proposal brings about, or cannot, besides its rows. */
export interface BesidesRows {
  readonly melting: readonly MeltingAreas[];
  readonly pictures: readonly PictureFile[];
}

/** What the worker answers of Match. */
export interface MatchApi {
  /** What a scope paints as it arrived, to be proposed for; `null` when it was stopped. */
  findColors(scope: MatchScope, width: number, onProgress: (progress: FindProgress) => void): Promise<boolean>;
  /** A proposal for the scope last looked through; without the rows of `without` in its picture. */
  proposeMatch(choices: MatchChoices, without: readonly string[]): MatchView | null;
  /** Another proposal for the same scope as a sheet for the frame, to be looked at beside. */
  previewMatch(choices: MatchChoices): string;
  /** The proposal last made as the other lighting shows it; `null` where there is none. @param openedParts parts that are shown open. */
  otherLighting(without: readonly string[], openedParts: readonly number[]): LitPicture | null;
  /** Neighbouring areas that become one by the proposal last made, and picture files that CSS does not recolour; `null` when another was made meanwhile. */
  besidesRows(): Promise<BesidesRows | null>;
  /** Places of one row of the proposal last made. */
  matchPlaces(rowId: string): readonly PlaceView[];
  /** Overrides for the proposal last made; `null` when it was stopped. */
  layMatch(onProgress: (progress: LayProgress) => void): Promise<ProvedMatch | null>;
  /** The scope left to its theme, as a sheet for the frame. */
  previewNeutral(): string;
  /** Overrides that leave the scope to its theme; `null` when it was stopped. */
  neutralise(onProgress: (progress: LayProgress) => void): Promise<Omit<Neutralised, 'after'> | null>;
  stopMatch(): void;
  /** Where a scope begins, before it is looked through. */
  leadOf(scope: MatchScope): Spot | null;
}
