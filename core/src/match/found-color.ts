import type { Message } from '../message/message.js';
import type { CensusState } from '../census/census-states.js';
import type { UnreadPage } from '../site/unread.js';
import type { Spot } from '../veneer/override.js';
import type { Job } from './job.js';

/** One place where a found colour is painted. */
export interface FoundPlace {
  readonly pageId: number;
  readonly element: number;
  readonly pseudo: string;
  readonly property: string;
  /** Which of several in one value, from 0: gradient stops, shadows. */
  readonly index: number;
  readonly state: CensusState;
  /** Area it shows, px²; 0 where nothing was measured, and in states other than rest. */
  readonly area: number;
  /** Whether it has no box as the page stands. */
  readonly isHidden: boolean;
  /** Element the override is laid on, so that all that inherits it follows: the outermost of the scope that it comes down through. */
  readonly anchor: number;
  /** Whether it is the current colour, or comes down to a pseudo-element from its element: it follows the element's text. */
  readonly followsText: boolean;
  /** Whether it is said of every element at once, on the root: the override reaches everywhere. */
  readonly isOfAll?: boolean;
  /** Whether a state says once more what shows at rest: it needs an override only where that for rest does not reach it. */
  readonly isEcho?: boolean;
}

/** Where a found colour can really be changed. */
export interface Home {
  readonly kind: 'rule' | 'custom-property' | 'inline' | 'attribute' | 'browser' | 'initial';
  /** Sheet; `''` where there is none. */
  readonly sheet: string;
  /** From 1; 0 where there is none. */
  readonly line: number;
  readonly selector: string;
  /** Custom property it follows, for that kind. */
  readonly property: string;
  readonly places: number;
}

/** A colour as a scope paints it in one job, with near-duplicates: one row of Match. */
export interface FoundColor {
  /** The same from run to run as long as the colour and its job are. */
  readonly id: string;
  /** Hex, with alpha digits where it is not opaque: that of the most painted of its near-duplicates. */
  readonly hex: string;
  /** Every hex in it, the most painted first. */
  readonly hexes: readonly string[];
  readonly job: Job;
  /** Whether it is read on a dark ground: such rows stand apart. */
  readonly isOnDark: boolean;
  readonly places: readonly FoundPlace[];
  readonly states: readonly CensusState[];
  /** At rest, px². */
  readonly area: number;
  /** Elements and pseudo-elements. */
  readonly elements: number;
  readonly homes: readonly Home[];
  /** What it paints: `fill of Apply and 2 more`. */
  readonly paints: Message;
  /** Whether it is a colour of the brand already. */
  readonly isBrand: boolean;
  /** Whether an exception leaves all of it alone. */
  readonly isExcepted: boolean;
  /** Whether what it paints says a warning or an error. */
  readonly isWarning: boolean;
  /** Row that the same places show at rest, where this one shows in other states only. */
  readonly atRest: string | null;
}

/** How opacity lets through what lies behind. */
export interface Veil {
  /** Opacity of the ink over its ground, 0–1. */
  readonly ink: number;
  /** Opacity of both over what lies behind them, 0–1. */
  readonly whole: number;
  /** Row behind; `null` where it lies outside the scope. */
  readonly behind: string | null;
  /** Hex of what lies behind outside the scope, else `''`. */
  readonly outside: string;
}

/** A thin fill that lies between what is read and the ground under it, such as a few hundredths of black. */
export interface Film {
  /** Row that it is; `null` where it lies outside the scope. */
  readonly row: string | null;
  /** Hex of what lies outside, with its alpha, else `''`. */
  readonly outside: string;
}

/** Two rows that meet on the page, or a row and a colour outside the scope. */
export interface Meeting {
  /** `step`: a state beside rest. */
  readonly kind: 'read' | 'seen' | 'apart' | 'step';
  readonly ink: string;
  /** Row under or beside it; `null` where it lies outside the scope. */
  readonly ground: string | null;
  /** Hex of what lies outside, else `''`. */
  readonly outside: string;
  /** `null` where nothing is let through. */
  readonly veil: Veil | null;
  /** Absent where nothing lies between. */
  readonly film?: Film | null;
  /** Contrast ratio asked for, or ΔE2000 for `apart` and `step`. */
  readonly wanted: number;
  /** What it is as found. */
  readonly before: number;
  /** How many places meet so. */
  readonly places: number;
}

/** Everything a scope paints, ready to be matched. */
export interface FoundColors {
  /** The strongest first. */
  readonly rows: readonly FoundColor[];
  readonly meetings: readonly Meeting[];
  /** Pages whose areas were measured; on the others places count, but no area. */
  readonly measuredPages: number;
  /** Pages that the scope has places on. */
  readonly pages: number;
  /** Pages of which something was not read: what is found over them may be too little. */
  readonly unread: readonly UnreadPage[];
  /** Main actions, as they are told from the page. */
  readonly mains: readonly Spot[];
}
