import type { HandOverFacts, RuleDifference, SheetColor, Spot } from '@upper-veneer/core';
import type { PlacePicture } from './place-picture';

/** What the worker answers of the Sheet. */
export interface SheetApi {
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
}
