import type { DayCount, SheetSpan, SiteSource } from '@upper-veneer/core';
import type { Reanchored, ReanchorInput } from './reanchor-pages.js';
import type { BroughtIn, ImportInput } from '../import/bring-in.js';
import type { TakeInput } from '../archive/take-archive.js';
import type { TidyInput } from './tidy-sheet.js';
import type { TrafficInput } from '../trials/make-traffic.js';
import type { FrameInput, LinkInput } from './dress-page.js';

/** What each kind of job is given; plain data, so that it can be done anywhere. */
export interface JobInputs {
  /** Files, an address or a pasted widget made a site. */
  readonly 'bring-in': ImportInput;
  /** A site with its history written into a file. */
  readonly 'take-archive': TakeInput;
  /** Overrides led to where their elements are on pages captured again. */
  readonly reanchor: ReanchorInput;
  /** The page that shows every kind of element and every part in the states markup can say. */
  readonly specimen: SiteSource;
  /** Where a page's stylesheets stand in its source. */
  readonly 'sheet-spans': string;
  /** The draft's sheet without what it can do without. */
  readonly tidy: TidyInput;
  /** A page as the preview frame shows it. */
  readonly 'frame-page': FrameInput;
  /** A stylesheet as the preview frame reads it. */
  readonly 'frame-sheet': string;
  /** A page with its link to the published veneer. */
  readonly 'link-veneer': LinkInput;
  /** Made-up visitors of a trial. */
  readonly traffic: TrafficInput;
  /** Nothing: whoever does jobs is ready for the next, which is known to come. */
  readonly ready: null;
}

export interface JobResults {
  readonly 'bring-in': BroughtIn;
  readonly 'take-archive': boolean;
  readonly reanchor: readonly Reanchored[];
  readonly specimen: string;
  readonly 'sheet-spans': readonly SheetSpan[];
  readonly tidy: string | null;
  readonly 'frame-page': string;
  readonly 'frame-sheet': string;
  readonly 'link-veneer': string;
  readonly traffic: readonly DayCount[];
  readonly ready: null;
}

export type JobKind = keyof JobInputs;

/** Jobs somebody waits for with the pointer in hand: they do not queue behind long ones. */
export const SHORT_JOBS: ReadonlySet<JobKind> = new Set(['sheet-spans', 'frame-page', 'frame-sheet', 'link-veneer']);

/** Said first by whoever does a job: its time runs from there, not from when it began to wait. */
export const BEGUN = 'begun';

/** Longest a job may take once it is begun, ms. */
export const DEADLINES: Readonly<Record<JobKind, number>> = {
  'bring-in': 180_000,
  'take-archive': 180_000,
  reanchor: 60_000,
  specimen: 60_000,
  'sheet-spans': 20_000,
  tidy: 60_000,
  'frame-page': 20_000,
  'frame-sheet': 20_000,
  'link-veneer': 20_000,
  traffic: 20_000,
  ready: 20_000,
};
