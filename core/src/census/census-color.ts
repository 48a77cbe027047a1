import type { Spot } from '../veneer/override.js';
import type { CensusState } from './census-states.js';
import type { Use } from './paintings.js';

/** A place where a colour is painted. */
export interface CensusPlace {
  readonly pageId: number;
  readonly element: number;
  readonly pseudo: string;
  readonly property: string;
  readonly state: CensusState;
  readonly use: Use;
  /** Area it shows, px²; 0 where nothing was measured, and in states other than rest. */
  readonly area: number;
  readonly partId: number | null;
  /** Whether it has no box as the page stands. */
  readonly isHidden: boolean;
}

/** A declaration that paints a colour. */
export interface CensusDeclaration {
  readonly declaration: string;
  /** Sheet, `style attribute`, `attribute`, `browser default` or `initial value`. */
  readonly sheet: string;
  /** Line from 1; 0 where it has none. */
  readonly line: number;
  readonly selector: string;
  readonly places: number;
}

export interface UseCount {
  readonly use: Use;
  /** Elements and pseudo-elements. */
  readonly elements: number;
  readonly area: number;
}

/** One painted colour with all its places. */
export interface CensusColor {
  /** Hex, with alpha digits where it is not opaque. */
  readonly hex: string;
  readonly uses: readonly UseCount[];
  /** Elements and pseudo-elements that paint it in any state. */
  readonly elements: number;
  /** Area it shows at rest over all pages, px². */
  readonly area: number;
  readonly states: readonly CensusState[];
  readonly pageIds: readonly number[];
  readonly partIds: readonly number[];
  readonly places: readonly CensusPlace[];
  readonly declarations: readonly CensusDeclaration[];
  /** Hex of the colour that stands for its near-duplicates; its own when it stands for itself. */
  readonly group: string;
}

/** A custom property that holds a colour, with what follows it. */
export interface FeedingProperty {
  readonly name: string;
  readonly value: string;
  readonly hex: string;
  readonly sheet: string;
  readonly line: number;
  readonly selector: string;
  /** Places that change with it, at rest. */
  readonly places: number;
  readonly elements: number;
  readonly pageIds: readonly number[];
  /** An element whose declaration of it decides. */
  readonly setOn: Spot;
  /** Selector that gathers all elements on which this declaration is made; `null` where its rule asks for more than names. */
  readonly group: string | null;
  /** Elements that change with it, at rest, the first `MOST_FOLLOWERS` of them. */
  readonly followers: readonly Spot[];
}
