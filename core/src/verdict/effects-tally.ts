import type { OverrideState, Spot } from '../veneer/override.js';
import type { StateLook } from './state-looks.js';
import { type Legibility } from './legibility.js';

/** What is gathered over all pages. */
export interface EffectsTally {
  readonly missed: Map<string, Spot>;
  readonly spill: Map<string, Spot>;
  readonly spillWords: Set<string>;
  readonly states: Set<OverrideState>;
  readonly looks: StateLook[];
  readonly legibility: Legibility;
  readonly silenced: Map<string, { before: string; spots: Map<string, Spot> }>;
  reached: number;
  compared: number;
  elements: number;
}
