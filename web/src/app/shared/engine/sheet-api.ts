import type {
  HandOverFacts,
  Hiding,
  ItemHolds,
  KeptRule,
  Override,
  PieceQuestion,
  RequestItem,
  RuleAt,
  RuleDifference,
  SheetColor,
  SheetProblem,
  SheetReading,
  SheetWords,
  SnippetPut,
  Softened,
  Spot,
} from '@upper-veneer/core';
import type { Message } from '@upper-veneer/words';
import type { PlacePicture } from './place-picture';

/** What an edited sheet comes to, and what of it changes nothing. */
export interface EditReading extends SheetReading {
  readonly idle: readonly KeptRule[];
  /** Changed rules that were not looked at for that. */
  readonly unlooked: number;
}

/** A rule of the sheet, with how its first match is drawn. */
export interface DrawnRule extends RuleAt {
  readonly picture: PlacePicture | null;
}

/** What the worker answers of the Sheet. */
export interface SheetApi {
  /** What the sheet hides, with what is lost by it. */
  hidden(): readonly Hiding[];
  /** What an override hides taken out of sight alone. */
  softened(hiding: Pick<Hiding, 'selector' | 'media'>, override: Override): Softened;
  /** The first element that a selector styles in some state, on any page. */
  firstMatch(selector: string): Spot | null;
  /** Whether items of the client's list have the looks named for them, by their id. */
  requestHolds(
    items: readonly Pick<RequestItem, 'id' | 'looks' | 'pageIds'>[],
  ): Promise<readonly (readonly [id: string, holds: ItemHolds])[]>;
  /** Colours as a sheet writes them. */
  colorsInSheet(css: string): readonly SheetColor[];
  /** Rules in which two sheets differ. */
  sheetDifference(before: string, after: string): readonly RuleDifference[];
  /** A sheet as a frame takes it. */
  framed(css: string): string;
  /** How an element is drawn at rest, its part opened where it is hidden. */
  spotPicture(spot: Spot & { readonly partId: number | null }, width: number): PlacePicture;
  /** The note for whoever keeps the site on. */
  handOver(format: 'html' | 'md', facts: HandOverFacts): string;
  /** The sheet as it is edited, and how long the lines of the palette at its head are. */
  sheetToEdit(): { readonly text: string; readonly head: number };
  /** What an edited sheet comes to; `null` when it was asked again meanwhile. */
  readSheet(text: string): Promise<EditReading | null>;
  sheetProblems(text: string): readonly SheetProblem[];
  /** The rule at an offset of an edited sheet. */
  ruleAt(text: string, offset: number, width: number): DrawnRule | null;
  /** Offsets of the rules of an edited sheet that style an element in some state, in order. */
  rulesOn(text: string, spot: Spot): readonly number[];
  sheetWords(): SheetWords;
  /** A piece of an edited sheet to be pasted elsewhere; `null` where there is none. */
  pieceAt(text: string, offset: number, question: PieceQuestion): string | null;
  /** An edited sheet with a snippet put in, or why it cannot be. */
  putInSnippet(text: string, snippet: string): SnippetPut | Message;
}
