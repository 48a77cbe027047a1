import type { Message } from '../message/message.js';
import type { Setting } from '../conditions/environment.js';
import type { ProofState } from './proof-state.js';
import type { Job } from '../match/job.js';
import type { Lighting } from '../veneer/lighting.js';
import type { OverrideValue } from '../veneer/override-value.js';
import type { Spot } from '../veneer/override.js';

/** What a site is held to: it reads, is seen, answers, is ours, stays in its reach, holds, and tells itself apart to other eyes. */
export const PROOF_KINDS = ['reads', 'seen', 'answers', 'ours', 'inside', 'holds', 'eyes'] as const;
export type ProofKind = (typeof PROOF_KINDS)[number];

/** How grave a finding is. */
export type ProofLevel = 'fails' | 'look';

/** One place where a cause shows. */
export interface ProofPlace extends Spot {
  /** Pseudo-element without colons; `''` for the element. */
  readonly pseudo: string;
  /** Property by which it shows. */
  readonly property: string;
  /** Which of several in one value, from 0: gradient stops, shadows; 0 where there is one. */
  readonly index: number;
  readonly state: ProofState;
  readonly setting: Setting;
  readonly lighting: Lighting;
  /** Part it stands in; `null` outside all. */
  readonly partId: number | null;
}

/** What a finding is measured in. */
export type FigureUnit = 'ratio' | 'deltaE' | 'none';

/** One cause with all its places. */
export interface ProofFinding {
  /** The same from run to run as long as the cause is. */
  readonly id: string;
  readonly kind: ProofKind;
  readonly level: ProofLevel;
  /** What is wrong, in a few words: `Placeholder on its field`. */
  readonly title: Message;
  /** What the figure was computed from, in a sentence. */
  readonly basis: Message;
  /** The worst of all its places; `null` where nothing is measured. */
  readonly figure: number | null;
  /** What is asked for; `null` where nothing is measured. */
  readonly needed: number | null;
  readonly unit: FigureUnit;
  /** The worst first; each place once, in the setting and lighting where it is worst. */
  readonly places: readonly ProofPlace[];
  /** States, widths in px and lightings in which it shows. */
  readonly states: readonly ProofState[];
  readonly widths: readonly number[];
  readonly lightings: readonly Lighting[];
  readonly mend: MendIdea | null;
}

/** How a cause might be mended; what it comes to is tried on the site before it is offered. */
export type MendIdea =
  /** Another colour for a longhand, held against what it is read or seen on. */
  | {
      readonly kind: 'recolour';
      readonly property: string;
      readonly ink: string;
      readonly grounds: readonly string[];
      readonly job: Job;
      /** CSS of the colour that stands second in the same value, as a scrollbar's track does; absent where there is none. */
      readonly beside?: string;
    }
  /** Something between a text and the picture under it, whose darkest and lightest pixels are given as hex. */
  | { readonly kind: 'over-picture'; readonly ink: string; readonly under: readonly string[] }
  /** Nearest colour of the brand. */
  | { readonly kind: 'nearest'; readonly property: string; readonly hex: string; readonly job: Job }
  /** A plain value. */
  | { readonly kind: 'set'; readonly values: Readonly<Record<string, OverrideValue>>; readonly label: Message }
  /** A ring of its own, in the first of the roles that can be seen around it. */
  | { readonly kind: 'ring' }
  /** The brand's step from rest, as the Bench fills a state. */
  | { readonly kind: 'step' }
  /** Overrides that are not needed. */
  | { readonly kind: 'drop'; readonly overrides: readonly string[] }
  /** Overrides whose selectors are written anew. */
  | { readonly kind: 'rewrite'; readonly overrides: readonly string[] };

/** Figures of one part in one group. */
export interface ProofCell {
  readonly partId: number | null;
  readonly kind: ProofKind;
  /** Things held against what is asked. */
  readonly looks: number;
  readonly fails: number;
  readonly toLookAt: number;
}

/** What was not looked at, with the reason. */
export interface Unseen {
  readonly what: Message;
  readonly reason: Message;
}

/** What a whole look at a site comes to. */
export interface Proof {
  /** Grave ones first, then those with more places. */
  readonly findings: readonly ProofFinding[];
  readonly cells: readonly ProofCell[];
  readonly looks: number;
  /** Captured pages. */
  readonly pages: number;
  /** Whether the specimen was looked at beside them. */
  readonly hasSpecimen: boolean;
  readonly states: readonly ProofState[];
  readonly settings: readonly Setting[];
  readonly lightings: readonly Lighting[];
  readonly unseen: readonly Unseen[];
  /** Elements that exceptions leave alone. */
  readonly leftAlone: number;
}
